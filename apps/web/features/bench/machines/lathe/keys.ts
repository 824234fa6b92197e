import type { JogKey } from "../../lane/keys";

/** The arrows move the slide as it is drawn: left and right along Z, up and down in X. Nothing moves a third axis. */
export const latheKeys = {
  ArrowLeft: { axis: "z", direction: -1, cap: "←", words: "Z minus, toward the chuck" },
  ArrowRight: { axis: "z", direction: 1, cap: "→", words: "Z plus, away from the chuck" },
  ArrowUp: { axis: "x", direction: 1, cap: "↑", words: "X plus, away from the axis" },
  ArrowDown: { axis: "x", direction: -1, cap: "↓", words: "X minus, toward the axis" },
} as const satisfies Readonly<Record<string, JogKey>>;

/** Wound by hand the tool stands on the operator's side, below in the drawing: the arrows follow it. */
export const handWoundKeys = {
  ...latheKeys,
  ArrowUp: { axis: "x", direction: -1, cap: "↑", words: "X minus, toward the axis" },
  ArrowDown: { axis: "x", direction: 1, cap: "↓", words: "X plus, away from the axis" },
} as const satisfies Readonly<Record<string, JogKey>>;
