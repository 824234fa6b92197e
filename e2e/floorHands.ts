import { expect, type Locator, type Page } from "@playwright/test";

/** What is entered of one register of a floor lane. */
export const card = (page: Page, label: string): Locator => page.getByRole("region", { name: label, exact: true });

/** Types into the field of an act on a card, and does it. */
export async function enter(page: Page, label: string, act: string, text: string): Promise<void> {
  const form = card(page, label)
    .locator("form")
    .filter({ has: page.getByRole("button", { name: act }) });
  await form.getByRole("textbox").fill(text);
  await form.getByRole("button", { name: act }).click();
}

/** The instructor's check readings, by register. */
export async function check(instructor: Page, values: Record<string, string>): Promise<void> {
  for (const [label, text] of Object.entries(values)) {
    await enter(instructor, label, "Add check", text);
    await expect(card(instructor, label)).toContainText("Should hold");
  }
}
