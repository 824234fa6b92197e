import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { pageLanes } from "./lanes";
import { workThrough } from "./workThrough";

test("the first tool of a lathe: face, Z, skim, measured a quarter turn apart, X", async ({ page }) => {
  await workThrough(page, "ashgrove", pageLanes.firstTool);
  await expect(page.getByTestId("total")).toHaveText("100");
  await expect(page.getByText("Skimmed diameter measured twice, the chuck turned in between.")).toBeVisible();
  await accessible(page);
  await page.getByRole("link", { name: "Replay", exact: true }).click();
  await expect(page.getByRole("img", { name: /^Half section from the front/ })).toBeVisible();
});

test("Z at the face: parting tool by straight edge, and the other edge of the blade named", async ({ page }) => {
  await workThrough(page, "brandvold", pageLanes.partingEdge);
  await expect(
    page.getByRole("heading", { name: /^T4 Z is \d\.\d+ mm low: .* Cause: other edge of the blade\.$/ }),
  ).toBeVisible();
});

test("Z by the setter arm, work Z taken without an offset called", async ({ page }) => {
  await workThrough(page, "hollinsworth", pageLanes.arm);
  await expect(page.getByRole("heading", { name: /Cause: tool not active\.$/ })).toBeVisible();
  await expect(page.getByText(/^Work Z was taken while the tool’s offset was not called/)).toBeVisible();
});

test("Z by master tool and shift, the others against it", async ({ page }) => {
  await workThrough(page, "merriwick", pageLanes.master);
  await expect(page.getByTestId("total")).toHaveText("100");
});

test("center height: a pip, half of it in shims, then Z and X", async ({ page }) => {
  await workThrough(page, "fennimore", pageLanes.centerHeight);
  await expect(page.getByRole("row", { name: /^T1 center height .*Right/ })).toBeVisible();
  await expect(page.getByTestId("total")).toHaveText("100");
});

test("a drill by the indicator on the chuck, left where it was swept", async ({ page }) => {
  await workThrough(page, "sorrel", pageLanes.drillSweep);
  await expect(page.getByText(/^T7 X/).first()).toBeVisible();
  await expect(page.getByText("Reference return before anything moved.")).toBeVisible();
});

test("a hand at the turning chuck stops the machine, and the ruling of safety is nothing", async ({ page }) => {
  await workThrough(page, "lindqvare", pageLanes.handAtChuck);
  await expect(page.getByTestId("sensation")).toHaveText("machine stopped itself");
  await expect(page.getByTestId("message")).toContainText("hand at the part while the chuck turned");
  await accessible(page);
});

test("a hand-wound lathe: the corner zeroed, two tools read it, a row recalled and looked at", async ({ page }) => {
  const hands = await workThrough(page, "quillfeather", pageLanes.library);
  await expect(page.getByText("Readout, mm")).toBeVisible();
  await expect(page.getByTestId("machine-x")).toHaveCount(0);
  await hands.do("o");
  await expect(page.getByTestId("message")).toContainText(/^Guard /);
  await accessible(page);
  await hands.handIn();
  await expect(
    page.getByRole("heading", {
      name: /^T2 X is .*: recalled, the corner reads too (much|little)\. Cause: sign of the library\.$/,
    }),
  ).toBeVisible();
  await expect(page.getByText("Recalled a row at the corner and compared it with what was said first.")).toBeVisible();
});

test("a gang slide: two tools changed in a break, one touched on the bar, the approach looked at", async ({ page }) => {
  await workThrough(page, "tamblin", pageLanes.gangOnBar);
  await expect(page.getByTestId("total")).toHaveText("100");
  await expect(page.getByText("The feed was turned down before each new tool came in the first time.")).toBeVisible();
});

test("a gang slide: the tool put where its register says, one screw right down", async ({ page }) => {
  await workThrough(page, "ashgrove", pageLanes.gangToRegister);
  await expect(page.getByRole("heading", { name: /Cause: clamp tightened unevenly\.$/ }).first()).toBeVisible();
});

test("an edge under a square: Z by the cone, and its pass just skims", async ({ page }) => {
  await workThrough(page, "merriwick", pageLanes.cone);
  await expect(page.getByTestId("total")).toHaveText("100");
  await expect(page.getByText("The cone’s pass was run again after Z was set, and just skimmed.")).toBeVisible();
  await page.getByRole("link", { name: "Replay", exact: true }).click();
  await expect(page.getByRole("img", { name: /^Half section from the front/ })).toBeVisible();
});

test("how high the axis stands: a stack under the pin, taken at the tailstock, and the gauge compared", async ({
  page,
}) => {
  await workThrough(page, "brandvold", pageLanes.axisHeight);
  await expect(page.getByRole("heading", { name: /Cause: measured at the tailstock\.$/ })).toBeVisible();
  await expect(page.getByRole("row", { name: /^Error of the setting gauge .*Right/ })).toBeVisible();
});

test("eight tools: nose radius, tip code off its picture, and which of them fits", async ({ page }) => {
  const hands = await workThrough(page, "hollinsworth", pageLanes.noses);
  await hands.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
  await hands.press("e");
  await page.getByRole("form", { name: "Set a register" }).getByLabel("Register").selectOption("Q8");
  await page.getByRole("button", { name: "Tip code 7" }).click();
  await page.getByRole("button", { name: "Set T8 tip code" }).click();
  await hands.settle();
  await expect(page.getByTestId("Q8")).toHaveText("7");
  await hands.press("w");
  for (const [tool, says] of [
    [1, "does not fit"],
    [2, "fits"],
    [3, "fits"],
  ] as const)
    await page
      .getByRole("dialog")
      .getByRole("button", { name: `Tool ${tool} ${says}`, exact: true })
      .click();
  await accessible(page);
  await page.keyboard.press("Escape");
  await hands.handIn();
  const choices = page.getByRole("list", { name: "What was chosen and said" });
  await expect(choices.getByText("✗ 7")).toBeVisible();
  await expect(choices.getByText("should: does not fit").first()).toBeVisible();
});

test("a declared position: a second start, declared 4 mm away from the start point", async ({ page }) => {
  await workThrough(page, "fennimore", pageLanes.declaredAgain);
  await expect(
    page.getByRole("heading", { name: /^T1 Z is .* Cause: declared from another place or tool\.$/ }),
  ).toBeVisible();
  await expect(
    page.getByText("The position was declared somewhere else than at the start point", { exact: false }),
  ).toBeVisible();
});

test("an insert changed in its holder, X felt by a scratch on the turning band: a touch, and no accident", async ({
  page,
}) => {
  await workThrough(page, "ashgrove", pageLanes.scratched);
  await expect(page.getByRole("row", { name: /^T2 X .*Right, within/ })).toBeVisible();
  await expect(page.getByText("Nothing was struck, bent or torn.")).toBeVisible();
  await expect(page.getByTestId("total")).toHaveText("100");
  await page.getByRole("link", { name: "Replay", exact: true }).click();
  await expect(page.getByText(/Scraped at the diameter, the chuck turning/).first()).toBeVisible();
});

test("height by the setting gauge, raised from below", async ({ page }) => {
  await workThrough(page, "tamblin", pageLanes.settingGauge);
  await expect(page.getByTestId("message")).not.toContainText(/refused/i);
});

test("a parting blade behind a straight edge that lies over the face", async ({ page }) => {
  await workThrough(page, "brandvold", pageLanes.partingBehind);
  await expect(page.getByTestId("sensation")).toHaveText("light shows under it");
  await expect(page.getByText("straight edge on the face, from behind")).toBeVisible();
});
