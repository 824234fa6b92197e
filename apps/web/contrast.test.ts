import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";

const css = readFileSync(new URL("./styles.css", import.meta.url), "utf8");
const colors = [...css.matchAll(/--([a-z0-9-]+): (#[0-9a-f]{6});/g)].map(([, name = "", value = ""]) => ({
  name,
  value,
}));
const second = colors.findIndex(({ name }, i) => i > 0 && name === "page");
const looks = { light: colors.slice(0, second), dark: colors.slice(second) };

/** Relative luminance of #rrggbb. */
function luminance(hex: string): number {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
    const share = parseInt(hex.slice(at, at + 2), 16) / 255;
    return share <= 0.03928 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

describe.each(Object.entries(looks))("the %s look", (_, list) => {
  const of = (name: string): number => luminance(list.find((color) => color.name === name)?.value ?? "#000000");
  const contrast = (a: string, b: string): number => {
    const [low = 0, high = 0] = [of(a), of(b)].sort((x, y) => x - y);
    return (high + 0.05) / (low + 0.05);
  };
  // what must be told apart in a drawing: the outline from what it bounds, the tip from its ground
  it.each([
    ["ink", "steel"],
    ["ink", "jaw"],
    ["ink", "stock"],
    ["stock-edge", "stock"],
    ["jaw-ink", "jaw"],
    ["contact", "contact-soft"],
    ["contact", "well"],
    ["expected", "well"],
    ["expected", "stock"],
    ["ink3", "well"],
  ])("%s stands out from %s by 3 : 1", (a, b) => expect(contrast(a, b)).toBeGreaterThanOrEqual(3));
  it.each([
    ["ink", "panel"],
    ["ink2", "panel"],
    ["ink2", "page"],
    ["ink2", "well"],
    ["ink3", "panel"],
    ["contact", "panel"],
    ["contact", "contact-soft"],
    ["expected", "panel"],
    ["expected", "expected-soft"],
    ["on-contact", "contact"],
  ])("%s can be read on %s, 4.5 : 1", (a, b) => expect(contrast(a, b)).toBeGreaterThanOrEqual(4.5));
});
