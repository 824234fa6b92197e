import type { RegisterId } from "../registers";
import type { EventOf } from "../machines/events";

/** A fact of one kind with its place in the log. */
export interface Placed<E> {
  readonly seq: number;
  readonly atMs: number;
  readonly event: E;
}
/** A register change, with the lane as it stood before it. */
export interface ChangePlace<S> extends Placed<EventOf<"registerChanged">> {
  readonly before: S;
}

/** How a register's value came about: the act that set it, and the figures added to it since. */
export interface Lineage<S> {
  /** Null where figures were only added to what it held at the start. */
  readonly base: ChangePlace<S> | null;
  readonly added: readonly ChangePlace<S>[];
}

/** As many changes as a control can take back. */
const UNDO_DEPTH = 20;

/**
 * The lineage of every register that was set, with what was taken back taken back: after an undo a register stands by
 * the act before.
 */
export function lineages<S>(changes: readonly ChangePlace<S>[]): ReadonlyMap<RegisterId, Lineage<S>> {
  const now = new Map<RegisterId, Lineage<S>>();
  let undo: { register: RegisterId; before: Lineage<S> | undefined }[] = [];
  for (const change of changes) {
    const { register, how } = change.event;
    const before = now.get(register);
    if (how === "undone") {
      const taken = undo.pop();
      if (taken?.before) now.set(taken.register, taken.before);
      else now.delete(register);
      continue;
    }
    undo = [...undo, { register, before }].slice(-UNDO_DEPTH);
    now.set(
      register,
      how === "added"
        ? { base: before?.base ?? null, added: [...(before?.added ?? []), change] }
        : { base: change, added: [] },
    );
  }
  return now;
}

/** The act that a register's value stands by last. */
export const lastAct = <S>({ base, added }: Lineage<S>): ChangePlace<S> => {
  const last = added.at(-1) ?? base;
  if (!last) throw new Error("lastAct: a lineage has an act");
  return last;
};
