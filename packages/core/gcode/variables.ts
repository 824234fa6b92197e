import { Wrong } from "./diagnostics";

const LOCALS = 33;
const isCommon = (index: number): boolean => (index >= 100 && index <= 199) || (index >= 500 && index <= 999);

/** Variables of a run: #0 always empty, #1–#33 of each called program, #100–#199 and #500–#999 of all. */
export class ProgramVariables {
  private readonly common = new Map<number, number>();
  private locals: Map<number, number> = new Map();

  /** Puts other local ones in force, and returns those that were. */
  swap(locals: Map<number, number>): Map<number, number> {
    const before = this.locals;
    this.locals = locals;
    return before;
  }

  private placeOf(index: number): Map<number, number> {
    if (Number.isInteger(index) && index >= 1 && index <= LOCALS) return this.locals;
    if (Number.isInteger(index) && isCommon(index)) return this.common;
    throw new Wrong("value");
  }

  /** Null where it is empty. Throws `Wrong("value")` where there is no such variable. */
  readonly get = (index: number): number | null => (index === 0 ? null : (this.placeOf(index).get(index) ?? null));

  set(index: number, value: number | null): void {
    const place = this.placeOf(index);
    if (value === null) place.delete(index);
    else place.set(index, value);
  }
}
