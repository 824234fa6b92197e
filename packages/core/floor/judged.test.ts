import { describe, expect, it } from "vitest";
import { floorValueWords } from "../words";
import {
  entrySchema,
  floorFromTemplate,
  floorGatesOf,
  foldFloor,
  lateMinutes,
  ruleFloor,
  signingProblems,
  type FloorEntry,
} from ".";

const exercise = floorFromTemplate({
  title: "Dovetail clamp, first side",
  machine: "mill",
  unit: "mm",
  datum: "front left",
  school: "part-touch",
  asksNose: false,
  tools: 1,
  readingsNeeded: 1,
  tipDiameterMm: 10,
  edgeXMm: 0,
  edgeYMm: 0,
  paperMm: 0.08,
  blockMm: 0.08,
  skinMm: 0,
  toleranceXyMm: 0.02,
  toleranceZMm: 0.02,
});
const ids = exercise.registers.map((one) => one.id);
const lane = (...entries: FloorEntry[]) =>
  foldFloor(
    exercise,
    entries.map((entry, n) => ({
      id: `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`,
      atMs: n,
      by: n < ids.length ? "Edda Marlpit" : "Corin Marrow",
      entry: entrySchema.parse(entry),
    })),
  );
const held = ids.map((register, n): FloorEntry => ({ type: "register", register, mm: -100 - n }));
const within = ids.map((register, n): FloorEntry => ({ type: "judgedWithin", register, mm: -100 - n }));
const valueOf = (state: ReturnType<typeof lane>, n: number) => {
  const [value] = ruleFloor(state).values.filter(({ register }) => register.id === ids[n]);
  if (!value) throw new Error("no value");
  return value;
};

describe("a value judged within its tolerance by a touch", () => {
  it("is checked, may be signed without a reason, and earns its marks; no figure of it is claimed", () => {
    const state = lane(...held, ...within);
    expect(floorGatesOf(state).find(({ name }) => name === "check")?.isPassed).toBe(true);
    expect(signingProblems(state)).toEqual([]);
    for (const value of ruleFloor(state).values)
      expect(value).toMatchObject({ verdict: "within", closureMm: null, explained: null, marks: 55 / ids.length });
    const { headline, body } = floorValueWords(valueOf(state, 0), (mm) => mm.toFixed(3));
    expect(headline).toBe("G54 X is within its tolerance.");
    expect(body).toBe("By the instructor’s own touch, tolerance ±0.020; no figure was taken.");
  });

  it("is of that value: another one in the control is not checked", () => {
    const state = lane(...held, ...within, { type: "register", register: ids[0] ?? "", mm: -100.4 });
    expect(signingProblems(state)).toEqual([{ label: "G54 X", problem: "notChecked" }]);
    expect(valueOf(state, 0)).toMatchObject({ verdict: "missing", marks: 0 });
    expect(valueOf(state, 1).verdict).toBe("within");
    // put back as it was, it is as it was judged
    const back = lane(
      ...held,
      ...within,
      { type: "register", register: ids[0] ?? "", mm: -100.4 },
      { type: "register", register: ids[0] ?? "", mm: -100 },
    );
    expect(signingProblems(back)).toEqual([]);
  });

  it("says nothing against a reading: where one was taken, that decides", () => {
    const check: FloorEntry = { type: "check", register: ids[0] ?? "", method: "probe", mm: -105, uMm: 0.002 };
    const state = lane(...held, ...within, check);
    expect(signingProblems(state)).toEqual([{ label: "G54 X", problem: "reasonWanted" }]);
    expect(valueOf(state, 0)).toMatchObject({ verdict: "wrong", closureMm: 5 });
  });

  it("taken back leaves it unchecked", () => {
    const state = lane(...held, ...within, {
      type: "struck",
      entry: `00000000-0000-4000-8000-${"3".padStart(12, "0")}`,
    });
    expect(ids).toHaveLength(3);
    expect(signingProblems(state)).toEqual([{ label: "G54 X", problem: "notChecked" }]);
  });

  it("takes no signature back when it is added, and does when it is struck", () => {
    const binding = lane(...held, ...within).binding;
    const signed: FloorEntry = { type: "signedOff", saw: [...binding] };
    const more = lane(...held, ...within, signed, { type: "judgedWithin", register: ids[0] ?? "", mm: -100 });
    expect(more.signature.state).toBe("given");
    const less = lane(...held, ...within, signed, { type: "struck", entry: binding.at(-1) ?? "" });
    expect(less.signature).toMatchObject({ state: "withdrawn", changed: ["a check of H1 length was struck"] });
  });
});

describe("what waited on a device", () => {
  const made = (register: string, atMs: number, receivedAtMs: number) => ({
    id: `00000000-0000-4000-8000-0000000000${20 + atMs / 60_000}`,
    atMs,
    receivedAtMs,
    by: "Edda Marlpit",
    entry: entrySchema.parse({ type: "register", register, mm: -1 }),
  });
  it("says how much later it came, where that is more than a moment", () => {
    expect(lateMinutes({ atMs: 0, receivedAtMs: 90_000 })).toBeNull();
    expect(lateMinutes({ atMs: 0 })).toBeNull();
    expect(lateMinutes({ atMs: 0, receivedAtMs: 28.4 * 60_000 })).toBe(28);
  });
  it("and takes a signature back by name, with its delay", () => {
    const first = made("G54.x", 60_000, 60_000);
    const signed = {
      id: "00000000-0000-4000-8000-000000000099",
      atMs: 5 * 60_000,
      by: "Corin Marrow",
      entry: entrySchema.parse({ type: "signedOff", saw: [first.id] }),
    };
    const late = made("G54.y", 3 * 60_000, 31 * 60_000);
    expect(foldFloor(exercise, [first, signed, late]).signature).toMatchObject({
      state: "withdrawn",
      changed: ["the value in the control of G54 Y was entered (on the device 28 minutes before it came)"],
    });
  });
});
