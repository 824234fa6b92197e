import { existsSync } from "node:fs";
import { chromium, type Page } from "@playwright/test";
import { freePort, ground, stop } from "../scripts/attack/servers";
import { agent, openLanes } from "./server";
import { quantile, report } from "./measure";

const SECONDS = 4;
const HELD_KEYS = 60;

/** Starts to note the time between two frames of a page. */
const watch = (page: Page): Promise<unknown> =>
  // as a text: what the runner adds to functions is not there in a page
  page.evaluate(`
    window.frameTimes = [];
    window.lastFrame = performance.now();
    requestAnimationFrame(function step(now) {
      window.frameTimes.push(now - window.lastFrame);
      window.lastFrame = now;
      requestAnimationFrame(step);
    });
  `);
const seen = (page: Page): Promise<number[]> =>
  page.evaluate(() => (window as unknown as { frameTimes: number[] }).frameTimes.splice(0));

/**
 * How evenly a bench is drawn while a key is held at the keyboard's own pace, against an empty page of the same
 * browser. The picture eases all the while.
 */
export async function benchFrames(): Promise<void> {
  const on = await ground();
  const port = await freePort();
  const server = await on.serve(port);
  const executablePath = ["/usr/bin/chromium-headless-shell", "/usr/bin/chromium"].find(existsSync) ?? "chromium";
  const browser = await chromium.launch({ executablePath });
  try {
    const [lane] = await openLanes(on.url, port, 1);
    if (!lane) throw new Error("frames: no lane");
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await watch(page);
    await page.waitForTimeout(SECONDS * 1000);
    const empty = quantile(await seen(page), 0.5);
    const [name = "", value = ""] = lane.cookie.split("=");
    await context.addCookies([{ name, value, url: `http://127.0.0.1:${port}` }]);
    await page.goto(`http://127.0.0.1:${port}/lanes/${lane.id}`);
    await page.getByTestId("link").waitFor();
    await page.keyboard.press("h");
    await page.keyboard.press("]");
    await page.waitForFunction(() => !document.querySelector("[data-waiting=true]"));
    await watch(page);
    // a held key: down once, and down again at the pace of a keyboard
    for (let press = 0; press < HELD_KEYS; press++) {
      await page.keyboard.down(press % 40 < 20 ? "ArrowLeft" : "ArrowRight");
      await page.waitForTimeout(33);
    }
    const held = await seen(page);
    const median = quantile(held, 0.5);
    report(
      "frames of a held jog, median",
      `${median.toFixed(1)} ms`,
      "goal ≤ 16 (17 of 60 Hz)",
      `${(median / empty).toFixed(2)} × an empty page (${empty.toFixed(1)} ms), 95th ${quantile(held, 0.95).toFixed(1)} ms`,
    );
  } finally {
    await browser.close();
    await stop(server);
    on.end();
    agent.destroy();
  }
}
