import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { floorSignatureWords } from "../words";
import {
  entrySchema,
  floorFromTemplate,
  foldFloor,
  initialsOf,
  ruleFloor,
  signingProblems,
  type FloorEntry,
  type StoredFloorEntry,
} from ".";

const exercise = floorFromTemplate({
  title: "Dovetail clamp, first side",
  machine: "mill",
  machineNumber: "2",
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
const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const at = (n: number, entry: FloorEntry, atMs = n): StoredFloorEntry => ({
  id: id(n),
  atMs,
  by: "Corin Marrow",
  entry: entrySchema.parse(entry),
});
const set = (register: string, mm: number): FloorEntry => ({ type: "register", register, mm });
const check = (register: string, mm: number, uMm = 0.003): FloorEntry => ({
  type: "check",
  register,
  method: "second touch",
  mm,
  uMm,
});
/** A setup that is whole, right and checked: X, Y and one length. */
const whole = [
  at(0, { type: "reading", register: "G54.x", mm: -1 }),
  at(1, set("G54.x", 5)),
  at(2, set("G54.y", 6)),
  at(3, set("H1", 7)),
  at(4, check("G54.x", 5)),
  at(5, check("G54.y", 6.001)),
  at(6, check("H1", 7)),
];
const all = whole.map((one) => one.id);
const signed = (saw = all): StoredFloorEntry => at(10, { type: "signedOff", saw });
const signature = (...entries: StoredFloorEntry[]) => foldFloor(exercise, entries).signature;

describe("the signature of a floor lane", () => {
  it("is of exactly what was seen, and counts it", () => {
    expect(signature(...whole)).toEqual({ state: "none" });
    expect(signature(...whole, signed())).toMatchObject({
      state: "given",
      by: "Corin Marrow",
      entries: 7,
      reason: null,
    });
    expect(floorSignatureWords(signature(...whole, signed()))).toBe("Signed by Corin Marrow, as it stands: 7 entries.");
  });

  it.each([
    ["a value set after it", at(11, set("H1", 7.5)), "the value in the control of H1 length was entered"],
    ["a value that came late", at(12, set("G54.y", 6), 1), "the value in the control of G54 Y was entered"],
    ["a reading", at(13, { type: "reading", register: "G54.x", mm: -1 }), "a reading of G54 X was entered"],
    ["a term", at(14, { type: "term", register: "H1", term: "paper", mm: -0.08 }), "a term of H1 length was entered"],
    ["a sum", at(15, { type: "sum", register: "H1", mm: 7 }), "the sum of H1 length was entered"],
    ["a check struck", at(16, { type: "struck", entry: id(6) }), "a check of H1 length was struck"],
    ["something struck", at(17, { type: "struck", entry: id(2) }), "the value in the control of G54 Y was struck"],
  ])("%s takes it back, by its name", (_, entry, changed) => {
    const found = signature(...whole, signed(), entry);
    expect(found).toMatchObject({ state: "withdrawn", changed: [changed] });
    expect(floorSignatureWords(found)).toBe(`Withdrawn by itself: since Corin Marrow signed, ${changed}.`);
  });

  it("what says nothing of the setup leaves it", () => {
    const beside = [
      at(11, { type: "cautionsRead" }),
      at(12, { type: "note", text: "asked about the paper" }),
      at(13, { type: "safetyNoted", text: "key left in the chuck", cost: 5 }),
      // a check more is the signer's own
      at(14, check("H1", 7.001)),
    ];
    expect(signature(...whole, signed(), ...beside).state).toBe("given");
  });

  it("folds the same in any order of arrival: nothing that comes late is overlooked", () => {
    const entries = [...whole, signed(), at(11, set("H1", 7.5), 2), at(12, { type: "struck", entry: id(1) })];
    const folded = signature(...entries);
    fc.assert(
      fc.property(fc.shuffledSubarray(entries, { minLength: entries.length }), (shuffled) => {
        expect(signature(...shuffled)).toEqual(folded);
      }),
    );
  });

  it("is taken back or sent back by hand, and given anew", () => {
    const back = at(11, { type: "signatureWithdrawn" });
    expect(signature(...whole, signed(), back)).toMatchObject({ state: "withdrawn", changed: [] });
    const sent = at(12, { type: "sentBack", word: "touch H1 again" });
    expect(signature(...whole, signed(), back, sent)).toMatchObject({ state: "sentBack", word: "touch H1 again" });
    const anew = at(13, { type: "signedOff", saw: all, reason: "as agreed" });
    expect(signature(...whole, signed(), sent, anew)).toMatchObject({ state: "given", reason: "as agreed" });
  });

  it("what becomes of checks once a lane is handed in takes nothing back", () => {
    const handedIn = at(11, { type: "handedIn" });
    expect(signature(...whole, signed(), handedIn, at(12, { type: "struck", entry: id(6) })).state).toBe("given");
  });

  it("of before its entries were named it is of what was there", () => {
    const old = at(10, { type: "signedOff", initials: "CM" });
    expect(signature(...whole, old)).toMatchObject({ state: "given", entries: 7 });
    expect(signature(...whole, old, at(11, set("H1", 7))).state).toBe("withdrawn");
  });

  it("has the first letters of whoever signs", () => {
    expect(initialsOf("Corin Marrow")).toBe("CM");
    expect(initialsOf("Ann-Mari van der Ahlbeck")).toBe("AMVD");
  });
});

describe("what stands in the way of signing", () => {
  const problems = (...entries: FloorEntry[]) =>
    signingProblems(foldFloor(exercise, [...whole, ...entries.map((entry, n) => at(20 + n, entry))])).map(
      ({ label, problem }) => `${label} ${problem}`,
    );
  it("nothing of a setup that is whole, right and checked", () => {
    expect(problems()).toEqual([]);
    expect(signingProblems(foldFloor(exercise, []))).toHaveLength(3);
  });
  it("a value that is missing or unchecked, checks that disagree or are too coarse, one outside its tolerance", () => {
    expect(problems({ type: "struck", entry: id(6) })).toEqual(["H1 length notChecked"]);
    expect(problems({ type: "struck", entry: id(1) })).toEqual(["G54 X notChecked"]);
    // 0.05 apart, each sure to 3 µm
    expect(problems(check("H1", 7.05))).toEqual(["H1 length checksDisagree"]);
    expect(problems({ type: "struck", entry: id(6) }, check("H1", 7.2, 0.3))).toEqual(["H1 length checkTooCoarse"]);
    expect(problems(set("G54.y", 6.05), check("H1", 7.05))).toEqual(["H1 length checksDisagree", "G54 Y reasonWanted"]);
  });
  it("and checks that decide nothing earn nothing, whatever the value", () => {
    const ruled = (...entries: FloorEntry[]) =>
      ruleFloor(foldFloor(exercise, [...whole, ...entries.map((entry, n) => at(20 + n, entry))])).values.find(
        ({ register }) => register.id === "H1",
      );
    expect(ruled()).toMatchObject({ verdict: "right" });
    expect(ruled(check("H1", 7.05))).toMatchObject({ verdict: "checksDisagree", marks: 0, explained: null });
    expect(ruled({ type: "struck", entry: id(6) }, check("H1", 7, 0.3))).toMatchObject({
      verdict: "checkTooCoarse",
      marks: 0,
    });
  });
});
