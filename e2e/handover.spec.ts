import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { pageLanes } from "./lanes";
import { workThrough } from "./workThrough";

test("someone else's setup: two faults found, one missed, because the setter's card was believed", async ({ page }) => {
  await workThrough(page, "peverill", pageLanes.threeFaults);
  await expect(page.getByRole("heading", { name: "What was wrong with the setup" })).toBeVisible();
  const panel = page.locator("section", { has: page.getByRole("heading", { name: "What was wrong with the setup" }) });
  await expect(panel.getByText(/^Found in time: H\d length wear still held/)).toBeVisible();
  await expect(panel.getByText(/^Found in time: [XY] had the tip radius with its sign turned/)).toBeVisible();
  await expect(panel.getByText(/^Missed: the setter no longer stands where its card says/)).toBeVisible();
  await expect(panel.getByText("The setup was called faulty, and it was.")).toBeVisible();
  // lost: one of three faults that share 80 % of 40 (in tenths 10.7, 10.6, 10.7, in the order in which
  // this lane drew them), and one of five values of 35
  await expect(page.getByTestId("total")).toHaveText(/^82\.[34]$/);
  await accessible(page);
  await panel
    .getByRole("link", { name: /^Replay entry/ })
    .first()
    .click();
  await expect(page.getByRole("region", { name: "Handed over to you" })).toBeVisible();
  await expect(page.getByText(/Brackenridge/)).toBeVisible();
});

test("a lathe that was handed over is called faulty", async ({ page }) => {
  await workThrough(page, "fennimore", pageLanes.judged);
  await expect(page.getByRole("button", { name: /was faulty/ })).toHaveAttribute("aria-pressed", "true");
});
