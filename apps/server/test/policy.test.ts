import { describe, expect, it } from "vitest";
import type { ClassView, MarkCell, MarksView, MyLanes } from "@probe-lane/contract";
import { byPolicy } from "../areas/marks/policy";
import { TestClient, testServer } from "./testServer";

const cell = (total: number, more: Partial<MarkCell> = {}): MarkCell => ({
  href: "/lanes/a/ruling",
  attempt: 1,
  total,
  ruled: null,
  outOf: 100,
  strands: [],
  at: "2026-11-30T09:15:00.000Z",
  isLate: false,
  isPassed: true,
  ...more,
});

describe("marks by the rules of a class", () => {
  it("as nobody said anything, are the ruling's, late or not", () => {
    for (const isLate of [false, true])
      expect(byPolicy(cell(12.3, { isLate }), { passPercent: 0, latePercent: 100 })).toEqual(cell(12.3, { isLate }));
  });
  it("of a late lane count in part, in tenths, with what was ruled beside; in time they count whole", () => {
    const policy = { passPercent: 0, latePercent: 75 };
    expect(byPolicy(cell(85.5, { isLate: true }), policy)).toMatchObject({ total: 64.1, ruled: 85.5 });
    expect(byPolicy(cell(85.5), policy)).toMatchObject({ total: 85.5, ruled: null });
    expect(byPolicy(cell(85.5, { isLate: true }), { passPercent: 0, latePercent: 0 })).toMatchObject({ total: 0 });
  });
  it("pass from the mark on, of what counts, and of what the lane is out of", () => {
    const policy = { passPercent: 60, latePercent: 75 };
    const isPassed = (total: number, more: Partial<MarkCell> = {}) => byPolicy(cell(total, more), policy).isPassed;
    expect([isPassed(59.9), isPassed(60), isPassed(60.1)]).toEqual([false, true, true]);
    // 80 of 100, three quarters of it counted: 60
    expect([isPassed(80, { isLate: true }), isPassed(79.8, { isLate: true })]).toEqual([true, false]);
    expect([isPassed(53.9, { outOf: 90 }), isPassed(54, { outOf: 90 })]).toEqual([false, true]);
  });
  it("never pass what missed a must-have", () => {
    expect(byPolicy(cell(100, { isPassed: false }), { passPercent: 0, latePercent: 100 }).isPassed).toBe(false);
  });
});

describe("the rules of a class", () => {
  it("are said on its page and to its students, and its marks follow them; nonsense changes nothing", async () => {
    const server = await testServer();
    try {
      const instructor = await new TestClient(server).signIn("marrow");
      const student = await new TestClient(server).signIn("fennimore");
      const passed = async () => {
        const { students } = (await instructor.call<MarksView>("GET", "/marks")).body;
        const cells = students.find(({ name }) => name === "Pelham Fennimore")?.cells ?? {};
        return Object.values(cells).flatMap(({ best }) => (best ? [[Math.round(best.total), best.isPassed]] : []));
      };
      const before = await passed();
      expect(before.length).toBeGreaterThan(0);
      const best = Math.max(...before.map(([total]) => Number(total)));
      expect(
        (await instructor.call("PUT", "/class/policy", { passPercent: 100, latePercent: 50, lapseMonths: 6 })).status,
      ).toBe(204);
      expect((await instructor.call<ClassView>("GET", "/class")).body.policy).toEqual({
        passPercent: 100,
        latePercent: 50,
        lapseMonths: 6,
      });
      expect((await student.call<MyLanes>("GET", "/lanes")).body.policy.passPercent).toBe(100);
      expect(best).toBeLessThan(100);
      expect((await passed()).every(([, isPassed]) => isPassed === false)).toBe(true);
      for (const nonsense of [
        { passPercent: 101, latePercent: 0, lapseMonths: 0 },
        { passPercent: 50, latePercent: 0, lapseMonths: 61 },
        { passPercent: 50, latePercent: 0 },
        {},
      ])
        expect((await instructor.call("PUT", "/class/policy", nonsense)).status).toBe(400);
      expect(
        (await student.call("PUT", "/class/policy", { passPercent: 0, latePercent: 100, lapseMonths: 0 })).status,
      ).toBe(403);
      await instructor.call("PUT", "/class/policy", { passPercent: 0, latePercent: 100, lapseMonths: 0 });
      expect(await passed()).toEqual(before);
    } finally {
      await server.close();
    }
  });
});
