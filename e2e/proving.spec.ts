import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { pageLanes } from "./lanes";
import { workThrough } from "./workThrough";

test("a program is looked up, its fault found and mended, proved beside the jaw, and run to its end", async ({
  page,
}) => {
  test.setTimeout(180_000);
  await workThrough(page, "sorrel", pageLanes.programProved);
  await page.waitForURL(/\/ruling$/);
  await expect(page.getByTestId("total")).toHaveText(/^(9\d|100)/);
});

test("a program of one's own is taken in practice, held, stepped, and another loaded over it when asked", async ({
  page,
}) => {
  await workThrough(page, "peverill", pageLanes.programOwn);
  await expect(page.getByRole("heading", { name: /^Program 2014/ })).toBeVisible();
  await accessible(page);
});
