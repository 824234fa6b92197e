import type { Dialect } from "@probe-lane/core/gcode";

/** What was being read, so that who leaves the page finds it again in the same tab. */
export interface KeptProgram {
  readonly text: string;
  readonly name: string | null;
  readonly dialect: Dialect;
  readonly unit: "mm" | "inch";
}

/** Of one person: a tab may be used by the next. */
const keyOf = (owner: string): string => `probe-lane.program.${owner}`;
const NOTHING: KeptProgram = { text: "", name: null, dialect: "mill", unit: "mm" };
/** A longer text is not kept: a tab has only so much room. */
const LONGEST = 1_000_000;

export function keptProgram(owner: string): KeptProgram {
  try {
    const kept = JSON.parse(sessionStorage.getItem(keyOf(owner)) ?? "null") as Partial<KeptProgram> | null;
    return typeof kept?.text === "string" ? { ...NOTHING, ...kept } : NOTHING;
  } catch {
    return NOTHING;
  }
}

export function keepProgram(owner: string, program: KeptProgram): void {
  try {
    if (program.text.length > LONGEST) sessionStorage.removeItem(keyOf(owner));
    else sessionStorage.setItem(keyOf(owner), JSON.stringify(program));
  } catch {
    // a tab that may keep nothing works all the same
  }
}
