import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { pageLanes } from "./lanes";
import { workThrough } from "./workThrough";

test("a first part is cut, measured by somebody who slips, put right in wear, and the second one is good", async ({
  page,
}) => {
  test.setTimeout(180_000);
  const hands = await workThrough(page, "peverill", {
    ...pageLanes.clampSecondPart,
    until: ({ command }) => command.type === "letCool",
  });
  // hands are in the machine, the part lies there warm, and is drawn as it was cut
  const measure = page.getByRole("region", { name: "Measure", exact: true });
  while (!(await measure.isVisible())) await hands.press("a");
  await expect(page.getByRole("img", { name: "The part from above, deeper is darker" })).toBeVisible();
  await expect(measure.getByText("part warm from the cut")).toBeVisible();
  const message = page.getByTestId("message");
  await measure.getByRole("button", { name: "good", exact: true }).click();
  await expect(message).toHaveText("Measure this part first, then say what it is.");
  await measure.getByRole("button", { name: /^bore gauge/ }).click();
  await expect(message).toHaveText("A bore gauge does not measure that: take another instrument.");
  await measure.getByLabel("Feature", { exact: true }).selectOption("pocket, width");
  await measure.getByRole("button", { name: /^gauge stack/ }).click();
  const size = measure.getByLabel("Size of the stack");
  await size.fill("ten");
  await measure.getByRole("button", { name: "Try it" }).click();
  await expect(message).toContainText("“ten” is not a length");
  await expect(size).toHaveValue("ten");
  await size.fill("9.8");
  await measure.getByRole("button", { name: "Try it" }).click();
  await expect(measure.getByRole("list", { name: "Stacks tried" })).toHaveText("9.800 goes");
  await expect(page.getByTestId("mine pocket, width")).toHaveText("9.800 to …");
  await accessible(page);
  // the door shut, nobody reaches in
  await page.getByRole("button", { name: /^Shut door/ }).click();
  await size.fill("9.9");
  await measure.getByRole("button", { name: "Try it" }).click();
  await expect(message).toHaveText("The door is shut: open it before you reach in.");
  await measure.getByRole("button", { name: "Take the next blank (2 left)" }).click();
  await expect(measure).toBeVisible();
  await expect(page.getByRole("region", { name: "Part 1 of 3" })).toBeVisible();
  await page.getByRole("button", { name: "Open the door", exact: true }).click();
  await measure.getByRole("button", { name: "Let it cool" }).click();
  await expect(measure.getByText("part cool")).toBeVisible();
  // away to the ledger, away from the page, and back: everything is as it was
  await hands.press("a");
  await expect(page.getByRole("region", { name: "Ledger", exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByTestId("mine pocket, width")).toHaveText("9.800 to …");
  await measure.getByLabel("Feature", { exact: true }).selectOption("tongue, width");
  await measure.getByRole("button", { name: /^micrometer/ }).click();
  await expect(page.getByTestId("mine tongue, width")).toHaveText(/^20\.0\d\d$/);
  // how far it gives way is another on each lane
  const change = (20 - Number(await page.getByTestId("mine tongue, width").textContent())).toFixed(3);
  await measure.getByRole("button", { name: "rework", exact: true }).click();
  await expect(measure.getByRole("button", { name: "rework", exact: true })).toHaveAttribute("aria-pressed", "true");
  const wear = page.getByRole("form", { name: "Correct" });
  await wear.getByLabel("Wear").selectOption("DW1");
  await wear.getByLabel("Change").fill("-0.4");
  await expect(wear.getByRole("alert")).toContainText("One correction is at most 0.200.");
  await expect(wear.getByRole("button", { name: "Set wear" })).toBeDisabled();
  await wear.getByLabel("Change").fill(change);
  await wear.getByRole("button", { name: "Set wear" }).click();
  await expect(page.getByTestId("DW1")).toHaveText(change.replace("-", "−"));
  await measure.getByRole("button", { name: "Take the next blank (2 left)" }).click();
  // to the program, where the next one is run
  await page.getByRole("button", { name: /^Shut door/ }).click();
  await page.getByRole("button", { name: "×20" }).click();
  await page.getByRole("button", { name: /^Start cycle/ }).click();
  await expect(page.getByTestId("run-state")).toHaveText("The program has run to its end.", { timeout: 90_000 });
  await page.getByRole("button", { name: "Measure it" }).click();
  await expect(page.getByRole("region", { name: "Part 2 of 3" })).toContainText("0 of 6 measured by you");
  await page.getByRole("button", { name: "Open the door", exact: true }).click();
  await measure.getByRole("button", { name: /^micrometer/ }).click();
  await expect(page.getByTestId("mine tongue, width")).toHaveText(/^(20\.0[01]\d|19\.9[89]\d)$/);
  await hands.handIn();
  await page.waitForURL(/\/ruling$/);
  const first = page.getByRole("region", { name: "Part 1, as it came out" });
  await expect(
    first.getByRole("row", { name: /^tongue, width 20\.000 ±0\.030 20\.0\d\d micrometer .* D1 (diameter )?×\+1/ }),
  ).toBeVisible();
  await expect(page.getByRole("region", { name: "Part 2, as it came out" })).toContainText("called nothing");
  await accessible(page);
});

test("plugs say how large a bore is; one that is tried in a slot is answered in words", async ({ page }) => {
  const hands = await workThrough(page, "merriwick", {
    ...pageLanes.plateFirstPart,
    until: ({ command }) => command.type === "letCool",
  });
  const measure = page.getByRole("region", { name: "Measure", exact: true });
  while (!(await measure.isVisible())) await hands.press("a");
  await measure.getByRole("button", { name: "Let it cool" }).click();
  await measure.getByLabel("Feature", { exact: true }).selectOption("slot, width");
  await measure.getByRole("button", { name: /^plug/ }).click();
  const size = measure.getByLabel("Size of the plug");
  await size.fill("10");
  await size.press("Enter");
  await expect(page.getByTestId("message")).toHaveText("A plug does not measure that: take another instrument.");
  await expect(page.getByTestId("mine slot, width")).toHaveText("–");
  await page.getByRole("button", { name: "bore, diameter", exact: true }).click();
  await measure.getByRole("button", { name: /^plug/ }).click();
  await size.fill("23.8");
  await size.press("Enter");
  await size.fill("24.2");
  await size.press("Enter");
  await expect(measure.getByRole("list", { name: "Plugs tried" })).toContainText("23.800 goes24.200 does not go");
  await expect(page.getByTestId("mine bore, diameter")).toHaveText("23.800 to 24.200");
  // a stack is another thing: it does not go on where the plugs were
  await measure.getByRole("button", { name: /^gauge stack/ }).click();
  await expect(measure.getByRole("list", { name: "Stacks tried" })).toBeEmpty();
  await accessible(page);
});

test("a program gauges its slot and puts wear right by itself; a gauge stack says whether that was so", async ({
  page,
}) => {
  test.setTimeout(180_000);
  const hands = await workThrough(page, "peverill", {
    ...pageLanes.gaugedSlot,
    until: ({ command }) => command.type === "startCycle",
  });
  // tool 8 is the probe’s pocket, and stands still by the sheet
  await expect(page.getByRole("row", { name: /^8 probe/ })).toBeVisible();
  await page.getByRole("button", { name: "×20" }).click();
  await page.getByRole("button", { name: /^Start cycle/ }).click();
  const run = page.getByRole("region", { name: "Run", exact: true });
  await expect(run.getByText(/^Line 68: depth of the floor gauged 8\.0|7\.99/)).toBeVisible({ timeout: 90_000 });
  await expect(page.getByTestId("run-state")).toHaveText("The program has run to its end.", { timeout: 30_000 });
  await page.getByRole("button", { name: "Measure it" }).click();
  const part = page.getByRole("region", { name: "Part 1 of 2" });
  const gauged = part.getByRole("table", { name: "Gauged by the program" });
  const written = gauged.getByRole("row", { name: /^width along Y line 40 11\.\d{3} 11\.600 D1 diameter wear/ });
  await expect(written).toBeVisible();
  await expect(gauged.getByRole("row", { name: /^width along Y line 67 12\.0\d\d 12\.020 goes on/ })).toBeVisible();
  // what it wrote stands in the row of the tool that cut, and nothing in the probe’s
  const change = /\S+$/.exec(await written.innerText())?.[0] ?? "";
  await expect(page.getByTestId("DW1")).toHaveText(change.replace("+", ""));
  await expect(page.getByTestId("HW8")).toHaveText("0.000");
  // away and back: it is printed still
  await page.reload();
  await expect(gauged).toBeVisible();
  await accessible(page);
  await page.getByRole("button", { name: "Open the door", exact: true }).click();
  const measure = page.getByRole("region", { name: "Measure", exact: true });
  await measure.getByRole("button", { name: "Let it cool" }).click();
  await measure.getByLabel("Feature", { exact: true }).selectOption("slot, width");
  await measure.getByRole("button", { name: /^gauge stack/ }).click();
  for (const [size, goes] of [
    ["11.99", "goes"],
    ["12.05", "does not go"],
  ] as const) {
    await measure.getByLabel("Size of the stack").fill(size);
    await measure.getByRole("button", { name: "Try it" }).click();
    await expect(measure.getByRole("list", { name: "Stacks tried" })).toContainText(
      `${Number(size).toFixed(3)} ${goes}`,
    );
  }
  await hands.handIn();
  await page.waitForURL(/\/ruling$/);
  const ruled = page.getByRole("region", { name: "Part 1, as it came out" });
  // read, and what it really was
  await expect(ruled.getByRole("row", { name: /^width along Y line 40 11\.\d{3} 11\.\d{3} 11\.600 D1/ })).toBeVisible();
  await accessible(page);
});

test("on a lathe the first part is measured, diameters put right in wear, and the second part is good", async ({
  page,
}) => {
  test.setTimeout(180_000);
  await workThrough(page, "lindqvare", pageLanes.knobSecondPart);
  await page.waitForURL(/\/ruling$/);
  await expect(page.getByTestId("total")).toHaveText("100");
  const second = page.getByRole("region", { name: "Part 2, as it came out" });
  await expect(second).toContainText("every feature is good; called good");
  await expect(second.getByRole("row", { name: /^groove, width .* none: the tool’s own size/ })).toBeVisible();
});
