import { interpret, readProgram, type GaugeCall, type Move } from "../../gcode";
import { type RunsClear } from "../../inspection/features";
import { type LaneBase } from "../../lane/state";
import { toldWrites, type ContactKind, type Stretch, type Way, type WayStep, UnknownRegister } from "../../proving";
import { readRegister, type Registers } from "../../registers";
import { toCounts, toMm } from "../../units";
import { type ProgramDesk, type ProgramGauged, type ProgramRun } from "../../lane/programDesk";
import { type CutWay } from "./cutWay";
import { type ProgramPorts, type Prover } from "./ports";
import { gauge, type Gauged, type NamedWay } from "./gauging";
import { withWritten, writesOf, type Written } from "./written";

type Path = readonly (readonly number[])[];

/** One thing that a run does, in order. A move stands with its way through the machine and how long that is, mm. */
export type Piece =
  | {
      readonly type: "move";
      readonly line: number;
      readonly move: Move;
      readonly path: Path;
      readonly lengthMm: number;
      /** As they stood when it was gone. */
      readonly registers: Registers;
      /** The same way to the last figure. */
      exact(): readonly Stretch[];
    }
  | { readonly type: "tool"; readonly line: number; readonly tool: number }
  | { readonly type: "write"; readonly line: number; readonly written: readonly Written[] }
  | {
      readonly type: "gauge";
      readonly line: number;
      /** The way of the probe through the machine, and how long that is, mm. */
      readonly path: Path;
      readonly lengthMm: number;
      readonly gauged: Gauged;
    }
  | { readonly type: "stop"; readonly line: number; readonly isOptional: boolean }
  | { readonly type: "end"; readonly line: number }
  | { readonly type: "wrong"; readonly line: number; readonly code: string };

interface ContactOnWay {
  readonly alongMm: number;
  readonly kind: ContactKind;
  readonly with: string;
}

/** How long a stretch is; a lathe's X is a diameter. */
function stretchMm(from: readonly number[], to: readonly number[], isLathe: boolean): number {
  return Math.hypot(...from.map((value, axis) => ((to[axis] ?? 0) - value) / (isLathe && axis === 0 ? 2 : 1)));
}
const pathMm = (path: Path, isLathe: boolean): number =>
  path.slice(1).reduce((sum, to, at) => sum + stretchMm(path[at] ?? [], to, isLathe), 0);

/** The place so far along a way. */
export function placeAlong(path: Path, alongMm: number, isLathe: boolean): readonly number[] {
  let left = alongMm;
  for (let i = 1; i < path.length; i++) {
    const [from = [], to = []] = [path[i - 1], path[i]];
    const length = stretchMm(from, to, isLathe);
    if (left <= length && length > 0)
      return from.map((value, axis) => value + ((to[axis] ?? 0) - value) * (left / length));
    left -= length;
  }
  return path.at(-1) ?? [];
}

/** The way so far along it. */
function pathTo(path: Path, alongMm: number, isLathe: boolean): Path {
  let left = alongMm;
  const whole = path.slice(1).findIndex((to, at) => {
    const length = stretchMm(path[at] ?? [], to, isLathe);
    if (left <= length) return true;
    left -= length;
    return false;
  });
  return [...path.slice(0, whole + 1), placeAlong(path, alongMm, isLathe)];
}

/**
 * What one run does, piece by piece, worked out only as far as it is asked for: nothing of what is still to come takes
 * time before it comes, and none of it can be read off a clock.
 */
export class Course<S extends LaneBase> {
  private readonly pieces: Piece[] = [];
  private readonly contacts: (ContactOnWay | null)[] = [];
  private readonly steps: Iterator<WayStep, void>;
  /** What each G10 sets, in order; null of one that cannot be read. */
  private readonly written: (readonly Written[] | null)[] = [];
  private followed: Prover<S> | null = null;
  private readonly isLathe: boolean;
  private at: readonly number[];
  private hanging: number | null;
  private isSkipping: boolean;
  private isOver = false;
  private isRowMissing = false;
  /** The lane with what the program has written so far. */
  private now: S;
  /** What hangs there at the piece that is taken next, and the move that was last. */
  private hangs: number | null;
  private lastMove: Move | null = null;
  /** How many gaugings that are known were come by. */
  private recalled = 0;

  constructor(
    private readonly ports: ProgramPorts<S>,
    private readonly before: S,
    private readonly fromLine: number,
    isUnread = false,
    /** What its gaugings came to, where that is known; empty where it is only looked at what it would meet. */
    private readonly known: readonly ProgramGauged[] | null = null,
  ) {
    const { program, setup, position, scale } = before;
    this.isLathe = ports.dialect === "lathe";
    this.at = ports.axes.map((axis) => toMm(position[axis], scale));
    this.hanging = ports.hangs(before);
    this.hangs = this.hanging;
    this.isSkipping = fromLine > 0;
    this.now = before;
    const held = program.held?.lines ?? [];
    // unread, what is in force stands in place of all that comes before
    const lines = isUnread
      ? held.map((line, at) => (at + 1 < fromLine ? "" : line)).with(0, ports.inForce(before))
      : held;
    const steps = interpret(readProgram(lines.join("\n"), ports.dialect), {
      startUnits: setup.unit,
      figures: "mm",
      isExpanding: true,
      blockDelete: program.pace.passesSlash,
      registers: {
        at: this.at,
        home: ports.axes.map(() => 0),
        offset: (frame, row, sign) => this.offset(frame, row, sign),
      },
    });
    const told = toldWrites(steps, (write) => {
      const written = writesOf(this.now, write, ports.dialect);
      if (written) this.now = withWritten(this.now, written);
      this.written.push(written);
    });
    this.steps = ports.ways(() => this.now, told);
  }

  /** The blank under this run, as the last run on it left it; begun where the first contact is asked for. */
  private get prover(): Prover<S> {
    if (this.followed) return this.followed;
    const { program } = this.before;
    const last = runsOnPart(program, program.parts.current).at(-1);
    this.followed = last ? forkOf(this.ports, last, this.before) : this.ports.prover(this.before);
    return this.followed;
  }

  /** What was fed on the way to where a run ended: so far along the piece of this number, mm. */
  cutTo(last: number, alongMm: number): CutWay[] {
    const ways: CutWay[] = [];
    let hangs = this.ports.hangs(this.before);
    for (let number = 0; number <= last; number++) {
      const piece = this.piece(number);
      if (!piece) break;
      if (piece.type === "tool") hangs = this.ports.brings(this.before, piece.tool) ?? null;
      if (piece.type !== "move" || piece.move.kind === "rapid") continue;
      if (number < last || alongMm >= piece.lengthMm) ways.push({ hangs, stretches: piece.exact() });
      else if (alongMm > 0) ways.push({ hangs, stretches: this.chords(pathTo(piece.path, alongMm, this.isLathe)) });
    }
    return ways;
  }

  /** The work offset of the first move that was fed in one; null where none was. */
  frame(): string | null {
    for (let number = 0; ; number++) {
      const piece = this.piece(number);
      if (!piece) return null;
      if (piece.type === "move" && piece.move.kind !== "rapid" && !piece.move.isMachineFrame) return piece.move.frame;
    }
  }

  /** Rays through what was cut of the part so far, by runs before this one too. */
  private cutSoFar(): RunsClear | null {
    const { program } = this.before;
    const earlier = runsOnPart(program, program.parts.current).map((run) => ({
      before: run.before as S,
      ways: courseOf(this.ports, run).cutTo(run.piece, run.alongMm),
    }));
    return this.ports.rays([...earlier, { before: this.before, ways: this.cutTo(this.pieces.length - 1, Infinity) }]);
  }

  /** What was fed from one line to another, and what that was run with; null where it was not gone. */
  private named(first: number, last: number): NamedWay | null {
    const moves = this.pieces.flatMap((piece) =>
      piece.type === "move" && piece.line >= first && piece.line <= last && piece.move.kind !== "rapid" ? [piece] : [],
    );
    const [gone] = moves;
    if (!gone || gone.move.tool === null) return null;
    const { move, registers } = gone;
    const rowOf = moves.find((piece) => piece.move.diameterRow !== null && piece.move.compensation !== "none");
    return {
      ways: moves.map((piece) => ({ hangs: null, stretches: piece.exact() })),
      registers,
      tool: gone.move.tool,
      frame: move.frame,
      row: move.row,
      diameterRow: rowOf?.move.diameterRow ?? null,
    };
  }

  /** What was written at this line when the run was really made; the probe's own way leaves nothing. */
  private gaugedBefore(known: readonly ProgramGauged[], { line }: GaugeCall): null {
    const { register, changeMm, outcome } = known.find((one, at) => at >= this.recalled && one.line === line) ?? {};
    this.recalled += 1;
    if (!register || changeMm == null || outcome !== "written") return null;
    const from = readRegister(this.now.registers, register);
    this.now = withWritten(this.now, [{ register, from, to: from + toCounts(changeMm, this.now.scale) }]);
    return null;
  }

  private gaugedAt(call: GaugeCall): Piece {
    const { gauging } = this.ports;
    const { line } = call;
    if (!gauging || !this.lastMove) return { type: "wrong", line, code: "no-probe" };
    const { frame, row } = this.lastMove;
    const found = gauge(gauging, call, {
      state: this.now,
      from: { at: this.at, frame, row },
      hangs: this.hangs,
      named: (first, last) => this.named(first, last),
      runs: () => this.cutSoFar(),
    });
    if (typeof found === "string") return { type: "wrong", line, code: found };
    if (found.outcome === "written" && found.written) this.now = withWritten(this.now, [found.written]);
    return { type: "gauge", line, path: found.path, lengthMm: pathMm(found.path, this.isLathe), gauged: found };
  }

  private chords(path: Path): Stretch[] {
    const flat = ([x = 0, y = 0]: readonly number[]): readonly [number, number] => (this.isLathe ? [y, x / 2] : [x, y]);
    return path.slice(1).map((to, at) => {
      const from = path[at] ?? to;
      const piece = { from: flat(from), to: flat(to), center: null, isClockwise: false };
      return { piece, from: from[2] ?? 0, to: to[2] ?? 0 };
    });
  }

  /** A row or an offset that is not there is told at the line that calls it. */
  private offset(frame: string, row: number | null, sign: 1 | -1): readonly number[] {
    try {
      return this.ports.offset(this.now, frame, row, sign);
    } catch (error) {
      if (!(error instanceof UnknownRegister)) throw error;
      this.isRowMissing = true;
      return this.ports.axes.map(() => 0);
    }
  }

  /** The stock after this run was ended in a piece. */
  after(piece: number): Prover<S> {
    this.contact(piece);
    return this.prover;
  }

  /** The piece of a number; null after the last. */
  piece(number: number): Piece | null {
    while (this.pieces.length <= number && !this.isOver) this.take();
    return this.pieces[number] ?? null;
  }

  /** What is met on the way of a piece, and how far along it. */
  contact(number: number): ContactOnWay | null {
    while (this.contacts.length <= number) {
      const piece = this.piece(this.contacts.length);
      if (!piece) return null;
      this.contacts.push(this.met(piece));
    }
    return this.contacts[number] ?? null;
  }

  private met(piece: Piece): ContactOnWay | null {
    if (piece.type === "tool") this.hanging = this.ports.brings(this.before, piece.tool) ?? null;
    if (piece.type !== "move") return null;
    const found = this.prover.meet(piece.move, piece.path, this.hanging);
    if (!found) return null;
    const { stretch, met } = found;
    const [from = [], to = []] = [piece.path[stretch], piece.path[stretch + 1]];
    const alongMm =
      pathMm(piece.path.slice(0, stretch + 1), this.isLathe) + stretchMm(from, to, this.isLathe) * met.share;
    return { alongMm, kind: met.kind, with: met.with };
  }

  private take(): void {
    const piece = this.next();
    if (!piece) return;
    this.pieces.push(piece);
    if (piece.type === "end" || piece.type === "wrong") this.isOver = true;
  }

  private next(): Piece | null {
    const step = this.steps.next();
    if (step.done) {
      this.isOver = true;
      return null;
    }
    return this.pieceOf(step.value);
  }

  private pieceOf(step: WayStep): Piece | null {
    const { line } = step;
    if (this.isSkipping && step.type === "tool" && line === this.fromLine) this.isSkipping = false;
    if (this.isRowMissing) return { type: "wrong", line, code: "no-such-row" };
    if (step.type === "wrong") return { type: "wrong", line, code: step.code };
    if (step.type === "end") return { type: "end", line };
    if (step.type === "write") {
      const written = this.written.shift() ?? null;
      return written ? { type: "write", line, written } : { type: "wrong", line, code: "no-such-register" };
    }
    if (this.isSkipping) return null;
    if (step.type === "tool") return this.brought(line, step.tool);
    if (step.type === "gauge") return this.known ? this.gaugedBefore(this.known, step) : this.gaugedAt(step);
    if (step.type === "stop") return { type: "stop", line, isOptional: step.kind === "M1" };
    const moved = step.type === "way" ? this.moved(step) : null;
    // a move to where it stands already is none
    return moved && moved.lengthMm > 0 ? moved : null;
  }

  private brought(line: number, tool: number): Piece {
    const hangs = this.ports.brings(this.before, tool);
    if (hangs === undefined) return { type: "wrong", line, code: "tool-missing" };
    this.hangs = hangs;
    return { type: "tool", line, tool };
  }

  /** Only axes that are named go: the others stay where the machine stands. */
  private moved(way: Way): Extract<Piece, { type: "move" }> {
    const { move, path: whole, isBeside } = way;
    const start = this.at;
    const end = whole.at(-1) ?? start;
    const isStraight = !isBeside && whole.length === 2;
    const path = isStraight
      ? [start, start.map((value, axis) => ((move.named & (1 << axis)) === 0 ? value : (end[axis] ?? value)))]
      : [start, ...whole.slice(1)];
    this.at = path.at(-1) ?? start;
    this.lastMove = move;
    const exact = isStraight ? () => this.chords(path) : way.exact;
    const { registers } = this.now;
    return { type: "move", line: move.line, move, path, lengthMm: pathMm(path, this.isLathe), registers, exact };
  }
}

/** Runs that have ended and that cut the part of this number, in their order. */
export const runsOnPart = ({ done }: ProgramDesk, part: number): readonly ProgramRun[] =>
  done.flatMap(({ run }) => ((run.before as LaneBase).program.parts.current === part ? [run] : []));

/** Courses that are kept: each holds a block as it is cut, some megabytes. One that is missed is made from the log. */
const KEPT_COURSES = 60;
const courses = new Map<object, unknown>();

/** The course of a run, by the lane in which it began. */
export function courseOf<S extends LaneBase>(ports: ProgramPorts<S>, run: ProgramRun): Course<S> {
  const known = courses.get(run.before) as Course<S> | undefined;
  const course = known ?? new Course(ports, run.before as S, run.fromLine, run.isUnread);
  // the one that was asked for last goes last
  courses.delete(run.before);
  courses.set(run.before, course);
  for (const oldest of courses.keys()) {
    if (courses.size <= KEPT_COURSES) break;
    courses.delete(oldest);
  }
  return course;
}

/** The block as a run left it, under the tools of another lane; that run is over, and its course is let go. */
function forkOf<S extends LaneBase>(ports: ProgramPorts<S>, run: ProgramRun, state: S): Prover<S> {
  const prover = courseOf(ports, run).after(run.piece).fork(state);
  courses.delete(run.before);
  return prover;
}

const IN_FIXTURE = new Set(["tool-in-fixture", "holder-in-fixture", "tool-in-chuck"]);
/** The most pieces that are looked through for one tool. */
const MOST_PIECES = 3000;

/** Whether a tool meets what holds the part anywhere on its way, with the registers as they stand. Reads the truth. */
export function struckBy<S extends LaneBase>(ports: ProgramPorts<S>, state: S, tool: number): boolean {
  const course = new Course(ports, state, 0, false, []);
  for (let number = 0; number < MOST_PIECES; number++) {
    const piece = course.piece(number);
    if (!piece) return false;
    const met = course.contact(number);
    if (piece.type === "move" && piece.move.tool === tool && met && IN_FIXTURE.has(met.kind)) return true;
  }
  return false;
}
