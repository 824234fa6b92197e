/** A rectangle of a view, mm: across and up. */
export interface ViewBox {
  left: number;
  right: number;
  bottom: number;
  top: number;
}

/** How near the drawing stands: chosen by itself, or held by the student. */
const framings = ["auto", "contact", "near", "far"] as const;
export type Framing = (typeof framings)[number];
export type Shown = Exclude<Framing, "auto">;

export const framingWords: Record<Framing, string> = {
  auto: "chooses by itself",
  contact: "close",
  near: "part and tip",
  far: "whole travel",
};

/** The framing after this one, for the key. */
export const nextFraming = (now: Framing): Framing => framings[(framings.indexOf(now) + 1) % framings.length] ?? "auto";

/** A tip this near to what is nearest is looked at closely, mm; and no longer when it is this far. */
const CLOSE_MM = 5;
const NO_LONGER_CLOSE_MM = 9;

/** What is shown for a daylight, mm, as an eye tells it; `before` keeps a tip at the border from flickering. */
export function shownFor(framing: Framing, daylightMm: number, before: Shown): Shown {
  if (framing !== "auto") return framing;
  return daylightMm < (before === "contact" ? NO_LONGER_CLOSE_MM : CLOSE_MM) ? "contact" : "near";
}

/** The window grown so that it holds a place too, with room round it, mm. */
export const holding = ({ left, right, bottom, top }: ViewBox, u: number, v: number, roomMm: number): ViewBox => ({
  left: Math.min(left, u - roomMm),
  right: Math.max(right, u + roomMm),
  bottom: Math.min(bottom, v - roomMm),
  top: Math.max(top, v + roomMm),
});

export const windowRound = (u: number, v: number, halfMm: number): ViewBox => ({
  left: u - halfMm,
  right: u + halfMm,
  bottom: v - halfMm,
  top: v + halfMm,
});

/** Room that is kept free of the drawing at its edges, px: for what is docked there. */
export interface Pads {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** How many px a mm may have so that a window fits between the pads. */
export const scaleFor = (window: ViewBox, width: number, height: number, pads: Pads): number =>
  Math.min(
    (width - pads.left - pads.right) / (window.right - window.left),
    (height - pads.top - pads.bottom) / (window.top - window.bottom),
  );
