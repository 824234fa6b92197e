import { evolve, observe, type LaneEvent, type Observation } from "../bench";
import type { LoggedEvent } from "../diagnosis";
import { momentWords } from "../words";

/** What a moment is worth jumping to for; a `move` only carries from one to the next. */
export const momentKinds = ["capture", "contact", "incident", "check", "refused", "step", "move"] as const;
export type MomentKind = (typeof momentKinds)[number];

/** One entry of a log as it is replayed: what it says, and what of the observation changed with it. */
export interface Moment {
  readonly seq: number;
  readonly atMs: number;
  readonly kind: MomentKind;
  readonly label: string;
  readonly change: Partial<Observation>;
}

/**
 * A lane to replay: what was seen when it was opened, then every entry of its log. Holds observations only, never
 * events or truth.
 */
export interface Review {
  readonly first: Observation;
  readonly moments: readonly Moment[];
}

const KINDS: Partial<Record<LaneEvent["type"], MomentKind>> = {
  registerChanged: "capture",
  kicked: "contact",
  touchBegan: "contact",
  touchedHard: "contact",
  paperFelt: "contact",
  blockTried: "contact",
  readingShown: "contact",
  incidentHappened: "incident",
  checkExpected: "check",
  checkLooked: "check",
  checkJudged: "check",
  commandRefused: "refused",
  jogged: "move",
  moved: "move",
  wobbleChanged: "move",
  approachBegan: "move",
  approachEnded: "move",
  touchEnded: "move",
  leftHard: "move",
  modalChanged: "move",
};

/** Equal for the eye: same object, or the same content of two short ones. */
const isSame = (a: unknown, b: unknown): boolean =>
  a === b || (typeof a === "object" && typeof b === "object" && JSON.stringify(a) === JSON.stringify(b));

function changeOf(before: Observation, after: Observation): Partial<Observation> {
  const keys = Object.keys(after) as (keyof Observation)[];
  return Object.fromEntries(keys.filter((key) => !isSame(before[key], after[key])).map((key) => [key, after[key]]));
}

/** Without the coach's line: at a review nobody is at work. */
const watched = (seen: Observation): Observation => ({ ...seen, coach: null });

/**
 * The replay a moment at a time, so that a server can do other work between; returns what was seen first. Throws when
 * the log is empty.
 */
export function* reviewSteps(log: readonly LoggedEvent[]): Generator<Moment, Observation> {
  const [opened, ...rest] = log;
  if (!opened) throw new Error("reviewSteps: a log has at least its first entry");
  let state = evolve(null, opened.event);
  const first = watched(observe(state, "instructor"));
  let seen = first;
  yield { seq: opened.seq, atMs: opened.atMs, kind: "step", label: momentWords(opened.event, first.sheet), change: {} };
  for (const { seq, atMs, event } of rest) {
    state = evolve(state, event);
    const next = watched(observe(state, "instructor"));
    yield {
      seq,
      atMs,
      kind: KINDS[event.type] ?? "step",
      label: momentWords(event, first.sheet),
      change: changeOf(seen, next),
    };
    seen = next;
  }
  return first;
}

/**
 * The replay of a log that is handed in, or that its instructor looks at: incidents that said nothing are in it. Throws
 * when the log is empty.
 */
export function reviewOf(log: readonly LoggedEvent[]): Review {
  const steps = reviewSteps(log);
  const moments: Moment[] = [];
  for (;;) {
    const { done, value } = steps.next();
    if (done) return { first: value, moments };
    moments.push(value);
  }
}

/** What was seen at each moment, in order; unchanged parts are shared between them. */
export function framesOf({ first, moments }: Review): Observation[] {
  let seen = first;
  return moments.map(({ change }) => {
    seen = { ...seen, ...change } as Observation;
    return seen;
  });
}
