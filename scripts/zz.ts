import { test, type Page } from "@playwright/test";
import { pageLanes } from "../e2e/lanes";
import { workThrough } from "../e2e/workThrough";
const shot = async (page: Page, name: string) => { await page.waitForTimeout(700); await page.screenshot({ path: `/tmp/shots/${name}.png` }); };
test("kept ruled", async ({ page }) => {
  test.setTimeout(240_000);
  await workThrough(page, "sorrel", { ...pageLanes.setupTakenBack, habits: {namesOfKept: "nothing"} });
  await page.waitForURL(/\/ruling$/);
  await shot(page, "k4");
});
