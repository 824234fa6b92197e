import { test } from "@playwright/test";
import { pageLanes } from "../e2e/lanes";
import { workThrough } from "../e2e/workThrough";
test("zz", async ({ page }) => {
  test.setTimeout(120_000);
  await workThrough(page, "sorrel", { ...pageLanes.programProved, until: ({ command }) => command.type === "startCycle" });
  await page.screenshot({ path: "/tmp/shots/p1.png" });
  await page.getByRole("button", { name: "How deep each goes" }).click();
  await page.getByRole("button", { name: /tool that matters/ }).click();
  await page.getByLabel("Tool", { exact: true }).selectOption("2");
  await page.getByLabel("Start at").selectOption("3").catch(() => {});
  await page.screenshot({ path: "/tmp/shots/p2.png" });
});
