import { expect, type Page } from "@playwright/test";
import { atTheBench } from "./sheet";

/** A student who works the bench with the keyboard alone and looks at the screen only. */
export class KeyboardStudent {
  constructor(readonly page: Page) {}

  async signIn(login: string, password = "fernhollow"): Promise<void> {
    await this.page.goto("/sign-in");
    await expect(this.page.getByLabel("Name")).toBeFocused();
    await this.page.keyboard.type(login);
    await this.page.keyboard.press("Tab");
    await this.page.keyboard.type(password);
    await this.page.keyboard.press("Enter");
    await this.page.waitForURL((url) => !url.pathname.includes("sign-in"));
  }

  /** Tabs to a button or link by its words and presses Enter. */
  async tabTo(words: RegExp): Promise<void> {
    for (let turn = 0; turn < 60; turn++) {
      await this.page.keyboard.press("Tab");
      const text = await this.page.evaluate(() => document.activeElement?.textContent ?? "");
      if (words.test(text)) return;
    }
    throw new Error(`tabTo: nothing reads ${words}`);
  }

  async startLane(title: string): Promise<void> {
    const card = this.page.getByRole("region", { name: title });
    await expect(card).toBeVisible();
    for (let turn = 0; turn < 60; turn++) {
      await this.page.keyboard.press("Tab");
      const isHere = await card.evaluate(
        (element) => element.contains(document.activeElement) && document.activeElement?.tagName === "BUTTON",
      );
      if (isHere) break;
    }
    await this.page.keyboard.press("Enter");
    await this.page.waitForURL(/\/lanes\//);
    await atTheBench(this.page);
  }

  async press(key: string, times = 1): Promise<void> {
    for (let turn = 0; turn < times; turn++) await this.page.keyboard.press(key);
  }

  sensation = (): Promise<string> => this.page.getByTestId("sensation").innerText();
  message = (): Promise<string> => this.page.getByTestId("message").innerText();
  async figure(testId: string): Promise<number> {
    const text = await this.page.getByTestId(testId).innerText();
    return Number(text.replace("\u2212", "-"));
  }
  /** Waits until every key press has been answered. */
  async settle(): Promise<void> {
    await this.page.waitForFunction(() => !document.querySelector("[data-waiting=true]"));
  }

  async block(text: string): Promise<void> {
    await this.press("g");
    await this.page.keyboard.type(text);
    await this.press("Enter");
    await this.press("Escape");
    await this.settle();
  }
  async do(key: string): Promise<void> {
    await this.press(key);
    await this.settle();
  }

  async load(thing: "edge finder" | "tool 1" | "pointed tool"): Promise<void> {
    const dialog = this.page.getByRole("dialog");
    await this.press("d");
    await expect(dialog).toBeVisible();
    if (await dialog.getByRole("button", { name: /^Take the/ }).count()) {
      await this.press("Enter");
      await expect(dialog).toBeHidden();
      await this.settle();
      await this.press("d");
      await expect(dialog).toBeVisible();
    }
    const button = dialog.getByRole("button", { name: `Load the ${thing}` });
    for (let turn = 0; turn < 8 && !(await button.evaluate((element) => element === document.activeElement)); turn++)
      await this.press("Tab");
    await this.press("Enter");
    await expect(dialog).toBeHidden();
    await this.settle();
  }

  async startSpindle(rpm: number | null): Promise<void> {
    await this.press("s");
    await expect(this.page.getByLabel("Speed in rev/min")).toBeFocused();
    if (rpm === null) await this.page.getByRole("button", { name: "Start without stating a speed" }).click();
    else {
      await this.page.keyboard.type(String(rpm));
      await this.press("Enter");
    }
    await expect(this.page.getByRole("dialog")).toBeHidden();
    await this.settle();
  }

  /** Sets the size of a click by the bracket keys, from the one that is shown: 0 is a millimetre, 3 the finest. */
  async size(level: 0 | 1 | 2 | 3): Promise<void> {
    const shown = await this.page
      .getByRole("group", { name: "Size of a click" })
      .evaluate((group) =>
        [...group.querySelectorAll("button")].findIndex(({ ariaPressed }) => ariaPressed === "true"),
      );
    await this.press(level < shown ? "[" : "]", Math.abs(level - shown));
  }

  async look(side: "front" | "left"): Promise<void> {
    const target = this.page.getByRole("button", { name: `from the ${side}` });
    for (let turn = 0; turn < 4 && (await target.getAttribute("aria-pressed")) !== "true"; turn++) await this.do("v");
    await expect(target).toHaveAttribute("aria-pressed", "true");
  }

  /** The figures of the sheet, read off the bench. */
  async sheet(): Promise<{
    x: number;
    y: number;
    skin: number;
    tip: number;
    paper: number;
    left: boolean;
    front: boolean;
  }> {
    const lines = await this.page
      .locator("ul li")
      .filter({ hasText: /edge is|skin is|tip|paper/ })
      .allInnerTexts();
    const value = (pattern: RegExp) => Number(lines.map((line) => pattern.exec(line)?.[1]).find(Boolean) ?? NaN);
    return {
      x: value(/edge is X (\S+)/),
      y: value(/edge is Y (\S+)/),
      skin: value(/skin is Z (\S+)/),
      tip: value(/tip ⌀ (\S+)/),
      paper: value(/paper (\S+)/),
      left: lines.some((line) => line.startsWith("left")),
      front: lines.some((line) => line.startsWith("front")),
    };
  }

  /** Closes in on an edge until the tip is seen to jump aside: smaller clicks as the wobble falls. */
  async closeIn(key: string): Promise<void> {
    for (let turn = 0; turn < 400; turn++) {
      const seen = await this.sensation();
      if (seen === "tip kicked aside") return;
      const level = seen === "wide wobble" ? 1 : /slight|shiver|true/.test(seen) ? 3 : 2;
      await this.size(level);
      await this.do(level === 3 ? key : `Shift+${key}`);
    }
    throw new Error("closeIn: no kick was seen");
  }

  /** Writes the reading of the axis that moved last, its terms and the sum. */
  async ledger(terms: { kind: string; text: string }[], sum: number): Promise<void> {
    await this.do("l");
    for (const { kind, text } of terms) {
      await this.press("t");
      const amount = this.page.getByLabel("Amount with its sign");
      await expect(amount).toBeFocused();
      await this.press("Shift+Tab");
      await this.page.keyboard.type(kind);
      await this.press("Tab");
      await this.page.keyboard.type(text);
      await this.press("Enter");
      await this.settle();
    }
    await this.press("m");
    await expect(this.page.getByLabel("Amount with its sign")).toBeFocused();
    await this.page.keyboard.type(sum.toFixed(3));
    await this.press("Enter");
    await this.settle();
  }

  /** Fills the register sentence: so far, to that side, of an edge that is so much. */
  async setEdge(axis: "x" | "y", distance: string, side: "minus" | "plus" | null, edge: string): Promise<void> {
    const before = await this.figure(`G54.${axis}`);
    await this.press("c");
    await expect(this.page.getByLabel("Distance from the spindle axis to the edge")).toBeFocused();
    await this.page.keyboard.type(distance);
    await this.press("Tab");
    if (side) await this.page.keyboard.type(side);
    await this.press("Tab");
    await this.page.keyboard.type(edge);
    await this.press("Enter");
    await this.settle();
    await expect.poll(() => this.figure(`G54.${axis}`)).not.toBe(before);
  }

  /** Types a value into the register panel. */
  async typeRegister(register: string, how: "Set" | "Add", text: string): Promise<void> {
    await this.press("e");
    await expect(this.page.getByLabel("Value to type")).toBeFocused();
    await this.press("Shift+Tab");
    await this.press("Shift+Tab");
    // typing into a list goes on from what is chosen: from the top it finds "H1 length" before "H1 length wear"
    await this.press("Home");
    await this.page.keyboard.type(register);
    expect(
      await this.page.evaluate(() => (document.activeElement as HTMLSelectElement).selectedOptions[0]?.textContent),
    ).toBe(register);
    await this.press("Tab");
    await this.page.keyboard.type(how);
    await this.press("Tab");
    await this.page.keyboard.type(text);
    await this.press("Enter");
    await this.settle();
  }

  async handIn(): Promise<void> {
    await this.press("k");
    const dialog = this.page.getByRole("dialog", { name: "Hand in this lane?" });
    await expect(dialog).toBeVisible();
    // with gates still shut Enter goes on working: whoever hands in all the same goes to that button
    const button = dialog.getByRole("button", { name: "Hand in" });
    for (let turn = 0; turn < 6 && !(await button.evaluate((element) => element === document.activeElement)); turn++)
      await this.press("Shift+Tab");
    await this.press("Enter");
    await this.page.waitForURL(/\/ruling$/);
    await expect(this.page.getByTestId("total")).toBeVisible();
  }
}
