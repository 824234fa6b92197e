import type { Ruling } from "@probe-lane/core/grading";
import type { SkillId, Stand } from "@probe-lane/core/skills";
import { whyWords } from "@probe-lane/core/words";
import { describe, expect, it } from "vitest";
import type { RulingView, StandingsView } from "@probe-lane/contract";
import { RulingBook } from "../areas/lanes/rulingBook";
import { byStand, lapsing, skillRows } from "../areas/skills/service";
import { TestClient, testServer } from "./testServer";

const day = (text: string) => new Date(`${text}T09:00:00Z`);
const showing = (at: string, isGood: boolean, machine: string | null = null) => ({
  href: `/lanes/${at}/ruling`,
  title: "Focuser plate",
  machine,
  at: day(at),
  shown: [{ skill: "edge" as const, isGood, lost: 0 }],
});
const edge = (rows: ReturnType<typeof skillRows>) => rows.find(({ skill }) => skill === "edge");

describe("where skills stand", () => {
  const never = lapsing({ lapseMonths: 0 }, day("2030-01-01"));
  it("a bench lane and a real machine count alike, in the order in which they were handed in", () => {
    const rows = skillRows([showing("2026-03-02", true, "mill 3"), showing("2026-02-02", true)], never);
    expect(edge(rows)).toMatchObject({ stand: "mastered", isLapsed: false });
    expect(edge(rows)?.shown.map(({ machine }) => machine)).toEqual([null, "mill 3"]);
    expect(edge(skillRows([showing("2026-03-02", false, "mill 3"), showing("2026-02-02", true)], never))?.stand).toBe(
      "notYet",
    );
    expect(edge(skillRows([], never))).toMatchObject({ stand: "untried", isLapsed: false });
  });
  it("what was shown lapses when its months are over, by the newest; what is not yet there cannot", () => {
    const on = (now: string) => lapsing({ lapseMonths: 6 }, day(now));
    const once = [showing("2026-01-31", true)];
    // half a year after the last of January is the last of July
    expect(edge(skillRows(once, on("2026-07-31")))?.isLapsed).toBe(false);
    expect(edge(skillRows(once, on("2026-08-01")))?.isLapsed).toBe(true);
    expect(edge(skillRows([...once, showing("2026-05-04", true)], on("2026-08-01")))?.isLapsed).toBe(false);
    expect(edge(skillRows([...once, showing("2026-01-31", false)], on("2026-08-01")))?.isLapsed).toBe(false);
    expect(edge(skillRows(once, never))?.isLapsed).toBe(false);
  });
});

it("what has lapsed is practiced before what was never tried, and says why", () => {
  const row = (skill: SkillId, stand: Stand, isLapsed: boolean) => ({ skill, stand, isLapsed });
  const wanted = byStand([
    row("edge", "mastered", true),
    row("round", "mastered", false),
    row("turn", "notYet", false),
  ]);
  expect(wanted.slice(0, 3)).toEqual([
    { skill: "turn", why: { stand: "notYet" } },
    { skill: "edge", why: { isLapsed: true } },
    { skill: "safety", why: { stand: "untried" } },
  ]);
  expect(whyWords({ isLapsed: true })).toBe("it was shown so long ago that it wants to be seen again");
});

describe("who can do what", () => {
  it("is told of every student of the class, and follows marks that are given beside a ruling", async () => {
    const server = await testServer();
    try {
      const instructor = await new TestClient(server).signIn("marrow");
      const told = async () => (await instructor.call<StandingsView>("GET", "/standings")).body;
      const of = async (name: string) => (await told()).students.find((one) => one.name === name);
      const before = await told();
      expect(before.lapseMonths).toBe(0);
      expect(before.skills.length).toBeGreaterThan(5);
      const quill = await of("Jasper Quillfeather");
      expect(quill?.skills.safety).toMatchObject({ stand: "mastered", isLapsed: false });
      // the same as on the page of that student alone
      const alone = await instructor.call<{ skills: { skill: string; stand: string; shown: { href: string }[] }[] }>(
        "GET",
        `/students/${quill?.id}/skills`,
      );
      const tried = alone.body.skills.filter(({ shown }) => shown.length > 0);
      expect(Object.fromEntries(tried.map(({ skill, stand }) => [skill, stand]))).toEqual(
        Object.fromEntries(Object.entries(quill?.skills ?? {}).map(([skill, { stand }]) => [skill, stand])),
      );
      // what an instructor gives beside the newest ruling is read anew
      const href = tried.find(({ skill }) => skill === "safety")?.shown.at(-1)?.href ?? "";
      const lane = href.replace("/lanes/", "").replace("/ruling", "");
      expect((await instructor.call<RulingView>("GET", `/lanes/${lane}/ruling`)).status).toBe(200);
      const given = { strand: "safety", marks: 0, reason: "a hand where it should not have been" };
      expect((await instructor.call("POST", `/lanes/${lane}/overrides`, given)).status).toBeLessThan(300);
      expect((await of("Jasper Quillfeather"))?.skills.safety?.stand).toBe("notYet");
    } finally {
      await server.close();
    }
  });
  it("reads a ruling once, until the lane has another", async () => {
    const read: string[] = [];
    let tag = "first 0";
    const store = {
      rulingTags: (ids: readonly string[]) => Promise.resolve(new Map(ids.map((id) => [id, tag]))),
      rulingOf: (id: string) => Promise.resolve(id === "gone" ? null : ({ total: 7 } as Ruling)),
    };
    const book = new RulingBook(store, ({ total }) => {
      read.push(total === 7 ? tag : "?");
      return total;
    });
    expect(await book.readIn(["a", "b", "gone"])).toEqual(
      new Map([
        ["a", 7],
        ["b", 7],
      ]),
    );
    await book.readIn(["a", "b"]);
    expect(read).toEqual(["first 0", "first 0"]);
    tag = "first 1";
    await book.readIn(["b"]);
    expect(read).toEqual(["first 0", "first 0", "first 1"]);
  });
});
