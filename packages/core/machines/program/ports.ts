import { type Dialect, type Move, type Reach, type Step } from "../../gcode";
import { type Draft } from "../../lane/draft";
import { type Refusal } from "../../lane/refusals";
import { type LaneBase } from "../../lane/state";
import { type Axis, type RegisterId } from "../../registers";
import { type RunsClear } from "../../inspection/features";
import { type Hanging, type RestPlace } from "../../lane/programNames";
import { type ContactKind, type MetOnPath, type WayStep } from "../../proving";
import { type CutWay } from "./cutWay";
import { type Gauging } from "./gauging";

/** Stock as it is cut by a run, with the machine as it really is. */
export interface Prover<S> {
  /** The first forbidden contact of a move along machine places, with what really hangs there. */
  meet(move: Move, path: readonly (readonly number[])[], hangs: number | null): MetOnPath | null;
  /** The same stock under another lane's tools. */
  fork(state: S): Prover<S>;
}

/** What a machine says of itself to a program that is run on it. Places are machine places by axis, mm. */
export interface ProgramPorts<S extends LaneBase> {
  readonly dialect: Dialect;
  readonly axes: readonly Axis[];
  /** Machine = place + this, with the registers as they stand; throws where a register is not there. */
  offset(state: S, frame: string, row: number | null, sign: 1 | -1): readonly number[];
  prover(state: S): Prover<S>;
  /** What runs left of a part, looked through by rays in its frame; null where it has no zero yet. */
  rays(cuts: readonly { readonly before: S; readonly ways: readonly CutWay[] }[]): RunsClear | null;
  /** How a program gauges what it cut; null on a machine that has nothing for it. */
  readonly gauging: Gauging<S> | null;
  /** How far from where it belongs on the part a frame of a run puts what is cut, by axis, mm. */
  putsOff(before: S, frame: string): readonly number[];
  /** Work offset and row that are in force now, as words. */
  inForce(state: S): string;
  /** The ways of a program's moves, with the registers as they stand at each. */
  ways(now: () => S, steps: Iterable<Step>): Iterator<WayStep, void>;
  /** What hangs there now, as the prover knows it. */
  hangs(state: S): number | null;
  /** What a tool word brings, as the prover knows it; undefined where there is none of that number. */
  brings(state: S, tool: number): number | undefined;
  /** Brings a tool; a word for why the machine stands instead. */
  changeTool(draft: Draft<S>, tool: number): string | null;
  /** Takes over what a move is run with: work offset, row. */
  sync(draft: Draft<S>, move: Move): void;
  /** Why no program can be started now. */
  startProblem(state: S): Refusal | null;
  /** What is left behind where something was met: incidents. */
  struck(draft: Draft<S>, what: ContactKind): void;
  /** Registers that a row of lengths, or of a tool table, is made of. */
  rowRegisters(row: number): readonly RegisterId[];
  /** What a row holds along Z, mm. */
  rowMm(state: S, row: number): number;
  /** Rows whose wear is not zero. */
  wearRows(state: S): readonly number[];
  wearRegisters(state: S): readonly RegisterId[];
  /** Tools swing in past the part; on other machines they are changed away from it. */
  readonly swings: boolean;
  readonly restPlaces: readonly RestPlace[];
  /** What a tool that is fed so far comes over of what holds the part, by the sheet; programmed figures, mm. */
  comesOver(state: S, reach: Reach): readonly RestPlace[];
  /** How far the axes go, mm. */
  travel(state: S): { readonly min: readonly number[]; readonly max: readonly number[] };
  /** What hangs where a tool should, and tool words that bring another tool; null on a machine that has neither. */
  carried(state: S): { readonly hangs: Hanging; readonly swapped: readonly number[] } | null;
  /** What the display reads along Z, mm, and how far the tip really stands over the datum. */
  displayMm(state: S): number;
  reallyMm(state: S): number;
}
