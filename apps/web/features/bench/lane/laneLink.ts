import type { BatchReply, CommandBatch, LaneView, Outcome } from "@probe-lane/contract";
import type { Command, Observation } from "@probe-lane/core/bench";
import { jogClicks } from "@probe-lane/core/lane";
import type { Axis, AxisCounts } from "@probe-lane/core/registers";
import { replaceEqualDeep } from "@tanstack/react-query";

type LinkStatus = "linked" | "lost" | "paused" | "moved" | "signedOut" | "broken";
/** What passes by itself: the batch is sent again. */
const PASSING = new Set<LinkStatus>(["lost", "paused"]);
type JogCommand = Extract<Command, { type: "jog" }>;
interface Queued {
  clientSeq: number;
  command: Command;
}

export interface LinkView {
  readonly status: LinkStatus;
  /** The bench as the server last said it. */
  readonly observation: Observation;
  /** The same, kept as it was while nothing differs but where the machine stands: for what does not show that. */
  readonly steady: Observation;
  /** Where the machine stands with the clicks that are still unanswered. */
  readonly shown: { readonly machine: AxisCounts; readonly work: AxisCounts; readonly counter: AxisCounts };
  readonly isWaiting: boolean;
  /** The newest refusal or trouble, in words, until the next command. */
  readonly message: string | null;
  readonly lastOutcome: Outcome | null;
}

/** What the link needs from outside: how to send, how to wait, and what a failure means. */
export interface LinkPorts {
  send(batch: CommandBatch): Promise<BatchReply>;
  failure(error: unknown): { status: Exclude<LinkStatus, "linked">; message: string };
  later(work: () => void, ms: number): () => void;
  /** What eyes, ears and fingers have now, of the lane's machine. */
  noticed(observation: Observation): unknown;
}

const RETRY_MS = 1500;
const MOST_CLICKS = 200;
/** Presses that may wait behind an unanswered click; more are a cat on the keyboard. */
const MOST_QUEUED = 12;

const isJog = (command: Command): command is JogCommand => command.type === "jog";
const isFinest = (command: JogCommand): boolean => command.size === "fine" || command.size === "middle";

/**
 * The tab's end of a lane: commands out in batches, at most one batch unanswered, the same batch again when no answer
 * came. Readouts move at once; the server's answer reconciles. At the two finest sizes a click waits for the answer to
 * the one before, and presses that wait are dropped at the first sensation. When the link is lost the machine holds.
 */
export class LaneLink {
  private view: LinkView;
  private queue: Queued[] = [];
  private inFlight: Queued[] = [];
  private nextSeq = 1;
  private headTurn: number;
  private readonly ears = new Set<() => void>();
  private cancelRetry: (() => void) | null = null;
  /** Why nothing is sent although the link is there. */
  private held: string | null = null;

  constructor(
    private readonly ports: LinkPorts,
    private readonly writer: string,
    first: Pick<LaneView, "turn" | "observation">,
  ) {
    this.headTurn = first.turn;
    this.view = stillView(first.observation);
  }

  readonly subscribe = (ear: () => void): (() => void) => {
    this.ears.add(ear);
    return () => this.ears.delete(ear);
  };
  readonly snapshot = (): LinkView => this.view;

  close(): void {
    this.cancelRetry?.();
    this.ears.clear();
  }

  /** Takes a command, or refuses it in words when the link cannot carry it now. */
  readonly send = (command: Command, isRepeat = false): void => {
    if (this.view.status !== "linked") return;
    if (isJog(command) && !this.takeJog(command, isRepeat)) return;
    if (!isJog(command)) this.push(command);
    this.update({ message: null });
    this.pump();
  };

  /** Takes in what others did to the lane (a hand that was answered), when nothing of this tab is under way. */
  refresh({ turn, observation }: Pick<LaneView, "turn" | "observation">): void {
    if (this.inFlight.length > 0 || this.queue.length > 0 || this.view.status !== "linked" || turn <= this.headTurn)
      return;
    this.headTurn = turn;
    this.view = { ...this.view, ...this.seen(observation) };
    this.update({});
  }

  /** The class is held, or goes on again (null). What is under way is answered by the server in either case. */
  hold(words: string | null): void {
    const { status } = this.view;
    this.held = words;
    if (words !== null && status === "linked") {
      this.queue = [];
      this.update({ status: "paused", message: words });
    }
    if (words !== null || status !== "paused") return;
    this.cancelRetry?.();
    this.update({ status: "linked", message: null });
    if (this.inFlight.length > 0) void this.deliver();
  }

  private takeJog(command: JogCommand, isRepeat: boolean): boolean {
    const isBusy = this.inFlight.length > 0 || this.queue.length > 0;
    if (isFinest(command)) {
      if (isBusy && (isRepeat || this.queue.length >= MOST_QUEUED)) return false;
      this.push(command);
      return true;
    }
    const last = this.queue.at(-1);
    const isSame =
      last &&
      isJog(last.command) &&
      last.command.axis === command.axis &&
      last.command.direction === command.direction &&
      last.command.size === command.size;
    if (!isSame) this.push(command);
    else
      last.command = {
        ...command,
        clicks: Math.min(MOST_CLICKS, (last.command as JogCommand).clicks + command.clicks),
      };
    return true;
  }

  private push(command: Command): void {
    this.queue.push({ clientSeq: this.nextSeq, command });
    this.nextSeq += 1;
  }

  private pump(): void {
    if (this.inFlight.length > 0 || this.queue.length === 0 || this.view.status !== "linked") return;
    // one finest click at a time; anything else goes together up to the next such click
    const stop = this.queue.findIndex(({ command }, index) => index > 0 && isJog(command) && isFinest(command));
    const first = this.queue[0];
    const take = first && isJog(first.command) && isFinest(first.command) ? 1 : stop === -1 ? this.queue.length : stop;
    this.inFlight = this.queue.splice(0, Math.min(take, 20));
    this.update({});
    void this.deliver();
  }

  private async deliver(): Promise<void> {
    const batch: CommandBatch = { writer: this.writer, afterTurn: this.headTurn, commands: this.inFlight };
    try {
      const reply = await this.ports.send(batch);
      this.settle(reply);
    } catch (error) {
      this.fail(error);
    }
  }

  private settle(reply: BatchReply): void {
    const before = this.view.observation;
    // what changed is of the same machine as what it is laid over
    const { observation, steady } = this.seen({ ...before, ...reply.observation } as Observation);
    this.headTurn = reply.turn;
    this.inFlight = [];
    const refused = reply.outcomes.find((outcome) => outcome.kind === "refused");
    if (refused || this.isSensation(before, observation))
      this.queue = this.queue.filter(({ command }) => !isJog(command));
    const lastOutcome = refused ?? reply.outcomes.at(-1) ?? null;
    this.view = { ...this.view, observation, steady, lastOutcome };
    const status = this.held === null ? "linked" : "paused";
    this.update({ status, message: refused?.kind === "refused" ? refused.message : this.held });
    this.pump();
  }

  /** What a reply came to, with every part of it that did not change being the one from before. */
  private seen(now: Observation): Pick<LinkView, "observation" | "steady"> {
    const { observation: before, steady } = this.view;
    const observation = replaceEqualDeep(before, now);
    return { observation, steady: isSteady(steady, observation) ? steady : observation };
  }

  /** Something that eyes, ears or fingers noticed between two observations. */
  private isSensation(before: Observation, after: Observation): boolean {
    const noticed = (seen: Observation) =>
      JSON.stringify([seen.incidents.length, seen.isStopped, this.ports.noticed(seen)]);
    return noticed(before) !== noticed(after);
  }

  private fail(error: unknown): void {
    const { status, message } = this.ports.failure(error);
    this.queue = [];
    if (!PASSING.has(status)) this.inFlight = [];
    this.update({ status, message });
    if (!PASSING.has(status)) return;
    this.cancelRetry?.();
    this.cancelRetry = this.ports.later(() => void this.deliver(), RETRY_MS);
  }

  private update(change: Partial<LinkView>): void {
    const pending = [...this.inFlight, ...this.queue].map(({ command }) => command).filter(isJog);
    const { observation } = this.view;
    this.view = {
      ...this.view,
      ...change,
      shown: positions(observation, pending),
      isWaiting: this.inFlight.length > 0,
    };
    for (const ear of this.ears) ear();
  }
}

/** What every click of an axis changes, whatever else it does. */
const PLACES: ReadonlySet<string> = new Set(["machine", "work", "counter"]);

/** Whether nothing else differs between two observations than where the machine stands. */
function isSteady(before: Observation, after: Observation): boolean {
  const names = Object.keys({ ...before, ...after }) as (keyof Observation)[];
  return names.every((name) => PLACES.has(name) || before[name] === after[name]);
}

/** A bench at which nothing is under way: watched, replayed or shown. */
export const stillView = (observation: Observation): LinkView => ({
  status: "linked",
  observation,
  steady: observation,
  shown: positions(observation, []),
  isWaiting: false,
  message: null,
  lastOutcome: null,
});

/** The three readouts with unanswered clicks counted in; a click that the door or the travel will refuse is not. */
export function positions(observation: Observation, pending: readonly JogCommand[]): LinkView["shown"] {
  const moved: Record<Axis, number> = { x: 0, y: 0, z: 0 };
  for (const { axis, direction, clicks, size } of pending) {
    if (observation.isStopped || (size === "rapid" && observation.isDoorOpen)) continue;
    const click = jogClicks[observation.sheet.unit][size];
    const [low, high] = observation.travelCounts[axis];
    const at = observation.machine[axis] + moved[axis];
    const room = direction === 1 ? high - at : at - low;
    moved[axis] += direction * Math.min(clicks, Math.floor(room / click)) * click;
  }
  const shift = ({ x, y, z }: AxisCounts): AxisCounts => ({ x: x + moved.x, y: y + moved.y, z: z + moved.z });
  return { machine: shift(observation.machine), work: shift(observation.work), counter: shift(observation.counter) };
}
