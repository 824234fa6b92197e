import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { KeyboardStudent } from "./keyboardStudent";

test("a program is read: loaded from a file, what is wrong named by its line, mended, and how far each tool goes", async ({
  page,
}) => {
  const errors: string[] = [];
  page.on("pageerror", ({ message }) => errors.push(message));
  await new KeyboardStudent(page).signIn("sorrel");
  await page.getByRole("link", { name: "Program" }).click();
  await expect(page.getByRole("heading", { name: "Nothing to read yet" })).toBeVisible();
  const text = "%\nT3 M6\nG54 G0 X0 Y0 M3 S900\nG43 H3 Z5.\nG1 Z-4.5 F80\nG1 X1.2.3\nG0 Z40.\nM30\n%\n";
  await page
    .getByLabel("Program file")
    .setInputFiles({ name: "clamp.nc", mimeType: "text/plain", buffer: Buffer.from(text) });
  const wrong = page.getByRole("listitem").filter({ hasText: "is no number" });
  await expect(wrong).toContainText("line 6");
  await expect(page.getByText("Nothing is wrong with it as a text")).toHaveCount(0);
  // the line is gone to, and mended where it stands
  await wrong.getByRole("button", { name: "line 6" }).click();
  await page.keyboard.press("Home");
  await page.keyboard.press("Shift+End");
  await page.keyboard.type("G1 X12.5 F200");
  await expect(page.getByText("Nothing is wrong with it as a text")).toBeVisible();
  const tool = page.getByRole("row").filter({ has: page.getByRole("rowheader", { name: "T3" }) });
  await expect(tool).toContainText("G54");
  await expect(tool).toContainText("−4.500");
  await expect(tool).toContainText("12.500");
  await expect(page.getByRole("img", { name: /Programmed ways from above/ })).toBeVisible();
  await accessible(page);
  // read as a lathe's it is another program: Y and H are words that a lathe does not know
  await page.getByLabel("Machine", { exact: true }).selectOption("lathe");
  await expect(page.getByRole("listitem").filter({ hasText: "knows no word “Y”" })).toContainText("line 3");
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);
  expect(errors).toEqual([]);
});

test("what is no program is refused in a sentence, and nothing is changed", async ({ page }) => {
  await new KeyboardStudent(page).signIn("sorrel");
  await page.goto("/prove");
  await page.getByRole("button", { name: "Show drawtube knob" }).click();
  await expect(page.getByRole("rowheader", { name: "T3" })).toBeVisible();
  await page
    .getByLabel("Program file")
    .setInputFiles({ name: "photo.jpg", mimeType: "image/jpeg", buffer: Buffer.from([0xff, 0xd8, 0, 0, 1]) });
  await expect(page.getByRole("alert")).toContainText("photo.jpg is no text");
  await expect(page.getByRole("rowheader", { name: "T3" })).toBeVisible();
});
