import { expect, type Locator, type Page } from "@playwright/test";
import type { CommandOf } from "@probe-lane/core/bench";
import type { Machine } from "@probe-lane/core/exercises";
import { BenchHands } from "./benchHands";

/** Figures of a click, as they stand on their buttons, from a whole millimetre down. */
const SIZE_WORDS = { rapid: /^1( mm)?$/, coarse: "0.1", middle: "0.01", fine: "0.001" } as const;
const TEN = 10;

/**
 * Hands that point and never press a key: every verb by the button that shows its key, every axis by the key docked in
 * the drawing; figures are put into their boxes as a pad on the screen does. With `isTouch` they tap.
 */
export class PointerHands extends BenchHands {
  presses = 0;
  constructor(
    page: Page,
    machine: Machine,
    private readonly isTouch: boolean,
  ) {
    super(page, machine);
  }

  private async point(target: Locator): Promise<void> {
    this.presses += 1;
    await (this.isTouch ? target.tap() : target.click());
  }

  override async signIn(login: string): Promise<void> {
    await this.page.goto("/sign-in");
    await this.page.getByLabel("Name").fill(login);
    await this.page.getByLabel("Password").fill("fernhollow");
    await this.point(this.page.getByRole("button", { name: "Sign in" }));
    await this.page.waitForURL((url) => !url.pathname.includes("sign-in"));
  }

  /** The button that shows this key; Escape shuts what is open by its own button. */
  override async press(key: string, times = 1): Promise<void> {
    const cap = key === "Escape" ? "Esc" : key.toUpperCase();
    const scope = key === "Escape" ? this.page.getByRole("dialog") : this.page;
    for (let turn = 0; turn < times; turn++)
      await this.point(
        scope
          .getByRole("button")
          .filter({ has: this.page.locator("kbd", { hasText: new RegExp(`^${cap}$`) }) })
          .first(),
      );
  }

  protected override async jog({ axis, direction, size }: CommandOf<"jog">, clicks: number): Promise<void> {
    const sizes = this.page.getByRole("group", { name: "Size of a click" });
    const wanted = sizes.getByRole("button", { name: SIZE_WORDS[size], exact: true });
    if ((await wanted.getAttribute("aria-pressed")) !== "true") await this.point(wanted);
    const key = this.page.getByRole("button", {
      name: new RegExp(`^${axis.toUpperCase()} ${direction === 1 ? "plus" : "minus"}`),
    });
    const latch = this.page.getByRole("button", { name: /^ten clicks/ });
    const tens = Math.floor(clicks / TEN);
    if (tens > 0) await this.point(latch);
    for (let turn = 0; turn < tens; turn++) {
      await this.point(key);
      await this.settle();
    }
    if (tens > 0) await this.point(latch);
    for (let turn = 0; turn < clicks % TEN; turn++) {
      await this.point(key);
      await this.settle();
    }
  }

  override async block(text: string): Promise<void> {
    await this.page.getByRole("textbox", { name: /block/i }).fill(text);
    await this.point(this.page.getByRole("button", { name: /^Run block/ }));
    await this.settle();
    await this.page.getByRole("textbox", { name: /block/i }).fill("");
  }

  override async startSpindle(rpm: number | null): Promise<void> {
    await this.press("s");
    const dialog = this.page.getByRole("dialog");
    await expect(dialog).toBeVisible();
    if (rpm === null) await this.point(dialog.getByRole("button", { name: "Start without stating a speed" }));
    else {
      await dialog.getByLabel("Speed in rev/min").fill(String(rpm));
      await this.point(dialog.getByRole("button", { name: /^Start at/ }));
    }
    await expect(dialog).toBeHidden();
    await this.settle();
  }

  override async handIn(): Promise<void> {
    await this.press("k");
    await this.point(this.page.getByRole("dialog").getByRole("button", { name: /^Hand in/ }));
    await this.page.waitForURL(/\/ruling$/);
  }

  protected override async enterLine(): Promise<void> {
    await this.point(this.page.getByRole("button", { name: /^Write/ }));
  }
}
