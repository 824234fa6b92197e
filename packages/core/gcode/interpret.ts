import { arcCenter, planeAxes } from "./arcs";
import { drillCycle, isDrilling } from "./drillingCycles";
import { type DrillingCycle, type Rig, type TurningCycle } from "./rig";
import { turnCycle } from "./turningCycles";
import { Wrong } from "./diagnostics";
import { ARGUMENTS, dialects, type DialectTable } from "./dialects";
import { evaluate, holds } from "./expressions";
import { type Feed, type Move, type MoveKind, type Plane, type ProgramPlace, type Step, type Turning } from "./moves";
import { type Program, type ProgramBlock, readProgram, type Statement } from "./program";
import { Said } from "./said";
import { ProgramVariables } from "./variables";

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
  /** The most blocks that run after a jump back. */
  readonly stepLimit?: number;
}

const MM_PER_INCH = 25.4;
const STEP_LIMIT = 100_000;
const DEEPEST_CALL = 4;
const KINDS: readonly MoveKind[] = ["rapid", "feed", "cw", "ccw"];
const MILL_FEEDS: Readonly<Record<number, Feed["per"]>> = { 93: "inverse", 94: "min", 95: "rev" };
const LATHE_FEEDS: Readonly<Record<number, Feed["per"]>> = { 98: "min", 99: "rev" };
const SIDES: Readonly<Record<number, Move["compensation"]>> = { 40: "none", 41: "left", 42: "right" };
/** Steps to an arc's center, by axis in the order X Y Z. */
const STEP_LETTERS = ["I", "J", "K"] as const;

/** A program on its way: where it goes on, and what is put back when it returns. */
interface Frame {
  readonly program: Program;
  index: number;
  /** Where it begins: of a program inside a text, not at its head. */
  readonly start: number;
  repeats: number;
  /** The line that is told while it runs; null of the main program. */
  readonly line: number | null;
  /** Local variables of who called; null where they are shared. */
  readonly callersLocals: Map<number, number> | null;
}

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

/** One program being run. Everything in the unit of the figures. */
class Run implements Rig {
  readonly out: Step[] = [];
  readonly table: DialectTable;
  readonly axes: readonly string[];
  readonly said: Said;
  readonly variables = new ProgramVariables();
  readonly isLathe: boolean;
  line = 0;
  isOver = false;

  private readonly frames: Frame[];
  private readonly called = new Map<number, Program | null>();
  private contour: Contour | null = null;
  private lastJump: number | null = null;
  private stepsSinceJump = 0;

  place: number[];
  private machine: number[] | null;
  private readonly unitMm: number;
  private scale: number;
  motion = 0;
  plane: Plane;
  private frame = "G54";
  private row: number | null = null;
  private rowSign: 1 | -1 = 1;
  private compensation: "none" | "left" | "right" = "none";
  private diameterRow: number | null = null;
  private isSideNew = false;
  private isReturning = false;
  isIncremental = false;
  returnsToInitial = true;
  private feedPer: Feed["per"];
  private feed: Feed | null = null;
  private tool: number | null = null;
  private nextTool: number | null = null;
  private spindle: Turning = "stopped";
  private speed: Move["speed"] = null;
  private isSurfaceSpeed = false;
  shift: number[];
  private turned: Turned | null = null;
  drilling: DrillingCycle | null = null;
  turning: TurningCycle | null = null;

  constructor(
    main: Program,
    private readonly options: RunOptions,
  ) {
    this.table = dialects[main.dialect];
    this.axes = this.table.axes;
    this.isLathe = main.dialect === "lathe";
    this.said = new Said(this.table);
    this.plane = this.table.startPlane;
    this.feedPer = this.isLathe ? "rev" : "min";
    this.unitMm = (options.figures ?? options.startUnits) === "mm" ? 1 : MM_PER_INCH;
    this.scale = (options.startUnits === "mm" ? 1 : MM_PER_INCH) / this.unitMm;
    this.frames = [{ program: main, index: 0, start: 0, repeats: 0, line: null, callersLocals: null }];
    this.place = this.axes.map(() => NaN);
    this.shift = this.axes.map(() => 0);
    this.machine = options.registers ? [...options.registers.at] : null;
    this.findPlace();
  }

  /** One block, or what its end means; what it does is in `out`. */
  step(): void {
    const frame = this.frames.at(-1);
    if (!frame) throw new Error("step: no program is running");
    if (this.contour && frame.index > this.contour.last) return this.endContour(this.contour, frame);
    const block = frame.program.blocks[frame.index];
    if (!block) return this.endOfText(frame);
    frame.index += 1;
    this.line = frame.line ?? block.line;
    if (block.isOptional && this.options.blockDelete) return;
    if (this.lastJump !== null && ++this.stepsSinceJump > (this.options.stepLimit ?? STEP_LIMIT)) {
      this.line = this.lastJump;
      throw new Wrong("endless");
    }
    if (block.statement) this.runStatement(block.statement, frame);
    else this.runWords(block, frame);
  }

  private endOfText(frame: Frame): void {
    if (this.frames.length > 1) return this.giveBack(frame);
    this.out.push({ type: "end", line: frame.program.lastLine, kind: "text" });
    this.isOver = true;
  }

  private jumped(): void {
    if (this.lastJump === null) this.stepsSinceJump = 0;
    this.lastJump = this.line;
  }

  private runStatement(statement: Statement, frame: Frame): void {
    const { get } = this.variables;
    switch (statement.kind) {
      case "assign": {
        const index = evaluate(statement.target, get);
        if (index === null) throw new Wrong("value");
        return this.variables.set(index, evaluate(statement.value, get));
      }
      case "goto":
        return this.goTo(evaluate(statement.to, get), frame);
      case "if":
        return holds(statement.test, get) ? this.runStatement(statement.then, frame) : undefined;
      case "while":
        if (!holds(statement.test, get)) frame.index = statement.end + 1;
        return;
      case "end":
        frame.index = statement.start;
        return this.jumped();
    }
  }

  private goTo(number: number | null, frame: Frame): void {
    const target = number === null ? undefined : frame.program.numbered.get(number);
    if (target === undefined) throw new Wrong("target-missing");
    if (target < frame.index) this.jumped();
    frame.index = target;
  }

  private runWords(block: ProgramBlock, frame: Frame): void {
    const { said } = this;
    said.read(block, this.variables.get);
    if (said.hasCodes && said.of("once") === 65) return this.callMacro(frame);
    said.checkCodes();
    if (this.machine) this.findPlace();
    if (said.hasCodes) this.setModes();
    this.setFeed();
    this.setTool();
    if (said.hasCodes) {
      this.setSpindle();
      this.setFrame();
      this.setLength();
      this.setCompensation();
    }
    this.move(frame);
    if (this.feedPer === "inverse") this.feed = null;
    if (said.hasCodes) this.finish(frame);
  }

  /** In the unit of the figures. */
  length(letter: string): number | null {
    const value = this.said.value(letter);
    return value === null ? null : value * this.scale;
  }

  private setModes(): void {
    const { said } = this;
    const units = said.of("units");
    if (units !== null) this.scale = (units === 20 ? MM_PER_INCH : 1) / this.unitMm;
    const feed = said.of("feed");
    if (feed !== null) {
      const per = (this.isLathe ? LATHE_FEEDS : MILL_FEEDS)[feed] ?? "min";
      if (per !== this.feedPer) this.feed = null;
      this.feedPer = per;
    }
    const plane = said.of("plane");
    if (plane !== null) this.plane = plane as Plane;
    const surface = said.of("surface");
    if (surface !== null) this.isSurfaceSpeed = surface === 96;
    const distance = said.of("distance");
    if (distance !== null) this.isIncremental = distance === 91;
    const back = said.of("return");
    if (back !== null) this.returnsToInitial = back === 98;
  }

  private setFeed(): void {
    const speed = this.said.value("S");
    // beside G50 it is a limit
    if (speed !== null && this.said.of("once") !== 50) this.speed = { value: speed, isSurface: this.isSurfaceSpeed };
    const value = this.said.value("F");
    if (value === null) return;
    const scale = this.feedPer === "inverse" ? 1 : this.scale;
    this.feed = { value: value * scale, per: this.feedPer };
  }

  private setTool(): void {
    const value = this.said.value("T");
    if (this.isLathe) {
      if (value === null) return;
      const row = value % 100 || null;
      this.tool = Math.trunc(value / 100) || this.tool;
      const isAnother = row !== this.row;
      this.row = row;
      if (isAnother) this.forget(3);
      this.out.push({ type: "tool", line: this.line, tool: this.tool ?? 0, row });
      return;
    }
    if (value !== null) this.nextTool = value;
    if (this.said.of("change") === null) return;
    if (this.nextTool === null) throw new Wrong("tool-missing");
    this.tool = this.nextTool;
    this.spindle = "stopped";
    this.out.push({ type: "tool", line: this.line, tool: this.tool, row: null });
  }

  private setSpindle(): void {
    const code = this.said.of("spindle");
    if (code === 3) this.spindle = "forward";
    if (code === 4) this.spindle = "reverse";
  }

  private setFrame(): void {
    const code = this.said.of("frame");
    if (code === null) return;
    let frame = `G${code}`;
    if (code === 54.1) {
      const extended = this.said.value("P");
      if (extended === null) throw new Wrong("word-missing");
      frame = `P${extended}`;
    }
    const isAnother = frame !== this.frame;
    this.frame = frame;
    if (isAnother) this.forget(7);
  }

  private setLength(): void {
    const code = this.said.of("length");
    if (code === null) return;
    const row = code === 49 ? null : this.said.value("H");
    if (code !== 49 && row === null) throw new Wrong("offset-row-missing");
    const sign = code === 44 ? -1 : 1;
    const isAnother = (row || null) !== this.row || sign !== this.rowSign;
    this.row = row || null;
    this.rowSign = sign;
    if (isAnother) this.forget(4);
  }

  private setCompensation(): void {
    if (this.said.has("D") && !this.isLathe) this.diameterRow = this.said.value("D");
    const code = this.said.of("compensation");
    if (code === null) return;
    const side = SIDES[code] ?? "none";
    if (side !== "none" && !this.isLathe && this.diameterRow === null) throw new Wrong("offset-row-missing");
    if (side !== this.compensation) this.isSideNew = true;
    this.compensation = side;
  }

  /** What is counted from elsewhere now is not known any more; where the registers are, it is worked out anew. */
  private forget(axes: number): void {
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
    const offset = registers.offset(this.frame, this.row, this.rowSign);
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
      goal[i] = this.isIncremental ? (this.place[i] ?? NaN) + value : value + (this.shift[i] ?? 0);
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
      local[i] = this.isIncremental ? (local[i] ?? NaN) + value : value + (this.shift[i] ?? 0) - (center[i] ?? 0);
    }
    const [x = NaN, y = NaN] = local;
    if (Number.isNaN(x) || Number.isNaN(y)) throw new Wrong("position-unknown");
    goal[0] = center[0] + cos * x - sin * y;
    goal[1] = center[1] + sin * x + cos * y;
  }

  private move(frame: Frame): void {
    const { said } = this;
    const once = said.of("once");
    if (once !== null && this.runOnce(once, frame)) return;
    const turned = said.of("turned");
    if (turned === 68) return this.turnFrame();
    if (turned === 69) this.turned = null;
    if (said.hasCodes) this.setMotion();
    const named = this.named();
    if (this.drilling) {
      drillCycle(this, this.drilling, named);
      return;
    }
    if (this.motion > 3 && this.motion !== 32) {
      if (named !== 0) turnCycle(this, this.motion);
      return;
    }
    const isArc = this.motion === 2 || this.motion === 3;
    if (named === 0 && !(isArc && this.hasArcWords())) return;
    if (isArc) return this.arc(this.goal(), named);
    if (this.motion === 32) return this.thread(this.goal(), named);
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

  /** Codes that hold for one block; true where the block has no other move. */
  private runOnce(code: number, frame: Frame): boolean {
    switch (code) {
      case 4:
        return true;
      case 10:
        this.out.push({ type: "write", line: this.line, words: this.said.all() });
        return true;
      case 28:
      case 30:
        this.toReference(code);
        return true;
      case 31:
        if (this.named() !== 0) this.go("feed", this.goal(), this.named());
        return true;
      case 50:
        this.declare();
        return true;
      case 52:
        this.axes.forEach((letter, i) => (this.shift[i] = this.length(letter) ?? this.shift[i] ?? 0));
        return true;
      case 53:
        if (this.said.hasCodes) this.setMotion();
        this.inMachineFrame();
        return true;
      case 70:
        this.runContour(frame);
        return true;
      default:
        // G71 to G76: cycles of many passes, which are no single moves
        this.passOver(frame);
        return true;
    }
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
    this.out.push({ type: "declare", line: this.line, place: [...this.place] });
  }

  private turnFrame(): void {
    const [x, y, angle] = [this.length("X"), this.length("Y"), this.said.value("R")];
    if (x === null || y === null || angle === null) throw new Wrong("word-missing");
    const rad = (angle * Math.PI) / 180;
    const center = [x + (this.shift[0] ?? 0), y + (this.shift[1] ?? 0)] as const;
    this.turned = { center, cos: Math.cos(rad), sin: Math.sin(rad) };
  }

  /** A straight move, or a part of a cycle. */
  go(kind: MoveKind, to: number[], named: number, feed: Feed | null = this.feed): void {
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
    const inPlane = this.isLathe ? 3 : planeAxes[this.plane].reduce((mask, axis) => mask | (1 << axis), 0);
    if (this.isSideNew && (named & inPlane) !== 0) {
      if (center) throw new Wrong("comp-in-arc");
      this.isSideNew = false;
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
    if (kind === "feed" && this.feed === null) throw new Wrong("feed-missing");
    this.isSideNew = false;
    const before = this.machine;
    if (before) this.machine = before.map((at, i) => ((named & (1 << i)) !== 0 ? (really[i] ?? at) : at));
    const machine = before && this.machine ? { from: before, to: this.machine } : null;
    this.out.push(this.told(kind, this.place, to, named, null, this.feed, true, machine));
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
      line: this.line,
      kind,
      from,
      to,
      named,
      isMachineFrame,
      isReturn: this.isReturning,
      feed: kind === "rapid" ? null : feed,
      tool: this.tool,
      frame: this.frame,
      row: this.row,
      compensation: this.compensation,
      diameterRow: this.compensation === "none" ? null : this.diameterRow,
      plane: this.plane,
      center,
      spindle: this.spindle,
      speed: this.speed,
      machine,
    };
  }

  private arc(goal: number[], named: number): void {
    const from = this.place;
    const [u, v] = this.isLathe ? [1, 0] : planeAxes[this.plane];
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
    this.push(KINDS[this.motion] ?? "cw", goal, named, told, this.feed);
  }

  /** I J K along the plane's two axes, turned with the frame. */
  private centerSteps(u: number, v: number): [number | null, number | null] {
    if (this.isLathe) return [this.length("K"), this.length("I")];
    const [a, b] = [this.length(STEP_LETTERS[u] ?? "I"), this.length(STEP_LETTERS[v] ?? "J")];
    if (!this.turned || this.plane !== 17 || (a === null && b === null)) return [a, b];
    const { cos, sin } = this.turned;
    const [x, y] = [a ?? 0, b ?? 0];
    return [cos * x - sin * y, sin * x + cos * y];
  }

  /** A feed whose F is a lead, whatever the mode. */
  lead(): Feed | null {
    return this.feed && { value: this.feed.value, per: "rev" };
  }

  private thread(goal: number[], named: number): void {
    this.go("feed", goal, named, this.lead());
  }

  /** Blocks P to Q of the same text as a contour; `Wrong` where a word or a block is missing. */
  private contourOf(frame: Frame): { first: number; last: number } {
    const [p, q] = [this.said.value("P"), this.said.value("Q")];
    if (p === null || q === null) throw new Wrong("word-missing");
    const [first, last] = [frame.program.numbered.get(p), frame.program.numbered.get(q)];
    if (first === undefined || last === undefined || last < first) throw new Wrong("target-missing");
    return { first, last };
  }

  private passOver(frame: Frame): void {
    const code = this.said.of("once") ?? 0;
    if (code > 73 || !this.said.has("P") || !this.said.has("Q")) return;
    frame.index = this.contourOf(frame).last + 1;
  }

  private runContour(frame: Frame): void {
    if (this.contour) throw new Wrong("nesting");
    const { first, last } = this.contourOf(frame);
    if (this.place.some(Number.isNaN)) throw new Wrong("position-unknown");
    this.contour = { last, back: frame.index, from: [...this.place], line: this.line };
    frame.index = first;
  }

  private endContour({ back, from, line }: Contour, frame: Frame): void {
    this.contour = null;
    frame.index = back;
    this.line = line;
    this.go("rapid", [...from], 3);
  }

  private finish(frame: Frame): void {
    const { said } = this;
    if (said.of("spindle") === 5) this.spindle = "stopped";
    const flow = said.of("flow");
    if (flow === null) return;
    if (flow === 0 || flow === 1) this.out.push({ type: "stop", line: this.line, kind: flow === 0 ? "M0" : "M1" });
    else if (flow === 2 || flow === 30) {
      this.out.push({ type: "end", line: this.line, kind: flow === 2 ? "M2" : "M30" });
      this.isOver = true;
    } else if (flow === 98) this.call(frame, null);
    else this.giveBack(frame);
  }

  private callMacro(frame: Frame): void {
    const locals = new Map<number, number>();
    for (const [letter, index] of ARGUMENTS) {
      const value = this.said.value(letter);
      if (value !== null) locals.set(index, value);
    }
    this.call(frame, locals);
  }

  private call(frame: Frame, locals: Map<number, number> | null): void {
    const number = this.said.value("P");
    if (number === null) throw new Wrong("word-missing");
    if (this.frames.length > DEEPEST_CALL) throw new Wrong("nesting");
    const found = this.find(number, frame.program);
    if (!found) throw new Wrong("program-missing");
    const [wrong] = found.program.diagnostics;
    if (wrong) throw new Wrong(wrong.code);
    const times = this.said.value("L") ?? 1;
    if (times < 1) return;
    const callersLocals = locals ? this.variables.swap(locals) : null;
    const { program, start } = found;
    this.frames.push({
      program,
      index: start,
      start,
      repeats: times - 1,
      line: frame.line ?? this.line,
      callersLocals,
    });
  }

  /** A program by its number: one of the store, else one that stands in the same text. */
  private find(number: number, within: Program): { program: Program; start: number } | null {
    if (!this.called.has(number)) {
      const text = this.options.programs?.(number) ?? null;
      this.called.set(number, text === null ? null : readProgram(text, within.dialect));
    }
    const program = this.called.get(number);
    if (program) return { program, start: 0 };
    const start = within.named.get(number);
    return start === undefined ? null : { program: within, start };
  }

  /** M99, or the end of a called text: back to who called, or once more; in the main program back to its head. */
  private giveBack(frame: Frame): void {
    if (this.frames.length === 1 || frame.repeats > 0) {
      frame.repeats -= 1;
      frame.index = frame.start;
      return this.jumped();
    }
    this.frames.pop();
    if (frame.callersLocals) this.variables.swap(frame.callersLocals);
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
      run.out.push({ type: "wrong", line: run.line, code: error.code });
    }
    for (const step of run.out) yield step;
    run.out.length = 0;
  }
}
