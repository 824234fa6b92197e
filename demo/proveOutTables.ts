import type { RegisterRuling, Ruling } from "@probe-lane/core/grading";
import { combinations, idsOf, isOff, ruled, type Tally } from "./benchTables";
import { demoExercises } from "./exercises";
import { FOLLOWS, type Woven } from "./woven";

interface ProveOutMiss {
  readonly exercise: string;
  readonly seed: string;
  readonly mistake: string;
  readonly what: string;
}
export interface ProveOutTables {
  /** Prove-outs with one setup mistake that reached the part, and those of which the ruling named it. */
  readonly named: Tally;
  /** Wrong features of their first parts, and those whose report lists a register that the mistake put off. */
  readonly moved: Tally;
  readonly byExercise: ReadonlyMap<string, Tally>;
  readonly misses: readonly ProveOutMiss[];
}

/** What tools give way and wear is no more than this; a feature further from the middle is so by a register, mm. */
const BY_REGISTER_MM = 0.03;
/** Each mistake is tried with so many seeds at the most. */
const ROUNDS = 40;

/** Features of the first part that are wrong by what the registers say, with the registers that move them. */
function wrongFeatures({ parts = [] }: Ruling) {
  const [first] = parts;
  return (first?.features ?? []).filter(
    ({ verdict, stillMm, nominalMm, toleranceMm: [low, high] }) =>
      verdict !== "good" && stillMm !== null && Math.abs(stillMm - nominalMm - (low + high) / 2) > BY_REGISTER_MM,
  );
}

const isNamed = (off: readonly RegisterRuling[], { causes }: Woven): boolean =>
  off.every((value) => {
    const [first] = idsOf(value);
    return first !== undefined && (causes.includes(first) || FOLLOWS.has(first));
  });

/** One mistake of each exercise after the other, so that few prove-outs are of all of them. */
function inTurn<T extends { readonly file: object }>(all: readonly T[]): T[] {
  const place = new Map(all.map((one, at) => [one, at - all.findIndex(({ file }) => file === one.file)]));
  return all.toSorted((a, b) => (place.get(a) ?? 0) - (place.get(b) ?? 0));
}

/**
 * Prove-outs of simulated students who make one mistake in the setup, run the program, and measure: `lanes` in which
 * the first part shows it.
 */
export function proveOutTables(lanes: number): ProveOutTables {
  const named: Tally = { lanes: 0, hits: 0 };
  const moved: Tally = { lanes: 0, hits: 0 };
  const byExercise = new Map<string, Tally>();
  const misses: ProveOutMiss[] = [];
  const measured = demoExercises.filter(({ exercise: { program, kept } }) => program?.blanks !== undefined && !kept);
  const all = inTurn(combinations(measured));
  for (let turn = 0; named.lanes < lanes && turn < all.length * ROUNDS; turn++) {
    const at = all[turn % all.length];
    if (!at) break;
    const seed = `prove-out ${turn}`;
    const ruling = ruled(at.file, { ...at.woven.habits, corrects: "nothing" }, seed);
    const off = ruling?.values.filter(isOff) ?? [];
    const wrong = ruling ? wrongFeatures(ruling) : [];
    if (off.length === 0 || wrong.length === 0) continue;
    const { id } = at.file.exercise;
    const isHit = isNamed(off, at.woven);
    const row = byExercise.get(id) ?? { lanes: 0, hits: 0 };
    byExercise.set(id, row);
    for (const tally of [named, row]) {
      tally.lanes += 1;
      tally.hits += Number(isHit);
    }
    const miss = (what: string) => misses.push({ exercise: id, seed, mistake: at.woven.name, what });
    if (!isHit) miss(off.map((value) => `${value.target.id}: ${idsOf(value).join(" + ") || "unexplained"}`).join("; "));
    const registers = off.flatMap(({ target }) => target.registers);
    for (const { name, movedBy } of wrong) {
      const isListed = movedBy.some(({ register }) => registers.includes(register));
      moved.lanes += 1;
      moved.hits += Number(isListed);
      if (!isListed) miss(`${name} is not moved by ${registers.join(", ")}`);
    }
  }
  return { named, moved, byExercise, misses };
}
