import { isTurned, noseBounds, sweptByNose, type NoseSweep } from "../../inspection";
import { seenAs } from "../../lane/eye";
import { type CutWay } from "../program/cutWay";
import { kxNowMm, reachNowMm, faceMm } from "./contact";
import { seenOutline, seenTip } from "./eye";
import { nosesOnLathe, toolsOf } from "./firstPart";
import { type TurningLane } from "./lane";
import { worldOf } from "./proving";

/** The half section of a part as it was cut: radii at places along Z, from the chuck to the face, slide frame, mm. */
export interface HalfSection {
  readonly kind: "halfSection";
  readonly fromMm: number;
  readonly stepMm: number;
  readonly outer: readonly number[];
  /** Of a bored part; empty where there is no bore. */
  readonly bore: readonly number[];
}

const STEP_MM = 0.25;
const RADIUS_STEP_MM = 0.1;
const ROUNDS = 8;

/** The first radius, from one end toward the other, at which a place is still material; `to` where none is. */
function firstLeft(isCut: (radius: number) => boolean, from: number, to: number): number {
  const way = Math.sign(to - from) * RADIUS_STEP_MM;
  let at = from;
  while (Math.abs(to - at) > RADIUS_STEP_MM && isCut(at)) at += way;
  if (at === from) return isCut(at) ? to : from;
  let [cut, left] = [at - way, at];
  for (let round = 0; round < ROUNDS; round++) {
    const middle = (cut + left) / 2;
    if (isCut(middle)) cut = middle;
    else left = middle;
  }
  return left;
}

/**
 * A turned part as an eye sees it after its runs: the ways that were gone, through the reaches and the bar that an eye
 * sees and the noses of the sheet. It hangs on nothing finer.
 */
export function halfSectionSeen(
  state: TurningLane,
  cuts: readonly { readonly before: TurningLane; readonly ways: readonly CutWay[] }[],
): HalfSection {
  const sweeps: NoseSweep[] = [];
  for (const { before, ways } of cuts) {
    const { truth } = before;
    const tools = toolsOf(before, faceMm(before) ?? 0);
    for (const { hangs, stretches } of ways) {
      const tool = hangs === null ? undefined : tools.get(hangs);
      if (!tool || hangs === null) continue;
      const seen = {
        ...tool,
        kx: seenAs(kxNowMm(before, hangs), truth, "x", hangs),
        kz: seenAs(reachNowMm(before, hangs), truth, "reach", hangs),
      };
      sweeps.push(...sweptByNose(stretches, seen));
    }
  }
  const { outer, bore } = seenOutline(state);
  const { jawMm, faceMm: face } = seenTip(state);
  return sectionOf(sweeps, { outer, bore, jawMm, face });
}

/** A turned part as it really came out, with what its tools gave way, wore and grew: for who may know. */
export function halfSectionCut(
  state: TurningLane,
  cuts: readonly { readonly before: TurningLane; readonly ways: readonly CutWay[] }[],
): HalfSection | null {
  const face = faceMm(state);
  const sweeps = nosesOnLathe(cuts);
  if (face === null || !sweeps) return null;
  const { stock, chuck } = worldOf(state, face);
  const bar = (diameterMm: number) => [{ fromMm: -stock.length, toMm: 0, radiusMm: diameterMm / 2 }];
  const bored = stock.bore > 0 ? bar(stock.bore) : [];
  const section = sectionOf(sweeps, { outer: bar(stock.diameter), bore: bored, jawMm: chuck.z, face: 0 });
  return { ...section, fromMm: section.fromMm + face };
}

interface Uncut {
  readonly outer: readonly { readonly fromMm: number; readonly toMm: number; readonly radiusMm: number }[];
  readonly bore: Uncut["outer"];
  readonly jawMm: number;
  readonly face: number;
}
function sectionOf(sweeps: readonly NoseSweep[], { outer, bore, jawMm, face }: Uncut): HalfSection {
  const count = Math.max(1, Math.round((face - jawMm) / STEP_MM));
  const placed = sweeps.map((sweep) => ({ sweep, ...noseBounds(sweep) }));
  const radiusIn = (steps: typeof outer, z: number): number =>
    steps.find(({ fromMm, toMm }) => z >= fromMm && z <= toMm)?.radiusMm ?? 0;
  const section = Array.from({ length: count }, (_, at) => {
    const z = jawMm + (at + 0.5) * STEP_MM;
    const near = placed.filter(({ low, high }) => z >= low[0] && z <= high[0]);
    const isCut = (radius: number): boolean => near.some(({ sweep }) => isTurned(sweep, [z, radius]));
    const [widest, inside] = [radiusIn(outer, z), radiusIn(bore, z)];
    return {
      outer: firstLeft(isCut, widest, inside),
      bore: inside === 0 ? 0 : firstLeft(isCut, inside, widest),
    };
  });
  const tidy = (mm: number): number => Math.round(mm * 100) / 100;
  return {
    kind: "halfSection",
    fromMm: jawMm,
    stepMm: STEP_MM,
    outer: section.map((one) => tidy(one.outer)),
    bore: bore.length === 0 ? [] : section.map((one) => tidy(one.bore)),
  };
}
