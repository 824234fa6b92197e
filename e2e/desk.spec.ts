import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { KeyboardStudent } from "./keyboardStudent";

test("an answer is kept in a floor lane when the student says so, and only then", async ({ page }) => {
  await new KeyboardStudent(page).signIn("hollinsworth");
  await page.goto("/what-went-wrong");
  await page.getByLabel("The register holds").fill("-334.666");
  await page.getByLabel("It should hold").fill("-329.667");
  await page.getByLabel("Which way the tip moved").selectOption("plus");
  await page.getByLabel("tip radius").fill("5");
  await page.getByRole("button", { name: "Keep this in the lane" }).click();
  await expect(page.getByRole("button", { name: "Kept in the lane" })).toBeVisible();
  await page.goto("/floor");
  await page.getByRole("region", { name: "Dovetail clamp, first side" }).getByRole("button").click();
  await expect(page.getByText(/off by −4\.999 mm\. radius left out/)).toBeVisible();
});

for (const size of [
  { width: 390, height: 844 },
  { width: 1280, height: 800 },
]) {
  test(`what did I do wrong, at ${size.width} × ${size.height}: from the header to the mistake`, async ({ page }) => {
    await page.setViewportSize(size);
    await new KeyboardStudent(page).signIn("quillfeather");
    await page.getByRole("link", { name: "What did I do wrong?" }).click();
    const answer = page.getByRole("region", { name: "What explains it" });
    await expect(answer).toContainText("Type what the register holds");
    await page.getByLabel("The register holds").fill("−334.672");
    await expect(answer).toContainText("Type what it should hold");
    await page.getByLabel("or the machine stood at, in contact").fill("-334.666");
    await page.getByLabel("Which way the tip moved").selectOption("plus");
    await page.getByLabel("tip radius").fill("5");
    await expect(answer).toContainText("radius left out");
    await expect(answer).toContainText("Is there a line for the tip radius in your working?");
    await expect(answer).toContainText("Work coordinate of that edge");
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
    await accessible(page);
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  });
}

test("the turning desk: height plot, stack, insert and speed answer as they are typed", async ({ page }) => {
  await new KeyboardStudent(page).signIn("merriwick");
  await page.getByRole("link", { name: "Turning desk" }).click();
  await page.getByLabel("Off center by, above or below").fill("0.2");
  await page.getByLabel("Set where it cut ⌀").fill("40");
  await page.getByLabel("Sent to ⌀").fill("2");
  // 2·√((1 − 0.001)² + 0.04) = 2.038
  await expect(page.getByText(/comes out 2\.038, larger by 0\.038/)).toBeVisible();
  await expect(page.getByRole("img", { name: /^How much larger each diameter comes out/ })).toBeVisible();
  await page.getByLabel("Off center by, above or below").fill("25");
  await expect(page.getByText("it cannot have been set there", { exact: false })).toBeVisible();
  await page.getByLabel("On loan, with spaces between").fill("1.004");
  await expect(page.getByText(/= 111\.2545/)).not.toContainText("1.004 ");
  await page.getByLabel("Designation").fill("VBMT 16 04 04");
  await page.getByLabel("Lead angle of its holder").fill("93");
  await expect(page.getByText("180 − 93 − 35 = 52°", { exact: false })).toBeVisible();
  await page.getByLabel("Cutting speed").fill("");
  await expect(page.getByText("Type speed, diameter, teeth and feed", { exact: false })).toBeVisible();
  await accessible(page);
});
