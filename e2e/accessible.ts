import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";

/** No violation of WCAG 2.1 A and AA that can be found by machine. */
export async function accessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21aa"]).analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(" ")).join(", ")}`)).toEqual(
    [],
  );
}
