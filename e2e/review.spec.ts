import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { KeyboardStudent } from "./keyboardStudent";
import { atTheBench } from "./sheet";

test("an instructor replays a lane, pins a note, gives other marks with a reason; the student reads and replays it", async ({
  page,
  browser,
}) => {
  const instructor = new KeyboardStudent(page);
  await instructor.signIn("marrow");
  await page.goto("/marks");
  await page
    .getByRole("row", { name: /Merriwick/ })
    .getByRole("link", { name: /^\d+$/ })
    .first()
    .click();
  await expect(page.getByTestId("total")).toBeVisible();
  const before = Number(await page.getByTestId("total").innerText());
  const ruling = page.url();
  await page
    .getByRole("link", { name: /^Replay entry/ })
    .first()
    .click();
  await page.waitForURL(/\/review\?seq=\d+/);

  // by the scrubber's keys, by the jumps, and by itself
  const scrubber = page.getByRole("slider", { name: "Entry of the log" });
  await scrubber.focus();
  await page.keyboard.press("Home");
  await expect(page.getByTestId("moment")).toHaveText("Lane opened.");
  await expect(page.getByRole("list", { name: "Gates passed at this moment" }).getByLabel("done")).toHaveCount(0);
  await page.keyboard.press("ArrowRight");
  await expect(scrubber).toHaveAttribute("aria-valuenow", "1");
  await page.keyboard.press("f");
  await expect(page.getByRole("button", { name: /view: whole travel/ })).toBeVisible();
  await page.keyboard.press("f");
  await page.getByRole("button", { name: "16×" }).click();
  await page.getByRole("button", { name: "Replay", exact: true }).click();
  await expect.poll(async () => Number(await scrubber.getAttribute("aria-valuenow"))).toBeGreaterThan(6);
  await page.getByRole("button", { name: "Hold" }).click();
  await page.getByRole("button", { name: "To the start" }).click();
  await page.getByRole("button", { name: /On to the next register/ }).click();
  await expect(page.getByTestId("moment")).toHaveText(/^register G54 X captured: 0\.000 to (−\d+\.\d{3})\.$/);
  const held = /to (−\d+\.\d{3})/.exec(await page.getByTestId("moment").innerText())?.[1] ?? "none";
  await expect(page.getByTestId("G54.x")).toHaveText(held);

  await page.getByLabel(/A note pinned to this moment/).fill("Say the figure aloud before you take it.");
  await page.getByRole("button", { name: "Pin it here" }).click();
  await expect(page.getByText("Say the figure aloud before you take it.")).toHaveCount(1);
  await accessible(page);

  await page.goto(ruling);
  await page.getByRole("button", { name: "Give other marks for Method" }).click();
  const dialog = page.getByRole("dialog");
  await accessible(page);
  await dialog.getByLabel("Marks").fill("16");
  await expect(dialog.getByText("This strand is out of 15: give no more than that.")).toBeVisible();
  await dialog.getByLabel("Marks").fill("5");
  await dialog.getByLabel("Why").fill("The neighbor said the speed aloud.");
  await dialog.getByRole("button", { name: "Give these marks" }).click();
  await expect(page.getByText(/gave these marks; the log earned \d+/)).toBeVisible();
  expect(Number(await page.getByTestId("total").innerText())).toBeLessThan(before);

  const other = await (await browser.newContext()).newPage();
  const student = new KeyboardStudent(other);
  await student.signIn("merriwick");
  await other.goto(ruling);
  await expect(other.getByText("The neighbor said the speed aloud.")).toBeVisible();
  await expect(other.getByRole("button", { name: /Give other marks/ })).toHaveCount(0);
  await other
    .locator("section", { has: other.getByRole("heading", { name: "From your instructor" }) })
    .getByRole("link")
    .click();
  await expect(other.getByTestId("moment")).toHaveText(/^register G54 X captured/);
  await expect(other.getByLabel(/A note pinned/)).toHaveCount(0);
  await other.getByRole("tab", { name: "Ledger then" }).click();
  await expect(other.getByRole("heading", { name: "Ledger", exact: true })).toBeVisible();

  await other.goto("/skills");
  await expect(other.getByText("Practice next:")).toBeVisible();
  await expect(other.getByRole("link", { name: /^(right|wrong) in / }).first()).toBeVisible();
  await accessible(other);
  await other.getByRole("button", { name: "Draw this lane" }).click();
  await other.waitForURL(/\/lanes\/[0-9a-f-]+$/);
  await expect(other.getByTestId("link")).toContainText("linked");
});

test("a student asks for another look at a ruling, and is answered", async ({ page, browser }) => {
  await new KeyboardStudent(page).signIn("fennimore");
  await page.getByRole("link", { name: "Read the ruling of attempt 1" }).first().click();
  const look = page.locator("section", { has: page.getByRole("heading", { name: "Another look" }) });
  const asks = look.getByRole("button", { name: "Ask for another look" });
  await look.getByLabel("What should be looked at again, and why").fill("  ");
  await expect(asks).toBeDisabled();
  await look.getByLabel("What should be looked at again, and why").fill("The plate lay askew before I touched it.");
  await asks.click();
  await expect(look).toContainText("Not answered yet.");
  await expect(asks).toHaveCount(0);

  const desk = await (await browser.newContext()).newPage();
  await new KeyboardStudent(desk).signIn("marrow");
  await desk.getByRole("link", { name: "Marks", exact: true }).click();
  const waiting = desk.getByRole("region", { name: "Asked for another look" });
  await expect(waiting).toContainText("The plate lay askew before I touched it.");
  await waiting.getByRole("link", { name: /^Pelham Fennimore/ }).click();
  const theirs = desk.locator("section", { has: desk.getByRole("heading", { name: "Another look" }) });
  await theirs.getByLabel("Your answer").fill("The log shows that you turned it by the probe: the angle is yours.");
  await theirs.getByRole("button", { name: "Answer", exact: true }).click();
  await expect(theirs).toContainText("Corin Marrowfield: The log shows that you turned it");
  await accessible(desk);
  // on paper: of whom and of what it is, where somebody signs, and nothing to press
  await desk.emulateMedia({ media: "print" });
  await expect(desk.getByRole("heading", { name: "Ruling of a setup lane" })).toBeVisible();
  await expect(desk.getByText("Instructor: name, title, signature")).toBeVisible();
  await expect(desk.getByRole("button", { name: "Print" })).toBeHidden();
  await expect(desk.getByText(/^Focuser plate, .*, attempt 1$/)).toBeVisible();
  await desk.emulateMedia({ media: "screen" });

  await page.getByRole("navigation").getByRole("link", { name: "My lanes" }).click();
  await expect(page.getByText("your question about it is answered")).toBeVisible();
  await page.goBack();
  await page.reload();
  await expect(look).toContainText("the angle is yours");
  await expect(asks).toBeVisible();
  await desk.goto("/audit");
  await expect(desk.getByRole("row").filter({ hasText: "answered who asked" })).toContainText("Pelham Fennimore");
});

test("two attempts beside one another", async ({ page }) => {
  const student = new KeyboardStudent(page);
  await student.signIn("lindqvare");
  for (let attempt = 0; attempt < 2; attempt++) {
    const { id } = await page.evaluate(async () => {
      const mine = (await (await fetch("/api/lanes")).json()) as { assignments: { id: string }[] };
      const last = mine.assignments.at(-1)?.id ?? "";
      return (await (
        await fetch(`/api/assignments/${last}/lanes`, {
          method: "POST",
          headers: { "content-type": "application/json" },
          body: "{}",
        })
      ).json()) as { id: string };
    });
    await page.goto(`/lanes/${id}`);
    await atTheBench(page);
    if (attempt === 1) await student.do("h");
    await student.handIn();
  }
  await page.getByRole("link", { name: /^attempt 1 / }).click();
  await page.waitForURL(/\/compare\//);
  await expect(page.getByRole("columnheader", { name: /Attempt 1/ })).toBeVisible();
  await expect(page.getByRole("columnheader", { name: /Attempt 2/ })).toBeVisible();
  await expect(page.getByRole("row", { name: /^Method/ }).getByText("better")).toHaveCount(1);
  await accessible(page);
  await page.goto(page.url().replace(/compare\/.*/, "compare/00000000-0000-4000-8000-000000000000"));
  await expect(page.getByRole("alert")).toContainText("There is nothing at this address");
});
