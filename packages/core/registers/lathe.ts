/**
 * What a lathe tool touched, and the value that its register must make the display read there. X values are diameters.
 */
export type LatheTouch =
  | { kind: "skim"; diameter: number }
  | { kind: "feelerOutside" | "feelerBore"; diameter: number; feeler: number }
  | { kind: "face"; surfaceWork?: number; gap?: number };

/**
 * Display value at contact: d after a skim, d ± 2t over a feeler (X is a diameter, so TWICE), zs + gap at a face. Any
 * length unit.
 */
export function latheTouchValue(touch: LatheTouch): number {
  switch (touch.kind) {
    case "skim":
      return touch.diameter;
    case "feelerOutside":
      return touch.diameter + 2 * touch.feeler;
    case "feelerBore":
      return touch.diameter - 2 * touch.feeler;
    case "face":
      return (touch.surfaceWork ?? 0) + (touch.gap ?? 0);
  }
}

/** Geometry from a touch: g = M − C − W − wear − value. */
export function latheGeometry(machine: number, value: number, common = 0, work = 0, wear = 0): number {
  return machine - common - work - wear - value;
}
