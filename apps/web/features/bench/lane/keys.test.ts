import { describe, expect, it } from "vitest";
import { millKeys } from "../machines/mill/keys";
import { keyAction, keyVerbs, verbKeys } from "./keys";

const press = (key: string, more: Partial<{ shiftKey: boolean; ctrlKey: boolean }> = {}) =>
  keyAction({ key, shiftKey: false, ctrlKey: false, metaKey: false, altKey: false, ...more }, millKeys);

describe("keys of the bench", () => {
  it("every verb has a key of its own", () => {
    const keys = keyVerbs.map((verb) => verbKeys[verb].key);
    expect(new Set(keys).size).toBe(keys.length);
    for (const verb of keyVerbs) expect(press(verbKeys[verb].key)).toEqual({ type: "do", what: verb });
  });
  it("arrows jog, Shift makes it ten clicks, a browser shortcut is left alone", () => {
    expect(press("ArrowLeft")).toEqual({ type: "jog", axis: "x", direction: -1, clicks: 1 });
    expect(press("PageUp", { shiftKey: true })).toEqual({ type: "jog", axis: "z", direction: 1, clicks: 10 });
    expect(press("l", { ctrlKey: true })).toBeNull();
    expect(press(";")).toBeNull();
  });
});
