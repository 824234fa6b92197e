import { arcCenter, planeAxes } from "./arcs";
import { dialects, type DialectTable } from "./dialects";
import { Wrong } from "./diagnostics";
import { drillCycle, isDrilling } from "./drillingCycles";
import { Flow } from "./flow";
import { gaugeCycleOf, readGaugeCall } from "./gauging";
import { Modes } from "./modes";
import { type Feed, type Move, type MoveKind, type ProgramPlace, type Step } from "./moves";
import { type Program, type ProgramBlock } from "./program";
import { type DrillingCycle, type PassWords, type Rig, type TurningCycle } from "./rig";
import { Said } from "./said";
import { turnCycle } from "./turningCycles";
import { movePoints } from "./chords";
import { isPecked, outlinePasses, passWordsOf, peckPasses, threadPasses } from "./passCycles";

export interface RunOptions {
  readonly startUnits: "mm" | "inch";
  /** The unit of everything that is told, and of `registers`; as the program starts unless it is said. */
  readonly figures?: "mm" | "inch";
  /** Blocks that begin with a slash are passed over. */
  readonly blockDelete?: boolean;
  /** Text of a program that is called by number; null where there is none. */
  readonly programs?: (number: number) => string | null;
  /**
   * What a place of the program is counted from, for each axis: machine = place + offset. With it every place is known,
   * from `at` on; without it a place is known once it was programmed.
   */
  readonly registers?: {
    readonly at: ProgramPlace;
    readonly home: ProgramPlace;
    offset(frame: string, row: number | null, sign: 1 | -1): ProgramPlace;
  };
  /** Places are kept when another offset is called (they are then no places any more, only programmed figures). */
  readonly keepsPlaces?: boolean;
  /** Pecks and passes of cycles one by one, as a machine goes; otherwise G71 to G76 move nothing. */
  readonly isExpanding?: boolean;
  /** The most blocks that run after a jump back. */
  readonly stepLimit?: number;
}

const MM_PER_INCH = 25.4;
const STEP_LIMIT = 100_000;
/** Steps that the least figure of a control stands for, by the length of its unit. */
const STEPS = { mm: 1000, inch: 10_000 };
const KINDS: readonly MoveKind[] = ["rapid", "feed", "cw", "ccw"];
/** Steps to an arc's center, by axis in the order X Y Z. */
const STEP_LETTERS = ["I", "J", "K"] as const;

/** The blocks of a contour that G70 runs: up to `last`, then back. */
interface Contour {
  readonly last: number;
  readonly back: number;
  readonly from: ProgramPlace;
  readonly line: number;
}

interface Turned {
  readonly center: readonly [number, number];
  readonly cos: number;
  readonly sin: number;
}

/** One program being run: where it stands and how it moves. Everything in the unit of the figures. */
class Run implements Rig {
  readonly out: Step[] = [];
  readonly said: Said;
  readonly flow: Flow;
  isOver = false;
  place: number[];
  shift: number[];
  drilling: DrillingCycle | null = null;
  turning: TurningCycle | null = null;
  passes: PassWords = {};
  readonly isExpanding: boolean;

  private readonly table: DialectTable;
  private readonly axes: readonly string[];
  private readonly isLathe: boolean;
  private readonly modes: Modes;
  private readonly unitMm: number;
  private machine: number[] | null;
  private motion = 0;
  private turned: Turned | null = null;
  private contour: Contour | null = null;
  private isReturning = false;
  private isOutlining = false;
  private block: ProgramBlock | null = null;

  constructor(
    main: Program,
    private readonly options: RunOptions,
  ) {
    this.table = dialects[main.dialect];
    this.axes = this.table.axes;
    this.isLathe = main.dialect === "lathe";
    this.said = new Said(this.table);
    this.flow = new Flow(main, options.programs ?? (() => null), options.stepLimit ?? STEP_LIMIT);
    this.unitMm = (options.figures ?? options.startUnits) === "mm" ? 1 : MM_PER_INCH;
    const startMm = options.startUnits === "mm" ? 1 : MM_PER_INCH;
    this.modes = new Modes(this.said, this.isLathe, this.table.startPlane, this.unitMm, startMm);
    this.isExpanding = options.isExpanding ?? false;
    this.place = this.axes.map(() => NaN);
    this.shift = this.axes.map(() => 0);
    this.machine = options.registers ? [...options.registers.at] : null;
    this.findPlace();
  }

  get isIncremental(): boolean {
    return this.modes.isIncremental;
  }
  get returnsToInitial(): boolean {
    return this.modes.returnsToInitial;
  }
  get mm(): number {
    return 1 / this.unitMm;
  }
  get unit(): number {
    return this.modes.scale;
  }
  lead(): Feed | null {
    return this.modes.lead();
  }
  steps(value: number | null | undefined): number | null {
    return value == null ? null : (value * this.unit) / (this.modes.isInch ? STEPS.inch : STEPS.mm);
  }
  repeat(times: number): void {
    this.flow.repeat(times);
  }

  /** One block, or what its end means; what it does is in `out`. */
  step(): void {
    const { flow } = this;
    if (this.contour && flow.index > this.contour.last) return this.endContour(this.contour);
    const block = flow.next();
    if (!block) return this.endOfText();
    if (block.isOptional && this.options.blockDelete) return;
    if (block.statement) flow.run(block.statement);
    else this.runWords(block);
  }

  private endOfText(): void {
    if (!this.flow.isMain) return this.flow.giveBack();
    this.out.push({ type: "end", line: this.flow.lastLine, kind: "text" });
    this.isOver = true;
  }

  private runWords(block: ProgramBlock): void {
    const { said, modes } = this;
    this.block = block;
    said.read(block, this.flow.variables.get);
    if (said.hasCodes && said.of("once") === 65) return this.call();
    said.checkCodes();
    if (this.machine) this.findPlace();
    modes.takeFeed();
    const forget = (axes: number): void => this.forget(axes);
    const change = modes.takeTool(forget);
    if (change) this.out.push({ type: "tool", line: this.flow.line, ...change });
    if (said.hasCodes) modes.takeOffsets(forget);
    this.move();
    modes.settle();
    if (said.hasCodes) this.finish();
  }

  /** A program by its number, or a gauging, which is built in where no program of that number is there. */
  private call(): void {
    const { flow, said } = this;
    const number = said.value("P");
    const cycle = gaugeCycleOf(number);
    if (cycle === null || this.isLathe || flow.has(number)) return flow.call(said, true);
    this.out.push(readGaugeCall(cycle, said, flow.text, flow.line, (letter) => this.length(letter)));
  }

  /** In the unit of the figures. */
  length(letter: string): number | null {
    const value = this.said.value(letter);
    return value === null ? null : value * this.modes.scale;
  }

  /** What is counted from elsewhere now is not known any more; where the registers are, it is worked out anew. */
  private forget(axes: number): void {
    if (axes === 0) return;
    if (this.machine) this.findPlace();
    else if (!this.options.keepsPlaces) this.lose(axes);
  }

  private lose(axes: number): void {
    for (let i = 0; i < this.place.length; i++) if ((axes & (1 << i)) !== 0) this.place[i] = NaN;
  }

  private findPlace(): void {
    const { machine } = this;
    const { registers } = this.options;
    if (!machine || !registers) return;
    const { frame, row, rowSign } = this.modes;
    const offset = registers.offset(frame, row, rowSign);
    this.place = machine.map((at, i) => at - (offset[i] ?? 0));
  }

  /** Bit i set for every axis that the block names. */
  private named(): number {
    const { said } = this;
    if (this.isLathe) return (said.has("X") || said.has("U") ? 1 : 0) | (said.has("Z") || said.has("W") ? 2 : 0);
    return (said.has("X") ? 1 : 0) | (said.has("Y") ? 2 : 0) | (said.has("Z") ? 4 : 0);
  }

  /** Where the block's words lead, from where it stands; axes that are not named stay. */
  goal(): number[] {
    const goal = [...this.place];
    if (this.isLathe) {
      this.latheAxis(goal, 0, "X", "U");
      this.latheAxis(goal, 1, "Z", "W");
      return goal;
    }
    for (let i = 0; i < 3; i++) {
      const value = this.length(this.axes[i] ?? "");
      if (value === null) continue;
      goal[i] = this.modes.isIncremental ? (this.place[i] ?? NaN) + value : value + (this.shift[i] ?? 0);
    }
    if (this.turned && (this.said.has("X") || this.said.has("Y"))) this.turnGoal(goal, this.turned);
    return goal;
  }

  private latheAxis(goal: number[], axis: 0 | 1, letter: string, step: string): void {
    const [value, by] = [this.length(letter), this.length(step)];
    if (value !== null) goal[axis] = value;
    else if (by !== null) goal[axis] = (this.place[axis] ?? NaN) + by;
  }

  /** A goal in a frame that is turned about a center: points and steps turn, from where the turned frame has them. */
  private turnGoal(goal: number[], { center, cos, sin }: Turned): void {
    const [px, py] = [(this.place[0] ?? NaN) - center[0], (this.place[1] ?? NaN) - center[1]];
    const local = [cos * px + sin * py, cos * py - sin * px];
    for (const i of [0, 1]) {
      const value = this.length(this.axes[i] ?? "");
      if (value === null) continue;
      local[i] = this.modes.isIncremental ? (local[i] ?? NaN) + value : value + (this.shift[i] ?? 0) - (center[i] ?? 0);
    }
    const [x = NaN, y = NaN] = local;
    if (Number.isNaN(x) || Number.isNaN(y)) throw new Wrong("position-unknown");
    goal[0] = center[0] + cos * x - sin * y;
    goal[1] = center[1] + sin * x + cos * y;
  }

  private move(): void {
    const { said } = this;
    const once = said.of("once");
    if (once !== null) return this.runOnce(once);
    const turned = said.of("turned");
    if (turned === 68) return this.turnFrame();
    if (turned === 69) this.turned = null;
    if (said.hasCodes) this.setMotion();
    const named = this.named();
    if (this.drilling) return drillCycle(this, this.drilling, named);
    if (this.motion > 3 && this.motion !== 32) return named === 0 ? undefined : turnCycle(this, this.motion);
    const isArc = this.motion === 2 || this.motion === 3;
    if (named === 0 && !(isArc && this.hasArcWords())) return;
    if (isArc) return this.arc(this.goal(), named);
    if (this.motion === 32) return this.go("feed", this.goal(), named, this.lead());
    this.go(this.motion === 0 ? "rapid" : "feed", this.goal(), named);
  }

  private setMotion(): void {
    const { said } = this;
    const motion = said.of("motion");
    if (motion !== null) {
      if (motion !== this.motion) this.turning = null;
      this.motion = motion;
      this.drilling = null;
    }
    const cycle = said.of("cycle");
    if (cycle === 80) {
      this.drilling = null;
      if (motion === null) this.motion = 0;
    } else if (cycle !== null && isDrilling(cycle))
      this.drilling = { ...(this.drilling ?? { initial: this.place[2] ?? NaN }), code: cycle };
  }

  private hasArcWords(): boolean {
    return this.said.has("R") || STEP_LETTERS.some((letter) => this.said.has(letter));
  }

  /** Codes that hold for one block; its axes belong to them. G4 and what a cycle of many passes says move nothing. */
  private runOnce(code: number): void {
    const { said } = this;
    if (code === 10)
      this.out.push({ type: "write", line: this.flow.line, words: said.all(), isInch: this.modes.isInch });
    else if (code === 28 || code === 30) this.toReference(code);
    else if (code === 31 && this.named() !== 0) this.go("feed", this.goal(), this.named());
    else if (code === 50) this.declare();
    else if (code === 52) this.axes.forEach((letter, i) => (this.shift[i] = this.length(letter) ?? this.shift[i] ?? 0));
    else if (code === 53) {
      this.setMotion();
      this.inMachineFrame();
    } else if (code === 70) this.runContour();
    else if (code >= 71 && code <= 76) this.runPasses(code);
  }

  /** G71 to G76: what the first block of two says is kept for the second. */
  private runPasses(code: number): void {
    const words = passWordsOf(this, code);
    if (words) {
      this.passes = words;
      return;
    }
    if (code > 73) {
      if (this.isExpanding) (isPecked(code) ? peckPasses : threadPasses)(this, code);
      return;
    }
    const contour = this.flow.contour(this.said);
    if (this.isExpanding) {
      const left = { u: this.length("U") ?? 0, w: this.length("W") ?? 0 };
      outlinePasses(this, code, this.outline(contour), left);
    }
    this.flow.index = contour.last + 1;
  }

  /** Places of blocks that are gone through without moving anything; what they call is as if it were not called. */
  private outline({ first, last }: { readonly first: number; readonly last: number }): ProgramPlace[] {
    if (this.isOutlining || this.contour) throw new Wrong("nesting");
    if (this.place.some(Number.isNaN)) throw new Wrong("position-unknown");
    const { block, flow, modes, place, machine, motion, turning } = this;
    const [kept, modal, { index, line }] = [this.out.length, { ...modes }, flow];
    this.isOutlining = true;
    flow.index = first;
    while (flow.index <= last && !this.isOver) this.step();
    const moves = this.out.splice(kept).filter((step) => step.type === "move" && !step.isMachineFrame);
    this.isOutlining = this.isOver = false;
    Object.assign(this, { place, machine, motion, turning });
    Object.assign(modes, modal);
    Object.assign(flow, { index, line });
    if (block) this.said.read(block, flow.variables.get);
    return moves.flatMap((step, i) => {
      if (step.type !== "move") return [];
      return i === 0 ? [step.to] : movePoints(step, true).slice(1);
    });
  }

  private toReference(code: 28 | 30): void {
    const named = this.named();
    if (named === 0) return;
    this.isReturning = true;
    this.go("rapid", this.goal(), named);
    const home = this.options.registers?.home;
    const to = this.axes.map((_, i) => ((named & (1 << i)) !== 0 && code === 28 ? (home?.[i] ?? 0) : NaN));
    this.goMachine("rapid", to, named, code === 30 && home ? home : to);
    this.isReturning = false;
  }

  private inMachineFrame(): void {
    const named = this.named();
    if (named === 0) return;
    const to = this.axes.map((letter) => this.length(letter) ?? NaN);
    this.goMachine(this.motion === 1 ? "feed" : "rapid", to, named, to);
  }

  private declare(): void {
    const named = this.named();
    if (named === 0) return;
    this.place = this.goal();
    this.out.push({ type: "declare", line: this.flow.line, place: [...this.place] });
  }

  private turnFrame(): void {
    const [x, y, angle] = [this.length("X"), this.length("Y"), this.said.value("R")];
    if (x === null || y === null || angle === null) throw new Wrong("word-missing");
    const rad = (angle * Math.PI) / 180;
    const center = [x + (this.shift[0] ?? 0), y + (this.shift[1] ?? 0)] as const;
    this.turned = { center, cos: Math.cos(rad), sin: Math.sin(rad) };
  }

  /** A straight move, or a part of a cycle. */
  go(kind: MoveKind, to: number[], named: number, feed: Feed | null = this.modes.feed): void {
    this.push(kind, to, named, null, feed);
  }

  private push(
    kind: MoveKind,
    to: number[],
    named: number,
    center: readonly [number, number] | null,
    feed: Feed | null,
  ): void {
    if (kind !== "rapid" && feed === null) throw new Wrong("feed-missing");
    const inPlane = this.isLathe ? 3 : planeAxes[this.modes.plane].reduce((mask, axis) => mask | (1 << axis), 0);
    if (this.modes.isSideNew && (named & inPlane) !== 0) {
      if (center) throw new Wrong("comp-in-arc");
      this.modes.isSideNew = false;
    }
    const from = this.place;
    this.place = to;
    this.out.push(this.told(kind, from, to, named, center, feed, false, this.machineAfter(from, to)));
  }

  private machineAfter(from: ProgramPlace, to: ProgramPlace): Move["machine"] {
    const { machine } = this;
    if (!machine) return null;
    this.machine = machine.map((at, i) => at + (to[i] ?? 0) - (from[i] ?? 0));
    return { from: machine, to: this.machine };
  }

  private goMachine(kind: "rapid" | "feed", to: number[], named: number, really: ProgramPlace): void {
    if (kind === "feed" && this.modes.feed === null) throw new Wrong("feed-missing");
    this.modes.isSideNew = false;
    const before = this.machine;
    if (before) this.machine = before.map((at, i) => ((named & (1 << i)) !== 0 ? (really[i] ?? at) : at));
    const machine = before && this.machine ? { from: before, to: this.machine } : null;
    this.out.push(this.told(kind, this.place, to, named, null, this.modes.feed, true, machine));
    this.place = [...this.place];
    if (before) this.findPlace();
    else this.lose(named);
  }

  private told(
    kind: MoveKind,
    from: ProgramPlace,
    to: ProgramPlace,
    named: number,
    center: readonly [number, number] | null,
    feed: Feed | null,
    isMachineFrame: boolean,
    machine: Move["machine"],
  ): Move {
    return {
      type: "move",
      line: this.flow.line,
      kind,
      from,
      to,
      named,
      isMachineFrame,
      isReturn: this.isReturning,
      feed: kind === "rapid" ? null : feed,
      tool: this.modes.tool,
      frame: this.modes.frame,
      row: this.modes.row,
      compensation: this.modes.compensation,
      diameterRow: this.modes.compensation === "none" ? null : this.modes.diameterRow,
      plane: this.modes.plane,
      center,
      spindle: this.modes.spindle,
      speed: this.modes.speed,
      machine,
    };
  }

  private arc(goal: number[], named: number): void {
    const from = this.place;
    const [u, v] = this.isLathe ? [1, 0] : planeAxes[this.modes.plane];
    // a lathe's X is a diameter: the circle is round in radii
    const radial = (place: ProgramPlace, axis: number): number =>
      this.isLathe && axis === 0 ? (place[0] ?? NaN) / 2 : (place[axis] ?? NaN);
    const start = [radial(from, u), radial(from, v)] as const;
    const end = [radial(goal, u), radial(goal, v)] as const;
    if ([...start, ...end].some(Number.isNaN)) throw new Wrong("position-unknown");
    const words = { steps: this.centerSteps(u, v), radius: this.length("R") };
    const center = arcCenter(start, end, words, this.motion === 2, this.unitMm);
    // told in the order X Y Z
    const told: [number, number] = u < v ? center : [center[1], center[0]];
    if (this.isLathe) told[0] *= 2;
    this.push(KINDS[this.motion] ?? "cw", goal, named, told, this.modes.feed);
  }

  /** I J K along the plane's two axes, turned with the frame. */
  private centerSteps(u: number, v: number): [number | null, number | null] {
    if (this.isLathe) return [this.length("K"), this.length("I")];
    const [a, b] = [this.length(STEP_LETTERS[u] ?? "I"), this.length(STEP_LETTERS[v] ?? "J")];
    if (!this.turned || this.modes.plane !== 17 || (a === null && b === null)) return [a, b];
    const { cos, sin } = this.turned;
    const [x, y] = [a ?? 0, b ?? 0];
    return [cos * x - sin * y, sin * x + cos * y];
  }

  private runContour(): void {
    if (this.contour) throw new Wrong("nesting");
    const { first, last } = this.flow.contour(this.said);
    if (this.place.some(Number.isNaN)) throw new Wrong("position-unknown");
    this.contour = { last, back: this.flow.index, from: [...this.place], line: this.flow.line };
    this.flow.index = first;
  }

  private endContour({ back, from, line }: Contour): void {
    this.contour = null;
    this.flow.index = back;
    this.flow.line = line;
    this.go("rapid", [...from], 3);
  }

  /** Stops, ends and calls, after everything else of the block. */
  private finish(): void {
    const flow = this.said.of("flow");
    const { line } = this.flow;
    if (flow === 0 || flow === 1) this.out.push({ type: "stop", line, kind: flow === 0 ? "M0" : "M1" });
    else if (flow === 2 || flow === 30) {
      this.out.push({ type: "end", line, kind: flow === 2 ? "M2" : "M30" });
      this.isOver = true;
    } else if (flow === 98) this.flow.call(this.said, false);
    else if (flow === 99) this.flow.giveBack();
  }
}

/**
 * What a program does, block by block, lazily. A program that cannot be read gives its diagnostics and nothing else;
 * the first thing that is wrong while it runs is given last. Throws nothing and ends always: a jump back is followed by
 * `stepLimit` blocks at most.
 */
export function* interpret(program: Program, options: RunOptions): Generator<Step, void, void> {
  if (program.diagnostics.length > 0) {
    for (const { line, code } of program.diagnostics) yield { type: "wrong", line, code };
    return;
  }
  const run = new Run(program, options);
  while (!run.isOver) {
    try {
      run.step();
    } catch (error) {
      if (!(error instanceof Wrong)) throw error;
      run.isOver = true;
      run.out.push({ type: "wrong", line: run.flow.line, code: error.code });
    }
    for (const step of run.out) yield step;
    run.out.length = 0;
  }
}
