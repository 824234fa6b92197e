import type { Scene } from "../exercises/scene";
import type { LaneRules } from "../lane/rules";
import type { LaneBase } from "../lane/state";
import type { CoachStep } from "../lane/coach";
import type { Gate } from "../lane/gates";
import type { Decides, EvolvesOf } from "./act";
import type { Command } from "./commands";
import type { EventOf, LaneEvent } from "./events";
import { type At, type Told } from "./told";

/** Everything that a machine is to a lane: what it answers, how its facts change it, what it lets be seen. */
export interface Kit<S extends LaneBase, Seen> {
  opened(event: EventOf<"laneOpened">): S;
  /** Commands that this machine answers; what is not here it does not have. */
  readonly decide: Partial<Decides<S, Command["type"]>>;
  readonly evolve: Partial<EvolvesOf<S, LaneEvent["type"]>>;
  readonly needsPower: ReadonlySet<Command["type"]>;
  readonly whileStopped: ReadonlySet<Command["type"]>;
  readonly rules: LaneRules<S>;
  gates(state: S): readonly Gate[];
  seen(state: S, viewer: "student" | "instructor"): Omit<Seen, "coach">;
  coach(seen: Omit<Seen, "coach">, gate: Gate): CoachStep | null;
  /** The solids that are drawn of it, as an eye places them; null where nothing stands still enough to be drawn so. */
  drawn(state: S): Scene | null;
  /** What a fact tells of contacts, before it is folded. */
  tells(before: S, at: At, event: LaneEvent, clickMm: number): readonly Told[];
}

interface AnyAct {
  readonly needsPower?: readonly Command["type"][];
  readonly whileStopped?: readonly Command["type"][];
}

/** Commands under power, and those that stay possible after a strike: of every lane, and of the acts of a machine. */
export function standing(acts: readonly AnyAct[]): Pick<Kit<never, never>, "needsPower" | "whileStopped"> {
  return {
    needsPower: new Set<Command["type"]>([
      "home",
      "jog",
      "runBlock",
      "startSpindle",
      ...acts.flatMap(({ needsPower = [] }) => needsPower),
    ]),
    whileStopped: new Set<Command["type"]>([
      "reset",
      "raiseHand",
      "lowerHand",
      "lookFrom",
      "setDoor",
      "handIn",
      "takeReading",
      "writeTerm",
      "writeSum",
      "strikeLine",
      "judgeCheck",
      "judgeSetup",
      ...acts.flatMap(({ whileStopped = [] }) => whileStopped),
    ]),
  };
}
