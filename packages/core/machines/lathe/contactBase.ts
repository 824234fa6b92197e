import type { At, TurretContact } from "../told";
import { faceMm } from "./contact";
import { readsAt } from "./display";
import type { TurningLane } from "./lane";

/** What is so of any contact of the tool in the working position, whatever it was made with. */
export function contactHere(before: TurningLane, at: At, clickMm: number) {
  return {
    ...at,
    tool: before.lathe.station,
    thicknessMm: 0,
    leanMm: 0,
    shown: { x: readsAt(before, "x"), z: readsAt(before, "z") },
    clickMm,
    feel: "",
    radiusMm: 0,
    faceMm: faceMm(before),
    isClean: true,
  } satisfies Partial<TurretContact>;
}
