import type { Command, Observation } from "@probe-lane/core/bench";
import type { Refusal } from "@probe-lane/core/lane";
import { readRegister, registerAxis } from "@probe-lane/core/registers";
import { scales, showCounts } from "@probe-lane/core/units";
import type { Bench } from "./bench";

/**
 * A student who does the right things in a roundabout way: sets a register twice, takes it back and sets it anew, types
 * rubbish first, leaves and comes back, writes a line and strikes it, looks about. What is right in the end is right.
 */
export class WanderingBench<S extends Observation> implements Bench<S> {
  private step = 0;
  constructor(
    private readonly bench: Bench<S>,
    /** Picks what is done on the way; two of the same number wander alike. */
    private readonly turn: number,
  ) {}

  get seen(): S {
    return this.bench.seen;
  }

  attempt(command: Command): Refusal | null {
    this.step += 1;
    const pick = (this.turn * 7919 + this.step * 104_729) % 97;
    if (command.type === "captureRegister") return this.set(command, pick);
    if (command.type === "typeRegister" && command.how === "set") return this.set(command, pick);
    if (command.type === "takeReading" && pick < 25) return this.strickenFirst(command);
    if (command.type === "lookFrom" && pick < 40) this.bench.attempt({ type: "raiseHand" });
    return this.bench.attempt(command);
  }

  do(command: Command): S {
    const refusal = this.attempt(command);
    if (refusal) throw new Error(`WanderingBench: ${JSON.stringify(command)} refused: ${JSON.stringify(refusal)}`);
    return this.bench.seen;
  }

  /** Ways to a register that end where the straight one does. */
  private set(command: Extract<Command, { type: "captureRegister" | "typeRegister" }>, pick: number): Refusal | null {
    const { register } = command;
    // a choice out of ten is no figure to play with
    if (register.startsWith("Q")) return this.bench.attempt(command);
    const held = () =>
      showCounts(readRegister(this.bench.seen.registers, register), scales[this.bench.seen.sheet.unit]);
    const type = (text: string) =>
      this.bench.attempt({ type: "typeRegister", register, text, how: "set", isConfirmed: true });
    if (pick < 15) {
      // rubbish first
      type("-12.5");
      return this.bench.attempt(command);
    }
    if (pick < 30) {
      // taken back, and done again
      if (this.bench.attempt(command) === null) this.bench.attempt({ type: "undoRegister" });
      return this.bench.attempt(command);
    }
    if (pick < 45) {
      // typed over with what it holds
      const refusal = this.bench.attempt(command);
      return refusal ?? type(held());
    }
    if (pick < 60) {
      // cleared, and set
      type("0");
      return this.bench.attempt(command);
    }
    if (pick < 72) {
      // some register that nothing hangs on
      const axis = registerAxis(register);
      this.bench.attempt({ type: "captureRegister", register: `G59.${axis}`, asText: "0" });
      return this.bench.attempt(command);
    }
    if (pick < 85) {
      // added to, and taken back
      const refusal = this.bench.attempt(command);
      if (refusal !== null) return refusal;
      this.bench.attempt({ type: "typeRegister", register, text: "0.4", how: "add", isConfirmed: true });
      return this.bench.attempt({ type: "undoRegister" });
    }
    return this.bench.attempt(command);
  }

  /** A line that is written, struck, and written again. */
  private strickenFirst(command: Extract<Command, { type: "takeReading" }>): Refusal | null {
    const refusal = this.bench.attempt(command);
    const line = this.bench.seen.ledger.at(-1)?.line;
    if (refusal === null && line !== undefined) {
      this.bench.attempt({ type: "strikeLine", line });
      return this.bench.attempt(command);
    }
    return refusal;
  }
}
