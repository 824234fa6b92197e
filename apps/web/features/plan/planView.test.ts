import { describe, expect, it } from "vitest";
import type { PlanRow } from "@probe-lane/contract";
import { dayWords, groupsOf, soughtIn, swapped, weeksOffered } from "./planView";

const row = (id: string, change: Partial<PlanRow> = {}): PlanRow => ({
  id,
  title: `Exercise ${id}`,
  story: "",
  machine: "mill",
  week: null,
  opensAt: null,
  dueAt: null,
  opens: null,
  due: null,
  late: "taken",
  attemptsAllowed: 5,
  isCoachOn: true,
  isGiven: true,
  mustHaves: null,
  markedOn: null,
  canMiss: ["checked", "notDeep"],
  lanes: 0,
  ...change,
});
const NOW = new Date(2026, 11, 9, 12);
const DAY = new Date(2026, 11, 20, 18).toISOString();

describe("the plan as it is read", () => {
  const rows = [
    row("shelf"),
    row("late", { week: 10 }),
    row("now", { week: 2, dueAt: DAY }),
    row("first", { week: 1 }),
    row("away", { isGiven: false, week: 2 }),
    row("day", { dueAt: DAY }),
    row("opening", { opensAt: DAY }),
  ];
  it("is weeks in their order, days of their own, the shelf, and last what is not given", () => {
    const groups = groupsOf({ startsOn: "2026-12-01", rows }, NOW);
    expect(groups.map(({ name, rows: of }) => [name, of.map(({ id }) => id).join()])).toEqual([
      ["Week 1", "first"],
      ["Week 2", "now"],
      ["Week 10", "late"],
      ["By a day of its own", "day,opening"],
      ["Practice shelf", "shelf"],
      ["Not given", "away"],
    ]);
    expect(groups.map(({ isNow }) => isNow)).toEqual([false, true, false, false, false, false]);
    expect(groups[1]?.note).toBe("this week · 8 Dec to 14 Dec · 1 exercise");
  });
  it("tells no days of weeks that nobody counts", () => {
    const [first] = groupsOf({ startsOn: null, rows }, NOW);
    expect(first).toMatchObject({ name: "Week 1", note: "1 exercise", isNow: false });
  });
  it("the week changes at midnight", () => {
    const isNow = (at: Date) => groupsOf({ startsOn: "2026-12-01", rows }, at).map((group) => group.isNow);
    expect(isNow(new Date(2026, 11, 7, 23, 59)).slice(0, 2)).toEqual([true, false]);
    expect(isNow(new Date(2026, 11, 8)).slice(0, 2)).toEqual([false, true]);
  });
});

describe("a row of the plan", () => {
  it("says when it opens and is due, and what late comes to; nothing where it is always open", () => {
    expect(dayWords(row("a"))).toEqual([]);
    expect(dayWords(row("a", { opens: DAY }))).toEqual(["opens Sun 20 Dec, 18:00"]);
    expect(dayWords(row("a", { due: DAY, late: "refused" }))).toEqual(["due Sun 20 Dec, 18:00", "late is refused"]);
  });
  it("is found by any words of its title or machine", () => {
    const rows = [row("a", { title: "Knob, first tool", machine: "turret" }), row("b", { title: "Knob plate" })];
    expect(soughtIn(rows, " KNOB turret ").map(({ id }) => id)).toEqual(["a"]);
    expect(soughtIn(rows, "")).toHaveLength(2);
    expect(soughtIn(rows, "anvil")).toEqual([]);
  });
  it("changes places with another and leaves the rest where it is", () => {
    expect(swapped([row("a"), row("b"), row("c")], "a", "c")).toEqual(["c", "b", "a"]);
  });
  it("may have a week later than those that are offered", () => {
    expect(weeksOffered(null)).toHaveLength(20);
    expect(weeksOffered(31).at(-1)).toBe(31);
  });
});
