import { describe, expect, it } from "vitest";
import { interpret, readProgram, type Dialect, type Move, type RunOptions } from "./index";

function movesOf(text: string, dialect: Dialect, options: Partial<RunOptions> = {}): Move[] {
  const zero = dialect === "mill" ? [0, 0, 0] : [0, 0];
  const registers = { at: zero, home: zero, offset: () => zero };
  return [
    ...interpret(readProgram(text, dialect), { startUnits: "mm", registers, isExpanding: true, ...options }),
  ].flatMap((step) => (step.type === "move" ? [step] : []));
}
const told = (moves: readonly Move[]) =>
  moves.map(({ kind, to }) => `${kind} ${to.map((value) => Math.round(value * 1000) / 1000).join(" ")}`);

describe("pecks of a mill", () => {
  it("G83 comes out to R after each peck and is fed again from half a millimetre over the last", () => {
    const moves = movesOf("G0 Z10\nG99 G83 X5 Y6 Z-7 R2 Q4 F100", "mill");
    expect(told(moves).slice(1)).toEqual([
      "rapid 5 6 10",
      "rapid 5 6 2",
      "feed 5 6 -2",
      "rapid 5 6 2",
      "rapid 5 6 -1.5",
      "feed 5 6 -6",
      "rapid 5 6 2",
      "rapid 5 6 -5.5",
      "feed 5 6 -7",
      "rapid 5 6 2",
    ]);
  });

  it("G73 goes back by half a millimetre only; a program in inches by as much", () => {
    const moves = movesOf("G20\nG0 Z1\nG98 G73 X0 Y0 Z-.3 R0 Q.2 F5", "mill", { figures: "mm" });
    expect(told(moves).slice(1)).toEqual([
      "rapid 0 0 25.4",
      "rapid 0 0 0",
      "feed 0 0 -5.08",
      "rapid 0 0 -4.58",
      "feed 0 0 -7.62",
      "rapid 0 0 25.4",
    ]);
  });

  it("without passes a cycle is its outline, as it is listed", () => {
    expect(movesOf("G0 Z10\nG83 X0 Y0 Z-7 R2 Q4 F100", "mill", { isExpanding: false })).toHaveLength(5);
  });

  it("pecks without end are ended", () => {
    const text = "G0 Z10\nG83 X0 Y0 Z-70 R2 Q.0000001 F100";
    const steps = [...interpret(readProgram(text, "mill"), { startUnits: "mm", isExpanding: true })];
    expect(steps.at(-1)).toMatchObject({ type: "wrong", code: "endless" });
  });
});

describe("passes of a lathe", () => {
  const SHAPE = "N10 G0 X20\nN20 G1 Z-10\nN30 X40 Z-20";

  it("G71 takes one depth after another up to the outline, less what is left, and goes along it last", () => {
    const text = `G0 X40 Z2\nG71 U4 R1\nG71 P10 Q30 U1 W.2 F.2\n${SHAPE}\nM30`;
    const moves = movesOf(text, "lathe");
    expect(told(moves).slice(1)).toEqual([
      // from radius 20 to 10.5: 16, 12, 10.5; the slope runs from (10.5, -9.8) to (20.5, -19.8)
      "rapid 32 2",
      "feed 32 -15.3",
      "feed 34 -14.3",
      "rapid 34 2",
      "rapid 24 2",
      "feed 24 -11.3",
      "feed 26 -10.3",
      "rapid 26 2",
      "rapid 21 2",
      "feed 21 -9.8",
      "feed 23 -8.8",
      "rapid 23 2",
      "rapid 21 2",
      "feed 21 2.2",
      "feed 21 -9.8",
      "feed 41 -19.8",
      "rapid 40 -19.8",
      "rapid 40 2",
    ]);
    expect(moves.every(({ line, kind }) => line === 1 || (line === 3 && (kind === "rapid" || kind === "feed")))).toBe(
      true,
    );
  });

  it("G72 does the same across: levels of Z, fed toward the axis", () => {
    const text = "G0 X40 Z0\nG72 W3 R.5\nG72 P10 Q20 F.2\nN10 G0 Z-5\nN20 G1 X20\nN30 X40\nM30";
    expect(told(movesOf(text, "lathe")).slice(1, 5)).toEqual([
      "rapid 40 -3",
      "feed 20 -3",
      "feed 21 -2.5",
      "rapid 40 -2.5",
    ]);
  });

  it("G70 follows, and nothing that the roughing looked at holds on", () => {
    const text = `G0 X40 Z2\nG71 U4 R1\nG71 P10 Q30 F.2\n${SHAPE.replace("N20 G1", "N20 G1 F.05")}\nG1 X39\nG70 P10 Q30`;
    const moves = movesOf(text, "lathe");
    const after = moves.findIndex(({ line }) => line === 7);
    expect(moves[after]).toMatchObject({ to: [39, 2], feed: { value: 0.2 } });
    expect(told(moves.slice(after + 1))).toEqual(["rapid 20 2", "feed 20 -10", "feed 40 -20", "rapid 39 2"]);
  });

  it("G73 repeats the outline nearer each time", () => {
    const text = "G0 X50 Z5\nG73 U3 W0 R2\nG73 P10 Q20 F.2\nN10 G0 X20 Z2\nN20 G1 Z-8\nM30";
    expect(told(movesOf(text, "lathe")).slice(1)).toEqual([
      "rapid 26 2",
      "feed 26 -8",
      "rapid 56 -8",
      "rapid 50 5",
      "rapid 20 2",
      "feed 20 -8",
      "rapid 50 -8",
      "rapid 50 5",
    ]);
  });

  it("G74 pecks along Z, G75 across it at every level; P and Q are least steps", () => {
    expect(told(movesOf("G0 X0 Z2\nG74 R1\nG74 Z-7 Q5000 F.1", "lathe")).slice(1)).toEqual([
      "rapid 0 2",
      "feed 0 -3",
      "rapid 0 -2",
      "feed 0 -7",
      "rapid 0 2",
      "rapid 0 2",
    ]);
    const fed = movesOf("G0 X42 Z-10\nG75 R.5\nG75 X36 Z-15 P1500 Q2000 F.06", "lathe").filter(
      ({ kind }) => kind === "feed",
    );
    expect(told(fed)).toEqual([-10, -12, -14, -15].flatMap((z) => [`feed 39 ${z}`, `feed 36 ${z}`]));
  });

  it("G76 takes chips of one area, then what is left for the last passes", () => {
    const text = "G0 X32 Z5\nG76 P020060 Q80 R.04\nG76 X27 Z-16 P920 Q250 F1.5";
    const depths = movesOf(text, "lathe")
      .filter(({ kind }) => kind === "feed")
      .map(({ to: [x = 0] }) => Math.round((27 / 2 + 0.92 - x / 2) * 1000) / 1000);
    // 0.25 √n, at least 0.08 more each: 0.25 0.354 0.434 0.514 … to 0.88, then 0.9 and 0.92
    expect(depths.slice(0, 4)).toEqual([0.25, 0.354, 0.434, 0.514]);
    expect(depths.slice(-3)).toEqual([0.88, 0.9, 0.92]);
  });

  it("a depth of none is asked for, and an outline in itself is told", () => {
    const wrong = (text: string) =>
      [...interpret(readProgram(text, "lathe"), { startUnits: "mm", isExpanding: true })].at(-1);
    expect(wrong(`G0 X40 Z2\nG71 P10 Q30 F.2\n${SHAPE}`)).toMatchObject({ type: "wrong", code: "word-missing" });
    expect(wrong("G0 X40 Z2 F1\nG71 U1\nN10 G1 X20\nG71 P10 Q30\nN30 G1 Z-9")).toMatchObject({
      type: "wrong",
      code: "nesting",
    });
  });
});
