import { type GaugeAxis } from "../../gcode";
import { millRay, sweptByMill, type RunsClear, type Sweep } from "../../inspection";
import { millOffset, type MillWorld } from "../../proving";
import { drawNormal } from "../../random";
import { lengthRows, type RegisterId } from "../../registers";
import { type Found, type Gauging, type NamedWay, type ProbePlace } from "../program/gauging";
import { effectiveRadiusMm } from "./acts/probe/trigger";
import { probeRadiusMm } from "./cards";
import { type MillLane } from "./lane";
import { registersOf, worldOf } from "./proving";

/** What a probe adds that is carried by the changer, and a setter that is run by a program, mm. */
const PROBE_ERROR_MM = 0.001;
const SETTER_ERROR_MM = 0.002;
/** Below this nothing was met: the ball stands in metal. */
const NONE_MM = 1e-6;

const ballMm = ({ setup }: MillLane): number => (setup.probe?.ballDiameterMm ?? 0) / 2;

/** What the ball is short of its card along an axis, both sides together, mm; no burr is met in a pocket. */
function shortMm(state: MillLane, axis: "x" | "y"): number {
  const smooth = { ...state, isBurrDressed: true };
  const each = ([1, -1] as const).map((side) => effectiveRadiusMm(smooth, axis, side));
  return 2 * probeRadiusMm(state) - each.reduce((sum, mm) => sum + mm, 0);
}

/** Repeated touches at one place of one part share what they err by. */
function errsByMm({ truth, program }: MillLane, at: readonly number[], axis: GaugeAxis): number {
  const place = at.map((mm) => Math.round(mm));
  return drawNormal(0, PROBE_ERROR_MM, truth.seed, "gauged", program.parts.current, axis, ...place);
}

const axisIndex = { x: 0, y: 1, z: 2 } as const;

/** A place moved by so much along an axis. */
const beside = (at: readonly number[], axis: GaugeAxis, byMm: number): readonly number[] =>
  at.map((mm, i) => (i === axisIndex[axis] ? mm + byMm : mm));

/** How far it runs clear from a place along an axis, to the lower and to the higher side; null where nothing is met. */
function clearBeside(runs: RunsClear, from: readonly number[], axis: GaugeAxis): readonly [number, number] | null {
  const way = (sign: 1 | -1) => [0, 1, 2].map((i) => (i === axisIndex[axis] ? sign : 0));
  const [low, high] = [runs(from, way(-1)), axis === "z" ? 0 : runs(from, way(1))];
  if (low === null || high === null || low < NONE_MM || (axis !== "z" && high < NONE_MM)) return null;
  return [low, high];
}

/** How high a tip stands over the skin, where nothing was cut under it; null beside the blank, or below that. */
function overSkinMm([x = 0, y = 0, z = 0]: readonly number[], { min, max }: MillWorld["stock"]): number | null {
  const isOver = x > min[0] && x < max[0] && y > min[1] && y < max[1] && z > max[2];
  return isOver ? z - max[2] : null;
}

function find(state: MillLane, { at, frame, row }: ProbePlace, axis: GaugeAxis, runs: RunsClear): Found | null {
  const { datum, tools, stock } = worldOf(state);
  const length = tools.get(state.setup.gauging?.pocket ?? 0)?.length ?? 0;
  const tip = at.map((mm, i) => mm - (datum[i] ?? 0) - (i === 2 ? length : 0));
  const errsMm = errsByMm(state, at, axis);
  if (axis === "z") {
    const cleared = clearBeside(runs, tip, axis)?.[0] ?? overSkinMm(tip, stock);
    if (cleared === null) return null;
    const touches = beside(at, "z", -cleared);
    const shown = (touches[2] ?? 0) - (offsetOf(state, frame, row)[2] ?? 0);
    return { readsMm: -shown + errsMm, reallyMm: cleared - (tip[2] ?? 0), path: [at, touches, at] };
  }
  const clear = clearBeside(runs, beside(tip, "z", ballMm(state)), axis);
  if (!clear) return null;
  const [low, high] = clear;
  // over the part, or where its side is open, there is no wall
  const { min, max } = stock;
  const i = axisIndex[axis];
  const middle = tip[i] ?? 0;
  const isOver = (tip[2] ?? 0) + ballMm(state) > max[2];
  if (isOver || middle - low < min[i] || middle + high > max[i]) return null;
  const really = low + high;
  const ball = ballMm(state);
  const path = [at, beside(at, axis, ball - low), at, beside(at, axis, high - ball), at];
  return { readsMm: really + shortMm(state, axis) + errsMm, reallyMm: really, path };
}

const offsetOf = (state: MillLane, frame: string, row: number | null): readonly number[] =>
  millOffset(registersOf(state), frame, row, 1);

/** What the named way clears if its tool and the datum are just where the registers have them. */
function targetMm(state: MillLane, from: ProbePlace, axis: GaugeAxis, named: NamedWay): number | null {
  // what it was run with, whatever was written since
  const then: MillLane = { ...state, registers: named.registers };
  const registers = registersOf(then);
  const { setup } = state;
  const sheetMm = setup.tools.find(({ number }) => number === named.tool)?.diameterMm ?? 0;
  const radius = named.diameterRow === null ? sheetMm / 2 : (registers.radii?.get(named.diameterRow) ?? 0);
  const length = named.row === null ? 0 : (registers.lengths.get(named.row) ?? 0);
  const [x = 0, y = 0, z = 0] = offsetOf(then, named.frame, null);
  const end = { radius, underside: () => 0 };
  const sweeps: Sweep[] = named.ways.flatMap(({ stretches }) => sweptByMill(stretches, { length, end }, [x, y, z]));
  const runs: RunsClear = (from, way) => {
    const triple = ([a = 0, b = 0, c = 0]: readonly number[]) => [a, b, c] as const;
    return millRay(sweeps, { from: triple(from), to: triple(way) });
  };
  const counted = offsetOf(then, from.frame, from.row);
  const shown = from.at.map((mm, i) => mm - (counted[i] ?? 0));
  if (axis === "z") {
    const clear = clearBeside(runs, shown, axis);
    return clear && clear[0] - (shown[2] ?? 0);
  }
  const clear = clearBeside(runs, beside(shown, "z", ballMm(state)), axis);
  return clear && clear[0] + clear[1];
}

const isRow = (row: number | null): row is (typeof lengthRows)[number] => lengthRows.some((one) => one === row);

/**
 * A slot that is wide by e was cut by a tool that is larger by e than its row has it; a floor that is e too deep by one
 * that is as much longer.
 */
function corrects({ setup }: MillLane, axis: GaugeAxis, { tool, row, diameterRow }: NamedWay) {
  if (axis === "z") return isRow(row) ? { register: `HW${row}` as RegisterId, perMm: 1 } : null;
  const own = diameterRow ?? tool;
  const perMm = setup.settings.diameterMode === "radius" ? 0.5 : 1;
  return isRow(own) ? { register: `DW${own}` as RegisterId, perMm } : null;
}

/** How a program gauges on a mill: with the probe out of its pocket, and tools on the setter. */
export const millGauging: Gauging<MillLane> = {
  isProbe: ({ setup, harm }, hangs) =>
    hangs !== null && hangs === setup.gauging?.pocket && !harm.broken.includes("probe"),
  find,
  targetMm,
  corrects,
  heldMm: (state, row) => registersOf(state).lengths.get(row) ?? null,
  length: (state, hangs) => {
    const tool = hangs === null ? undefined : worldOf(state).tools.get(hangs);
    const { setup, truth, program } = state;
    // rows that count from elsewhere than the gauge line hold no length that a setter tells
    const isFromLine = setup.lengthSchools.every((school) => school === "gauge-line");
    if (!tool || !truth.setter || !isFromLine || hangs === setup.gauging?.pocket) return null;
    const errsMm = drawNormal(0, SETTER_ERROR_MM, truth.seed, "length gauged", program.parts.current, hangs ?? 0);
    return { readsMm: tool.length + errsMm, reallyMm: tool.length };
  },
};
