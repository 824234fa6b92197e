import type { JogSize } from "@probe-lane/core/lane";
import type { Axis } from "@probe-lane/core/registers";
import type { LengthUnit } from "@probe-lane/core/units";

/** What a key asks for, before the bench knows whether it can be done. */
export type KeyAction =
  | { type: "jog"; axis: Axis; direction: 1 | -1; clicks: number }
  | { type: "size"; step: 1 | -1 }
  | { type: "do"; what: KeyVerb };

export const keyVerbs = [
  "home",
  "door",
  "spindle",
  "drawer",
  "look",
  "wobble",
  "burr",
  "paper",
  "feel",
  "block",
  "measure",
  "check",
  "register",
  "typeRegister",
  "undo",
  "reading",
  "term",
  "sum",
  "zeroCounter",
  "typeBlock",
  "hand",
  "fit",
  "space",
  "reset",
  "handIn",
  "keys",
  "sheet",
  "judgeSetup",
  "program",
  "cycle",
  "holdFeed",
] as const;
export type KeyVerb = (typeof keyVerbs)[number];

/** A key that moves an axis, as it is printed and what it does. */
export interface JogKey {
  readonly axis: Axis;
  readonly direction: 1 | -1;
  readonly cap: string;
  readonly words: string;
}

export const verbKeys: Record<KeyVerb, { key: string; words: string }> = {
  home: { key: "h", words: "reference return" },
  door: { key: "o", words: "open or shut the door" },
  drawer: { key: "d", words: "drawer: load or take out" },
  spindle: { key: "s", words: "start at a stated speed, or stop" },
  wobble: { key: "w", words: "set the tip wobbling, true the taster, or ask the probe" },
  look: { key: "v", words: "look from the next side" },
  burr: { key: "b", words: "get ready: burr, taper, seat and stop" },
  paper: { key: "p", words: "place or pull paper or a feeler" },
  feel: { key: "q", words: "feel the paper" },
  block: { key: "j", words: "try a block, or take it out" },
  measure: { key: "y", words: "measure with what stands beside the machine" },
  check: { key: "x", words: "check something, expectation first" },
  zeroCounter: { key: "n", words: "zero the counter of the axis you moved" },
  register: { key: "c", words: "set a register from the machine" },
  typeRegister: { key: "e", words: "type a register" },
  undo: { key: "u", words: "take back the last register change" },
  reading: { key: "l", words: "ledger: take the reading" },
  term: { key: "t", words: "ledger: write a term" },
  sum: { key: "m", words: "ledger: write the sum" },
  typeBlock: { key: "g", words: "type a block" },
  fit: { key: "f", words: "how near the drawing stands" },
  space: { key: "3", words: "the machine in space, and back to the drawing" },
  sheet: { key: "i", words: "the exercise sheet" },
  judgeSetup: { key: "z", words: "someone else’s setup: say whether it is sound" },
  program: { key: "a", words: "the program beside the machine, and back to the ledger" },
  cycle: { key: ".", words: "program: start the cycle, resume, or step one block" },
  holdFeed: { key: ",", words: "program: hold the feed" },
  hand: { key: "r", words: "raise or lower your hand" },
  handIn: { key: "k", words: "hand in" },
  reset: { key: "Escape", words: "stop everything and reset" },
  keys: { key: "?", words: "this key map" },
};

export const jogSizeOrder: readonly JogSize[] = ["rapid", "coarse", "middle", "fine"];
export const jogSizeWords: Record<LengthUnit, Record<JogSize, string>> = {
  mm: { rapid: "1 mm", coarse: "0.1", middle: "0.01", fine: "0.001" },
  inch: { rapid: ".05 in", coarse: ".005", middle: ".0005", fine: ".0001" },
};

const BY_KEY = new Map(Object.entries(verbKeys).map(([verb, { key }]) => [key, verb as KeyVerb]));
const SHIFTED_CLICKS = 10;

/** The action of a key press on the bench, or null for keys that are not the bench's. */
export function keyAction(
  event: { key: string; shiftKey: boolean; ctrlKey: boolean; metaKey: boolean; altKey: boolean },
  jogKeys: Readonly<Record<string, JogKey>>,
): KeyAction | null {
  if (event.ctrlKey || event.metaKey || event.altKey) return null;
  const jog = jogKeys[event.key];
  if (jog)
    return { type: "jog", axis: jog.axis, direction: jog.direction, clicks: event.shiftKey ? SHIFTED_CLICKS : 1 };
  if (event.key === "[" || event.key === "]") return { type: "size", step: event.key === "]" ? 1 : -1 };
  const what = BY_KEY.get(event.key.length === 1 ? event.key.toLowerCase() : event.key);
  return what ? { type: "do", what } : null;
}
