import type { UprightCylinder } from "../geometry";

/** What the spindle can hold on the bench mill. */
export const thingNames = ["edgeFinder", "pointedTool", "tool1"] as const;
export type Thing = (typeof thingNames)[number];

export interface Shape {
  /** Parts that do not give way. */
  readonly rigid: readonly UprightCylinder[];
  /** Radius of the lowest part, for standing over a surface. */
  readonly tipRadiusMm: number;
  /** The largest click it survives when it meets something hard, mm. */
  readonly survivesClickMm: number;
}

const HOLDER_RADIUS_MM = 20;
const NOSE_RADIUS_MM = 30;
const holderAbove = (fromMm: number, lengthMm: number): UprightCylinder[] => [
  { radiusMm: HOLDER_RADIUS_MM, fromMm, toMm: lengthMm },
  { radiusMm: NOSE_RADIUS_MM, fromMm: lengthMm, toMm: lengthMm + 200 },
];

/** Height of an edge finder's tip cylinder, mm. */
export const EDGE_FINDER_TIP_HEIGHT_MM = 10;

/** The solid of each thing for its length from the gauge line, and the bare nose when nothing is held. */
export const shapes = {
  edgeFinder: (lengthMm: number, tipDiameterMm: number): Shape => ({
    rigid: [{ radiusMm: 10, fromMm: EDGE_FINDER_TIP_HEIGHT_MM, toMm: lengthMm }, ...holderAbove(55, lengthMm)],
    tipRadiusMm: tipDiameterMm / 2,
    survivesClickMm: 0.01,
  }),
  pointedTool: (lengthMm: number): Shape => ({
    rigid: [
      { radiusMm: 0.2, fromMm: 0, toMm: 4 }, { radiusMm: 4, fromMm: 4, toMm: 45 }, ...holderAbove(45, lengthMm),
    ],
    tipRadiusMm: 0.2,
    survivesClickMm: 0.01,
  }),
  tool1: (lengthMm: number, diameterMm: number): Shape => ({
    rigid: [{ radiusMm: diameterMm / 2, fromMm: 0, toMm: 32 }, ...holderAbove(32, lengthMm)],
    tipRadiusMm: diameterMm / 2,
    survivesClickMm: 0.01,
  }),
  nose: (): Shape => ({ rigid: [{ radiusMm: NOSE_RADIUS_MM, fromMm: 0, toMm: 200 }], tipRadiusMm: NOSE_RADIUS_MM, survivesClickMm: 0.01 }),
};
