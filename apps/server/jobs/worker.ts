import { setPriority } from "node:os";
import { isMainThread, type MessagePort } from "node:worker_threads";
import {
  partPicture,
  proveProgram,
  replay,
  upgradeEvent,
  type PartPicture,
  type ProgramProof,
} from "@probe-lane/core/bench";
import { markingSchema } from "@probe-lane/core/exercises";
import { rule, type Ruling } from "@probe-lane/core/grading";
import { paceOf, type GatePassed } from "@probe-lane/core/patterns";

/** A lane's log as it is stored, and the marking to rule it by. */
interface RuleTask {
  readonly log: readonly { readonly seq: number; readonly atMs: number; readonly event: unknown }[];
  readonly marking: unknown;
}

/** A lane's log as it is stored, and a program to run with what its registers came to. */
interface ProveTask {
  readonly log: readonly { readonly event: unknown }[];
  readonly program: string;
  readonly blockDelete?: boolean | undefined;
  /** Where it is told how many moves were followed. */
  readonly told?: MessagePort | undefined;
}

/** A lane's log as it is stored: the part that it holds is to be drawn. */
interface PictureTask {
  readonly log: readonly { readonly event: unknown }[];
  /** As it really came out, and not only as an eye sees it. */
  readonly isExact: boolean;
}

/** A lane's log as it is stored: how long its gates took is to be told. */
interface PaceTask {
  readonly log: RuleTask["log"];
}

const BEHIND_OTHERS = 19;
/** Lanes at work come first: on Linux this is the priority of this thread alone, and it is kept. */
function standBehind(): void {
  if (!isMainThread && process.platform === "linux") setPriority(BEHIND_OTHERS);
}

/** Kinds of work that threads do, so that lanes at work are answered meanwhile. */
const kinds = {
  rule: ({ log, marking }: RuleTask): Ruling =>
    rule(
      log.map(({ event, ...entry }) => ({ ...entry, event: upgradeEvent(event) })),
      markingSchema.parse(marking),
    ),
  prove: ({ log, program, blockDelete, told }: ProveTask): ProgramProof | null => {
    standBehind();
    return proveProgram(replay(log.map(({ event }) => upgradeEvent(event))), program, {
      blockDelete,
      onMoves: (moves) => told?.postMessage(moves),
    });
  },
  picture: ({ log, isExact }: PictureTask): PartPicture | null => {
    standBehind();
    return partPicture(replay(log.map(({ event }) => upgradeEvent(event))), isExact);
  },
  pace: ({ log }: PaceTask): GatePassed[] => {
    standBehind();
    return paceOf(log.map(({ event, ...entry }) => ({ ...entry, event: upgradeEvent(event) })));
  },
} as const;
type Kinds = typeof kinds;
export type Kind = keyof Kinds;
export type TaskOf<K extends Kind> = Parameters<Kinds[K]>[0];
export type ResultOf<K extends Kind> = ReturnType<Kinds[K]>;
export interface Task<K extends Kind = Kind> {
  readonly kind: K;
  readonly task: TaskOf<K>;
}

/** Does one piece of work. Runs in a worker thread. */
export default function work<K extends Kind>({ kind, task }: Task<K>): ResultOf<K> {
  return (kinds[kind] as (task: TaskOf<K>) => ResultOf<K>)(task);
}
