import { describe, expect, it } from "vitest";
import {
  captureOffset,
  coneTouch,
  displayCounts,
  emptyMillRegisters,
  emptyTurret,
  isRegisterId,
  machineFromDisplay,
  readRegister,
  registerAxis,
  registerKind,
  tipDirection,
  turretPlace,
  turretSum,
  writeRegister,
  addToRegister,
  type RegisterId,
  type TipCode,
} from ".";
import { noseResidue, steepestFallDeg, taperShift } from "./nose";

describe("the tool table of a lathe", () => {
  const columns: [RegisterId, string, "x" | "y" | "z"][] = [
    ["X3", "x", "x"],
    ["Z3", "z", "z"],
    ["XW3", "xw", "x"],
    ["ZW3", "zw", "z"],
    ["R3", "r", "z"],
    ["Q3", "q", "z"],
    ["LX3", "lx", "x"],
    ["LZ3", "lz", "z"],
    ["Y3", "y", "y"],
  ];
  for (const [id, column, axis] of columns)
    it(`${id} is column ${column} of row 3, read on ${axis}, and holds what is written`, () => {
      expect(turretPlace(id)).toEqual({ column, row: 3 });
      expect([registerKind(id), registerAxis(id)]).toEqual(["turret", axis]);
      const written = writeRegister(emptyMillRegisters(), id, -1234);
      expect(readRegister(written, id)).toBe(-1234);
      expect(readRegister(addToRegister(written, id, 34), id)).toBe(-1200);
      // and nothing else
      for (const [other] of columns) if (other !== id) expect(readRegister(written, other)).toBe(0);
    });
  it("knows its own rows and no others", () => {
    for (const id of ["X1", "X8", "LZ8", "H1", "DW8", "G54.x", "P6.z", "common.y"])
      expect(isRegisterId(id), id).toBe(true);
    for (const id of ["X0", "X9", "X12", "LY1", "G60.x", "P7.z", "common", "x1", ""])
      expect(isRegisterId(id), id).toBe(false);
    expect(turretPlace("H1")).toBeNull();
    expect(turretPlace("X12")).toBeNull();
  });
  it("a row takes off geometry and wear, and gives its library; no row takes nothing", () => {
    // X: −280.412 geometry, 0.040 wear, library −12.129: −280.412 + 0.040 − (−12.129) = −268.243
    const turret = {
      ...emptyTurret,
      x: { 2: -280_412 },
      xw: { 2: 40 },
      lx: { 2: -12_129 },
      z: { 2: -94_180 },
      zw: { 2: -100 },
      lz: { 2: 250 },
    };
    expect(turretSum(turret, "x", 2)).toBe(-268_243);
    expect(turretSum(turret, "z", 2)).toBe(-94_530);
    expect(turretSum(turret, "x", 3)).toBe(0);
    expect(turretSum(turret, "x", null)).toBe(0);
    expect(turretSum(undefined, "z", 2)).toBe(0);
  });
});

describe("a common offset", () => {
  const held = writeRegister(writeRegister(emptyMillRegisters(), "common.z", 1500), "G55.z", -20_000);
  it("is in every display, and what it is captured as takes what the work offset in use leaves", () => {
    const machine = { x: -1000, y: -2000, z: -30_000 };
    // −30.000 − 1.500 − (−20.000) − 5.000 = −16.500
    expect(displayCounts(held, machine, "G55", 5000)).toEqual({ x: -1000, y: -2000, z: -16_500 });
    expect(machineFromDisplay(held, "z", -16_500, "G55", 5000)).toBe(-30_000);
    expect(machineFromDisplay(held, "x", -1000, "G55", 5000)).toBe(-1000);
    const common = captureOffset(held, "common.z", -30_000, 100, "G55", 5000);
    expect(displayCounts(writeRegister(held, "common.z", common), machine, "G55", 5000).z).toBe(100);
    const work = captureOffset(held, "G55.z", -30_000, 100, "G55", 5000);
    expect(displayCounts(writeRegister(held, "G55.z", work), machine, "G55", 5000).z).toBe(100);
  });
});

describe("noses, by hand", () => {
  it("a tip code is where the tip stands from the nose: 3 before and below, 7 below, 5 behind, 0 and 9 in its middle", () => {
    const all = ([0, 1, 2, 3, 4, 5, 6, 7, 8, 9] as TipCode[]).map(tipDirection);
    expect(all).toEqual([
      [0, 0],
      [1, 1],
      [1, -1],
      [-1, -1],
      [-1, 1],
      [0, 1],
      [1, 0],
      [0, -1],
      [-1, 0],
      [0, 0],
    ]);
  });
  it("on a 45° slope a nose of 0.8 with its tip at code 3 leaves 0.8 × (√2 − 1) along the normal", () => {
    const left = noseResidue(0.8, 3, [1, 1]);
    expect(left?.normal).toBeCloseTo(0.331_371, 6);
    expect(left?.alongX).toBeCloseTo(0.468_629, 6);
    expect(left?.alongZ).toBeCloseTo(0.468_629, 6);
  });
  it("on a cylinder and a face nothing is left, and one of the two components is none", () => {
    expect(noseResidue(0.8, 3, [2, 0])).toEqual({ normal: 0, alongX: 0, alongZ: null });
    expect(noseResidue(0.8, 3, [0, 5])).toEqual({ normal: 0, alongX: null, alongZ: 0 });
    expect(noseResidue(0.8, 3, [0, 0])).toBeNull();
    // from the other side the whole nose stands in the part: 0.8 × (−1 − 1)
    expect(noseResidue(0.8, 3, [-1, 0])?.normal).toBeCloseTo(-1.6, 9);
  });
  it("the hand's shifts on a taper of 30°: 0.4 × (1 − tan 15°), and twice 0.4 × (1 − tan 30°) on the diameter", () => {
    const { dz, dxDiameter } = taperShift(0.4, 30);
    expect(dz).toBeCloseTo(0.292_820, 6);
    expect(dxDiameter).toBeCloseTo(0.338_120, 6);
  });
  it("a cone of 45° touched by a nose of 0.4 at code 3: X right, Z as its equation says", () => {
    const n = Math.SQRT1_2;
    // s·n = −√2; (0.4 × (1 − √2) − n × (40.2 − 40)/2)/n − (−3 − (−2)) = −0.234315 − 0.1 + 1
    const touch = coneTouch(0.4, 3, { diameter: 40, z: -2, normal: [1, 1] }, [40.2, -3], -94.18);
    expect(touch?.closureZ).toBeCloseTo((0.4 * (1 - Math.SQRT2)) / n - 0.1 + 1, 9);
    expect(touch?.newGeometryZ).toBeCloseTo(-94.18 - (touch?.closureZ ?? NaN), 9);
    expect(coneTouch(0.4, 3, { diameter: 40, z: -2, normal: [1, 0] }, [40, -3], 0)).toBeNull();
    expect(coneTouch(0.4, 3, { diameter: 40, z: -2, normal: [0, 0] }, [40, -3], 0)).toBeNull();
  });
  it("an edge leading at 93° with a nose of 55° clears a fall of 32°", () => expect(steepestFallDeg(93, 55)).toBe(32));
});
