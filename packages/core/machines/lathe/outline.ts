/**
 * A stretch of the turned part between two places along the axis, mm in the slide's frame (machine Z of a tool of no
 * reach).
 */
export interface Step {
  readonly fromMm: number;
  readonly toMm: number;
  readonly radiusMm: number;
  /** Number of the cut that made it; 0 is as it came from the saw. */
  readonly cut: number;
  /** A tread of the stairs that a cone is drawn with; where the cone itself is, is a matter of its own. */
  readonly isCone?: boolean;
}

/** Radii from the chuck to the face, without gaps. A radius of 0 outside, or the whole stock inside, is no material. */
export type Outline = readonly Step[];

/** Shorter stretches than this are none, mm. */
const NOTHING_MM = 1e-6;

/**
 * The outline after a tool has swept from `fromMm` to `toMm` at a radius: what stood out further is gone (outer), what
 * stood in further is gone (bore). The same outline when nothing was met.
 */
export function carve(
  outline: Outline,
  kind: "outer" | "bore",
  fromMm: number,
  toMm: number,
  radiusMm: number,
  cut: number,
  isCone = false,
): Outline {
  const isMet = (step: Step) =>
    step.fromMm < toMm - NOTHING_MM &&
    step.toMm > fromMm + NOTHING_MM &&
    (kind === "outer" ? step.radiusMm > radiusMm : step.radiusMm < radiusMm);
  if (!outline.some(isMet)) return outline;
  return outline.flatMap((step) => {
    if (!isMet(step)) return [step];
    const [low, high] = [Math.max(step.fromMm, fromMm), Math.min(step.toMm, toMm)];
    return [
      { ...step, toMm: low },
      { fromMm: low, toMm: high, radiusMm, cut, ...(isCone ? { isCone } : {}) },
      { ...step, fromMm: high },
    ].filter((one) => one.toMm - one.fromMm > NOTHING_MM);
  });
}

/** The end of the material along the axis at a radius, mm; null where there is none. */
export function endAt(outer: Outline, bore: Outline, radiusMm: number): number | null {
  const isThere = (step: Step) =>
    step.radiusMm > radiusMm &&
    !bore.some(
      (hole) =>
        hole.radiusMm >= radiusMm &&
        hole.radiusMm > 0 &&
        hole.toMm > step.toMm - NOTHING_MM &&
        hole.fromMm < step.toMm - NOTHING_MM,
    );
  const ends = outer.filter(isThere).map(({ toMm }) => toMm);
  return ends.length > 0 ? Math.max(...ends) : null;
}

/** Stretches that are there: further out than the bore is at their middle. */
export function material(outer: Outline, bore: Outline): Outline {
  return outer.filter(({ fromMm, toMm, radiusMm }) => radiusMm > (stepAt(bore, (fromMm + toMm) / 2)?.radiusMm ?? 0));
}

export const stepAt = (outline: Outline, zMm: number): Step | null =>
  outline.find(({ fromMm, toMm }) => zMm > fromMm && zMm <= toMm) ?? null;

/** A gauge wants this much of a band to stand on, mm. */
const BAND_MM = 1;

/**
 * The stretch that was cut last, and of one cut the longest; null while nothing was cut that a gauge could stand on.
 */
export function lastCut(outline: Outline): Step | null {
  const cuts = outline.filter(({ cut, radiusMm, fromMm, toMm }) => cut > 0 && radiusMm > 0 && toMm - fromMm >= BAND_MM);
  return cuts.reduce<Step | null>(
    (best, step) =>
      best === null ||
      step.cut > best.cut ||
      (step.cut === best.cut && step.toMm - step.fromMm > best.toMm - best.fromMm)
        ? step
        : best,
    null,
  );
}
