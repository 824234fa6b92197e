import type { MyLanes } from "@probe-lane/contract";
import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { KeyboardStudent } from "./keyboardStudent";
import { pageLanes } from "./lanes";
import { workThrough } from "./workThrough";

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
  // left and come back to, it is as it was
  await page.getByRole("link", { name: "Turning desk" }).click();
  await page.getByRole("link", { name: "Program" }).click();
  await expect(page.getByRole("rowheader", { name: "T3" })).toBeVisible();
  await expect(page.getByLabel("Machine", { exact: true })).toHaveValue("lathe");
});

test("after hand-in a program is run with the student's own registers, and what it would have struck is said", async ({
  page,
}) => {
  await workThrough(page, "okonjo", pageLanes.handedInAtOnce);
  await page.waitForURL(/\/ruling$/);
  await page.getByRole("link", { name: "Run a program with them" }).click();
  await page.getByRole("button", { name: "Show focuser plate" }).click();
  await page.getByRole("button", { name: "Run the program" }).click();
  // nothing was set: Y25 of a work offset of nothing lies behind the end of the travel
  await expect(page.getByTestId("proof")).toContainText("Line 5: Y would have run past the end of its travel");
  await page.getByRole("button", { name: "Go to line 5" }).click();
  await accessible(page);
  // another text is another question: the answer is gone
  await page.keyboard.press("End");
  await page.keyboard.type(" (changed)");
  await expect(page.getByTestId("proof")).toHaveCount(0);
  // and of a lane that is not handed in nothing is told
  const open = await page.request.get("/api/lanes");
  const { assignments } = (await open.json()) as MyLanes;
  const id = assignments.flatMap(({ attempts }) => attempts).find(({ handedInAt }) => handedInAt === null)?.id;
  if (id) {
    const reply = await page.request.post(`/api/lanes/${id}/prove`, { data: { program: "M30" } });
    expect(reply.status()).toBe(409);
  }
});
