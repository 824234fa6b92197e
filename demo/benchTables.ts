import type { CauseId } from "@probe-lane/core/diagnosis";
import { isValueRight, rule, type RegisterRuling, type Ruling } from "@probe-lane/core/grading";
import type { RegisterId } from "@probe-lane/core/registers";
import {
  LaneDriver,
  settingsOf,
  SlippingBench,
  WanderingBench,
  workLane,
  type Habits,
  type SlipPlan,
} from "@probe-lane/students";
import { demoExercises, type ExerciseFile } from "./exercises";
import { FOLLOWS, WOVEN, type Woven } from "./woven";

/** How many of how many. */
export interface Tally {
  lanes: number;
  hits: number;
}
interface BenchMiss {
  readonly exercise: string;
  readonly seed: string;
  readonly mistake: string;
  readonly target: string;
  readonly said: string;
  readonly closureUm: number;
}
export interface BenchTables {
  /** One mistake, named first at every value that it puts off. */
  readonly single: Tally;
  /** Two, both named. */
  readonly pair: Tally;
  /** A figure off by an amount that no mistake predicts, left at that. */
  readonly offCatalog: Tally;
  /** Nothing done wrong, in any order: nothing claimed, and full marks. */
  readonly careful: Tally;
  readonly fullMarks: Tally;
  /** Lanes in which something that did not happen is called proven. */
  readonly falselyProven: Tally;
  /** Lanes of one mistake that were named from the log, and those inferred from the figure. */
  readonly proven: number;
  readonly byExercise: ReadonlyMap<string, Record<"single" | "pair" | "offCatalog" | "careful", Tally>>;
  readonly byMistake: ReadonlyMap<string, Tally>;
  readonly misses: readonly BenchMiss[];
}

export const idsOf = ({ cause }: RegisterRuling): readonly CauseId[] => {
  if (cause.kind === "proven") return cause.terms.map(({ id }) => id);
  return cause.kind === "inferred" ? ((cause.ranked[0]?.ids ?? []) as CauseId[]) : [];
};
export const isOff = (value: RegisterRuling): boolean =>
  !isValueRight(value) && !["nose", "tipCode", "fit"].includes(value.target.kind);

/** A student's lane ruled; null where the mistake leads where a later step is refused, and the work ends. */
export function ruled({ exercise, marking }: ExerciseFile, habits: Habits, seed: string): Ruling | null {
  const lane = new LaneDriver(exercise, seed);
  try {
    workLane(lane, habits);
  } catch {
    return null;
  }
  return rule(lane.log, marking);
}

/** Every mistake on every exercise of its machine, spread so that any stretch of them meets all exercises. */
export function combinations(files: readonly ExerciseFile[] = demoExercises): { file: ExerciseFile; woven: Woven }[] {
  const all = files.flatMap((file) =>
    WOVEN.filter(
      ({ machine, habits: { school } }) =>
        machine === (file.exercise.lathe ? "lathe" : "mill") &&
        (school === undefined || file.exercise.lengthSchools.includes(school)),
    ).map((woven) => ({ file, woven })),
  );
  // a stride without a divisor in common with the length meets every one of them once
  const stride = [619, 617, 613].find((prime) => all.length % prime !== 0) ?? 1;
  return all.map((one, i) => all[(i * stride) % all.length] ?? one);
}

/** Two habits in one student; null where they are about the same thing, or one of them leaves nothing else to do. */
function both(one: Woven, two: Woven): Habits | null {
  const isWhole = [one, two].some(({ habits }) => habits.school !== undefined || habits.touchesNothingNew === true);
  if (isWhole || (one.about !== undefined && one.about === two.about)) return null;
  const apart = Object.keys(one.habits).every((key) => !Object.hasOwn(two.habits, key));
  const isSame = one.causes.some((cause) => two.causes.includes(cause));
  return apart && !isSame ? { ...one.habits, ...two.habits } : null;
}

class Count {
  readonly single: Tally = { lanes: 0, hits: 0 };
  readonly pair: Tally = { lanes: 0, hits: 0 };
  readonly offCatalog: Tally = { lanes: 0, hits: 0 };
  readonly careful: Tally = { lanes: 0, hits: 0 };
  readonly fullMarks: Tally = { lanes: 0, hits: 0 };
  readonly falselyProven: Tally = { lanes: 0, hits: 0 };
  proven = 0;
  readonly byExercise = new Map<string, Record<"single" | "pair" | "offCatalog" | "careful", Tally>>();
  readonly byMistake = new Map<string, Tally>();
  readonly misses: BenchMiss[] = [];

  add(kind: "single" | "pair" | "offCatalog" | "careful", exercise: string, isHit: boolean): void {
    const fresh = (): Tally => ({ lanes: 0, hits: 0 });
    const row = this.byExercise.get(exercise) ?? {
      single: fresh(),
      pair: fresh(),
      offCatalog: fresh(),
      careful: fresh(),
    };
    this.byExercise.set(exercise, row);
    for (const tally of [this[kind], row[kind]]) {
      tally.lanes += 1;
      tally.hits += Number(isHit);
    }
  }

  addMistake(name: string, isHit: boolean): void {
    const tally = this.byMistake.get(name) ?? { lanes: 0, hits: 0 };
    tally.lanes += 1;
    tally.hits += Number(isHit);
    this.byMistake.set(name, tally);
  }

  /** Counts a lane in which something is called proven of a value that is none of what happened. */
  addProven(values: readonly RegisterRuling[], happened: ReadonlySet<CauseId>): boolean {
    const isFalse = values.some(
      ({ cause }) => cause.kind === "proven" && cause.terms.every(({ id }) => !happened.has(id) && !HONEST.has(id)),
    );
    this.falselyProven.lanes += 1;
    this.falselyProven.hits += Number(isFalse);
    return isFalse;
  }

  miss(exercise: string, seed: string, mistake: string, values: readonly RegisterRuling[]): void {
    for (const value of values)
      this.misses.push({
        exercise,
        seed,
        mistake,
        target: value.target.id,
        said: idsOf(value).join(" + ") || "unexplained",
        closureUm: Math.round(value.closureMm * 1000),
      });
  }
}

/** Lanes with one mistake, until so many show; which mistakes show on which exercise. */
function countSingles(count: Count, lanes: number): { file: ExerciseFile; woven: Woven }[] {
  const shown: { file: ExerciseFile; woven: Woven }[] = [];
  const all = combinations();
  for (let turn = 0; count.single.lanes < lanes && turn < all.length * 12; turn++) {
    const at = all[turn % all.length];
    const seed = `one ${turn}`;
    const ruling = at ? ruled(at.file, at.woven.habits, seed) : null;
    const off = ruling?.values.filter(isOff) ?? [];
    // a mistake that in this lane stays inside the tolerance leaves nothing to name
    if (!at || !ruling || off.length === 0) continue;
    const { file, woven } = at;
    if (turn < all.length) shown.push(at);
    const names = new Set(woven.causes);
    const wrong = off.filter((value) => {
      const [first] = idsOf(value);
      return first === undefined || !(names.has(first) || FOLLOWS.has(first));
    });
    const isHit = wrong.length === 0;
    count.add("single", file.exercise.id, isHit);
    count.addMistake(woven.name, isHit);
    count.proven += Number(isHit && off.every(({ cause }) => cause.kind === "proven"));
    const isFalse = count.addProven(ruling.values, names);
    if (!isHit || isFalse) count.miss(file.exercise.id, seed, woven.name, isHit ? off : wrong);
  }
  return shown;
}

/** Lanes with two mistakes that each show by themselves on the exercise. */
function countPairs(count: Count, lanes: number, shown: readonly { file: ExerciseFile; woven: Woven }[]): void {
  const pairs = shown.flatMap((one, i) =>
    shown.slice(i + 1).flatMap((two) => {
      const habits = one.file === two.file ? both(one.woven, two.woven) : null;
      return habits ? [{ file: one.file, of: [one.woven, two.woven], habits }] : [];
    }),
  );
  for (let turn = 0; count.pair.lanes < lanes && turn < lanes * 3 && pairs.length > 0; turn++) {
    const at = pairs[(turn * 211) % pairs.length];
    if (!at) return;
    const seed = `two ${turn}`;
    const ruling = ruled(at.file, at.habits, seed);
    const off = ruling?.values.filter(isOff) ?? [];
    if (!ruling || !areBothMade(at, seed, off, ruling)) continue;
    const said = new Set(off.flatMap(idsOf));
    const isHit = at.of.every(({ causes }) => causes.some((cause) => said.has(cause)));
    const name = at.of.map((woven) => woven.name).join(" and ");
    count.add("pair", at.file.exercise.id, isHit);
    const isFalse = count.addProven(ruling.values, new Set(at.of.flatMap(({ causes }) => causes)));
    if (!isHit || isFalse) count.miss(at.file.exercise.id, seed, name, off);
  }
}

/**
 * Whether both mistakes were made in a lane of two: each by itself puts a value off that is off with both, and with the
 * other one alone some value comes out otherwise.
 */
function areBothMade(
  { file, of }: { file: ExerciseFile; of: readonly Woven[] },
  seed: string,
  off: readonly RegisterRuling[],
  { values }: Ruling,
): boolean {
  return of.every(({ habits }) => {
    const alone = ruled(file, habits, seed)?.values ?? [];
    const closureOf = (id: string) => alone.find(({ target }) => target.id === id)?.closureMm ?? 0;
    return (
      alone.some((value) => isOff(value) && off.some(({ target }) => target.id === value.target.id)) &&
      values.some(({ target, closureMm }) => Math.abs(closureMm - closureOf(target.id)) > 0.0005)
    );
  });
}

/** Names that say what was done and claim no more: another figure or place, or what follows from one. */
const HONEST: ReadonlySet<CauseId> = new Set([
  "otherFigure",
  "wrongSum",
  "otherReading",
  "contactOff",
  "cornerNotZero",
  ...FOLLOWS,
]);

/** Lanes in which one figure is off, or something is added to a register, by an amount that is no size of anything. */
function countOffCatalog(count: Count, lanes: number): void {
  const registersOf = new Map<string, RegisterId[]>();
  for (let turn = 0; count.offCatalog.lanes < lanes && turn < lanes * 4; turn++) {
    const file = demoExercises[turn % demoExercises.length];
    if (!file) return;
    const { id } = file.exercise;
    const known = registersOf.get(id) ?? registersSet(file);
    registersOf.set(id, known);
    const round = Math.floor(turn / demoExercises.length);
    const register = known[round % Math.max(1, known.length)];
    if (!register) continue;
    const plan: SlipPlan = { kind: round % 3 === 2 ? "addedAgain" : "offFigure", register, nth: 0, turn: round };
    const seed = `off ${turn}`;
    const ruling = slipped(file, plan, seed);
    const off = ruling?.values.filter((value) => isOff(value) && value.target.registers.includes(register)) ?? [];
    if (!ruling || off.length === 0) continue;
    const wrong = off.filter((value) => idsOf(value).some((name) => !HONEST.has(name)));
    count.add("offCatalog", id, wrong.length === 0);
    const isFalse = count.addProven(off, HONEST);
    if (wrong.length > 0 || isFalse) count.miss(id, seed, `${plan.kind} ${register}`, wrong.length > 0 ? wrong : off);
  }
}

/** The registers of measured values that a careful student sets, a name each. */
function registersSet({ exercise }: ExerciseFile): RegisterId[] {
  const bench = settingsOf(new LaneDriver(exercise, "off"));
  workLane(bench, {});
  return [...new Set(bench.made)].filter((register) => !/^[RQ]\d/.test(register));
}

function slipped({ exercise, marking }: ExerciseFile, plan: SlipPlan, seed: string): Ruling | null {
  const lane = new LaneDriver(exercise, seed);
  const bench = new SlippingBench(lane, plan);
  try {
    workLane(bench, {});
  } catch {
    return null;
  }
  return bench.isMade ? rule(lane.log, marking) : null;
}

/** Lanes of careful students, every second of them in a roundabout way. */
function countCareful(count: Count, lanes: number): void {
  for (let turn = 0; turn < lanes; turn++) {
    const file = demoExercises[turn % demoExercises.length];
    if (!file) return;
    const lane = new LaneDriver(file.exercise, `none ${turn}`);
    workLane(turn % 2 === 0 ? lane : new WanderingBench(lane, turn), {});
    const ruling = rule(lane.log, file.marking);
    const claimed = ruling.values.filter((value) => idsOf(value).length > 0);
    count.add("careful", file.exercise.id, claimed.length === 0);
    count.fullMarks.lanes += 1;
    count.fullMarks.hits += Number(ruling.total > 100 - 1e-6);
    count.addProven(ruling.values, new Set());
    count.miss(file.exercise.id, `none ${turn}`, "none", claimed);
  }
}

/**
 * Lanes of simulated students, ruled: `lanes` each with one mistake, two, and a figure that no catalog has, and
 * `carefulLanes` with none.
 */
export function benchTables(lanes: number, carefulLanes: number): BenchTables {
  const count = new Count();
  countPairs(count, lanes, countSingles(count, lanes));
  countOffCatalog(count, lanes);
  countCareful(count, carefulLanes);
  return count;
}
