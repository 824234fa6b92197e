import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  emptyMillRegisters,
  emptyTurret,
  millRegisterIds,
  readRegister,
  writeRegister,
  type RegisterId,
  type Registers,
} from "../registers";
import { scales, toCounts } from "../units";
import { exchangeIds, printG10, printTable, readRegisters } from ".";

const some = fc.array(
  fc.record({ id: fc.constantFrom(...millRegisterIds), counts: fc.integer({ min: -999_999, max: 999_999 }) }),
  { maxLength: 30 },
);

describe("registers out and in again", () => {
  for (const unit of ["mm", "inch"] as const) {
    it(`what is printed on a machine in ${unit} reads back the same, to the count, as a table and as a program`, () => {
      fc.assert(
        fc.property(some, (rows) => {
          const registers = rows.reduce((at, { id, counts }) => writeRegister(at, id, counts), emptyMillRegisters());
          for (const text of [printTable(registers, scales[unit]), printG10(registers, scales[unit])]) {
            const read = readRegisters(text, millRegisterIds, "mill", unit);
            if (read.some(({ problem }) => problem !== null)) return false;
            const back = read.reduce(
              (at, { register, mm }) =>
                writeRegister(at, register as (typeof millRegisterIds)[number], toCounts(mm ?? 0, scales[unit])),
              emptyMillRegisters(),
            );
            if (!millRegisterIds.every((id) => readRegister(back, id) === readRegister(registers, id))) return false;
          }
          return true;
        }),
        { numRuns: 60 },
      );
    });
  }
  it("by hand: a work offset, an extended one, the common one, a length, a wear and a diameter", () => {
    const registers = (
      [
        ["G54.x", -329_672],
        ["P2.z", -5],
        ["common.y", 1500],
        ["H1", -250_780],
        ["HW1", 20],
        ["D3", 9962],
      ] as const
    ).reduce((at, [id, counts]) => writeRegister(at, id, counts), emptyMillRegisters());
    expect(printG10(registers, scales.mm).split("\n")).toEqual([
      "%",
      "G21",
      "G90",
      "G10 L2 P0 X0.000 Y1.500 Z0.000",
      "G10 L2 P1 X-329.672 Y0.000 Z0.000",
      "G10 L20 P2 X0.000 Y0.000 Z-0.005",
      "G10 L10 P1 R-250.780",
      "G10 L11 P1 R0.020",
      "G10 L12 P3 R9.962",
      "M30",
      "%",
      "",
    ]);
    expect(printTable(registers, scales.mm)).toContain("D3,9.962");
  });
  it("names what it cannot use, line by line", () => {
    const problems = readRegisters("G10 L2 P9 X1\nG10 L13 P2 R0.01\nG10 L12 P99 R5", millRegisterIds, "mill", "mm").map(
      ({ line, problem }) => [line, problem === null],
    );
    expect(problems).toEqual([
      [1, false],
      [2, true],
      [3, false],
    ]);
  });
});

describe("a lathe's registers out and in again", () => {
  const empty = { ...emptyMillRegisters(), turret: emptyTurret };
  const ids = exchangeIds(empty);
  const lengths = fc.array(
    fc.record({
      id: fc.constantFrom(...ids.filter((id) => !id.startsWith("Q"))),
      counts: fc.integer({ min: -999_999, max: 999_999 }),
    }),
    { maxLength: 30 },
  );
  const codes = fc.array(fc.record({ row: fc.integer({ min: 1, max: 8 }), code: fc.integer({ min: 0, max: 9 }) }), {
    maxLength: 6,
  });
  for (const [name, print] of [
    ["table", printTable],
    ["G10 program", printG10],
  ] as const) {
    it(`as a ${name}`, () => {
      fc.assert(
        fc.property(lengths, codes, fc.constantFrom("mm" as const, "inch" as const), (rows, tips, unit) => {
          const scale = scales[unit];
          // a readout, whose library it is, reads no programs
          const isCarried = (id: RegisterId) => name === "table" || !id.startsWith("L");
          const held = tips.reduce(
            (at, { row, code }) => writeRegister(at, `Q${row}`, code * scale.countsPerUnit),
            rows
              .filter(({ id }) => isCarried(id))
              .reduce((at, { id, counts }) => writeRegister(at, id, counts), empty as Registers),
          );
          const read = readRegisters(print(held, scale), ids, "lathe", unit);
          expect(read.filter(({ problem }) => problem !== null)).toEqual([]);
          const back = read.reduce((at, { register, mm }) => {
            // a tip code in a program is a number, not a length
            const counts =
              register.startsWith("Q") && name === "G10 program"
                ? (mm ?? 0) * scale.countsPerUnit
                : toCounts(mm ?? 0, scale);
            return writeRegister(at, register as RegisterId, Math.round(counts));
          }, empty as Registers);
          for (const id of ids) expect(readRegister(back, id), id).toBe(readRegister(held, id));
        }),
        { numRuns: 60 },
      );
    });
  }
  it("reads a line by hand", () =>
    expect(
      readRegisters("G10 L10 P10003 X-280.412 Z-294.18 R0.4 Q3\nG10 L11 P3 X0.02", ids, "lathe", "mm").map(
        ({ register, mm }) => [register, mm],
      ),
    ).toEqual([
      ["X3", -280.412],
      ["Z3", -294.18],
      ["R3", 0.4],
      ["Q3", 3],
      ["XW3", 0.02],
    ]));
});

describe("what a list cannot mean is said, line by line", () => {
  const problems = (text: string, machine: "mill" | "lathe" = "mill") =>
    readRegisters(text, ["G54.x", "G54.y", "H1", "H2", "X1", "Z1"], machine, "mm").map(({ problem }) => problem);

  it.each([
    ["G10 L2 P1 X1 X2", /^X stands twice/],
    ["G10 L10 P-1 R5", /^P-1 is no row/],
    ["G10 L10 P1.5 R5", /^P1.5 is no row/],
    ["G91 G10 L2 P1 X1", /^G91 adds/],
    ["G10 L2 P1 X99999", /^X99999 is more/],
    ["G10 L2 P9 X1", /^P9 is not a work offset/],
  ])("%s", (text, sentence) => {
    const [problem] = problems(text);
    expect(problem).toMatch(sentence);
  });
  it("a decimal comma between commas, and a figure that no register holds", () => {
    expect(problems("G54.x,-312,5")[0]).toMatch(/more than one comma/);
    expect(problems("G54.x;-312,5")).toEqual([null]);
    expect(problems('G54.x,"-312,5"')).toEqual([null]);
    expect(problems("G54.x;123456789")[0]).toMatch(/is not a length/);
  });
});
