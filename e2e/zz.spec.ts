import { test } from "@playwright/test";
import { pageLanes } from "./lanes";
import { workThrough } from "./workThrough";
test("shots", async ({ page }) => {
  test.setTimeout(180_000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await workThrough(page, "tamblin", {
    ...pageLanes.programStrikes,
    until: ({ command }) => command.type === "handIn",
  });
  await page.waitForTimeout(500);
  await page.screenshot({ path: "/tmp/q1.png" });
  await page.getByRole("button", { name: "Reset the machine" }).click();
  await page.keyboard.press("k");
  await page
    .getByRole("dialog")
    .getByRole("button", { name: /^Hand in/ })
    .click();
  await page.waitForURL(/\/ruling$/);
  await page.waitForTimeout(800);
  await page.screenshot({ path: "/tmp/q2.png", fullPage: true });
});
test("shots2", async ({ page }) => {
  test.setTimeout(180_000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await workThrough(page, "peverill", { ...pageLanes.knobProved, until: ({ command }) => command.type === "sayGap" });
  await page.waitForTimeout(600);
  await page.screenshot({ path: "/tmp/q3.png" });
});
