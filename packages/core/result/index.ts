/** The answer of anything that may refuse: a value, or one refusal as data. Words are made elsewhere. */
export type Result<T, E> = { ok: true; value: T } | { ok: false; error: E };

export const accept = <T>(value: T): { ok: true; value: T } => ({ ok: true, value });
export const refuse = <E>(error: E): { ok: false; error: E } => ({ ok: false, error });

/** Marks a switch as complete: the compiler objects when a case is missing, and so does this at run time. */
export function assertNever(value: never, where: string): never {
  throw new Error(`${where}: case not handled: ${JSON.stringify(value)}`);
}
