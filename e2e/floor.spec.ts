import { expect, test, type Page } from "@playwright/test";
import { accessible as noViolations } from "./accessible";
import { card, check, enter } from "./floorHands";
import { KeyboardStudent } from "./keyboardStudent";

/** As everywhere, and nothing lies beside a narrow screen. */
async function accessible(page: Page): Promise<void> {
  await noViolations(page);
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
}

test("a mill floor lane on a phone: offline in the middle, a bad import mended, checked, signed, ruled", async ({
  page,
  context,
  browser,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await new KeyboardStudent(page).signIn("ashgrove");
  await page.getByRole("link", { name: "Floor" }).click();
  await page
    .getByRole("region", { name: "Dovetail clamp, first side" })
    .getByRole("button", { name: "Start at the machine" })
    .click();
  // the answer comes late: what is typed meanwhile stays, and so does what was entered
  await page.route("**/api/floor/lanes/*", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 400));
    await route.continue();
  });
  const late = page.waitForResponse(/\/api\/floor\/lanes\/[^/]+$/);
  await page.getByRole("button", { name: "I have read these" }).click();
  await expect(page.getByText("This page opens on this device without a network")).toBeVisible();
  await page.getByRole("button", { name: "All registers on one page" }).click();
  await card(page, "G54 X").getByLabel("reading, mm").fill("−334.666");
  await late;
  await expect(card(page, "G54 X").getByLabel("reading, mm")).toHaveValue("−334.666");
  await page.unroute("**/api/floor/lanes/*");
  await card(page, "G54 X").getByRole("button", { name: "Add reading" }).click();
  await expect(card(page, "G54 X")).toContainText("−334.666");
  await context.setOffline(true);
  await enter(page, "G54 Y", "Add reading", "-196,12 mm");
  await enter(page, "G54 Y", "Add term", "5");
  await enter(page, "G54 Y", "Write sum", "-191.120");
  await expect(page.getByText(/3 entries wait on this device/)).toBeVisible();
  await accessible(page);
  // opened anew without a network it is there, and goes on where it stood: one register at a time, by its own keys
  await page.reload();
  await expect(page.getByText(/3 entries wait on this device/)).toBeVisible();
  const pad = async (...keys: string[]) => {
    for (const key of keys)
      await page.getByRole("group", { name: "Figures" }).getByRole("button", { name: key, exact: true }).click();
  };
  const screen = page.getByRole("navigation", { name: "Registers" });
  await screen.getByRole("button", { name: "H1 length" }).click();
  const go = card(page, "H1 length").getByRole("button", { name: /^The control shows the same: on to H2/ });
  await expect(go).toBeDisabled();
  await pad("±", "2", "5", "0", ".", "7", "1", "erase");
  await page.getByRole("button", { name: /^paper.* 0\.080/ }).click();
  await page.getByRole("button", { name: /^paper.* 0\.080/ }).click();
  await page.getByRole("button", { name: /^paper.* −0\.080/ }).click();
  await expect(page.getByText("nothing is added up for you here")).toBeVisible();
  await page.getByLabel("my sum").fill("-250.780");
  await accessible(page);
  // thought better of, looked at another, and come back to: what was typed is still there
  await screen.getByRole("button", { name: "G54 X" }).click();
  await page.reload();
  await screen.getByRole("button", { name: "H1 length" }).click();
  await expect(page.getByLabel("my sum")).toHaveValue("-250.780");
  await go.click();
  await expect(screen.getByRole("button", { name: "H1 length, set" })).toBeVisible();
  await expect(card(page, "H2 length")).toBeVisible();
  await page.getByRole("button", { name: "Raise a hand" }).click();
  await page.getByRole("button", { name: "All registers on one page" }).click();
  await context.setOffline(false);
  await expect(page.getByText(/wait on this device/)).toBeHidden({ timeout: 20_000 });
  await expect(card(page, "H1 length")).toContainText("−250.700");
  await enter(page, "H2 length", "Add reading", "nonsense");
  await expect(card(page, "H2 length").getByRole("alert")).toContainText("is not a length");
  await enter(page, "H2 length", "Add reading", "-231.62");
  await page.getByText("Read registers from the control").click();
  const pasted = page.getByLabel("or pasted");
  await pasted.fill("G21\nG10 L2 P1 X-334.666 Y-191.120\nG10 L10 P1 R-250.780\nG10 L10 P9 R1\n");
  await expect(page.getByRole("alert")).toContainText("1 line cannot be used");
  await expect(page.getByText("H9 is not asked for in this exercise.")).toBeVisible();
  await pasted.fill("G21\nG10 L2 P1 X-334.666 Y-191.120\nG10 L10 P1 R-250.780\nG10 L10 P2 R-231.700\n");
  await page.getByRole("button", { name: "Take these 4 registers" }).click();
  await expect(card(page, "H2 length")).toContainText("−231.700");
  await expect(page.getByRole("button", { name: "Hand in" })).toBeDisabled();
  await page.reload();
  await page.getByRole("button", { name: "All registers on one page" }).click();
  await expect(card(page, "G54 Y")).toContainText("−196.120");

  const instructor = await (await browser.newContext()).newPage();
  await new KeyboardStudent(instructor).signIn("marrow");
  // the wall says who is at a machine with a hand up
  const atMachine = instructor.getByRole("table", { name: /^At the machines/ }).getByRole("row", { name: /Bertram/ });
  await expect(atMachine).toContainText("hand is up");
  await atMachine.getByRole("link", { name: "Bertram Ashgrove" }).click();
  await instructor.getByRole("button", { name: "I have come" }).click();
  await expect(page.getByRole("button", { name: "Raise a hand" })).toBeVisible({ timeout: 15_000 });
  await expect(instructor.getByRole("button", { name: "Sign this setup" })).toBeDisabled();
  // as it is read: where the tip stood, and the sum done here; a figure that nobody can read changes nothing
  const x = card(instructor, "G54 X");
  await x.getByText("By a reading, summed here").click();
  await x.getByLabel("stood at").fill("-334.6O7");
  await x.getByRole("button", { name: "Add the sum as a check" }).click();
  await expect(x.getByRole("alert")).not.toBeEmpty();
  await x.getByLabel("stood at").fill("-334.667");
  await x.getByRole("button", { name: "Add check −329.667" }).click();
  await expect(x).toContainText("Should hold −329.667");
  await expect(x.getByLabel("tip radius")).toHaveValue("5.000");
  await check(instructor, {
    "G54 Y": "-191.119",
    "H1 length": "-250.781",
    "H2 length": "-231.701",
  });
  // a value is outside its tolerance: nobody signs that without saying why
  const before = instructor.getByRole("list", { name: "Before you sign" });
  await expect(before).toHaveText("G54 X is outside its tolerance.");
  const sign = instructor.getByRole("button", { name: "Sign this setup" });
  await expect(sign).toBeDisabled();
  await instructor.getByLabel("why you sign it all the same, or why it goes back").fill("he runs it in the air first");
  await sign.click();
  await accessible(instructor);

  await expect(page.getByText(/^Signed by Corin Marrowfield \(CM\)/)).toBeVisible({ timeout: 15_000 });
  // whatever is entered after it takes it back, by its name, on both screens
  await enter(page, "H2 length", "Enter register", "-231.701");
  const since = /since Corin Marrowfield signed, the value in the control of H2 length was entered/;
  await expect(page.getByText(since)).toBeVisible({ timeout: 15_000 });
  await expect(page.getByRole("button", { name: "Hand in" })).toBeDisabled();
  await expect(instructor.getByText(since)).toBeVisible({ timeout: 15_000 });
  await instructor.getByLabel("why you sign it all the same, or why it goes back").fill("what became of H2?");
  await instructor.getByRole("button", { name: "Send it back" }).click();
  await expect(page.getByText("Sent back by Corin Marrowfield: “what became of H2?”")).toBeVisible({ timeout: 15_000 });
  await instructor.getByLabel("why you sign it all the same, or why it goes back").fill("he runs it in the air first");
  await sign.click();
  await expect(page.getByText(/^Signed by Corin Marrowfield \(CM\)/)).toBeVisible({ timeout: 15_000 });
  await page.getByRole("button", { name: "Hand in" }).click();
  await page.getByRole("button", { name: "Yes, hand in" }).click();
  await expect(page.getByText(/G54 X is 4\.999 low\. Most likely: radius left out/)).toBeVisible({ timeout: 15_000 });
  await expect(page.getByText("G54 Y is right.")).toBeVisible();
  await accessible(page);
  await instructor.getByLabel("marks of 100").fill("75");
  await instructor.getByRole("textbox", { name: "reason" }).fill("found the radius alone afterwards");
  await instructor.getByRole("button", { name: "Override" }).click();
  await expect(page.getByTestId("floor-total")).toHaveText("75", { timeout: 15_000 });
  // and it stands in the record of the class
  await instructor.goto("/standings");
  const signed = instructor.getByRole("region", { name: "Signed at the machines" }).getByRole("row");
  await expect(signed.filter({ hasText: "Bertram Ashgrove" })).toContainText("CM");
  await accessible(instructor);
  // set up again: another lane, with nothing of the first in it
  await page.getByRole("link", { name: "All floor lanes" }).click();
  await page
    .getByRole("region", { name: "Dovetail clamp, first side" })
    .getByRole("button", { name: "Set it up again" })
    .click();
  await expect(page.getByRole("button", { name: "I have read these" })).toBeVisible();
  await expect(page.getByRole("heading", { name: "Dovetail clamp, first side, attempt 2" })).toBeVisible();
});

test("a lathe floor lane: made from the template with a fairness warning, worked, checked, ruled; the worksheet prints", async ({
  page,
  browser,
}) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Floor" }).click();
  await page.getByLabel("Title").fill("Thrust collar, one tool");
  await page.getByLabel("Machine").selectOption("lathe");
  await page.getByLabel("Tools to set").fill("1");
  await page.getByLabel("Feeler on the diameter").fill("0.1");
  await page.getByLabel("Pin or gap before the face").fill("0.1");
  await page.getByLabel("Tolerance X (diameter) ±").fill("0.005");
  await expect(page.getByText(/Narrower than a careful touch can hold: tool 1 X/)).toBeVisible();
  await page.getByLabel("Tolerance X (diameter) ±").fill("0.03");
  await page.getByRole("button", { name: "Give it to the class" }).click();
  await expect(page.getByRole("region", { name: "Thrust collar, one tool" })).toContainText("Nobody has begun");

  const student = await (await browser.newContext()).newPage();
  await new KeyboardStudent(student).signIn("lindqvare");
  await student.getByRole("link", { name: "Floor" }).click();
  await student.getByRole("region", { name: "Thrust collar, one tool" }).getByRole("button").click();
  await student.getByRole("button", { name: "I have read these" }).click();
  await enter(student, "tool 1 X", "Add reading", "-224.361");
  await enter(student, "tool 1 X", "Enter register", "-265.228");
  await enter(student, "tool 1 Z", "Add reading", "-258.079");
  await enter(student, "tool 1 Z", "Enter register", "-258.179");

  await page
    .getByRole("region", { name: "Thrust collar, one tool" })
    .getByRole("link", { name: "Sunniva Lindqvare" })
    .click();
  await expect(card(page, "tool 1 Z")).toContainText("−258.179");
  await check(page, { "tool 1 X": "-265.328", "tool 1 Z": "-258.207" });
  await page.getByLabel("what happened").fill("reached in before the chuck stood still");
  await page.getByRole("button", { name: "Note it" }).click();
  await page.getByLabel("why you sign it all the same, or why it goes back").fill("shown, and set again after this");
  await page.getByRole("button", { name: "Sign this setup" }).click();
  // the first part of that machine, measured warm by somebody who slips
  const part = student.getByRole("form", { name: "First part" });
  await part.getByLabel("tells of").selectOption("tool 1 X", { timeout: 20_000 });
  await part.getByLabel("wanted").fill("40");
  await part.getByLabel("measured").fill("forty");
  await part.getByRole("button", { name: "Add it" }).click();
  await expect(part.getByRole("alert")).toContainText("is not a length");
  await part.getByLabel("measured").fill("40.112");
  await part.getByLabel("part at °C, if warm").fill("warm");
  await part.getByRole("button", { name: "Add it" }).click();
  await expect(part.getByRole("alert")).toContainText("A temperature is a number");
  await part.getByLabel("part at °C, if warm").fill("46");
  await part.getByRole("button", { name: "Add it" }).click();
  // 40.112 by 11.5 µm for each metre and degree, 26 degrees: 12 µm
  const tells =
    /Measured 40\.112 at 46 °C, which is 40\.100 at 20 °C; wanted 40\.000\. tool 1 X is 0\.100 high: type −0\.100/;
  await expect(student.getByText(tells)).toBeVisible();
  await accessible(student);
  await expect(page.getByText(tells)).toBeVisible({ timeout: 20_000 });
  await page.getByRole("button", { name: "Take it as a check tool 1 X 40.112" }).click();
  await expect(card(page, "tool 1 X").getByText("measured first part", { exact: true }).first()).toBeVisible();
  await expect(page.getByRole("button", { name: /^Take it as a check/ })).toHaveCount(0);
  await student.getByRole("button", { name: "Hand in" }).click({ timeout: 20_000 });
  await student.getByRole("button", { name: "Yes, hand in" }).click();
  await expect(student.getByText(/tool 1 X is 0\.100 high\. Most likely: feeler counted once/)).toBeVisible({
    timeout: 15_000,
  });
  await expect(student.getByText("tool 1 Z: too close to call.")).toBeVisible();
  await student.goto("/floor");
  await student
    .getByRole("region", { name: "Thrust collar, one tool" })
    .getByRole("link", { name: "Worksheet" })
    .click();
  await expect(student.getByText("Before cycle start: checked and signed")).toBeVisible();
  await accessible(student);
});

test("a worksheet on paper typed in for its student, by an instructor who slips, then checked, signed and handed in", async ({
  page,
  browser,
}) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Floor" }).click();
  await page.getByRole("button", { name: "Type in a worksheet of Dovetail clamp, first side" }).click();
  const whose = page.getByRole("dialog", { name: "Type in a worksheet" });
  await expect(whose.getByRole("button", { name: "Open the lane" })).toBeDisabled();
  await whose.getByLabel(/^Whose worksheet/).selectOption({ label: "Calla Merriwick" });
  await accessible(page);
  await whose.getByRole("button", { name: "Open the lane" }).click();
  await page.getByRole("button", { name: "They are marked as read" }).click();
  const values = { "G54 X": "-329.667", "G54 Y": "-191.118", "H1 length": "-250.781", "H2 length": "-231.699" };
  await enter(page, "G54 X", "Add reading", "334.667");
  await card(page, "G54 X")
    .getByRole("button", { name: /^Strike/ })
    .click();
  await enter(page, "G54 X", "Add reading", "-334.667");
  for (const [register, mm] of Object.entries(values)) await enter(page, register, "Enter register", mm);
  await expect(page.getByText("6 entries were typed in from the worksheet by Corin Marrowfield.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Hand in" })).toBeDisabled();
  await accessible(page);
  // the page comes back to where it was left
  await page.reload();
  await expect(card(page, "G54 X")).toContainText("−334.667");
  await page.getByRole("button", { name: "To the check" }).click();
  await expect(page.getByRole("checkbox")).toHaveCount(4);
  for (const box of await page.getByRole("checkbox").all()) await box.check();
  await page.getByRole("button", { name: "These 4 are within tolerance, by my own touch" }).click();
  await page.getByRole("button", { name: "Sign this setup" }).click();
  await page.getByRole("button", { name: "Type in Calla Merriwick’s worksheet" }).click();
  await page.getByRole("button", { name: "Hand in" }).click();
  await page.getByRole("button", { name: "Yes, hand in" }).click();
  await expect(page.getByTestId("floor-total")).toBeVisible();

  const student = await (await browser.newContext()).newPage();
  await new KeyboardStudent(student).signIn("merriwick");
  await student.getByRole("link", { name: "Floor" }).click();
  await student
    .getByRole("region", { name: "Dovetail clamp, first side" })
    .getByRole("button", { name: "Read the ruling" })
    .click();
  await expect(student.getByText("typed in from the worksheet by Corin Marrowfield")).toBeVisible();
  await expect(student.getByTestId("floor-total")).toBeVisible();
});

test("a class checked at one machine by somebody who mistypes: read once, entered for the setups that are ticked", async ({
  page,
  browser,
}) => {
  const student = await (await browser.newContext()).newPage();
  await new KeyboardStudent(student).signIn("brandvold");
  await student.getByRole("link", { name: "Floor" }).click();
  await student
    .getByRole("region", { name: "Dovetail clamp, first side" })
    .getByRole("button", { name: "Start at the machine" })
    .click();
  await student.getByRole("button", { name: "I have read these" }).click();
  await enter(student, "G54 X", "Enter register", "-334.667");
  await enter(student, "H1 length", "Enter register", "-250.78");

  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Floor" }).click();
  await page
    .getByRole("region", { name: "Dovetail clamp, first side" })
    .getByRole("link", { name: "Check the class" })
    .click();
  const row = page.getByRole("row").filter({ hasText: "Ottilie Brandvold" });
  await expect(row).toContainText("−334.667", { timeout: 20_000 });
  const send = page.getByRole("button", { name: /^Enter/ });
  await expect(send).toBeDisabled();
  await page.getByLabel(/^G54 X/).fill("-329,667");
  await expect(row).toContainText("off −5.000");
  await expect(send).toBeDisabled();
  await row.getByRole("checkbox").check();
  await page.getByLabel(/^H1 length/).fill("x");
  await expect(page.getByRole("alert")).toContainText("H1 length: “x” is not a length");
  await expect(send).toBeDisabled();
  await page.getByLabel(/^H1 length/).fill("-250.781");
  // of what it does not hold there is no check
  await page.getByLabel(/^H2 length/).fill("-231.699");
  await accessible(page);
  await page.getByRole("button", { name: "Enter 2 checks" }).click();
  await expect(page.getByText("2 checks entered.")).toBeVisible();
  await expect(row.getByRole("checkbox")).not.toBeChecked();
  await row.getByRole("link", { name: "not signed of Ottilie Brandvold" }).click();
  await expect(card(page, "G54 X")).toContainText("Should hold −329.667");
  await expect(card(page, "H2 length")).not.toContainText("Should hold");
});

test("a floor exercise copied, its tolerances changed by somebody who slips, hidden from students, shown and deleted", async ({
  page,
  browser,
}) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Floor" }).click();
  const region = (title: string) => page.getByRole("region", { name: title, exact: true });
  await page.getByRole("button", { name: "Copy Dovetail clamp, first side", exact: true }).click();
  const copy = region("Dovetail clamp, first side (copy)");
  await copy.getByRole("button", { name: /^Change / }).click();
  const form = page.getByRole("dialog");
  await form.getByLabel("Title").fill("Dovetail clamp, second vise");
  await form.getByLabel("G54 X").fill("wide");
  await expect(form.getByRole("alert")).toContainText("The tolerance of G54 X is no length above zero");
  await expect(form.getByRole("button", { name: "Keep it so" })).toBeDisabled();
  await form.getByLabel("G54 X").fill("0.05");
  await form.getByLabel("Number on the machine").fill("M 7");
  await accessible(page);
  await form.getByRole("button", { name: "Keep it so" }).click();
  const own = region("Dovetail clamp, second vise");
  await expect(own).toBeVisible();
  await own.getByRole("link", { name: "Worksheet" }).click();
  await expect(page.getByText("M 7").first()).toBeVisible();
  await expect(page.getByText(/±0\.050/).first()).toBeVisible();
  await page.goBack();
  await own.getByRole("button", { name: /^Hide / }).click();
  await expect(own).toContainText("hidden from students");
  const student = await (await browser.newContext()).newPage();
  await new KeyboardStudent(student).signIn("quillfeather");
  await student.getByRole("link", { name: "Floor" }).click();
  await expect(student.getByRole("heading", { name: "Dovetail clamp, first side" })).toBeVisible();
  await expect(student.getByRole("heading", { name: "Dovetail clamp, second vise" })).toHaveCount(0);
  await own.getByRole("button", { name: /^Delete / }).click();
  await own.getByRole("button", { name: "Leave it" }).click();
  await own.getByRole("button", { name: /^Delete / }).click();
  await own.getByRole("button", { name: "Yes, delete it" }).click();
  await expect(own).toHaveCount(0);
  // one that students have begun is neither changed nor deleted
  await expect(region("Dovetail clamp, first side").getByRole("button", { name: /^(Change|Delete) / })).toHaveCount(0);
});
