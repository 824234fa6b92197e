import type { RegisterId } from "../registers";
import type { Checking } from "./state";

/** One gate: its kind, the tool it is about, whether what it wants was done. `name` is unique in its lane. */
export interface Gate<K extends string = string> {
  readonly name: string;
  readonly kind: K;
  readonly tool?: number | undefined;
  readonly isPassed: boolean;
  /** The register whose later change shut it again. */
  readonly shutBy?: RegisterId | undefined;
}

/** A row of gates in the making; each opens by evidence of its own, whatever the others say. */
export class GateRow<K extends string> {
  readonly gates: Gate<K>[] = [];
  add(kind: K, isPassed: boolean, tool?: number): void {
    const of = tool === undefined ? {} : { tool };
    this.gates.push({ name: `${kind}${tool ?? ""}`, kind, isPassed, ...of });
  }
  /** A gate of checks: what a register that changed afterwards has withdrawn shuts it, by its name. */
  addChecked(kind: K, isPassed: boolean, { withdrawn }: Checking): void {
    const shutBy = withdrawn.at(-1)?.register;
    this.gates.push({ name: kind, kind, isPassed, ...(!isPassed && shutBy ? { shutBy } : {}) });
  }
}
