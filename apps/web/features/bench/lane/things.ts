import type { Observation } from "@probe-lane/core/bench";
import { scales, showLength } from "@probe-lane/core/units";
import { gapKindWords } from "@probe-lane/core/words";

/** What eye, ear and finger say: one strong line, and one that helps. */
export interface Sensation {
  strong: string;
  soft: string;
  isContact: boolean;
}

/** A distance as an eye tells it, whole mm. */
export const nearest = (mm: number): string => String(Math.max(0, Math.round(mm)));

type Sheet = Pick<Observation["sheet"], "gaps" | "instruments" | "unit">;

/** Paper, feeler or block by what is written on it. */
export function gapLabel(seen: { readonly sheet: Sheet }, id: string): string {
  const gap = seen.sheet.gaps.find((one) => one.id === id);
  return gap ? `${gapKindWords[gap.kind]} ${showLength(gap.nominalMm, scales[seen.sheet.unit])}` : id;
}

/** Papers and feelers that are at hand: they are felt in a gap. */
export const feltThings = ({ sheet }: { readonly sheet: Sheet }) =>
  sheet.gaps.filter(({ kind }) => (kind === "paper" || kind === "feeler") && sheet.instruments.includes(kind));
/** Blocks and pins that are at hand: they go into a gap or do not. */
export const hardThings = ({ sheet }: { readonly sheet: Sheet }) =>
  sheet.gaps.filter(({ kind }) => (kind === "block" || kind === "pin") && sheet.instruments.includes(kind));

/** The machine stands because something was struck: an axis that came to the end of its travel struck nothing. */
export const hasStruck = ({ isStopped, incidents }: Pick<Observation, "isStopped" | "incidents">): boolean =>
  isStopped && incidents.at(-1) !== "ranPastTravel";

/** What is said of a machine that stopped itself. */
export const stoppedSensation = (seen: Pick<Observation, "isStopped" | "incidents">): Sensation => ({
  strong: "machine stopped itself",
  soft: hasStruck(seen) ? "something was struck" : "an axis came to its end",
  isContact: true,
});
