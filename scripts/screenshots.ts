import { test, type Page } from "@playwright/test";
import { KeyboardStudent } from "../e2e/keyboardStudent";

const shot = async (page: Page, name: string): Promise<void> => {
  await page.waitForTimeout(500);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
};
const dark = (page: Page) => page.addInitScript(() => localStorage.setItem("probe-lane.theme", "dark"));

test("sign in", async ({ page }) => {
  await page.goto("/sign-in");
  await shot(page, "sign-in");
});

test("student: my lanes, bench, ruling", async ({ page }) => {
  await new KeyboardStudent(page).signIn("brandvold");
  await shot(page, "my-lanes");
  await page.getByRole("button", { name: /Go on with attempt/ }).click();
  await page.waitForURL(/\/lanes\//);
  await shot(page, "bench");
  await page.goto("/");
  await page.getByRole("link", { name: /Read the ruling/ }).click();
  await shot(page, "ruling");
});

test("bench in the dark look, after a crash", async ({ page }) => {
  await dark(page);
  await new KeyboardStudent(page).signIn("ashgrove");
  await page.getByRole("button", { name: /Go on with attempt/ }).click();
  await page.waitForURL(/\/lanes\//);
  await shot(page, "bench-dark");
});

test("instructor: wall, marks, a lane watched", async ({ page }) => {
  await new KeyboardStudent(page).signIn("marrow");
  await shot(page, "wall");
  await page.getByRole("link", { name: "Marks" }).click();
  await shot(page, "marks");
  await page.getByRole("link", { name: "Wall" }).click();
  await page.getByRole("link", { name: "Sunniva Lindqvare" }).click();
  await shot(page, "watch");
});

test("instructor: floor and class", async ({ page }) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Floor" }).click();
  await shot(page, "floor");
  await page.getByRole("link", { name: "Class" }).click();
  await shot(page, "class");
});

test("student: a floor lane on a phone", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await new KeyboardStudent(page).signIn("hollinsworth");
  await page.getByRole("link", { name: "Floor" }).click();
  await page.getByRole("region", { name: "Dovetail clamp, first side" }).getByRole("button").click();
  await shot(page, "floor-lane");
});

test("what did I do wrong", async ({ page }) => {
  await new KeyboardStudent(page).signIn("brandvold");
  await page.getByRole("link", { name: "What did I do wrong?" }).click();
  await page.getByLabel("The register holds").fill("-334.672");
  await page.getByLabel("or the machine stood at, in contact").fill("-334.666");
  await page.getByLabel("Tip moved").selectOption("plus");
  await page.getByLabel("tip radius").fill("5");
  await shot(page, "what-went-wrong");
});
