import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";
import { KeyboardStudent } from "./keyboardStudent";

test("an answer is kept in a floor lane when the student says so, and only then", async ({ page }) => {
  await new KeyboardStudent(page).signIn("hollinsworth");
  await page.goto("/what-went-wrong");
  await page.getByLabel("The register holds").fill("-334.666");
  await page.getByLabel("It should hold").fill("-329.667");
  await page.getByLabel("Tip moved").selectOption("plus");
  await page.getByLabel("tip radius").fill("5");
  await page.getByRole("button", { name: "Keep this in the lane" }).click();
  await expect(page.getByRole("button", { name: "Kept in the lane" })).toBeVisible();
  await page.goto("/floor");
  await page.getByRole("region", { name: "Dovetail clamp, first side" }).getByRole("button").click();
  await expect(page.getByText(/off by −4\.999 mm\. radius left out/)).toBeVisible();
});

for (const size of [{ width: 390, height: 844 }, { width: 1280, height: 800 }]) {
  test(`what did I do wrong, at ${size.width} × ${size.height}: from the header to the mistake`, async ({ page }) => {
    await page.setViewportSize(size);
    await new KeyboardStudent(page).signIn("quillfeather");
    await page.getByRole("link", { name: "What did I do wrong?" }).click();
    const answer = page.getByRole("region", { name: "What explains it" });
    await expect(answer).toContainText("Type what the register holds");
    await page.getByLabel("The register holds").fill("−334.672");
    await expect(answer).toContainText("Type what it should hold");
    await page.getByLabel("or the machine stood at, in contact").fill("-334.666");
    await page.getByLabel("Tip moved").selectOption("plus");
    await page.getByLabel("tip radius").fill("5");
    await expect(answer).toContainText("radius left out");
    await expect(answer).toContainText("Is there a line for the tip radius in your working?");
    await expect(answer).toContainText("work coordinate of that edge");
    await page.getByLabel("tip radius").fill("five");
    await expect(page.getByText("“five” is not a length")).toBeVisible();
    await page.getByLabel("What was set, and where").selectOption("lathe-x");
    await page.getByLabel("The register holds").fill("-265,93");
    await page.getByLabel("It should hold").fill("-266.038");
    await page.getByLabel("paper or feeler").fill(".1");
    await page.getByLabel("old wear").fill("0.1");
    await expect(answer).toContainText("feeler counted once, or old wear left in");
    await page.getByLabel("It should hold").fill("-264.59");
    await expect(answer).toContainText("No known mistake explains this number");
    const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21aa"]).analyze();
    expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(" ")).join(", ")}`)).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  });
}
