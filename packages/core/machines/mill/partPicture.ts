import { sweptByMill, topsAfter, type Sweep } from "../../inspection";
import { boxOf } from "../../geometry/solid";
import { toolName } from "../../instruments/things";
import { type CutWay } from "../program/cutWay";
import { seenLengthMm, seenScene } from "./eye";
import { cutterOf, sweepsOnMill } from "./firstPart";
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
/** Where nothing has to be kept from who looks. */
const FINE_CELL_MM = 0.25;
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
  return reliefOf(sweeps, [low.x, low.y, low.z], [high.x, high.y, high.z], CELL_MM);
}

/** A part as it really came out, with what its tools gave way, wore and grew: for who may know. */
export function reliefCut(
  state: MillLane,
  cuts: readonly { readonly before: MillLane; readonly ways: readonly CutWay[] }[],
): Relief {
  const { datum, stock } = worldOf(state);
  const relief = reliefOf(sweepsOnMill(cuts), stock.min, stock.max, FINE_CELL_MM);
  const [x, y, z] = relief.low;
  return { ...relief, low: [x + datum[0], y + datum[1], z + datum[2]], highMm: relief.highMm + datum[2] };
}

type Corner = readonly [number, number, number];
function reliefOf(sweeps: readonly Sweep[], low: Corner, high: Corner, cellMm: number): Relief {
  const { columns, rows, tops } = topsAfter(sweeps, low, high, cellMm);
  return {
    kind: "relief",
    cellMm,
    columns,
    rows,
    low,
    highMm: high[2],
    depths: [...tops].map((top) => Math.round((high[2] - top) * PER_MM)),
  };
}
