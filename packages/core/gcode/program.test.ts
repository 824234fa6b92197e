import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Dialect, interpret, listMoves, readProgram } from ".";

const mm = { startUnits: "mm" } as const;
const moves = (text: string, dialect: Dialect = "mill", more = {}) => {
  const listing = listMoves(text, dialect, { ...mm, ...more });
  if ("errors" in listing) throw new Error(JSON.stringify(listing.errors));
  return listing.moves;
};
const ends = (text: string, dialect: Dialect = "mill") => moves(text, dialect).map(({ to }) => to);
const errors = (text: string, dialect: Dialect = "mill", more = {}) => {
  const listing = listMoves(text, dialect, { ...mm, ...more });
  return "errors" in listing ? listing.errors.map(({ line, code }) => `${line} ${code}`) : [];
};

describe("reading", () => {
  it("takes any case, spaces and comments anywhere, and a page's minus", () => {
    expect(ends("g0 x 1 2 . 5 (to here) y−3;and no farther\nz.5")).toEqual([
      [12.5, -3, null],
      [12.5, -3, 0.5],
    ]);
  });
  it("names the line, the column and what stands there, one a line, and reads on", () => {
    const { diagnostics } = readProgram("G0 X1\nG0 A5\nG201 X1\nX1 X2\nG54 G55\nX[1+2\nWHILE [#1 LT 2] DO1", "mill");
    expect(diagnostics.map(({ line, column, code, said }) => `${line}:${column} ${code} ${said}`)).toEqual([
      "2:4 unknown-letter A",
      "3:1 unknown-code G201",
      "4:4 word-twice X",
      "5:5 two-of-a-group G55",
      "6:6 bracket ",
      "7:1 loop ",
    ]);
  });
  it("stops at the second percent sign", () => {
    expect(ends("%\nG0 X1\n%\nG0 X2 A9")).toEqual([[1, null, null]]);
  });
  it("lets coolants stand together, and nothing with their end", () => {
    expect(errors("M7 M8")).toEqual([]);
    expect(errors("M8 M9")).toEqual(["1 two-of-a-group"]);
    expect(errors("M9 M7")).toEqual(["1 two-of-a-group"]);
  });
  it("tells a lathe's diameter and step apart, and refuses both at once", () => {
    expect(ends("G0 X40 Z2\nU-6 W-1", "lathe")).toEqual([
      [40, 2],
      [34, 1],
    ]);
    expect(errors("G0 X40 U2", "lathe")).toEqual(["1 word-twice"]);
  });
});

describe("running", () => {
  it("an arc by its radius is the short one, by a negative radius the long one", () => {
    // a quarter of radius 5 from (0, 0) to (5, 5): clockwise about (5, 0), counter-clockwise about (0, 5)
    const center = (code: string, r: number) =>
      moves(`G0 X0 Y0 Z0\n${code} X5 Y5 R${r} F100`)
        .at(-1)
        ?.center?.map((v) => Math.round(v * 1e9) / 1e9);
    expect(center("G2", 5)).toEqual([5, 0]);
    expect(center("G3", 5)).toEqual([0, 5]);
    expect(center("G2", -5)).toEqual([0, 5]);
  });
  it("a lathe's arc is round in radii: 10 of diameter are 5 of radius", () => {
    expect(moves("T0101\nG0 X20 Z0\nG3 X30 Z-5 R5 F.1", "lathe").at(-1)?.center?.map(Math.round)).toEqual([20, -5]);
  });
  it("a cycle goes back to where Z stood when it was called, or to R", () => {
    const text = (back: string) => `G0 X0 Y0 Z20\n${back} G81 X5 Y5 Z-8 R2 F100\nX9\nG80`;
    expect(ends(text("G98")).map(([, , z]) => z)).toEqual([20, 20, 2, -8, 20, 20, 2, -8, 20]);
    expect(ends(text("G99")).map(([, , z]) => z)).toEqual([20, 20, 2, -8, 2, 2, 2, -8, 2]);
  });
  it("inches are turned into the unit that it starts in, feeds too", () => {
    expect(moves("G20\nG1 X1 F10").at(0)).toMatchObject({ to: [25.4, null, null], feed: { value: 254, per: "min" } });
  });
  it("variables, loops and calls do what they say", () => {
    expect(ends("#1=0\nWHILE [#1 LT 3] DO1\nG0 X[#1*10]\n#1=#1+1\nEND1")).toEqual([
      [0, null, null],
      [10, null, null],
      [20, null, null],
    ]);
    const programs = (number: number) => (number === 9 ? "G0 X#24 Y#25\nM99" : null);
    expect(moves("G65 P9 X4 Y[2+3] L2", "mill", { programs }).map(({ to }) => to)).toEqual([
      [4, 5, null],
      [4, 5, null],
    ]);
    // one that stands in the same text
    expect(ends("M98 P77\nM30\nO77\nG0 X3\nM99")).toEqual([[3, null, null]]);
  });
  it("an empty text that is called a thousand million times ends", () => {
    expect(moves("M98 P5 L999999999\nG0 X1", "mill", { programs: () => "" }).length).toBe(1);
  });
  it("EQ tells an empty variable from zero, LT does not", () => {
    expect(ends("IF [#1 EQ 0] GOTO 9\nG0 X1\nN9 G0 Y1").length).toBe(2);
    expect(ends("IF [#1 LT 1] GOTO 9\nG0 X1\nN9 G0 Y1").length).toBe(1);
  });
  it.each([
    ["G1 X5", "1 feed-missing"],
    ["M6", "1 tool-missing"],
    ["G43 Z5", "1 offset-row-missing"],
    ["G0 X0 Y0 Z0\nG2 X5 F9", "2 arc-without-center"],
    ["G0 X0 Y0 Z0\nG2 X20 R9.9 F9", "2 arc-radius"],
    ["G2 X5 R9 F9", "1 position-unknown"],
    ["G0 Z5\nG81 X1 Y1 Z2 R1 F9", "2 cycle-levels"],
    ["G0 Z5\nG81 X1 Y1 Z-2 F9", "2 word-missing"],
    ["GOTO 5", "1 target-missing"],
    ["N1 G4 P1\nGOTO 1", "2 endless"],
    ["M98 P1", "1 program-missing"],
    ["G0 X0 Y0 Z5\nG81 X1 Y1 Z-2 R1 F9 L999999999", "2 endless"],
    ["#1=1/0", "1 division-by-zero"],
    ["#1=SQRT[-1]", "1 value"],
    ["#200=1", "1 value"],
    ["G93\nG1 X1 F2\nX2", "3 feed-missing"],
  ])("%j is told as %s", (text, told) => expect(errors(text)).toEqual([told]));
});

describe("what holds for any program", () => {
  const axis = fc.integer({ min: -200, max: 200 }).map((v) => v / 4);
  const line = fc.record({ x: axis, y: axis, z: axis, isRapid: fc.boolean() });
  const program = fc.array(line, { minLength: 1, maxLength: 25 });
  const print = (lines: readonly { x: number; y: number; z: number; isRapid: boolean }[]) =>
    ["T1 M6", "F100", ...lines.map(({ x, y, z, isRapid }) => `${isRapid ? "G0" : "G1"} X${x} Y${y} Z${z}`)].join("\n");

  it("printed back and read again it makes the same moves", () => {
    fc.assert(
      fc.property(program, (lines) => {
        const first = moves(print(lines));
        const again = first.map(({ kind, to: [x, y, z] }) => ({
          x: x ?? 0,
          y: y ?? 0,
          z: z ?? 0,
          isRapid: kind === "rapid",
        }));
        expect(moves(print(again))).toEqual(first);
      }),
    );
  });
  it("written in steps it goes the same way", () => {
    fc.assert(
      fc.property(program, (lines) => {
        let at = { x: 0, y: 0, z: 0 };
        const steps = lines.map((one) => {
          const text = `${one.isRapid ? "G0" : "G1"} X${one.x - at.x} Y${one.y - at.y} Z${one.z - at.z}`;
          at = one;
          return text;
        });
        const text = ["T1 M6", "F100", "G0 X0 Y0 Z0", "G91", ...steps].join("\n");
        expect(
          moves(text)
            .slice(1)
            .map(({ to }) => to),
        ).toEqual(moves(print(lines)).map(({ to }) => to));
      }),
    );
  });
  const piece = fc.oneof(
    fc.constantFrom(
      ..."GMXYZIJKRFTHDPQLNOSUW#[]()/%;+-*.=\n ",
      "G0",
      "G1",
      "G2",
      "G81",
      "G65P1",
      "M98P1",
      "M99",
      "#1=",
      "END1",
    ),
    fc.constantFrom(
      "WHILE[#1LT5]DO1",
      "IF[#2EQ0]GOTO1",
      "GOTO1",
      "N1",
      "G68X0Y0R30",
      "G28X0",
      "G70P1Q2",
      "G71U1R1",
      "G71P1Q2",
      "G73P1Q2",
      "G75X1Z1P9Q9",
      "G76X1Z1P9Q9",
      "N2",
      "SQRT[",
      "ATAN[",
    ),
    fc.integer({ min: -999, max: 999 }).map(String),
    fc.string({ maxLength: 4 }),
  );
  const nonsense = fc.array(piece, { maxLength: 30 }).map((parts) => parts.join(""));
  it("reading and running any text throws nothing and ends", () => {
    const programs = (number: number) => (number === 1 ? "G0X#1\n#1=#1+1\nM99" : null);
    fc.assert(
      fc.property(nonsense, fc.constantFrom<Dialect>("mill", "lathe"), fc.boolean(), (text, dialect, isExpanding) => {
        const steps = [...interpret(readProgram(text, dialect), { ...mm, programs, stepLimit: 200, isExpanding })];
        const last = steps.at(-1)?.type;
        expect(["end", "wrong"]).toContain(last);
      }),
      { numRuns: 20_000 },
    );
  });
});
