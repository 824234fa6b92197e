import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { pageLanes } from "./lanes";
import { workThrough } from "./workThrough";

test("a kept setup is compared with today by somebody who changes their mind, taken back, and touched again", async ({
  page,
}) => {
  test.setTimeout(180_000);
  const hands = await workThrough(page, "peverill", {
    ...pageLanes.setupTakenBack,
    until: ({ command }) => command.type === "nameStale",
  });
  const bar = page.getByRole("region", { name: "Setup that was kept" });
  await expect(bar).toContainText("Compare its card with today before anything moves.");
  await expect(page.getByRole("button", { name: "Take it back" })).toHaveCount(0);
  await bar.getByRole("button", { name: "Compare with today …" }).click();
  const sheet = page.getByRole("dialog", { name: /^Setup kept by PL/ });
  await expect(sheet.getByRole("row", { name: /^machine mill 2 mill 2$/ })).toBeVisible();
  await accessible(page);
  // said, unsaid, shut and opened again
  await sheet.getByLabel("G54 X is touch again").check();
  await sheet.getByRole("button", { name: "Say: this one is touched again" }).click();
  await expect(sheet.getByText("Said.", { exact: true })).toBeVisible();
  await sheet.getByLabel("H1 length is touch again").check();
  await expect(sheet.getByText("Said.", { exact: true })).toHaveCount(0);
  await page.keyboard.press("Escape");
  await expect(bar).toContainText("To be touched again: G54 X.");
  await page.reload();
  await expect(bar).toContainText("To be touched again: G54 X.");
  await bar.getByRole("button", { name: "Compare with today …" }).click();
  await expect(sheet.getByLabel("G54 X is touch again")).toBeChecked();
  await sheet.getByLabel("G54 X is touch again").uncheck();
  await sheet.getByLabel("H1 length is touch again").check();
  await sheet.getByRole("button", { name: "Say: this one is touched again" }).click();
  await sheet.getByRole("button", { name: "Take it back" }).click();
  await expect(bar).toContainText("Taken back. Still to be touched again: H1 length.");
  await expect(page.getByTestId("H1")).not.toHaveText("0.000");
  await expect(page.getByTestId("H2")).not.toHaveText("0.000");
  await accessible(page);
  await hands.handIn();
  await page.waitForURL(/\/ruling$/);
  // not what had changed, whatever that was: another lane has another answer
  await expect(
    page.getByText(/Not named: |Named, and still as it was: H1 length|was named before anything moved: that/).first(),
  ).toBeVisible();
});

test("a kept setup is worked whole: what has changed is touched again, nothing else, and the part is good", async ({
  page,
}) => {
  test.setTimeout(180_000);
  await workThrough(page, "lindqvare", pageLanes.setupTakenBack);
  await page.waitForURL(/\/ruling$/);
  await expect(page.getByTestId("total")).toHaveText("100");
  await expect(page.getByText(/was named before anything moved: that, and nothing else/)).toBeVisible();
});
