import { describe, expect, it } from "vitest";
import { interpret, listMoves, readProgram, type Step } from ".";

const options = { startUnits: "mm" } as const;
const steps = (lines: readonly string[], startUnits: "mm" | "inch" = "mm"): Step[] => [
  ...interpret(readProgram(lines.join("\n"), "mill"), { startUnits }),
];
const gauge = (line: string, ...before: readonly string[]) =>
  steps([...before, line, "M30"]).find(({ type }) => type === "gauge" || type === "wrong");

const WAYS = [
  "N10 T1 M6",
  "N20 G1 X0 Y0 F100",
  "N30 G41 D1 X5",
  "N40 X9",
  "N50 G40 X0",
  "N60 X3",
  "N70 T2 M6",
  "N80 X4",
];

describe("a gauging that is called by a program", () => {
  it("says along what it gauges, which way is meant, how much of it is put right and what is too much", () => {
    expect(gauge("G65 P9501 J1. Q20 E50. W0.15", ...WAYS)).toMatchObject({
      type: "gauge",
      line: 9,
      cycle: "correct",
      axis: "y",
      // to where compensation is called off
      way: { first: 2, last: 5 },
      percent: 50,
      limit: 0.15,
    });
    expect(gauge("G65 P9501 K1. Q60 W0.1", ...WAYS)).toMatchObject({
      axis: "z",
      percent: 100,
      way: { first: 6, last: 6 },
    });
    // the last way has no end but the program's
    expect(gauge("G65 P9501 I1. Q80 W0.1", ...WAYS)).toMatchObject({ axis: "x", way: { first: 8, last: 10 } });
    expect(gauge("G65 P9502 J1. S12.02 A0.02")).toMatchObject({ cycle: "decide", size: 12.02, within: 0.02 });
    expect(gauge("G65 P9503 H2 B0.5")).toMatchObject({ cycle: "length", axis: null, row: 2, within: 0.5 });
  });

  it("in inches as the program stands in inches", () => {
    expect(gauge("G65 P9502 J1. S1. A0.001", "G20")).toMatchObject({ size: 25.4 });
  });

  it.each([
    ["G65 P9501 Q20 W0.1", "word-missing"],
    ["G65 P9501 I1. J1. Q20 W0.1", "word-missing"],
    ["G65 P9501 J1. W0.1", "word-missing"],
    ["G65 P9501 J1. Q20", "word-missing"],
    ["G65 P9501 J1. Q21 W0.1", "target-missing"],
    ["G65 P9502 J1. S12.", "word-missing"],
    ["G65 P9503 B1.", "word-missing"],
  ])("%s: %s", (line, code) => {
    expect(gauge(line, ...WAYS)).toMatchObject({ type: "wrong", code });
  });

  it("moves nothing in a list, and gives way to a program of that number", () => {
    const list = (lines: readonly string[]) => {
      const listed = listMoves(lines.join("\n"), "mill", options);
      return "moves" in listed ? listed.moves : listed.errors;
    };
    const moves = [...WAYS, "N90 X1", "M30"];
    const gauged = [...WAYS, "N90 X1 (G65)", "G65 P9501 J1. Q20 W0.1", "M30"];
    expect(list(gauged)).toEqual(list(moves));
    expect(list(moves)).toHaveLength(7);
    const own = ["G1 X0 Y0 F100", "G65 P9501 X7.", "M30", "O9501", "G1 X#24", "M99"];
    expect(steps(own).filter(({ type }) => type === "move")).toMatchObject([{ to: [0, 0, NaN] }, { to: [7, 0, NaN] }]);
  });

  it("is nothing that a lathe knows", () => {
    const [step] = [...interpret(readProgram("G65 P9501 J1. Q20 W0.1", "lathe"), options)];
    expect(step).toMatchObject({ type: "wrong", code: "program-missing" });
  });
});
