import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { KeyboardStudent } from "./keyboardStudent";
import { atTheBench } from "./sheet";

/** Of no other test: what is said of it here is met by nobody else. */
const COLLAR = "Thrust collar on the inch lathe";

test("a plan: an exercise put into a week and a window by somebody who slips, tried as a student, and met by one", async ({
  page,
  browser,
}) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  const sought = page.getByLabel("Find an exercise");
  await sought.fill("anvil");
  await expect(page.getByText("No exercise is called that.")).toBeVisible();
  await sought.fill("collar inch");
  const row = page.getByRole("listitem", { name: COLLAR, exact: true });
  await row.getByLabel(`Week of ${COLLAR}`).selectOption("3");
  await expect(page.getByText("No day is set yet")).toBeVisible();
  await page.getByLabel("Week 1 begins on").fill("2090-01-02");
  await page.getByRole("button", { name: "Count from this day" }).click();
  await expect(row).toContainText("opens Mon 16 Jan, 00:00 · due Sun 22 Jan, 23:59 · late is taken");

  const student = await (await browser.newContext()).newPage();
  await new KeyboardStudent(student).signIn("tamblin");
  const card = student.getByRole("region", { name: COLLAR });
  await expect(card).toContainText("Opens Monday 16 January, 00:00");
  await expect(card.getByRole("button")).toHaveCount(0);

  // a window turned round is said, and nothing of what was typed is lost
  await row.getByRole("button", { name: `Change ${COLLAR}` }).click();
  const form = page.getByRole("dialog");
  await form.getByLabel("Opens").fill("2026-11-30T08:00");
  await form.getByLabel("Due").fill("2026-11-29T18:00");
  await form.getByLabel("Attempts").fill("2");
  await form.getByLabel("Begun after that").selectOption("refused");
  await form.getByRole("button", { name: "Keep it so" }).click();
  await expect(form.getByRole("alert")).toContainText("cannot be due before it opens");
  await expect(form.getByLabel("Attempts")).toHaveValue("2");
  await accessible(page);
  await form.getByLabel("Opens").fill("2026-11-28T08:00");
  await form.getByLabel("Attempts").fill("none");
  await expect(form.getByRole("alert")).toContainText("a whole number from 1 to 50");
  await form.getByLabel("Attempts").fill("2");
  // what the class asks for over points: a figure that cannot be is said, and the ticks stay
  await form.getByLabel("What stands over points").selectOption("own");
  await form.getByLabel("no hand near what turns").check();
  await form.getByLabel("without it at most, of a hundred").fill("140");
  await expect(form.getByRole("alert")).toContainText("a figure from 0 to 100");
  await expect(form.getByRole("button", { name: "Keep it so" })).toBeDisabled();
  await form.getByLabel("without it at most, of a hundred").fill("30");
  await form.getByRole("button", { name: "Keep it so" }).click();
  await expect(form).toBeHidden();
  await expect(row).toContainText("1 must-have of this class");
  await expect(row).toContainText("due Sun 29 Nov, 18:00 · late is refused");
  await expect(row).toContainText("2 attempts");
  await student.reload();
  await expect(card).toContainText("Its time is over");
  await expect(card).toContainText("Passed only with: no hand near what turns");

  await row.getByRole("button", { name: `Try ${COLLAR}` }).click();
  await page.waitForURL(/\/lanes\//);
  await atTheBench(page);
  await expect(page.getByText(/^counts nowhere/)).toBeVisible();
  const hands = new KeyboardStudent(page);
  await hands.do("h");
  await expect(page.getByTestId("link")).toContainText("linked");
  await page.goto("/plan");

  await sought.fill("collar inch");
  await expect(row).not.toContainText("begun");
  await row.getByLabel(`Week of ${COLLAR}`).selectOption("");
  await row.getByRole("button", { name: `Change ${COLLAR}` }).click();
  await form.getByLabel("Opens").fill("");
  await form.getByLabel("Due").fill("");
  await expect(form.getByLabel("no hand near what turns")).toBeChecked();
  await form.getByLabel("What stands over points").selectOption("marking");
  await form.getByRole("button", { name: "Keep it so" }).click();
  await expect(form).toBeHidden();
  await page.getByLabel("Week 1 begins on").fill("");
  await page.getByRole("button", { name: "Count no weeks" }).click();
  await expect(page.getByRole("button", { name: "Count no weeks" })).toBeDisabled();
  await student.reload();
  await expect(student.getByRole("button", { name: `Start ${COLLAR}`, exact: true })).toBeVisible();
});
