import { expect, test } from "@playwright/test";
import type { Command } from "@probe-lane/core/bench";
import { accessible } from "./accessible";
import { BenchHands } from "./benchHands";
import { pageLanes } from "./lanes";
import { workThrough } from "./workThrough";

test("a program is looked up, its fault found and mended, proved beside the jaw, and run to its end", async ({
  page,
}) => {
  test.setTimeout(180_000);
  await workThrough(page, "sorrel", pageLanes.programProved);
  await page.waitForURL(/\/ruling$/);
  await expect(page.getByTestId("total")).toHaveText(/^(9\d|100)/);
  // what these registers cut, feature by feature
  const part = page.getByRole("region", { name: "The first part, as these registers cut it" });
  await expect(part.getByRole("row", { name: /^step, depth 8\.000 ±0\.050 .* good/ })).toBeVisible();
  await expect(part.getByRole("row", { name: /^slot, width .* none: the tool’s own size/ })).toBeVisible();
  await accessible(page);
});

test("on a lathe a program is looked up, proved beside the bar, and run", async ({ page }) => {
  test.setTimeout(180_000);
  await workThrough(page, "ashgrove", pageLanes.knobProved);
  await page.waitForURL(/\/ruling$/);
  await expect(page.getByTestId("total")).toHaveText(/^(9\d|100)/);
});

test("unlooked at, a program runs into the jaw: the machine says so, and the ruling says why", async ({ page }) => {
  test.setTimeout(180_000);
  await workThrough(page, "tamblin", {
    ...pageLanes.programStrikes,
    until: ({ command }) => command.type === "handIn",
  });
  await expect(page.getByRole("alert")).toContainText("program run into what holds the part");
  await expect(page.getByTestId("run-state")).toHaveText(/^Line 21: something was struck/);
  await page.getByRole("button", { name: "Reset the machine" }).click();
  await page.keyboard.press("k");
  await page
    .getByRole("dialog")
    .getByRole("button", { name: /^Hand in/ })
    .click();
  await page.waitForURL(/\/ruling$/);
  await expect(
    page.getByText(
      "Line 21: the tool would have run into the back jaw. Put right alone, each of these lets it pass: line 21",
    ),
  ).toBeVisible();
  await accessible(page);
});

test("a lift that is left in is no air run: every value stands as far off", async ({ page }) => {
  test.setTimeout(180_000);
  await workThrough(page, "fennimore", pageLanes.liftLeftIn);
  await page.waitForURL(/\/ruling$/);
  await expect(page.getByText(/not run whole in the air before it cut, or its lift was left in/)).toBeVisible();
});

for (const [lane, login, number] of [
  ["programOwn", "peverill", 2014],
  ["knobOwn", "lindqvare", 3014],
] as const)
  test(`a program of one's own is taken in practice, held, stepped, and ${number} loaded over it`, async ({ page }) => {
    await workThrough(page, login, pageLanes[lane]);
    await expect(page.getByRole("heading", { name: new RegExp(`^Program ${number}`) })).toBeVisible();
    const panel = page.getByRole("region", { name: "Looked up by you" });
    await panel.getByRole("button", { name: /lift of Z/ }).click();
    const form = panel.getByRole("form", { name: "lift of Z" });
    await form.getByLabel("Answer").fill("not much");
    await form.getByLabel("as it should be").check();
    await form.getByRole("button", { name: "Answer" }).click();
    await expect(form.getByRole("alert")).toContainText("That cannot be read as an answer");
    await expect(form.getByLabel("Answer")).toHaveValue("not much");
    await accessible(page);
    // another question instead, and the table beside it
    await panel.getByRole("button", { name: /tool that matters/ }).click();
    await expect(panel.getByRole("form", { name: "tool that matters" })).toBeVisible();
    await expect(form).toBeHidden();
    await page.getByRole("button", { name: "How deep each goes" }).click();
    await expect(page.getByRole("group", { name: "How far each tool goes" })).toContainText("in G54");
    await accessible(page);
  });

test("on a lathe a Z that is six too low is caught by the gap, held at the approach, and set right", async ({
  page,
}) => {
  test.setTimeout(180_000);
  const hands = await workThrough(page, "quillfeather", pageLanes.approachHeld);
  const work = async (...commands: Command[]) => {
    for (const command of commands) await hands.perform({ command, clicks: 0 });
  };
  const z1 = (text: string): Command => ({ type: "typeRegister", register: "Z1", text, how: "add", isConfirmed: true });
  await work(
    z1("-6"),
    { type: "loadProgram", number: 3041, isConfirmed: false },
    { type: "setPace", isSingle: true, rapidPercent: 25 },
    { type: "startCycle" },
  );
  const state = page.getByTestId("run-state");
  const resume = page.getByRole("button", { name: /^Step one block/ });
  await expect(state).toHaveText("held after a block");
  await resume.click();
  // over the face by the program, behind it by the eye
  await expect(page.getByRole("form", { name: "Run" })).toContainText("Step one block");
  const display = page.getByText(/mm between tip and part; display Z/);
  await expect(display).toContainText("5.000");
  await page.getByLabel("Gap seen").fill("-1");
  await page.getByRole("button", { name: "They do not" }).click();
  await expect(page.getByText("said: they do not agree")).toBeVisible();
  await work({ type: "reset" }, z1("6"), { type: "setPace", isSingle: false, rapidPercent: 100 });
  await page.getByRole("button", { name: "×20" }).click();
  await page.getByRole("button", { name: /^Start cycle/ }).click();
  await expect(state).toHaveText("The program has run to its end.", { timeout: 60_000 });
  await work({ type: "handIn" });
  await page.waitForURL(/\/ruling$/);
  await expect(page.getByText(/the gap was seen for what it is and compared with the display/)).toBeVisible();
  await expect(page.getByText(/the program runs clear with these registers/)).toBeVisible();
});

test("the part is raised on higher parallels until the jaws would hold too little", async ({ page }) => {
  const hands = await workThrough(page, "ashgrove", pageLanes.parallelsRaised);
  await hands.perform({ command: { type: "changeParallels", byMm: 2 }, clicks: 0 });
  await expect(page.getByTestId("message")).toContainText("the jaws would hold too little of the blank");
  await hands.perform({ command: { type: "changeParallels", byMm: -2 }, clicks: 0 });
  await expect(page.getByTestId("message")).not.toContainText("too little");
  await accessible(page);
});

test("a signature is asked for, sent back with a word, given, and withdrawn by what is changed after it", async ({
  page,
  browser,
}) => {
  const hands = await workThrough(page, "merriwick", pageLanes.toBeSigned);
  const line = page.getByTestId("signature");
  await expect(line).toContainText("Asked for");
  const context = await browser.newContext();
  const desk = await context.newPage();
  await new BenchHands(desk, "mill").signIn("marrow");
  await desk.goto(page.url());
  const bar = desk.getByRole("region", { name: "Signature" });
  await expect(bar.getByRole("button", { name: "Send it back" })).toBeDisabled();
  await accessible(desk);
  if (process.env["SHOT"]) await desk.screenshot({ path: process.env["SHOT"] });
  await bar.getByLabel("A word with it").fill("Row 3 is empty. Set tool 3 first.");
  await bar.getByRole("button", { name: "Send it back" }).click();
  await expect(bar).toBeHidden();
  // the student's page hears of it by itself
  await expect(line).toContainText("Sent back by Corin Marrowfield: “Row 3 is empty. Set tool 3 first.”");
  await page.keyboard.press(".");
  await expect(page.getByTestId("message")).toContainText("Nobody has signed for the first cut");
  await line.getByRole("button", { name: "Ask for it" }).click();
  await hands.settle();
  await bar.getByRole("button", { name: "Sign", exact: true }).click();
  await expect(line).toContainText("Signed by Corin Marrowfield, as it stands.");
  await hands.perform({
    command: { type: "typeRegister", register: "H3", text: "5", how: "set", isConfirmed: true },
    clicks: 0,
  });
  await expect(line).toContainText("Withdrawn: H3 length was changed. Ask again.");
  await context.close();
});

test("on a lathe a signature is asked for", async ({ page }) => {
  await workThrough(page, "merriwick", pageLanes.knobToBeSigned);
  await expect(page.getByTestId("signature")).toContainText("Asked for");
});
