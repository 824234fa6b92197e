import { expect, type Locator, type Page } from "@playwright/test";
import type { CommandOf } from "@probe-lane/core/bench";
import type { Machine } from "@probe-lane/core/exercises";
import { BenchHands, type Step } from "./benchHands";

/** Figures of a click, as they stand on their buttons, from a whole millimetre down. */
const SIZE_WORDS = { rapid: /^1( mm)?$/, coarse: "0.1", middle: "0.01", fine: "0.001" } as const;
const SIZE_MM = { rapid: 1, coarse: 0.1, middle: 0.01, fine: 0.001 } as const;
const TEN = 10;
/** So many clicks are made one by one; for more the key is held. */
const FEW = 2;

/** Clicks of one axis, direction and size in a row are one movement of a hand. */
export function movements(steps: readonly Step[]): Step[] {
  const merged: Step[] = [];
  for (const step of steps) {
    const last = merged.at(-1);
    const [a, b] = [last?.command, step.command];
    const isSame =
      a?.type === "jog" && b.type === "jog" && a.axis === b.axis && a.direction === b.direction && a.size === b.size;
    if (last && isSame) merged[merged.length - 1] = { command: b, clicks: last.clicks + step.clicks };
    else merged.push(step);
  }
  return merged;
}

/**
 * Counts, in the page, every press that is made from now on: pointers that go down, and two for a choice out of a list
 * (it is opened, and another is chosen). Figures put into a box are not counted.
 */
export async function countPresses(page: Page): Promise<() => Promise<number>> {
  await page.evaluate(() => {
    const counter = window as unknown as { presses: number };
    counter.presses = 0;
    addEventListener("pointerdown", () => (counter.presses += 1), true);
    const chosen = new WeakMap<HTMLSelectElement, string>();
    const look = () => {
      for (const list of document.querySelectorAll("select")) chosen.set(list, list.value);
      requestAnimationFrame(look);
    };
    look();
    addEventListener(
      "change",
      ({ target }) => {
        if (target instanceof HTMLSelectElement && chosen.get(target) !== target.value) counter.presses += 2;
      },
      true,
    );
  });
  return () => page.evaluate(() => (window as unknown as { presses: number }).presses);
}

/** The clocks of the page run eight times as fast: a held key goes on so much quicker. */
export async function hastened(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const wait = window.setTimeout.bind(window);
    window.setTimeout = ((act: () => void, ms = 0) => wait(act, ms / 8)) as typeof window.setTimeout;
  });
}

/**
 * Hands that point and never press a key: every verb by the button that shows its key, every axis by the key docked in
 * the drawing; figures are put into their boxes as a pad on the screen does. With `isTouch` they tap.
 */
export class PointerHands extends BenchHands {
  constructor(
    page: Page,
    machine: Machine,
    private readonly isTouch: boolean,
  ) {
    super(page, machine);
  }

  private async point(target: Locator): Promise<void> {
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
    if (!this.isTouch && clicks > FEW) return this.hold(key, axis, direction * SIZE_MM[size], clicks);
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

  /** Holds a key until the readout stands at its target; pressed anew where something felt stops the hand. */
  private async hold(key: Locator, axis: string, stepMm: number, clicks: number): Promise<void> {
    const target = (await this.figure(`machine-${axis}`)) + stepMm * clicks;
    const left = async () => Math.round((target - (await this.figure(`machine-${axis}`))) / stepMm);
    while ((await left()) > 0) {
      const eye = {
        readout: `machine-${axis}`,
        reads: target.toFixed(3).replace("-", "\u2212"),
        felt: await this.sensation(),
      };
      await key.hover();
      await this.page.mouse.down();
      await this.page.evaluate(
        ({ readout, reads, felt }) =>
          new Promise<void>((resolve) => {
            const shown = (id: string) => (document.querySelector(`[data-testid=${id}]`) as HTMLElement).innerText;
            const look = () => {
              const isThere = shown(readout) === reads;
              if (isThere)
                document.querySelector("button:hover")?.dispatchEvent(new PointerEvent("pointerup", { bubbles: true }));
              if (!isThere && shown("sensation") === felt) return;
              watcher.disconnect();
              resolve();
            };
            const watcher = new MutationObserver(look);
            watcher.observe(document.body, { subtree: true, childList: true, characterData: true });
            look();
          }),
        eye,
      );
      await this.page.mouse.up();
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
