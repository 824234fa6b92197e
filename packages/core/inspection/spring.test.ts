import { describe, expect, it } from "vitest";
import { sprungNoses, sprungSweeps, type NoseSweep, type Sweep } from ".";
import { isTurned } from "./sweep";

const flat = (from: readonly [number, number], to: readonly [number, number]): Sweep => ({
  piece: { from, to, center: null, isClockwise: false },
  end: { radius: 5, underside: () => 0 },
  fromZ: -4,
  toZ: -4,
});
const spring = { perMm: 0.01, capMm: 0.025 };
type IsStock = (x: number, y: number, z: number) => boolean;
/** The last of some sweeps as it bends by what those before it left. */
const sprung = (sweep: Sweep, before: readonly Sweep[], isStock: IsStock): Sweep =>
  sprungSweeps([...before, sweep].map((one) => ({ sweep: one, isStock, spring }))).at(-1) ?? sweep;

describe("a cutter gives way to the stock beside it", () => {
  // a block that begins at y 3: a cutter of 10 along y 0 has 2 mm of it on its left
  const block = (_x: number, y: number, z: number): boolean => y > 3 && z < 0;
  it("by so much for each millimetre, away from it: 2 mm on the left are 0.02 to the right", () => {
    const { piece } = sprung(flat([0, 0], [50, 0]), [], block);
    expect(piece.from[1]).toBeCloseTo(-0.02, 3);
    expect(piece.to).toEqual([50, piece.from[1]]);
    // the other way round it is on the right
    expect(sprung(flat([50, 0], [0, 0]), [], block).piece.from[1]).toBeCloseTo(-0.02, 3);
  });
  it("never further than its cap, nowhere in a full slot, where nothing is left, in a plunge", () => {
    expect(sprung(flat([0, 3], [50, 3]), [], block).piece.from[1]).toBeCloseTo(3 - 0.025, 3);
    const whole = (): boolean => true;
    const slot = flat([0, 0], [50, 0]);
    expect(sprung(slot, [], whole)).toBe(slot);
    expect(sprung(slot, [slot], whole)).toBe(slot);
    const plunge = { ...flat([7, 0], [7, 0]), fromZ: 2 };
    expect(sprung(plunge, [], block)).toBe(plunge);
  });
  it("round a corner it is pushed off along its whole arc: a circle of 20 with stock outside becomes one of 19.98", () => {
    const around: Sweep = {
      ...flat([20, 0], [-20, 0]),
      piece: { from: [20, 0], to: [-20, 0], center: [0, 0], isClockwise: false },
    };
    const ring = (x: number, y: number): boolean => Math.hypot(x, y) > 23;
    const { from, to } = sprung(around, [], ring).piece;
    expect(Math.hypot(...from)).toBeCloseTo(19.98, 3);
    expect(Math.hypot(...to)).toBeCloseTo(19.98, 3);
  });
});

describe("a turning tool", () => {
  const nose = (from: readonly [number, number], to: readonly [number, number], more = {}): NoseSweep => ({
    piece: { from, to, center: null, isClockwise: false },
    radius: 0.8,
    wide: 0,
    edge: 1,
    ...more,
  });
  it("stands off by the depth of its cut: 1 mm of radius, 0.01 for each", () => {
    // a bar of radius 21; the nose's edge at 20, its middle at 20.8
    const bar = (_z: number, radius: number): boolean => radius < 21;
    const [one] = sprungNoses([{ sweep: nose([0, 20.8], [-20, 20.8]), isStock: bar, spring }]);
    expect((one?.piece.from[1] ?? NaN) - 20.8).toBeCloseTo(0.01, 3);
  });
  it("clears what stands over its nose as its edge passes, and a blade as broad as it is", () => {
    const pass = nose([0, 20], [-10, 20]);
    expect(isTurned(pass, [-5, 27])).toBe(true);
    expect(isTurned(pass, [-5, 29])).toBe(false);
    expect(isTurned({ ...pass, edge: 0 }, [-5, 22])).toBe(false);
    const groove = nose([-20, 22], [-20, 17], { radius: 0.2, wide: 2.6 });
    // from its nose on the left 3 mm of groove, and not a hair more
    expect([-20.19, -18.5, -17.21].map((z) => isTurned(groove, [z, 19]))).toEqual([true, true, true]);
    expect([-20.21, -17.19].map((z) => isTurned(groove, [z, 19]))).toEqual([false, false]);
    expect(isTurned(groove, [-18.5, 16.81])).toBe(true);
    expect(isTurned(groove, [-18.5, 16.79])).toBe(false);
  });
});
