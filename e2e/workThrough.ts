import { randomUUID } from "node:crypto";
import { expect, type Page } from "@playwright/test";
import { Client } from "pg";
import type { BatchReply, LaneView, MyLanes, StartedLane } from "@probe-lane/contract";
import { replay, upgradeEvent, type Command } from "@probe-lane/core/bench";
import { machineOf, type Exercise, type Marking } from "@probe-lane/core/exercises";
import { workLane } from "@probe-lane/students";
import { BenchHands, PlanningDriver, type Step } from "./benchHands";
import { byHand, type PageLane } from "./lanes";
import { atTheBench } from "./sheet";

/** The truth that the server drew for a lane, so that a simulated student can work on a copy of it. */
export async function firstEvent(laneId: string): Promise<unknown> {
  const client = new Client({ connectionString: process.env["DATABASE_URL"] ?? "" });
  await client.connect();
  try {
    const { rows } = await client.query<{ event: unknown }>(
      "select event from lane_events where attempt_id = $1 and seq = 1",
      [laneId],
    );
    return rows[0]?.event;
  } finally {
    await client.end();
  }
}

/** What a student with a lane's habits would do, from its first event on. */
export function planned({ exercise, habits = {}, until, script, then }: PageLane, event: unknown): Step[] {
  const driver = new PlanningDriver(exercise, "copy");
  driver.state = replay([upgradeEvent(event)]);
  if (script) for (const command of script) driver.attempt(command);
  else workLane(driver, habits);
  for (const command of then?.(driver.state.registers) ?? []) driver.attempt(command);
  const end = until ? driver.steps.findIndex(until) : -1;
  return end === -1 ? driver.steps : driver.steps.slice(0, end);
}

const LONGEST_BATCH = 20;

/** A second writer on a lane, between the page's own commands: many commands at once, past what the server refuses. */
class FastForward {
  private readonly writer = randomUUID();
  private nextSeq = 1;
  constructor(
    private readonly page: Page,
    private readonly path: string,
  ) {}

  async run(commands: readonly Command[]): Promise<void> {
    // a bench that stays open draws all that is done meanwhile
    await this.page.goto("about:blank");
    let { turn } = (await (await this.page.request.get(this.path)).json()) as LaneView;
    for (let done = 0; done < commands.length;) {
      const batch = commands
        .slice(done, done + LONGEST_BATCH)
        .map((command) => ({ clientSeq: this.nextSeq++, command }));
      const reply = await this.page.request.post(`${this.path}/commands`, {
        data: { writer: this.writer, afterTurn: turn, commands: batch },
      });
      if (!reply.ok()) throw new Error(`fast forward: ${reply.status()} ${await reply.text()}`);
      const { outcomes, turn: after } = (await reply.json()) as BatchReply;
      turn = after;
      // a plan may hold a command that is refused; what waits behind it goes again
      done += outcomes.filter(({ kind }) => kind !== "skipped").length;
    }
    const lane = this.path.replace("/api", "");
    if (commands.at(-1)?.type === "handIn") return void (await this.page.goto(`${lane}/ruling`));
    await this.page.goto(lane);
    await expect(this.page.getByTestId("link")).toContainText("linked");
  }
}

/** From the sign-in to the bench as a person goes: the practice shelf, or what is due on a card of its own. */
async function beginByHand(hands: BenchHands, login: string, { title }: Exercise): Promise<void> {
  const { page } = hands;
  await hands.signIn(login);
  const card = page.getByRole("region", { name: title });
  await page
    .getByRole("button", { name: `Start ${title}`, exact: true })
    .or(card.getByRole("button", { name: /^(Start this lane|Try again)/ }))
    .click();
  await page.waitForURL(/\/lanes\//);
}

/** The same by what those pages ask of the server. */
async function beginAtOnce({ page }: BenchHands, login: string, { title }: Exercise): Promise<void> {
  const signedIn = await page.request.post("/api/session", { data: { login, password: "fernhollow" } });
  expect(signedIn.ok()).toBe(true);
  const { assignments } = (await (await page.request.get("/api/lanes")).json()) as MyLanes;
  const id = assignments.find((row) => row.title === title)?.id ?? "";
  expect(id, `${title} is given to ${login}`).not.toBe("");
  const { id: laneId } = (await (await page.request.post(`/api/assignments/${id}/lanes`)).json()) as StartedLane;
  await page.goto(`/lanes/${laneId}`);
}

/** Starts a lane and works it: by hand what it is about, the rest in batches between. Ends where the lane ends. */
export async function workThrough(page: Page, login: string, lane: PageLane): Promise<BenchHands> {
  const { exercise, given } = lane;
  if (given) await giveToClassOf(login, exercise, given);
  const hands = new BenchHands(page, machineOf(exercise));
  await (lane.isWhole ? beginByHand : beginAtOnce)(hands, login, exercise);
  await atTheBench(page);
  const laneId = /lanes\/([^/]+)/.exec(page.url())?.[1] ?? "";
  const steps = planned(lane, await firstEvent(laneId));
  const forward = new FastForward(page, `/api/lanes/${laneId}`);
  const isByHand = byHand(lane, steps);
  let waiting: Command[] = [];
  const catchUp = async () => {
    if (waiting.length === 0) return;
    await forward.run(waiting);
    hands.startOver();
    waiting = [];
  };
  for (const [at, step] of steps.entries()) {
    if (!isByHand[at]) {
      // felt clicks are as many as the hand would make: a jog goes on to what is met, here as there
      waiting.push(step.command);
      continue;
    }
    await catchUp();
    await hands.perform(step);
  }
  await catchUp();
  return hands;
}

/** Gives a student's class an exercise of its own on the practice shelf. */
async function giveToClassOf(login: string, exercise: Exercise, marking: Marking): Promise<void> {
  const client = new Client({ connectionString: process.env["DATABASE_URL"] ?? "" });
  await client.connect();
  try {
    await client.query("insert into exercises (id, version, body) values ($1, $2, $3) on conflict do nothing", [
      exercise.id,
      exercise.version,
      exercise,
    ]);
    await client.query(
      "insert into marking_revisions (exercise_id, exercise_version, revision, body) values ($1, $2, $3, $4) on conflict do nothing",
      [exercise.id, exercise.version, marking.revision, marking],
    );
    await client.query(
      "insert into assignments (class_id, exercise_id, exercise_version, place, is_coach_on, attempts_allowed) select m.class_id, $1, $2, 900, false, 5 from memberships m join users u on u.id = m.user_id where u.login = $3",
      [exercise.id, exercise.version, login],
    );
  } finally {
    await client.end();
  }
}
