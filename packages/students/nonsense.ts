import type { Command, Observation } from "@probe-lane/core/bench";
import type { Refusal } from "@probe-lane/core/lane";
import type { RegisterId } from "@probe-lane/core/registers";
import type { Bench } from "./bench";

/** A pick out of a list, the same for the same numbers. */
function picker(seed: number): () => number {
  let at = (seed * 2_654_435_761 + 12_345) >>> 0;
  return () => {
    at = (Math.imul(at, 1_664_525) + 1_013_904_223) >>> 0;
    return at / 4_294_967_296;
  };
}

const FIGURES = ["0", "3", "-5", "12.5", "0.06", "-0.12", "250.781", "-310.4", "40", "0.001"] as const;
const TERMS = ["tipRadius", "paper", "facing", "other", "diameter", "block"] as const;

/** Somebody who knows nothing presses keys between the strokes of a student. Whatever comes of it has to add up. */
export class NonsenseBench<S extends Observation> implements Bench<S> {
  private readonly next: () => number;

  constructor(
    private readonly bench: Bench<S>,
    seed: number,
    /** How often a key is pressed before a command. */
    private readonly often: number,
  ) {
    this.next = picker(seed);
  }

  get seen(): S {
    return this.bench.seen;
  }

  attempt(command: Command): Refusal | null {
    while (this.next() < this.often) this.bench.attempt(this.nonsense());
    return this.bench.attempt(command);
  }

  do(command: Command): S {
    const refusal = this.attempt(command);
    if (refusal) throw new Error(`NonsenseBench: ${command.type} refused: ${refusal.code}`);
    return this.bench.seen;
  }

  private pick<T>(list: readonly T[]): T {
    const found = list[Math.floor(this.next() * list.length)];
    if (found === undefined) throw new Error("pick: nothing to pick from");
    return found;
  }

  /** What only a mill answers, refused or not. */
  private onMill(): Command[] {
    const axis = this.pick(["x", "y"] as const);
    const direction = this.pick([1, -1] as const);
    return [
      { type: "keepPoint" },
      { type: "setFromPoints", what: this.pick(["edge", "middle"] as const), axis, into: "G54" },
      { type: "calibrate", what: "setter", by: this.pick(["probe", "nose"] as const) },
      { type: "calibrate", what: "probeLength", by: "block" },
      { type: "tapPart", direction, strength: "light" },
      { type: "changeParallels", byMm: this.pick([2, -2] as const) },
      { type: "lookFrom", side: this.pick(["front", "left"] as const) },
    ];
  }

  /** What only a lathe answers, refused or not. */
  private onLathe(): Command[] {
    return [
      { type: "changeInsert" },
      { type: "raiseToGauge", from: this.pick(["below", "above"] as const) },
      { type: "turnChuck" },
    ];
  }

  private nonsense(): Command {
    const { sheet } = this.bench.seen;
    const isMill = sheet.kind === "mill";
    const axes = isMill ? (["x", "y", "z"] as const) : (["x", "z"] as const);
    const tools = isMill ? sheet.tools.map(({ number }) => number) : sheet.lathe.tools.map(({ number }) => number);
    const tool = tools.length > 0 ? this.pick(tools) : 1;
    const axis = this.pick(axes);
    const rows: RegisterId[] = isMill
      ? [`H${tool}`, `HW${tool}`, `D${tool}`, `DW${tool}`]
      : [`X${tool}`, `Z${tool}`, `XW${tool}`, `ZW${tool}`, `LX${tool}`, `LZ${tool}`];
    const register = this.pick<RegisterId>([
      ...rows,
      ...rows,
      `G54.${axis}`,
      `G54.${axis}`,
      `G55.${axis}`,
      `common.${axis}`,
    ]);
    const text = this.pick(FIGURES);
    const jog = {
      type: "jog",
      axis,
      direction: this.next() < 0.5 ? 1 : -1,
      clicks: 1 + Math.floor(this.next() * 12),
      size: this.pick(["coarse", "middle", "fine"] as const),
    } as const;
    return this.pick<Command>([
      jog,
      jog,
      { type: "captureRegister", register, asText: text },
      { type: "captureRegister", register, asText: text },
      { type: "typeRegister", register, text, how: this.next() < 0.5 ? "set" : "add", isConfirmed: true },
      { type: "undoRegister" },
      { type: "takeReading", register },
      { type: "writeTerm", register, term: this.pick(TERMS), text },
      { type: "writeSum", register, text },
      { type: "strikeLine", line: 1 + Math.floor(this.next() * 12) },
      { type: "zeroCounter", axis },
      { type: "expectCheck", check: "knownHeight", text },
      { type: "lookCheck" },
      { type: "judgeCheck", isAsExpected: this.next() < 0.5 },
      ...(isMill ? this.onMill() : this.onLathe()),
    ]);
  }
}
