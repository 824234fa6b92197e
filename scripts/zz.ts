import { test, type Page } from "@playwright/test";
import { KeyboardStudent } from "../e2e/keyboardStudent";
const shot = async (page: Page, name: string) => { await page.waitForTimeout(700); await page.screenshot({ path: `/tmp/shots/${name}.png`, fullPage: name.endsWith("full") }); };
test("floor", async ({ page }) => {
  test.setTimeout(120_000);
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Floor" }).click();
  await page.getByText("Make a floor exercise").waitFor();
  await shot(page, "f0");
  await page.getByRole("region", { name: "Dovetail clamp, first side" }).getByRole("link", { name: /Hollinsworth/ }).click();
  await page.getByText("Sign-off before cycle start").waitFor(); for (const [r, v] of [["G54 X","-329.667"],["G54 Y","-191.119"],["H1 length","-250.781"],["H2 length","-231.701"]] as const) { const c = page.getByRole("region", { name: r, exact: true }); await c.getByLabel("it should hold").fill(v); await c.getByRole("button", { name: "Add check" }).click(); }
  await page.getByText("Sign-off before cycle start").scrollIntoViewIfNeeded();
  await shot(page, "f1full");
});
