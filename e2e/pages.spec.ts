import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { KeyboardStudent } from "./keyboardStudent";
import { pageLanes } from "./lanes";
import { atTheBench } from "./sheet";
import { workThrough } from "./workThrough";

test("the wall moves live, a lane opens read only, and a hand is answered", async ({ browser }) => {
  const [one, two] = await Promise.all([browser.newContext(), browser.newContext()]);
  const instructor = await one.newPage();
  await new KeyboardStudent(instructor).signIn("marrow");
  await expect(instructor).toHaveURL(/\/wall$/);
  const student = new KeyboardStudent(await two.newPage());
  // whom no other test works as beside this one: the wall shows a student's newest lane
  await student.signIn("hollinsworth");
  await student.startLane("Focuser plate, lower left corner");
  // she stands at a real machine as well, which is another table
  const row = instructor
    .getByRole("table", { name: /^Each student’s newest lane/ })
    .getByRole("row")
    .filter({ hasText: "Wilhelmina Hollinsworth-Abernethy" });
  await expect(row).toContainText("Focuser plate");
  await expect(row).toContainText("at Machine ready");
  await student.do("h");
  await expect(row).toContainText("at Stock seated");
  await student.do("r");
  await expect(row).toContainText("hand is up");
  await row.getByRole("link", { name: "Wilhelmina Hollinsworth-Abernethy" }).click();
  await expect(instructor.getByText(/^watching Wilhelmina/)).toBeVisible();
  await expect(instructor.getByRole("button", { name: "Set G54 X" })).toHaveCount(0);
  await student.do("o");
  await expect(instructor.getByTestId("message")).toContainText("Door open");
  await instructor.getByRole("button", { name: "Answer the raised hand" }).click();
  await expect(instructor.getByRole("button", { name: "Answer the raised hand" })).toHaveCount(0);
  await expect(student.page.getByRole("button", { name: /Raise hand/ })).toBeVisible();
  await accessible(instructor);
  await instructor.getByRole("link", { name: "Back to the wall" }).click();
  await accessible(instructor);
  await Promise.all([one.close(), two.close()]);
});

test("marks: best attempt, strands, sorted by a click, down to the ruling", async ({ page }) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Marks" }).click();
  // who is at a real machine stands on the wall that is left, too
  const row = page
    .getByRole("table", { name: /^Best marks/ })
    .getByRole("row")
    .filter({ hasText: "Ottilie Brandvold" });
  await expect(row).toContainText("83");
  await page.getByRole("button", { name: /^Focuser plate, lower left/ }).click();
  await expect(page.getByRole("columnheader", { name: /^Focuser plate, lower left/ })).toHaveAttribute(
    "aria-sort",
    /ascending|descending/,
  );
  await accessible(page);
  await row.getByRole("link", { name: "83" }).click();
  await expect(page.getByRole("heading", { name: /one tip radius, left out/ })).toBeVisible();
  await accessible(page);
});

test("what goes wrong: over everything, in one exercise, from a dot to its ruling and back", async ({ page }) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Marks" }).click();
  await page.getByRole("link", { name: "What goes wrong" }).click();
  const mistakes = page.locator("section", {
    has: page.getByRole("heading", { name: "Mistakes behind wrong values" }),
  });
  await mistakes.getByText("Paper left out").click();
  await expect(mistakes.getByRole("link", { name: "Ysolde Tamblin" })).toBeVisible();
  await accessible(page);
  // an exercise that is in no class, as an old bookmark may have it
  await page.goto("/patterns?of=gone");
  await expect(page.getByText("This class has no ruled lane of that exercise.")).toBeVisible();
  await page.getByLabel("Exercise").selectOption({ label: "Five tools touched on the part (8)" });
  const first = page.getByRole("region", { name: "H1 length" });
  await expect(first.getByText("paper left out, 3")).toBeVisible();
  await expect(first.getByRole("link")).toHaveCount(8);
  await expect(page.getByRole("row", { name: /^Tool 1/ })).toContainText("8 lanes");
  await accessible(page);
  await first.getByRole("link", { name: /^Bertram Ashgrove/ }).press("Enter");
  await expect(page).toHaveURL(/\/lanes\/.*\/ruling$/);
  await expect(page.getByText(/Bertram Ashgrove/).first()).toBeVisible();
  await page.goBack();
  await expect(page.getByLabel("Exercise")).toHaveValue(/.+/);
  await expect(first).toBeVisible();
});

test("bad input: a wrong password, an unknown lane, another student's lane, a page that is not there, a role that may not", async ({
  page,
  browser,
}) => {
  await page.goto("/sign-in");
  await page.getByLabel("Name").fill("brandvold");
  await page.getByLabel("Password").fill("not this one");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert")).toHaveText("Name and password do not fit together. Check both and try again.");
  await accessible(page);
  await new KeyboardStudent(page).signIn("brandvold");
  await accessible(page);
  await page.goto("/lanes/00000000-0000-4000-8000-000000000000");
  await expect(page.getByRole("alert")).toContainText("There is nothing at this address");
  await page.goto("/nowhere");
  await expect(page.getByRole("alert")).toContainText("There is nothing at this address");
  await page.goto("/wall");
  await expect(page.getByRole("heading", { name: "My lanes" })).toBeVisible();
  await page
    .getByRole("button", { name: /Go on with attempt/ })
    .first()
    .click();
  await page.waitForURL(/\/lanes\//);
  const lane = page.url();
  const other = await (await browser.newContext()).newPage();
  await new KeyboardStudent(other).signIn("tamblin");
  await other.goto(lane);
  await expect(other.getByRole("alert")).toContainText("There is nothing at this address");
  await page.goto(`${lane}/ruling`);
  await expect(page.getByRole("alert")).toContainText("not handed in yet");
  await page.getByRole("link", { name: "Go to the bench" }).click();
  await atTheBench(page);
});

test("a register that cannot be read, and a block that cannot, are answered on the bench and change nothing", async ({
  page,
}) => {
  const student = new KeyboardStudent(page);
  await student.signIn("lindqvare");
  await student.startLane("Focuser plate, lower left corner");
  await student.do("h");
  for (const [text, words] of [
    ["1e999", "is not a length"],
    ["abc", "is not a length"],
    ["1/0", "divides by zero"],
    ["1".repeat(40), "longer than any length"],
  ] as const) {
    await student.press("e");
    await expect(page.getByLabel("Value to type")).toBeFocused();
    await page.getByLabel("Value to type").fill(text);
    await student.press("Enter");
    await expect(page.getByTestId("message")).toContainText(words);
    expect(await student.figure("G54.x")).toBe(0);
  }
  await page.getByLabel("Value to type").fill("");
  await student.press("Escape");
  await student.block("G0 X1 R5");
  await expect(page.getByTestId("message")).toHaveText("R5 is not a word that this bench runs. Nothing was run.");
  expect(await student.figure("machine-x")).toBe(0);
  await accessible(page);
  await student.press("?");
  await expect(page.getByRole("dialog", { name: "Keys of the bench" })).toBeVisible();
  await accessible(page);
});

test("a page whose script cannot be fetched says so, and comes back when it can", async ({ page }) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.route(/\/assets\/MarksPage/, (route) => route.abort());
  await page.getByRole("link", { name: "Marks" }).click();
  await expect(page.getByRole("alert")).toContainText("This page could not be fetched.");
  await accessible(page);
  await page.unroute(/\/assets\/MarksPage/);
  await page.getByRole("button", { name: "Load it again" }).click();
  await expect(page.getByRole("heading", { name: "Marks" })).toBeVisible();
});

test("a ruling of eight tools, each wrong for a cause of its own, stands on any screen", async ({ page }) => {
  await workThrough(page, "peverill", pageLanes.eightTools);
  await page.waitForURL(/\/ruling$/);
  await expect.poll(() => page.getByTestId("cause").count()).toBe(8);
  // eight different slips are eight causes, and no habit
  await expect(page.getByText("one habit, one cause")).toHaveCount(0);
  for (const [width, height] of [
    [1280, 800],
    [1024, 768],
    [390, 844],
  ] as const) {
    await page.setViewportSize({ width, height });
    // drawn anew for the size, a moment after it
    const over = () => page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    await expect.poll(over, { message: `${width} px` }).toBeLessThanOrEqual(0);
  }
  await accessible(page);
});
