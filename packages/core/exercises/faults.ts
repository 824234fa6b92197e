import { drawBetween, drawUnit } from "../random";
import type { Exercise } from "./schema";
import type { FaultKind } from "./schools";

export type Handover = NonNullable<Exercise["handover"]>;

/**
 * Which faults a lane's setup is handed over with: none in the stated share of the lanes, else so many, in a drawn
 * order. Two that hang on the same thing (`realmOf`) are never both chosen, so that each can be told by a reading of
 * its own.
 */
export function chooseFaults(
  { faults, count: [fewest, most], soundShare }: Handover,
  seed: string,
  realmOf: (kind: FaultKind) => readonly string[],
): FaultKind[] {
  const draw = (low: number, high: number, ...keys: string[]) => drawBetween(low, high, seed, "handover", ...keys);
  const isSound = drawUnit(seed, "handover", "sound") < soundShare;
  const count = isSound ? 0 : Math.round(draw(fewest - 0.499, most + 0.499, "count"));
  const chosen: FaultKind[] = [];
  for (const kind of [...faults].sort((a, b) => draw(0, 1, "order", a) - draw(0, 1, "order", b))) {
    if (chosen.length < count && !chosen.some((one) => realmOf(one).some((realm) => realmOf(kind).includes(realm))))
      chosen.push(kind);
  }
  return chosen;
}
