import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";

/** No violation of WCAG 2.1 A and AA that can be found by machine. */
export async function accessible(page: Page): Promise<void> {
  // in the page itself: no frame of another origin is in it, and a page to gather frames in costs as long again
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ["violations"], preload: false })
    .withTags(["wcag2a", "wcag2aa", "wcag21aa"])
    .analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(" ")).join(", ")}`)).toEqual(
    [],
  );
}
