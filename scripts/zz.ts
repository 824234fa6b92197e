import { test, type Page } from "@playwright/test";
import { pageLanes } from "../e2e/lanes";
import { workThrough } from "../e2e/workThrough";
const shot = async (page: Page, name: string) => { await page.waitForTimeout(700); await page.screenshot({ path: `/tmp/shots/${name}.png` }); };
test("kept", async ({ page }) => {
  test.setTimeout(240_000);
  await workThrough(page, "merriwick", { ...pageLanes.setupTakenBack, until: ({ command }) => command.type === "nameStale" });
  await shot(page, "k0");
  await page.getByRole("button", { name: "Compare with today …" }).click();
  await shot(page, "k1");
  await page.getByLabel("G54 X is touch again").check();
  await page.getByRole("button", { name: /^Say: / }).click();
  await shot(page, "k2");
  await page.getByRole("dialog").getByRole("button", { name: "Take it back" }).click();
  await shot(page, "k3");
});
test("kept ruled", async ({ page }) => {
  test.setTimeout(240_000);
  await workThrough(page, "sorrel", { ...pageLanes.setupTakenBack, habits: {namesOfKept: "nothing"} });
  await page.waitForURL(/\/ruling$/);
  await shot(page, "k4");
});
