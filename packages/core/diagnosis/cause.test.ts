import { describe, expect, it } from "vitest";
import { causeOf, merged, worthNaming, type Provenance, type Term } from "./cause";

const method = { biasMm: 0.005, uMm: 0.002 };
const of = (terms: readonly Term[], ownMm: number, open: Provenance["open"] = null): Provenance => ({
  contact: null,
  terms,
  open,
  ownMm,
});

describe("the cause of a value that is off", () => {
  it("is proven by its terms, the largest first, and none below nine micrometres", () => {
    const terms: Term[] = [
      { id: "capturedAfterLeaving", mm: 0.0101, seq: 7 },
      { id: "radiusForgotten", mm: -3.0, seq: 9 },
      { id: "burr", mm: 0.0089, seq: 5 },
      { id: "rounding", mm: 0.01, seq: 9 },
    ];
    expect(worthNaming(terms).map(({ id }) => id)).toEqual(["radiusForgotten", "capturedAfterLeaving"]);
    expect(causeOf(of(terms, 0.005), method, 0.001)).toMatchObject({ kind: "proven" });
  });
  it("is none where nothing but the method's own error is left: six deviations and a click about its bias", () => {
    // 0.005 ± (6 × 0.002 + 0.001)
    const kind = (ownMm: number) => causeOf(of([], ownMm), method, 0.001).kind;
    expect(kind(0.0179)).toBe("none");
    expect(kind(0.0181)).toBe("unexplained");
    expect(kind(-0.0079)).toBe("none");
    expect(kind(-0.0081)).toBe("unexplained");
  });
  it("is inferred where a figure has several names; what is certain stands beside each", () => {
    const terms: Term[] = [
      { id: "radiusForgotten", mm: -5, seq: 9 },
      { id: "leftoverCommonZ", mm: 2, seq: 9 },
    ];
    const open = [
      { ids: ["radiusForgotten"], probability: 0.7 },
      { ids: ["neighborRow"], probability: 0.3 },
    ];
    expect(causeOf(of(terms, 0, open), method, 0.001)).toMatchObject({
      kind: "inferred",
      ranked: [
        { ids: ["leftoverCommonZ", "radiusForgotten"], probability: 0.7 },
        { ids: ["leftoverCommonZ", "neighborRow"], probability: 0.3 },
      ],
    });
  });
  it("what cancels is no term, and one thing is said once", () => {
    const terms: Term[] = [
      { id: "paperForgotten", mm: 0.06, seq: 4 },
      { id: "paperForgotten", mm: -0.06, seq: 4 },
      { id: "leftoverWorkZ", mm: 1, seq: 2 },
      { id: "leftoverWorkZ", mm: 2, seq: 2 },
      { id: "paperForgotten", mm: 0.06, seq: 5 },
    ];
    expect(merged(terms).map(({ id, mm }) => [id, mm])).toEqual([
      ["leftoverWorkZ", 3],
      ["paperForgotten", 0.06],
    ]);
  });
});
