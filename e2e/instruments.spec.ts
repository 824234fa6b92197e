import { expect, test, type Page } from "@playwright/test";
import { pageLanes } from "./lanes";
import { workThrough } from "./workThrough";

const full = (page: Page) => expect(page.getByTestId("total")).toHaveText("100");

test("lever taster: two hands at zero, X and Y of a corner", async ({ page }) => {
  await workThrough(page, "sorrel", pageLanes.taster);
  await full(page);
});

test("spindle probe: two faces from outside asked twice, the middle typed", async ({ page }) => {
  await workThrough(page, "okonjo", pageLanes.probe);
  await full(page);
});

test("spindle probe on a skewed plate: angle, corner, and the turn called", async ({ page }) => {
  await workThrough(page, "dunmarrow", pageLanes.probeSkewed);
  await full(page);
});

test("indicator swept round a bore by hand", async ({ page }) => {
  await workThrough(page, "sorrel", pageLanes.sweep);
  await full(page);
});

test("plunger setter with its card in doubt, the nose let down on it by hand; paper under the nose", async ({
  page,
}) => {
  await workThrough(page, "okonjo", pageLanes.setterInDoubt);
  await full(page);
});

test("beam setter calibrated by the master pin, tools at speed, tips blown clean", async ({ page }) => {
  await workThrough(page, "dunmarrow", pageLanes.beam);
  await full(page);
});

test("micrometer and diameter registers, a check with its expectation first", async ({ page }) => {
  await workThrough(page, "sorrel", pageLanes.diameters);
  await full(page);
});

test("height gauge with lamp: the first tool on the table", async ({ page }) => {
  const hands = await workThrough(page, "okonjo", pageLanes.lampGauge);
  expect(await hands.figure("H1")).not.toBe(0);
  await expect(page.getByLabel("Gates of this lane")).toContainText("✓ Tool 1");
});

test("gauge block: the gap opened until it goes, the block in wear", async ({ page }) => {
  const hands = await workThrough(page, "dunmarrow", pageLanes.block);
  expect(await hands.figure("HW1")).toBe(-25);
  await expect(page.getByLabel("Gates of this lane")).toContainText("✓ Tool 1");
});

test("a cold machine: everything made ready, pockets put right, edge finder, indicator on the jaw, paper", async ({
  page,
}) => {
  await workThrough(page, "sorrel", pageLanes.coldMachine);
  await full(page);
});

test("a probe told a size that is far too small is driven into the part, and the ruling waits", async ({ page }) => {
  await workThrough(page, "fennimore", pageLanes.probeDriven);
  await expect(page.getByTestId("sensation")).toHaveText("machine stopped itself");
  await expect(page.getByText("driven into something").first()).toBeVisible();
});

test("registers out as a program and in again, and the same setup in another school", async ({ page }) => {
  await workThrough(page, "quillfeather", pageLanes.notBegun);
  await page.getByRole("button", { name: "In and out" }).click();
  const dialog = page.getByRole("dialog", { name: "Registers in and out" });
  await dialog.getByLabel(/Take in/).fill("G10 L10 P1 R-250.780\nG10 L99 P1 R5");
  await expect(dialog.getByRole("alert")).toContainText("Line 2:");
  await expect(dialog.getByRole("button", { name: /^Take in/ })).toBeDisabled();
  await dialog.getByLabel(/Take in/).fill("G10 L2 P1 Z-3\nG10 L10 P1 R-250.780\nG10 L10 P2 R-231.440");
  await dialog.getByRole("button", { name: "Take in 3 registers" }).click();
  await expect(page.getByTestId("H2")).toHaveText("−231.440");
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "In and out" }).click();
  await dialog.getByRole("button", { name: "Save as a G10 program" }).click();
  expect((await saved).suggestedFilename()).toBe("registers.nc");
  await page.keyboard.press("Escape");
  const lane = /lanes\/([^/]+)/.exec(page.url())?.[1] ?? "";
  await page.goto(`/schools?lane=${lane}`);
  await page.getByLabel("School", { exact: true }).selectOption("gauge-line");
  await page.getByLabel("Known figure").fill("80");
  await expect(page.getByTestId("sum-1")).toHaveText("−253.780");
  await expect(page.getByText("−333.780")).toBeVisible();
});

test("what a bench has besides: a hand up and down, a register taken back, one taken in, the part tapped", async ({
  page,
}) => {
  await workThrough(page, "quillfeather", pageLanes.desk);
  await expect(page.getByTestId("G54.x")).toHaveText("−3.250");
});

test("paper felt, a reading of the presetter taken into the ledger, a line struck", async ({ page }) => {
  await workThrough(page, "dunmarrow", pageLanes.paper);
  await expect(page.getByRole("region", { name: /^Ledger of H2/ }).locator("[data-line]")).toHaveCount(2);
});

test("a dial turned round by hand", async ({ page }) => {
  await workThrough(page, "okonjo", pageLanes.dial);
  await expect(page.getByTestId("message")).toContainText("spindle turned to 90°");
});

test("the same at a lathe", async ({ page }) => {
  await workThrough(page, "merriwick", pageLanes.deskOfTurret);
  await expect(page.getByTestId("X1")).toHaveText("−280.500");
});

test("the fixed jaw swept, its readings seen, and the vise tapped", async ({ page }) => {
  await workThrough(page, "sorrel", pageLanes.jawTapped);
  await expect(page.getByRole("region", { name: "Readings of the instruments" })).toContainText("fixed jaw");
  await page.keyboard.press("b");
  await expect(page.getByRole("dialog")).toContainText("Last along the jaw: left end");
});

test("probe and setter calibrated, each by what is longer known", async ({ page }) => {
  await workThrough(page, "okonjo", pageLanes.calibrated);
  const readings = page.getByRole("region", { name: "Readings of the instruments" });
  for (const what of ["probe, calibrated on the block", "probe, calibrated in the ring", "setter, calibrated"])
    await expect(readings).toContainText(what);
});

test("the middle set from points that the control kept", async ({ page }) => {
  await workThrough(page, "dunmarrow", pageLanes.fromPoints);
  await expect(page.getByRole("button", { name: "X from its points" })).toBeVisible();
  await expect(page.getByRole("button", { name: /take back G54 X/ })).toBeVisible();
});
