/** One gate: its kind, the tool it is about, whether what it wants was done. `name` is unique in its lane. */
export interface Gate<K extends string = string> {
  readonly name: string;
  readonly kind: K;
  readonly tool?: number | undefined;
  readonly isPassed: boolean;
}

/** A row of gates in the making; each opens by evidence of its own, whatever the others say. */
export class GateRow<K extends string> {
  readonly gates: Gate<K>[] = [];
  add(kind: K, isPassed: boolean, tool?: number): void {
    const of = tool === undefined ? {} : { tool };
    this.gates.push({ name: `${kind}${tool ?? ""}`, kind, isPassed, ...of });
  }
}
