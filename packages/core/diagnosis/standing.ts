import { readRegister, type RegisterId } from "../registers";
import type { LaneBase } from "../lane/state";
import type { Counts } from "../units";
import { lastAct, type ChangePlace, type Lineage } from "./lineage";

/** What sums are read from: the lane as it ended, and how each register was set. */
export interface Set<S extends LaneBase> {
  readonly final: S;
  readonly set: ReadonlyMap<RegisterId, Lineage<S>>;
}

/** What an act made of a register: where the machine stood, and the figures that were stated. Counts. */
export interface Standing<S> {
  readonly register: RegisterId;
  readonly lineage: Lineage<S>;
  /** The act that counts for what lay before it. */
  readonly act: ChangePlace<S>;
  /** Where the machine stood when it was captured; null where a figure was typed. */
  readonly origin: Counts | null;
  /** What was stated, as it adds to the register: less the value that a capture was told, and what was added since. */
  readonly stated: Counts;
  /** Read as one figure worked out anew, though the acts show it set and then added to. */
  readonly isAnew: boolean;
}

/** Cleared and not set since: a zero that was typed over something, or brought by another act. */
const isCleared = <S>({ base, added }: Lineage<S>): boolean =>
  added.length === 0 &&
  base !== null &&
  base.event.how !== "captured" &&
  base.event.how !== "declared" &&
  base.event.to === 0;

/** The lineage of a register that was set to something; null where it holds what it held, or was only cleared. */
export function setOf<S extends LaneBase>({ set }: Set<S>, register: RegisterId): Lineage<S> | null {
  const lineage = set.get(register);
  return lineage && !isCleared(lineage) ? lineage : null;
}

/** Figures that were added to a register since it was set, counts. */
const addedCounts = <S>({ added }: Lineage<S>): Counts =>
  added.reduce((sum, { event }) => sum + event.to - event.from, 0);

/**
 * What the last act on a register made of it. A capture stands where the machine stood, by what it was told; where a
 * register keeps the place as it is whatever is told, `isAsItIs`.
 */
export function standing<S extends LaneBase>(
  register: RegisterId,
  lineage: Lineage<S>,
  axis: "x" | "y" | "z",
  isAsItIs = false,
): Standing<S> {
  const added = addedCounts(lineage);
  const { base } = lineage;
  const act = base ?? lastAct(lineage);
  if (base?.event.how === "captured")
    return {
      register,
      lineage,
      act,
      origin: base.event.machine[axis],
      stated: (isAsItIs ? 0 : -(base.event.as ?? 0)) + added,
      isAnew: false,
    };
  // figures added to what a register held at the start count from there
  const typed = base ? base.event.to : (lineage.added[0]?.event.from ?? 0);
  return { register, lineage, act, origin: null, stated: typed + added, isAnew: false };
}

/**
 * The ways in which the acts on a register can be read: as the one that set it with what was added, and where figures
 * were added later also as one figure that was worked out anew.
 */
export function standings<S extends LaneBase>(
  register: RegisterId,
  lineage: Lineage<S>,
  axis: "x" | "y" | "z",
  isAsItIs = false,
): readonly [Standing<S>, ...Standing<S>[]] {
  const first = standing(register, lineage, axis, isAsItIs);
  const last = lineage.added.at(-1);
  return last && lineage.base
    ? [
        first,
        {
          register,
          lineage: { base: last, added: [] },
          act: last,
          origin: null,
          stated: last.event.to,
          isAnew: true,
        },
      ]
    : [first];
}

/** What some registers add up to in a lane, counts. */
export const sumOf = ({ registers }: Pick<LaneBase, "registers">, ids: readonly RegisterId[]): Counts =>
  ids.reduce((sum, id) => sum + readRegister(registers, id), 0);
