import { describe, expect, it } from "vitest";
import { partReadWords } from "../words";
import {
  entrySchema,
  floorFromTemplate,
  foldFloor,
  partFeatureOf,
  type FloorEntry,
  type FloorTemplate,
  type StoredFloorEntry,
} from ".";

const template: FloorTemplate = {
  title: "Thrust collar, two tools",
  machine: "lathe",
  unit: "mm",
  datum: "front left",
  school: "part-face",
  asksNose: true,
  tools: 2,
  readingsNeeded: 1,
  tipDiameterMm: 10,
  edgeXMm: 0,
  edgeYMm: 0,
  paperMm: 0.1,
  blockMm: 0.1,
  skinMm: 0,
  toleranceXyMm: 0.03,
  toleranceZMm: 0.03,
};
const lathe = floorFromTemplate(template);
const mill = floorFromTemplate({ ...template, machine: "mill", school: "gauge-line", asksNose: false });
const log = (...entries: FloorEntry[]): StoredFloorEntry[] =>
  entries.map((entry, n) => ({
    id: `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`,
    atMs: n,
    by: "x",
    entry: entrySchema.parse(entry),
  }));
const set = (register: string, mm: number): FloorEntry => ({ type: "register", register, mm });
const measured = (register: string, targetMm: number, measuredMm: number, celsius?: number): FloorEntry => ({
  type: "partMeasured",
  register,
  by: "micrometer",
  targetMm,
  measuredMm,
  ...(celsius === undefined ? {} : { celsius }),
});
const show = (mm: number) => mm.toFixed(3);

describe("a first part measured on the floor", () => {
  it("tells how far its register was off, and what it should have held", () => {
    const [part] = foldFloor(lathe, log(set("T1.x", -265.2), measured("T1.x", 24, 24.03))).parts;
    // a diameter that is 0.03 too large was cut by a row that is 0.03 too large
    expect(part).toMatchObject({ coldMm: 24.03, offMm: 0.03, heldMm: -265.2, wantedMm: -265.23, uMm: 0.002 });
    expect(part && partReadWords({ id: "T1.x", label: "tool 1 X", method: "lathe-x" }, part, show)).toBe(
      "Measured 24.030; wanted 24.000. tool 1 X is 0.030 high: type −0.030 as its wear.",
    );
  });

  it("measured warm it is smaller once it is cold: 80 mm of steel by 25 degrees is 23 µm", () => {
    const [part] = foldFloor(lathe, log(set("T1.x", -265.2), measured("T1.x", 80, 80.023, 45))).parts;
    // 80 · 11.5e-6 · 25 = 0.023
    expect(part).toMatchObject({ coldMm: 80, offMm: 0, celsius: 45 });
    expect(part && partReadWords({ id: "T1.x", label: "tool 1 X", method: "lathe-x" }, part, show)).toBe(
      "Measured 80.023 at 45 °C, which is 80.000 at 20 °C; wanted 80.000. tool 1 X is as it should be.",
    );
  });

  it("is of the value that the part was cut with, not of one that was typed afterwards", () => {
    const { parts } = foldFloor(
      mill,
      log(set("H1", 70), measured("H1", -6, -5.95), set("H1", 69.95), measured("H1", -6, -6.001)),
    );
    // a floor that stands 0.05 too high: the row is 0.05 too large
    expect(parts.map(({ heldMm, offMm, wantedMm }) => [heldMm, offMm, wantedMm])).toEqual([
      [70, 0.05, 69.95],
      [69.95, -0.001, 69.951],
    ]);
    const [, second] = parts;
    expect(second && partReadWords({ id: "H1", label: "H1 length", method: "mill-length" }, second, show)).toContain(
      "is 0.001 low: type +0.001 as its wear",
    );
  });

  it("a work offset has no wear and is changed itself; before anything was entered nothing should have been held", () => {
    const [part] = foldFloor(mill, log(measured("G54.x", 42, 41.9))).parts;
    expect(part).toMatchObject({ heldMm: null, wantedMm: null, offMm: -0.1 });
    expect(part && partReadWords({ id: "G54.x", label: "G54 X", method: "mill-edge" }, part, show)).toContain(
      "G54 X is 0.100 low: change it by +0.100.",
    );
  });

  it("in the library of a readout the sign is turned: shown is what stands there and what the library adds", () => {
    const library = floorFromTemplate({ ...template, school: "readout", asksNose: false });
    const [part] = foldFloor(library, log(set("T2.x", -3.2), measured("T2.x", 24, 24.03))).parts;
    // shown 24 at 24.03: 0.03 too little is added
    expect(part).toMatchObject({ offMm: -0.03, wantedMm: -3.17 });
    expect(part && partReadWords({ id: "T2.x", label: "tool 2 X", method: "lathe-readout" }, part, show)).toContain(
      "tool 2 X is 0.030 low: change it by +0.030.",
    );
  });

  it("asks of each register what tells it alone", () => {
    const asked = [...lathe.registers, ...mill.registers].map((one) => `${one.id} ${partFeatureOf(one) ?? "none"}`);
    expect(asked).toEqual([
      "T1.x diameter",
      "T1.z shoulder",
      "T1.r none",
      "T1.tip none",
      "T2.x diameter",
      "T2.z shoulder",
      "T2.r none",
      "T2.tip none",
      "G54.x middle",
      "G54.y middle",
      // in every floor, beside the tool's own length
      "G54.z none",
      "H1 floor",
      "H2 floor",
    ]);
  });

  it("takes no signature back, and what is struck is gone", () => {
    const entries = log(set("T1.x", -265.2), measured("T1.x", 24, 24.03), {
      type: "struck",
      entry: "00000000-0000-4000-8000-000000000001",
    });
    expect(foldFloor(lathe, entries).parts).toEqual([]);
    expect(foldFloor(lathe, entries).binding).toHaveLength(1);
  });
});
