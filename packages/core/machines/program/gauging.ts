import { type GaugeAxis, type GaugeCall } from "../../gcode";
import { type RunsClear } from "../../inspection/features";
import { type GaugeOutcome } from "../../lane/programNames";
import { type LaneBase } from "../../lane/state";
import { readRegister, type RegisterId, type Registers } from "../../registers";
import { toCounts } from "../../units";
import { type CutWay } from "./cutWay";
import { type Written } from "./written";

/** A way that a gauging names: where its tool was sent, and what the control ran it with. */
export interface NamedWay {
  readonly ways: readonly CutWay[];
  /** As they stood when it was gone. */
  readonly registers: Registers;
  readonly tool: number;
  readonly frame: string;
  readonly row: number | null;
  readonly diameterRow: number | null;
}

/** What a gauging finds: what was read and what is really there, mm, and the machine places that it goes by. */
export interface Found {
  readonly readsMm: number;
  readonly reallyMm: number;
  readonly path: readonly (readonly number[])[];
}

/** Where the probe stands: a machine place, and the work offset and row that are in force there. */
export interface ProbePlace {
  readonly at: readonly number[];
  readonly frame: string;
  readonly row: number | null;
}

/** What a machine says of itself to a gauging of a program. */
export interface Gauging<S extends LaneBase> {
  /** Whether what hangs there is what gauges. */
  isProbe(state: S, hangs: number | null): boolean;
  /** What is found along an axis, through what was cut; null where nothing is met. */
  find(state: S, from: ProbePlace, axis: GaugeAxis, runs: RunsClear): Found | null;
  /** The size that a named way leaves there where every register is right, mm; null where it cuts nothing there. */
  targetMm(state: S, from: ProbePlace, axis: GaugeAxis, named: NamedWay): number | null;
  /** How long what hangs there is by the setter, mm; null where rows do not hold that. */
  length(state: S, hangs: number | null): { readonly readsMm: number; readonly reallyMm: number } | null;
  /** What a row holds, mm; null of a row that is not there. */
  heldMm(state: S, row: number): number | null;
  /** The wear that a size is put right by, and by how much for each mm that is wanting of it. */
  corrects(
    state: S,
    axis: GaugeAxis,
    named: NamedWay,
  ): { readonly register: RegisterId; readonly perMm: number } | null;
}

/** What one gauging of a program came to: lengths in mm. */
export interface Gauged {
  readonly call: GaugeCall;
  readonly outcome: GaugeOutcome;
  readonly readsMm: number;
  readonly reallyMm: number;
  readonly targetMm: number;
  /** What it wrote, or would have written had it not been too much; null where it writes nothing. */
  readonly written: Written | null;
  readonly path: readonly (readonly number[])[];
}

/** What stands in the way of a gauging, as the code of a run that ended. */
export type GaugeProblem = "no-probe" | "met-nothing" | "way-not-run" | "no-such-register" | "length-not-told";

interface Where<S> {
  readonly state: S;
  readonly from: ProbePlace;
  readonly hangs: number | null;
  /** Pieces of the way that the call names, as they were run. */
  named(first: number, last: number): NamedWay | null;
  /** Rays through what was cut so far. */
  runs(): RunsClear | null;
}

/** Further off than this the probe does not search, mm. */
const SEARCH_MM = 40;
const step = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** What a gauging comes to, with the machine as it really is; or what stands in its way. */
export function gauge<S extends LaneBase>(
  gauging: Gauging<S>,
  call: GaugeCall,
  where: Where<S>,
): Gauged | GaugeProblem {
  if (call.axis === null) return checkLength(gauging, call, where);
  const { state, from, hangs } = where;
  if (!gauging.isProbe(state, hangs)) return "no-probe";
  const runs = where.runs();
  const found = runs && gauging.find(state, from, call.axis, runs);
  if (!found || found.path.some((to, i) => i > 0 && farFrom(to, found.path[i - 1] ?? to) > 2 * SEARCH_MM))
    return "met-nothing";
  const common = { call, readsMm: step(found.readsMm), reallyMm: step(found.reallyMm), path: found.path };
  return call.cycle === "decide" ? decided(call, common) : corrected(gauging, call, where, common, call.axis);
}
const farFrom = (to: readonly number[], from: readonly number[]): number =>
  Math.hypot(...to.map((value, axis) => value - (from[axis] ?? 0)));

type Common = Pick<Gauged, "call" | "readsMm" | "reallyMm" | "path">;

/** Within what is allowed it goes on; metal that is left can be cut, metal that is gone cannot be put back. */
function decided({ size, within }: GaugeCall, common: Common): Gauged {
  const targetMm = size ?? 0;
  const offMm = common.readsMm - targetMm;
  const notGood = offMm < 0 ? "metalLeft" : "scribed";
  const isGood = Math.abs(offMm) <= (within ?? 0) + 1e-9;
  return {
    ...common,
    targetMm,
    written: null,
    outcome: isGood ? "good" : notGood,
  };
}

function corrected<S extends LaneBase>(
  gauging: Gauging<S>,
  { way, percent, limit }: GaugeCall,
  { state, from, named }: Where<S>,
  common: Common,
  axis: GaugeAxis,
): Gauged | GaugeProblem {
  const gone = way && named(way.first, way.last);
  const targetMm = gone && gauging.targetMm(state, from, axis, gone);
  if (!gone || targetMm === null) return "way-not-run";
  const corrects = gauging.corrects(state, axis, gone);
  if (!corrects) return "no-such-register";
  const { register, perMm } = corrects;
  const changeMm = ((common.readsMm - targetMm) * perMm * percent) / 100;
  const stands = readRegister(state.registers, register);
  const written = { register, from: stands, to: stands + toCounts(changeMm, state.scale) };
  const isTooMuch = Math.abs(changeMm) > (limit ?? 0) + 1e-9;
  return { ...common, targetMm: step(targetMm), written, outcome: isTooMuch ? "tooMuch" : "written" };
}

/** A tool that is not as long as its row has it stops the run; nothing is written. */
function checkLength<S extends LaneBase>(
  gauging: Gauging<S>,
  call: GaugeCall,
  { state, from, hangs }: Where<S>,
): Gauged | GaugeProblem {
  const told = call.row === null ? null : gauging.length(state, hangs);
  const heldMm = call.row === null ? null : gauging.heldMm(state, call.row);
  if (!told || heldMm === null) return "length-not-told";
  const isOff = Math.abs(told.readsMm - heldMm) > (call.within ?? 0);
  return {
    call,
    readsMm: step(told.readsMm),
    reallyMm: step(told.reallyMm),
    targetMm: step(heldMm),
    written: null,
    outcome: isOff ? "lengthOff" : "good",
    path: [from.at],
  };
}
