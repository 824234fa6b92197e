import type { JogKey } from "../../lane/keys";

/** Arrows move the table as it is drawn from above; the pages move the spindle. */
export const millKeys = {
  ArrowLeft: { axis: "x", direction: -1, cap: "←", words: "X minus, to the left" },
  ArrowRight: { axis: "x", direction: 1, cap: "→", words: "X plus, to the right" },
  ArrowUp: { axis: "y", direction: 1, cap: "↑", words: "Y plus, to the back" },
  ArrowDown: { axis: "y", direction: -1, cap: "↓", words: "Y minus, to the front" },
  PageUp: { axis: "z", direction: 1, cap: "PgUp", words: "Z plus, up" },
  PageDown: { axis: "z", direction: -1, cap: "PgDn", words: "Z minus, down" },
} as const satisfies Readonly<Record<string, JogKey>>;
