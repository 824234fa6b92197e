import type { LaneBase } from "../../lane/state";
import type { AxisCounts } from "../../registers";
import { toCounts } from "../../units";
import { courseOf, runsOnPart } from "./course";
import {
  isSameAsk,
  type Ask,
  type PartFigure,
  type ProgramDesk,
  type ProgramGauged,
  type Signature,
  type WithdrawnLook,
} from "../../lane/programDesk";
import type { RestPlace, RunHold } from "../../lane/programNames";
import { numberedLine } from "./renumber";
import type { ProgramPorts } from "./ports";
import { schoolsProved } from "./proved";

/** One thing to be looked up, and how it stands; `agrees` only in practice. */
export interface AskSeen extends Ask {
  readonly said: string | null;
  readonly isSound: boolean | null;
  readonly withdrawnBy: WithdrawnLook["by"] | null;
  readonly agrees: boolean | null;
}

/** What may be seen of programs on a lane: what the control shows, and what was said. */
export interface ProgramSeen {
  readonly number: number | null;
  /** The number that it was loaded as. */
  readonly as: number | null;
  /** A program of one's own, whole; of one from the store the lines that were changed, by number. */
  readonly own: readonly string[] | null;
  readonly changed: Readonly<Record<number, string>>;
  readonly pace: ProgramDesk["pace"];
  readonly asks: readonly AskSeen[];
  /** What tools may stand over at their lowest here. */
  readonly restPlaces: readonly RestPlace[];
  /** Schools of proving that are asked for, and whether the log has them. */
  readonly proved: ReturnType<typeof schoolsProved>;
  readonly signature: Signature;
  readonly deepest: readonly Pick<ProgramDesk["deepest"][number], "tool" | "outcome">[];
  readonly run: {
    readonly line: number;
    readonly fromLine: number;
    readonly held: RunHold | null;
    /** What is still to go of the block that runs, counts. */
    readonly toGo: AxisCounts;
  } | null;
  readonly last: ProgramDesk["last"];
  readonly gaps: ProgramDesk["gaps"];
  /** What the program gauged; what a size really is stays hidden. */
  readonly gauged: readonly Omit<ProgramGauged, "reallyMm">[];
  readonly runs: number;
  /** What was made of a setup that was kept before. */
  readonly kept: ProgramDesk["kept"];
  /** The part that is held, and what was read of parts, where the exercise has them measured. */
  readonly parts?: PartsSeen;
}

/** What may be seen of parts: what instruments showed and what was said; what a size really is, only in practice. */
export interface PartsSeen {
  readonly current: number;
  readonly blanks: number;
  /** How often the one that is held was cut. */
  readonly cut: number;
  readonly isWarm: boolean;
  readonly figures: readonly (Omit<PartFigure, "reallyMm"> & { readonly reallyMm: number | null })[];
  readonly judged: ProgramDesk["parts"]["judged"];
  readonly saved: ProgramDesk["parts"]["saved"];
}

/** So many figures stay on the list: more than a report has lines, however often a stack is tried. */
const FIGURES_SEEN = 60;

function partsSeen({ program, setup, isCoachOn }: LaneBase): { readonly parts?: PartsSeen } {
  const { blanks } = setup;
  if (blanks === undefined) return {};
  const { current, isWarm, figures, judged, saved } = program.parts;
  return {
    parts: {
      current,
      blanks,
      cut: runsOnPart(program, current).length,
      isWarm,
      figures: figures
        .slice(-FIGURES_SEEN)
        .map((figure) => ({ ...figure, reallyMm: isCoachOn ? figure.reallyMm : null })),
      judged,
      saved,
    },
  };
}

function toGoOf<S extends LaneBase>(ports: ProgramPorts<S>, state: S): AxisCounts {
  const { run } = state.program;
  const piece = run && courseOf(ports, run).piece(run.piece);
  const toGo = { x: 0, y: 0, z: 0 };
  if (piece?.type !== "move") return toGo;
  const end = piece.path.at(-1) ?? [];
  ports.axes.forEach((axis, at) => (toGo[axis] = toCounts(end[at] ?? 0, state.scale) - state.position[axis]));
  return toGo;
}

function asksSeen(state: LaneBase): AskSeen[] {
  const { asks, looked, withdrawn } = state.program;
  return asks.map((one): AskSeen => {
    const isOf = (other: Ask) => isSameAsk(one, other);
    const said = looked.find(isOf);
    return {
      ...one,
      said: said?.said ?? null,
      isSound: said?.isSound ?? null,
      withdrawnBy: withdrawn.findLast(isOf)?.by ?? null,
      agrees: said && state.isCoachOn ? said.isRight : null,
    };
  });
}

/** Lines that are not as they stand in the store: changed, or with another number. */
const changedLines = ({ number, as, lines, mended }: NonNullable<ProgramDesk["held"]>): readonly number[] =>
  as === number ? mended : [numberedLine(lines) + 1, ...mended];

/** What may be seen of programs; nothing where the lane has none and none was taken. */
export function programSeen<S extends LaneBase>(ports: ProgramPorts<S>, state: S): { readonly program?: ProgramSeen } {
  const { held, pace, deepest, run, last, gaps, done } = state.program;
  if (!held && !state.setup.programs) return {};
  return {
    program: {
      number: held?.number ?? null,
      as: held?.as ?? null,
      own: held?.number === 0 ? held.lines : null,
      changed:
        held && held.number !== 0
          ? Object.fromEntries(changedLines(held).map((line) => [line, held.lines[line - 1] ?? ""]))
          : {},
      pace,
      asks: asksSeen(state),
      proved: schoolsProved(state),
      restPlaces: ports.restPlaces,
      signature: state.program.signature,
      deepest: deepest.map(({ tool, outcome }) => ({ tool, outcome })),
      run: run && { line: run.line, fromLine: run.fromLine, held: run.held, toGo: toGoOf(ports, state) },
      last,
      gaps,
      gauged: state.program.gauged.slice(-FIGURES_SEEN).map(({ reallyMm: _hidden, ...one }) => one),
      runs: done.length,
      kept: state.program.kept,
      ...partsSeen(state),
    },
  };
}
