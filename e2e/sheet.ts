import { expect, type Page } from "@playwright/test";

/** Once the bench is linked: a first start lays the sheet on top, which is put away as a person does. */
export async function atTheBench(page: Page): Promise<void> {
  await expect(page.getByTestId("link")).toContainText("linked");
  const sheet = page.getByRole("dialog");
  if ((await sheet.count()) === 0) return;
  await page.keyboard.press("Escape");
  await expect(sheet).toBeHidden();
}
