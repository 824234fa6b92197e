import { describe, expect, it } from "vitest";
import { nameFigure, oneDigitApart, slipOfKeys, writtenIn, type FigureQuestion, type Share } from "./figures";

const radius: Share = {
  term: "tipRadius",
  counts: 5000,
  slips: [
    { id: "radiusForgotten", counts: 0 },
    { id: "radiusSignTurned", counts: -5000 },
    { id: "diameterForRadius", counts: 10_000 },
  ],
};
const edgeWork: Share = {
  term: "edgeWork",
  counts: -12_000,
  slips: [
    { id: "edgeWorkForgotten", counts: 0 },
    { id: "edgeWorkSignTurned", counts: 12_000 },
  ],
};

/** A typed register at a contact of −300.000: −300.000 + 5.000 − 12.000 = −307.000 belongs. */
function asked(said: number, more: Partial<FigureQuestion> = {}): FigureQuestion {
  const shares = more.shares ?? [radius, edgeWork];
  const belongs = -300_000 + shares.reduce((sum, { counts }) => sum + counts, 0);
  return {
    delta: said - belongs,
    shares,
    others: [],
    keyed: { said, belongs },
    addedCounts: null,
    isWholeRegister: true,
    written: null,
    ledger: { sourceCounts: -300_000, shares },
    ...more,
  };
}
const named = (question: FigureQuestion) => nameFigure(question).shares.map(({ id, counts }) => [id, counts] as const);

describe("a stated figure against the one that belongs", () => {
  it("is right within two counts, and what is left over is rounding", () => {
    expect(named(asked(-307_000))).toEqual([]);
    expect(named(asked(-307_002))).toEqual([["rounding", -2]]);
    expect(named(asked(-307_003))).toEqual([["otherFigure", -3]]);
  });
  it("by hand: −312.000 has no radius, −317.000 has it turned, −302.000 the whole diameter", () => {
    expect(named(asked(-312_000))).toEqual([["radiusForgotten", -5000]]);
    expect(named(asked(-317_000))).toEqual([["radiusSignTurned", -10_000]]);
    expect(named(asked(-302_000))).toEqual([["diameterForRadius", 5000]]);
  });
  it("two terms wrong at once add up: −300.000 has neither radius nor edge", () => {
    // −300.000 less −307.000 is +7.000: −5.000 for the radius, +12.000 for the edge
    expect(named(asked(-300_000))).toEqual([
      ["radiusForgotten", -5000],
      ["edgeWorkForgotten", 12_000],
    ]);
  });
  it("a term is left out or turned, never both: nothing is made of the same term twice", () => {
    // −5.000 and −10.000 of one radius would be −15.000
    expect(named(asked(-322_000))).toEqual([["otherFigure", -15_000]]);
  });
  it("what nothing names is said as it is, with both figures", () => {
    expect(nameFigure(asked(-306_263)).shares).toEqual([
      { id: "otherFigure", counts: 737, figure: { said: -306_263, belongs: -307_000 } },
    ]);
  });
  it("another way within three counts of it leaves the name open, with odds", () => {
    const others = [{ id: "neighborRow" as const, counts: -5003 }];
    const { ranked } = nameFigure(asked(-312_000, { others }));
    // 0.12 against 0.04 × e^(−½ (3 ÷ 1.5)²) = 0.0054
    expect(ranked?.map(({ ids }) => ids.join())).toEqual(["radiusForgotten", "neighborRow"]);
    expect(ranked?.[0]?.probability).toBeCloseTo(0.12 / (0.12 + 0.04 * Math.exp(-2)), 6);
    expect(nameFigure(asked(-312_000, { others: [{ id: "neighborRow", counts: -5006 }] })).ranked).toBeNull();
  });
});

describe("slips of the keys", () => {
  const slip = (said: number, belongs: number) => slipOfKeys(said, belongs)?.id ?? null;
  it("a sign that was turned, as it is read on the display", () => {
    expect(slip(250_780, -250_780)).toBe("wholeSignTurned");
    expect(slip(250_782, -250_780)).toBe("wholeSignTurned");
    expect(slip(250_783, -250_780)).toBeNull();
    expect(slip(0, 0)).toBeNull();
  });
  it("a point one place off, either way", () => {
    expect(slip(2508, 25_080)).toBe("decimalShifted");
    expect(slip(25_080, 2508)).toBe("decimalShifted");
    expect(slip(2509, 25_080)).toBe("decimalShifted");
    expect(slip(2510, 25_080)).toBeNull();
    expect(slip(0, 25_080)).toBeNull();
  });
  it("the other unit: 250.781 mm typed as 9.873, or 9.873 in as 250.781", () => {
    expect(slip(9873, 250_781)).toBe("inchForMm");
    expect(slip(250_774, 9873)).toBe("inchForMm");
    expect(slip(9880, 250_781)).toBeNull();
  });
  it("two neighboring digits, over the point and with a nought in front, and no others", () => {
    expect(slip(-21_340, -12_340)).toBe("digitsSwapped");
    // 12.340 typed as 13.240: the digits beside the point
    expect(slip(13_240, 12_340)).toBe("digitsSwapped");
    // 204.398 typed as 024.398
    expect(slip(-24_398, -204_398)).toBe("digitsSwapped");
    expect(slip(14_320, 12_340)).toBeNull();
    expect(slip(12_450, 12_340)).toBeNull();
  });
  it("one digit of tens or hundreds; a smaller one is told by a working only", () => {
    expect(slip(-357_000, -307_000)).toBe("digitMistyped");
    expect(slip(-407_000, -307_000)).toBe("digitMistyped");
    expect(slip(-309_000, -307_000)).toBeNull();
    expect(oneDigitApart(-309_000, -307_000, 1)).toBe(true);
    expect(oneDigitApart(-309_100, -307_000, 1)).toBe(false);
    expect(oneDigitApart(-30_700, -307_000, 1)).toBe(true);
  });
});

describe("what the ledger says of a figure", () => {
  const line = (kind: "reading" | "term" | "sum", counts: number, term?: "tipRadius" | "edgeWork" | "other") => ({
    line: 1,
    register: "G54.x" as const,
    kind,
    counts,
    ...(term ? { term } : {}),
  });
  const written = (...lines: ReturnType<typeof line>[]) => writtenIn(lines, ["G54.x"]);
  it("a term that stands there as it belongs was not left out, whatever the figure looks like", () => {
    const right = written(
      line("reading", -300_000),
      line("term", 5000, "tipRadius"),
      line("term", -12_000, "edgeWork"),
    );
    // the sum was worked out five short: the radius is in the lines
    expect(named(asked(-312_000, { written: right }))).toEqual([["otherFigure", -5000]]);
    const summed = written(
      line("reading", -300_000),
      line("term", 5000, "tipRadius"),
      line("term", -12_000, "edgeWork"),
      line("sum", -312_000),
    );
    expect(named(asked(-312_000, { written: summed }))).toEqual([["wrongSum", -5000]]);
  });
  it("a term under another name counts all the same", () => {
    const other = written(line("reading", -300_000), line("term", 5000, "other"), line("term", -12_000, "edgeWork"));
    expect(named(asked(-307_000, { written: other }))).toEqual([]);
    const turned = written(line("reading", -300_000), line("term", 5000, "other"), line("term", 12_000, "edgeWork"));
    expect(named(asked(-283_000, { written: turned }))).toEqual([["edgeWorkSignTurned", 24_000]]);
  });
  it("a working that is right makes one digit a slip of the finger; without it that is only likely", () => {
    const right = written(
      line("reading", -300_000),
      line("term", 5000, "tipRadius"),
      line("term", -12_000, "edgeWork"),
      line("sum", -307_000),
    );
    expect(named(asked(-309_000, { written: right }))).toEqual([["digitMistyped", -2000]]);
    expect(nameFigure(asked(-357_000, { written: right })).ranked).toBeNull();
    expect(nameFigure(asked(-357_000)).ranked?.map(({ ids }) => ids.join())).toEqual(["digitMistyped", "otherFigure"]);
  });
  it("a reading that is not the contact's is that, by so much", () => {
    const left = written(line("reading", -298_000), line("term", 5000, "tipRadius"), line("term", -12_000, "edgeWork"));
    expect(named(asked(-305_000, { written: left }))).toEqual([["otherReading", 2000]]);
    const others = [{ id: "capturedAfterLeaving" as const, counts: 2000, isReading: true }];
    expect(named(asked(-305_000, { written: left, others }))).toEqual([["capturedAfterLeaving", 2000]]);
  });
  it("of a middle the reading is the middle of both sides", () => {
    const both = [line("reading", -340_000), line("reading", -300_000)];
    expect(writtenIn(both, ["G54.x"], 2000)?.reading).toBe(-320_000);
    expect(writtenIn(both, ["G54.x"])?.reading).toBe(-300_000);
  });
});
