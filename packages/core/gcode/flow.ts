import { Wrong } from "./diagnostics";
import { ARGUMENTS } from "./dialects";
import { evaluate, holds } from "./expressions";
import { type Program, type ProgramBlock, readProgram, type Statement } from "./program";
import { type Said } from "./said";
import { ProgramVariables } from "./variables";

const DEEPEST_CALL = 4;

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

/** Which block is next: loops, jumps, called programs, contours. */
export class Flow {
  readonly variables = new ProgramVariables();
  /** The line of the block that runs: of called programs that of the outermost call. */
  line = 0;
  private readonly frames: Frame[];
  private readonly called = new Map<number, Program | null>();
  private lastJump: number | null = null;
  private stepsSinceJump = 0;
  private repeated = 0;

  /** `programs` gives the text of a called program; `stepLimit` is the most blocks that run after a jump back. */
  constructor(
    main: Program,
    private readonly programs: (number: number) => string | null,
    private readonly stepLimit: number,
  ) {
    this.frames = [{ program: main, index: 0, start: 0, repeats: 0, line: null, callersLocals: null }];
  }

  private get frame(): Frame {
    const frame = this.frames.at(-1);
    if (!frame) throw new Error("frame: no program is running");
    return frame;
  }

  /** The text that runs. */
  get text(): Program {
    return this.frame.program;
  }

  /** Whether there is a program of a number. */
  has(number: number | null): boolean {
    return number !== null && this.find(number, this.text) !== null;
  }

  /** Place of the next block in the text that runs. */
  get index(): number {
    return this.frame.index;
  }
  set index(to: number) {
    this.frame.index = to;
  }

  /** The next block, its line told; null at the end of the text that runs. Throws `endless`. */
  next(): ProgramBlock | null {
    const { frame } = this;
    const block = frame.program.blocks[frame.index];
    if (!block) return null;
    frame.index += 1;
    this.line = frame.line ?? block.line;
    if (this.lastJump !== null && ++this.stepsSinceJump > this.stepLimit) {
      this.line = this.lastJump;
      throw new Wrong("endless");
    }
    return block;
  }

  /** Counts what one block does many times over, as blocks are counted after a jump back. */
  repeat(times: number): void {
    if (times > 1) this.repeated += times;
    if (this.repeated > this.stepLimit) throw new Wrong("endless");
  }

  private jumped(): void {
    if (this.lastJump === null) this.stepsSinceJump = 0;
    this.lastJump = this.line;
  }

  run(statement: Statement): void {
    const { get } = this.variables;
    switch (statement.kind) {
      case "assign": {
        const index = evaluate(statement.target, get);
        if (index === null) throw new Wrong("value");
        return this.variables.set(index, evaluate(statement.value, get));
      }
      case "goto":
        return this.goTo(evaluate(statement.to, get));
      case "if":
        return holds(statement.test, get) ? this.run(statement.then) : undefined;
      case "while":
        if (!holds(statement.test, get)) this.frame.index = statement.end + 1;
        return;
      case "end":
        this.frame.index = statement.start;
        return this.jumped();
    }
  }

  private goTo(number: number | null): void {
    const { frame } = this;
    const target = number === null ? undefined : frame.program.numbered.get(number);
    if (target === undefined) throw new Wrong("target-missing");
    if (target < frame.index) this.jumped();
    frame.index = target;
  }

  /** Blocks P to Q of the text that runs. Throws `word-missing`, `target-missing`. */
  contour(said: Said): { readonly first: number; readonly last: number } {
    const [p, q] = [said.value("P"), said.value("Q")];
    if (p === null || q === null) throw new Wrong("word-missing");
    const { numbered } = this.frame.program;
    const [first, last] = [numbered.get(p), numbered.get(q)];
    if (first === undefined || last === undefined || last < first) throw new Wrong("target-missing");
    return { first, last };
  }

  /** M98 shares the variables of who calls; G65 gives the called program its own, filled by the block's letters. */
  call(said: Said, isMacro: boolean): void {
    const { frame } = this;
    const number = said.value("P");
    if (number === null) throw new Wrong("word-missing");
    if (this.frames.length > DEEPEST_CALL) throw new Wrong("nesting");
    const found = this.find(number, frame.program);
    if (!found) throw new Wrong("program-missing");
    const [wrong] = found.program.diagnostics;
    if (wrong) throw new Wrong(wrong.code);
    const times = said.value("L") ?? 1;
    if (times < 1) return;
    const callersLocals = isMacro ? this.variables.swap(argumentsOf(said)) : null;
    const { program, start } = found;
    const line = frame.line ?? this.line;
    this.frames.push({ program, index: start, start, repeats: times - 1, line, callersLocals });
  }

  /** A program by its number: one of the store, else one that stands in the same text. */
  private find(number: number, within: Program): { program: Program; start: number } | null {
    if (!this.called.has(number)) {
      const text = this.programs(number);
      this.called.set(number, text === null ? null : readProgram(text, within.dialect));
    }
    const program = this.called.get(number);
    if (program) return { program, start: 0 };
    const start = within.named.get(number);
    return start === undefined ? null : { program: within, start };
  }

  /** True where the main program runs, and no other. */
  get isMain(): boolean {
    return this.frames.length === 1;
  }

  /** The line of the end of the main program's text. */
  get lastLine(): number {
    return this.frames[0]?.program.lastLine ?? 0;
  }

  /** M99, or the end of a called text: back to who called, or once more; in the main program back to its head. */
  giveBack(): void {
    const { frame } = this;
    // a text without a block would be called again for nothing
    if (this.isMain || (frame.repeats > 0 && frame.program.blocks.length > 0)) {
      frame.repeats -= 1;
      frame.index = frame.start;
      return this.jumped();
    }
    this.frames.pop();
    if (frame.callersLocals) this.variables.swap(frame.callersLocals);
  }
}

function argumentsOf(said: Said): Map<number, number> {
  const locals = new Map<number, number>();
  for (const [letter, index] of ARGUMENTS) {
    const value = said.value(letter);
    if (value !== null) locals.set(index, value);
  }
  return locals;
}
