import type { z } from "zod";
import type { Draft } from "../lane/draft";
import type { Refusal } from "../lane/refusals";
import type { Result } from "../result";
import type { Command, CommandOf } from "./commands";
import type { EventOf, LaneEvent } from "./events";
import { type Tells } from "./told";

/** What a command leads to: facts, or one refusal that says why. */
export type Decision = Result<LaneEvent[], Refusal>;

type Named = z.ZodType<{ type: string }>;
/** What an act's `schema.ts` holds. */
export interface ActSchema {
  readonly commands: readonly Named[];
  readonly events: readonly Named[];
}
type CommandName<A extends ActSchema> = Extract<z.infer<A["commands"][number]>["type"], Command["type"]>;
type EventName<A extends ActSchema> = Extract<z.infer<A["events"][number]>["type"], LaneEvent["type"]>;

export type Decides<S, C extends Command["type"]> = {
  readonly [T in C]: (draft: Draft<S>, command: CommandOf<T>) => Decision;
};
export type EvolvesOf<S, E extends LaneEvent["type"]> = {
  readonly [T in E]: (state: S, event: EventOf<T>) => S;
};

/** One act on a machine whose lane is S: it answers every command of its schema and folds every event of it. */
export interface Act<S, A extends ActSchema> {
  readonly decide: Decides<S, CommandName<A>>;
  readonly evolve: EvolvesOf<S, EventName<A>>;
  /** What its facts are evidence of. */
  readonly tells?: Tells<S>;
  /** Those of its commands that move or turn something under power. */
  readonly needsPower?: readonly CommandName<A>[];
  /** Those that stay possible while the machine is stopped after a strike. */
  readonly whileStopped?: readonly CommandName<A>[];
}
