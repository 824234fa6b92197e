import { drawLane, expectationOf, schoolsOf, type Exercise } from "../exercises";
import { verdictOf } from "../inspection";
import type { FeatureCut } from "../machines/firstPart";
import { movedOfRun, sizesOfRun } from "../machines/parts";
import type { LaneState } from "../machines/kits";
import { isRegisterId, readRegister, writeRegister, type RegisterId } from "../registers";
import { toCounts, toMm } from "../units";
import { openLane } from "./decide";
import { replay } from "./fold";

/** What comes of a first part, cut with every register right, that is put right as well as wear can. */
export interface Corrected {
  readonly lanes: number;
  /** Lanes on which the first part was good already. */
  readonly goodAtOnce: number;
  /** Lanes on which every feature of the second part is good. */
  readonly good: number;
  /** The feature that is most often not good then; null where there is none. */
  readonly worst: string | null;
}

/** Sweeps over the registers that settle what each asks of the others. */
const SWEEPS = 30;

/** Geometry and wear of a row of a tool: "H1" → "HW1"; null of what is of no tool. */
const wearOf = (register: RegisterId): RegisterId | null => {
  const found = /^([DHXZ])(\d+)$/.exec(register);
  const wear = found && `${found[1] ?? ""}W${found[2] ?? ""}`;
  return wear !== null && isRegisterId(wear) ? wear : null;
};

const writeMm = (state: LaneState, register: RegisterId, mm: number): LaneState => ({
  ...state,
  registers: writeRegister(state.registers, register, toCounts(mm, state.scale)),
});

/** A lane of the exercise with every register and every calibration as it should be, and its program held. */
function rightLane({ doubt: _doubt, ...exercise }: Exercise, seed: string): LaneState | null {
  const drawn = drawLane(exercise, seed);
  const { program } = drawn.setup;
  if (program === undefined) return null;
  const [school = null] = schoolsOf(drawn.setup);
  const lines = expectationOf(drawn, school) ?? [];
  const loaded = replay([openLane(exercise, seed, false), { type: "programLoaded", number: program }]);
  return lines.reduce(
    (at, { register, wantedMm }) => (isRegisterId(register) ? writeMm(at, register, wantedMm) : at),
    loaded,
  );
}

/** How much wear each register takes so that features come to the middle of their tolerances as well as can be, mm. */
function correction(cut: readonly FeatureCut[], sizes: readonly (number | null)[]): ReadonlyMap<RegisterId, number> {
  const wears = new Map<RegisterId, number>();
  const rows = cut.flatMap(({ nominalMm, toleranceMm: [low, high], movedBy }, at) => {
    const size = sizes[at] ?? null;
    const moves = movedBy.flatMap(({ register, factor }) => {
      const wear = wearOf(register);
      return wear ? [{ wear, factor }] : [];
    });
    return size === null || high <= low
      ? []
      : [{ offMm: size - nominalMm - (low + high) / 2, weight: 1 / (high - low) ** 2, moves }];
  });
  for (const { moves } of rows) for (const { wear } of moves) wears.set(wear, 0);
  for (let sweep = 0; sweep < SWEEPS; sweep++)
    for (const [wear, heldMm] of wears) {
      let [asks, share] = [0, 0];
      for (const { offMm, weight, moves } of rows) {
        const factor = moves.find((one) => one.wear === wear)?.factor ?? 0;
        const stillMm = moves.reduce((sum, one) => sum + one.factor * (wears.get(one.wear) ?? 0), offMm);
        asks += weight * factor * stillMm;
        share += weight * factor * factor;
      }
      if (share > 0) wears.set(wear, heldMm - asks / share);
    }
  return wears;
}

/**
 * Whether a right setup whose first part is put right makes a good second one, on lanes drawn by seeds: for authors,
 * who may have let tools give way further than wear can take back. Null where an exercise measures no part.
 */
export function correctedParts(exercise: Exercise, seeds: readonly string[]): Corrected | null {
  let factors: readonly FeatureCut[] | null = null;
  let [good, goodAtOnce] = [0, 0];
  const bad = new Map<string, number>();
  for (const seed of seeds) {
    const right = rightLane(exercise, seed);
    if (right?.setup.blanks === undefined) return null;
    // what moves what hangs on the program, and so little on where things stand that one lane tells it for all
    factors ??= movedOfRun(right);
    const features = right.setup.features ?? [];
    const offOf = (sizes: readonly (number | null)[]) =>
      features.filter((feature, at) => verdictOf(feature, sizes[at] ?? null) !== "good");
    const first = sizesOfRun(right);
    if (offOf(first).length === 0) goodAtOnce += 1;
    const wears = correction(factors, first);
    const put = [...wears].reduce(
      (at, [wear, mm]) => writeMm(at, wear, toMm(readRegister(at.registers, wear), at.scale) + mm),
      right,
    );
    const second = { ...put, program: { ...put.program, parts: { ...put.program.parts, current: 2 } } } as LaneState;
    const off = offOf(sizesOfRun(second));
    if (off.length === 0) good += 1;
    for (const { name } of off) bad.set(name, (bad.get(name) ?? 0) + 1);
  }
  const [worst = null] = [...bad].sort((a, b) => b[1] - a[1]).map(([name]) => name);
  return { lanes: seeds.length, goodAtOnce, good, worst };
}
