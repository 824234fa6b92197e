import { expect, type Page } from "@playwright/test";
import { Client } from "pg";
import { replay, upgradeEvent } from "@probe-lane/core/bench";
import { machineOf, type Exercise, type Marking } from "@probe-lane/core/exercises";
import { workLane, type Habits } from "@probe-lane/students";
import { findDemoExercise } from "../demo";
import { BenchHands, PlanningDriver, type Step } from "./benchHands";

/** The truth that the server drew for a lane, so that a simulated student can work on a copy of it. */
async function firstEvent(laneId: string): Promise<unknown> {
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

/** What a student with these habits would do on this very lane. */
function planned(exercise: Exercise, event: unknown, habits: Habits): Step[] {
  const driver = new PlanningDriver(exercise, "copy");
  driver.state = replay([upgradeEvent(event)]);
  workLane(driver, habits);
  return driver.steps;
}

/**
 * Starts an exercise from the practice shelf and works it through the page. `until` ends it early, before that step.
 */
export async function workThrough(
  page: Page,
  login: string,
  wanted: string | Exercise,
  habits: Habits = {},
  until?: (step: Step) => boolean,
): Promise<BenchHands> {
  const exercise = typeof wanted === "string" ? findDemoExercise(wanted).exercise : wanted;
  const hands = new BenchHands(page, machineOf(exercise));
  await hands.signIn(login);
  await page.getByRole("button", { name: `Start ${exercise.title}`, exact: true }).click();
  await page.waitForURL(/\/lanes\//);
  await expect(page.getByTestId("link")).toContainText("linked");
  const laneId = /lanes\/([^/]+)/.exec(page.url())?.[1] ?? "";
  for (const step of planned(exercise, await firstEvent(laneId), habits)) {
    if (until?.(step)) break;
    await hands.perform(step);
  }
  return hands;
}

/** Gives the demo class an exercise of its own on the practice shelf. */
export async function giveToClass(exercise: Exercise, marking: Marking): Promise<void> {
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
      "insert into assignments (class_id, exercise_id, exercise_version, place, is_coach_on, attempts_allowed) select id, $1, $2, 900, false, 5 from classes limit 1",
      [exercise.id, exercise.version],
    );
  } finally {
    await client.end();
  }
}
