import { expect, test, type Page } from "@playwright/test";
import { KeyboardStudent } from "./keyboardStudent";
import { accessible } from "./accessible";
import { pageLanes } from "./lanes";
import { workLane } from "./workLane";
import { workThrough } from "./workThrough";

const FOCUSER = "Focuser plate, lower left corner";
const ROLLER = "Roller bracket, back right corner";

/** Full marks, or what cost some: the part is drawn anew each time, so the reason has to be in the report. */
async function expectFull(page: Page): Promise<void> {
  await page.getByTestId("total").waitFor();
  const lost = await page
    .locator("section", { has: page.getByRole("heading", { name: "What cost marks" }) })
    .innerText();
  expect(await page.getByTestId("total").innerText(), lost).toBe("100");
}

test("by keyboard alone: full marks on the focuser plate", async ({ page }) => {
  const student = new KeyboardStudent(page);
  await student.signIn("sorrel");
  await student.startLane(FOCUSER);
  await workLane(student);
  await expectFull(page);
});

test("by keyboard alone: full marks on the roller bracket", async ({ page }) => {
  const student = new KeyboardStudent(page);
  await student.signIn("okonjo");
  await student.startLane(ROLLER);
  await workLane(student);
  await expectFull(page);
});

test("radius forgotten in X and paper forgotten in Z: both named, with their evidence", async ({ page }) => {
  await workThrough(page, "dunmarrow", pageLanes.twoTermsForgotten);
  await expect(
    page.getByRole("heading", { name: /G54 X is .* mm low\. Cause: one tip radius, left out/ }),
  ).toBeVisible();
  await expect(
    page.getByRole("heading", { name: /Z with tool 1 is .* mm high.*Cause: one paper, left out/ }),
  ).toBeVisible();
  await expect(page.getByText("The log shows this step, so it is the cause and not a guess.").first()).toBeVisible();
});

test("sign turned in Y on the roller bracket", async ({ page }) => {
  await workThrough(page, "fennimore", pageLanes.signTurned);
  await expect(
    page.getByRole("heading", { name: /G54 Y is .* mm high\. Cause: the tip radius, turned round/ }),
  ).toBeVisible();
});

test("edge finder started at the remembered speed, and X taken after backing off", async ({ page }) => {
  await workThrough(page, "quillfeather", pageLanes.backedOff);
  await expect(
    page.getByText(/Edge finder thrown apart by too much speed\. The spindle came up at 3400 rev\/min/),
  ).toBeVisible();
  // backed off by 0.3 mm, less the kick of this lane's own finder: 5 µm, give or take 2
  await expect(
    page.getByRole("heading", {
      name: /G54 X is 0\.(28[3-9]|29\d|300) mm low\. Cause: taken after leaving the contact/,
    }),
  ).toBeVisible();
});

test("a lane that goes wrong in three ways: each is said once, under its own strand, and nothing else is", async ({
  page,
}) => {
  await workThrough(page, "merriwick", pageLanes.wrongThrice);
  await expect(
    page.getByRole("heading", { name: /^G54 X is .* mm low\. Cause: the tip radius, turned round\.$/ }),
  ).toBeVisible();
  await expect(page.getByText("X: there were no two contacts that agree; one reading can deceive.")).toBeVisible();
  await expect(
    page.getByText(/It was called as expected, and what was seen stood about \d+\.\d mm off\.$/),
  ).toBeVisible();
  await expect(page.getByRole("row", { name: /^G54 Y .*Right, within/ })).toBeVisible();
  await expect(page.getByRole("row", { name: /^Z with tool 1 .*Right, within/ })).toBeVisible();
  await expect(page.getByText("Stood over zero, close to the part, and looked from two sides.")).toBeVisible();
  await accessible(page);
});
