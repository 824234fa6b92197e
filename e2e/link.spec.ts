import { expect, test } from "@playwright/test";
import { KeyboardStudent } from "./keyboardStudent";
import { OwnServer } from "./server";
import pg from "pg";
import { atTheBench } from "./sheet";

const FOCUSER = "Focuser plate, lower left corner";
const ROLLER = "Roller bracket, back right corner";

test("a lost link holds the machine and says so; on return nothing is missing or doubled", async ({
  page,
  context,
}) => {
  const student = new KeyboardStudent(page);
  await student.signIn("peverill");
  await student.startLane(FOCUSER);
  await student.size(1);
  const before = await student.figure("machine-x");
  await student.do("ArrowLeft");
  await context.setOffline(true);
  await student.press("ArrowLeft");
  await expect(page.getByTestId("link")).toContainText("link lost, machine holds");
  await expect(page.getByRole("alert")).toContainText("the machine holds where it is");
  await student.press("ArrowLeft", 5);
  await context.setOffline(false);
  await expect(page.getByTestId("link")).toContainText("linked", { timeout: 20_000 });
  await expect.poll(() => student.figure("machine-x")).toBeCloseTo(before - 0.2, 6);
  await page.reload();
  await expect.poll(() => student.figure("machine-x")).toBeCloseTo(before - 0.2, 6);
});

test("two tabs on one lane: the second is told, and goes on after a reload", async ({ page, context }) => {
  const student = new KeyboardStudent(page);
  await student.signIn("merriwick");
  await student.startLane(FOCUSER);
  const second = new KeyboardStudent(await context.newPage());
  await second.page.goto(page.url());
  await atTheBench(second.page);
  await student.do("h");
  await second.press("o");
  await expect(second.page.getByRole("alert")).toContainText("gone on in another tab");
  await second.page.getByRole("button", { name: "Reload this page" }).click();
  await expect(second.page.getByText("reference return done")).toBeVisible();
  await second.do("o");
  await expect(second.page.getByRole("button", { name: /^Shut door/ })).toBeVisible();
});

test("kill -9 of the server in mid-lane: the same state after the next start, and the page goes on by itself", async ({
  page,
}) => {
  const own = new OwnServer();
  await own.start();
  try {
    const student = new KeyboardStudent(page);
    await page.goto(`${own.url}/sign-in`);
    await page.getByLabel("Name").fill("ashgrove");
    await page.getByLabel("Password").fill("fernhollow");
    await page.keyboard.press("Enter");
    await page.waitForURL(`${own.url}/`);
    await student.startLane(ROLLER);
    await student.do("h");
    await student.block("G53 G0 X-120 Y-80");
    await student.typeRegister("G54 X", "Set", "-3.5");
    const before = { x: await student.figure("machine-x"), register: await student.figure("G54.x") };
    await own.kill();
    await student.size(1);
    await student.press("ArrowRight");
    await expect(page.getByTestId("link")).toContainText("link lost");
    await own.start();
    await expect(page.getByTestId("link")).toContainText("linked", { timeout: 30_000 });
    await expect.poll(() => student.figure("machine-x")).toBeCloseTo(before.x + 0.1, 6);
    await page.reload();
    await expect.poll(() => student.figure("G54.x")).toBe(before.register);
    await expect.poll(() => student.figure("machine-x")).toBeCloseTo(before.x + 0.1, 6);
  } finally {
    await own.kill();
  }
});

test("a session that ended in mid-lane: one sentence, sign in, and the lane is as it was", async ({ page }) => {
  const student = new KeyboardStudent(page);
  await student.signIn("tamblin");
  await student.startLane(FOCUSER);
  await student.do("h");
  const lane = page.url();
  const database = new pg.Client({ connectionString: process.env["DATABASE_URL"] });
  await database.connect();
  await database.query(
    "delete from session where sess->'user'->>'id' = (select id::text from users where login = 'tamblin')",
  );
  await database.end();
  await page.waitForTimeout(5500); // the server remembers a session for five seconds
  await student.press("o");
  await expect(page).toHaveURL(/\/sign-in$/);
  await expect(page.getByRole("status")).toHaveText("Sign in to go on where you were. A lane is as you left it.");
  await page.getByLabel("Name").fill("tamblin");
  await page.getByLabel("Password").fill("fernhollow");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(lane);
  await expect(page.getByText("reference return done")).toBeVisible();
  await expect(page.getByRole("button", { name: /^Open door/ })).toBeVisible();
});

test("a click size chosen with the mouse leaves the arrow keys to the machine", async ({ page }) => {
  const student = new KeyboardStudent(page);
  await student.signIn("merriwick");
  await student.startLane(ROLLER);
  await student.do("h");
  await page.getByRole("button", { name: "0.01", exact: true }).click();
  await student.do("ArrowLeft");
  expect(await student.figure("machine-x")).toBe(-0.01);
});
