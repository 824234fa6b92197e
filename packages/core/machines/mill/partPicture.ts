import { sweptByMill, topsAfter, type Sweep } from "../../inspection";
import { boxOf } from "../../geometry/solid";
import { toolName } from "../../instruments/things";
import { type CutWay } from "../program/cutWay";
import { seenLengthMm, seenScene } from "./eye";
import { cutterOf } from "./firstPart";
import { type MillLane } from "./lane";
import { worldOf } from "./proving";

/** The top of a part as it was cut: heights over a grid of cells, rows from the front, machine frame, mm. */
export interface Relief {
  readonly kind: "relief";
  readonly cellMm: number;
  readonly columns: number;
  readonly rows: number;
  /** The corner in front on the left, at the bottom; and the height of the blank. */
  readonly low: readonly [number, number, number];
  readonly highMm: number;
  /** Hundredths of a millimetre below the blank's top. */
  readonly depths: readonly number[];
}

const CELL_MM = 0.5;
const PER_MM = 100;

/**
 * A part as an eye sees it after its runs: the ways that were gone, through the lengths and the blank that an eye sees
 * and the cutters of the sheet. It hangs on nothing finer.
 */
export function reliefSeen(
  state: MillLane,
  cuts: readonly { readonly before: MillLane; readonly ways: readonly CutWay[] }[],
): Relief {
  const { low, high } = boxOf(seenScene(state).stock);
  const sweeps: Sweep[] = [];
  for (const { before, ways } of cuts) {
    const { tools } = worldOf(before);
    for (const { hangs, stretches } of ways) {
      const tool = hangs === null ? undefined : tools.get(hangs);
      const onSheet = before.setup.tools.find(({ number }) => number === hangs);
      if (!tool || !onSheet) continue;
      const seen = {
        ...tool,
        length: seenLengthMm(before, toolName(onSheet.number)),
        diameter: onSheet.diameterMm,
      };
      sweeps.push(...sweptByMill(stretches, cutterOf(seen), [0, 0, 0]));
    }
  }
  const { columns, rows, tops } = topsAfter(sweeps, [low.x, low.y, low.z], [high.x, high.y, high.z], CELL_MM);
  return {
    kind: "relief",
    cellMm: CELL_MM,
    columns,
    rows,
    low: [low.x, low.y, low.z],
    highMm: high.z,
    depths: [...tops].map((top) => Math.round((high.z - top) * PER_MM)),
  };
}
