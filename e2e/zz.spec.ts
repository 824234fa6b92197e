import { test } from "@playwright/test";
import { pageLanes } from "./lanes";
import { workThrough } from "./workThrough";
test("shots", async ({ page }) => {
  test.setTimeout(180_000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await workThrough(page, "sorrel", { ...pageLanes.programProved, until: ({ command }) => command.type === "judgeDeepest" });
  await page.keyboard.press("a");
  await page.waitForTimeout(1200);
  await page.screenshot({ path: "/tmp/p1.png" });
  await page.getByRole("button", { name: /deepest Z, tool 2/ }).click();
  await page.waitForTimeout(300);
  await page.screenshot({ path: "/tmp/p2.png" });
});
test("shots2", async ({ page }) => {
  test.setTimeout(180_000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await workThrough(page, "peverill", { ...pageLanes.programProved, until: ({ command }) => command.type === "sayGap" });
  await page.waitForTimeout(600);
  await page.screenshot({ path: "/tmp/p3.png" });
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.waitForTimeout(600);
  await page.screenshot({ path: "/tmp/p4.png" });
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.keyboard.press("i");
  await page.waitForTimeout(400);
  await page.screenshot({ path: "/tmp/p5.png" });
});
