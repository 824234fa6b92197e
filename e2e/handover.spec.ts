import { expect, test } from "@playwright/test";
import { Client } from "pg";
import { exerciseSchema, type Exercise, type Marking } from "@probe-lane/core/exercises";
import { findDemoExercise } from "../demo";
import { accessible } from "./accessible";
import { workThrough } from "./workThrough";

/** Gives the demo class an exercise of its own on the practice shelf. */
async function giveToClass(exercise: Exercise, marking: Marking): Promise<void> {
  const client = new Client({ connectionString: process.env["DATABASE_URL"] ?? "" });
  await client.connect();
  try {
    await client.query("insert into exercises (id, version, body) values ($1, $2, $3) on conflict do nothing", [exercise.id, exercise.version, exercise]);
    await client.query("insert into marking_revisions (exercise_id, exercise_version, revision, body) values ($1, $2, $3, $4) on conflict do nothing", [exercise.id, exercise.version, marking.revision, marking]);
    await client.query("insert into assignments (class_id, exercise_id, exercise_version, place, is_coach_on, attempts_allowed) select id, $1, $2, 900, false, 5 from classes limit 1", [exercise.id, exercise.version]);
  } finally {
    await client.end();
  }
}

test("someone else's setup: two faults found, one missed, because the setter's card was believed", async ({ page }) => {
  const { exercise, marking } = findDemoExercise("handed-over-evening");
  const three = exerciseSchema.parse({
    ...exercise, id: "three-things-wrong", title: "Three things wrong",
    handover: { ...exercise.handover, faults: ["staleWear", "radiusSign", "setterMoved"], count: [3, 3], soundShare: 0 },
  });
  await giveToClass(three, marking);
  await workThrough(page, "peverill", three, { believes: "setter" });
  await expect(page.getByRole("heading", { name: "What was wrong with the setup" })).toBeVisible();
  const panel = page.locator("section", { has: page.getByRole("heading", { name: "What was wrong with the setup" }) });
  await expect(panel.getByText(/^Found in time: H\d length wear still held/)).toBeVisible();
  await expect(panel.getByText(/^Found in time: [XY] had the tip radius with its sign turned/)).toBeVisible();
  await expect(panel.getByText(/^Missed: the setter no longer stands where its card says/)).toBeVisible();
  await expect(panel.getByText("The setup was called faulty, and it was.")).toBeVisible();
  // a third of 80 % of 40 is lost in proving, and one of five values of 35
  await expect(page.getByTestId("total")).toHaveText("82.3");
  await accessible(page);
  await panel.getByRole("link", { name: /^Replay entry/ }).first().click();
  await expect(page.getByRole("region", { name: "Handed over to you" })).toBeVisible();
  await expect(page.getByText(/Brackenridge/)).toBeVisible();
});
