/** A point of a view's plane, mm. */
export type Flat = readonly [number, number];
export type Tone = "stock" | "jaw" | "steel" | "table" | "dark" | "tip" | "gauge";

/**
 * What stands in space, in a frame of its own: u to the right, v to the back, w up, mm. A prism is an outline seen from
 * above, a cylinder stands upright or lies along u.
 */
export type Body =
  | {
      readonly kind: "prism";
      readonly tone: Tone;
      readonly outline: readonly Flat[];
      readonly hole?: { readonly at: Flat; readonly radius: number } | readonly Flat[] | undefined;
      readonly low: number;
      readonly high: number;
    }
  | {
      readonly kind: "cylinder";
      readonly tone: Tone;
      readonly along: "u" | "w";
      /** The other two coordinates of its axis. */
      readonly at: Flat;
      readonly radius: number;
      readonly from: number;
      readonly to: number;
    }
  | Relief
  | Turned;

/** The top of what was cut: heights of cells in rows from the front on the left, down to a bottom. */
export interface Relief {
  readonly kind: "relief";
  readonly tone: Tone;
  readonly at: Flat;
  readonly cell: number;
  readonly columns: number;
  readonly heights: readonly number[];
  readonly low: number;
}
/** What was turned: radii at equal steps along u, and of a bore those too. */
export interface Turned {
  readonly kind: "turned";
  readonly tone: Tone;
  readonly from: number;
  readonly step: number;
  readonly outer: readonly number[];
  readonly bore: readonly number[];
}

/** An arrow on something that moves: which way it goes for a plus of the axis. */
export interface MovingArrow {
  readonly label: string;
  readonly at: readonly [number, number, number];
  readonly to: readonly [number, number, number];
}

/** A stretch of a program's way in the same frame. */
export interface SpaceWay {
  readonly points: readonly (readonly [number, number, number])[];
  readonly isRapid: boolean;
  /** Of the tool that works now. */
  readonly isCalled: boolean;
}

/** Everything that the view in space shows; only from what the drawing has. */
export interface SpaceScene {
  readonly standing: readonly Body[];
  /** What is carried, its tip at the origin. */
  readonly carried: readonly Body[];
  readonly tip: readonly [number, number, number];
  /** What turns with the spindle. */
  readonly turns: "carried" | "standing";
  readonly isTurning: boolean;
  readonly arrows: readonly MovingArrow[];
  /** Where the eye looks, and from how far, mm. */
  readonly looksAt: readonly [number, number, number];
  readonly reach: number;
}

export const box = (u: Flat, v: Flat): Flat[] => [
  [u[0], v[0]],
  [u[1], v[0]],
  [u[1], v[1]],
  [u[0], v[1]],
];

const MARGIN = 0.95;

/** Only what was cut, near enough to fill the view. */
export function partAlone(scene: SpaceScene): SpaceScene {
  const part = scene.standing.find((body) => body.kind === "relief" || body.kind === "turned");
  if (!part) return scene;
  const alone = { ...scene, standing: [part], carried: [], arrows: [], isTurning: false };
  if (part.kind === "turned") {
    const long = part.outer.length * part.step;
    const widest = Math.max(...part.outer);
    return { ...alone, looksAt: [part.from + long / 2, 0, 0], reach: Math.hypot(long, 2 * widest) * MARGIN };
  }
  if (part.kind !== "relief") return alone;
  const [wide, deep] = [part.columns * part.cell, (part.heights.length / part.columns) * part.cell];
  const high = Math.max(...part.heights);
  return {
    ...alone,
    looksAt: [part.at[0] + wide / 2, part.at[1] + deep / 2, (part.low + high) / 2],
    reach: Math.hypot(wide, deep, high - part.low) * MARGIN,
  };
}
