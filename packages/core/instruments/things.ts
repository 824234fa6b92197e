import type { UprightCylinder } from "../geometry";
import { PROBE_STEM_RADIUS_MM } from "./probe";
import { TASTER_BALL_RADIUS_MM } from "./taster";

/**
 * What hangs in the spindle besides cutting tools: its name, whether it must never turn under power, whether its tip
 * gives way so that no gap can be felt under it, and as what it breaks when it is driven into something.
 */
const SPINDLE_INSTRUMENTS = {
  edgeFinder: { name: "edge finder", neverTurns: false, isSensing: true, brokenAs: "finderBroken" },
  pointedTool: { name: "pointed tool", neverTurns: false, isSensing: false, brokenAs: null },
  taster: { name: "lever taster", neverTurns: true, isSensing: true, brokenAs: "tasterBroken" },
  probe: { name: "spindle probe", neverTurns: true, isSensing: true, brokenAs: "probeBroken" },
  indicator: { name: "indicator", neverTurns: true, isSensing: true, brokenAs: "indicatorBroken" },
} as const;
type SpindleInstrument = keyof typeof SPINDLE_INSTRUMENTS;
export const spindleInstruments = Object.keys(SPINDLE_INSTRUMENTS) as SpindleInstrument[];
/** Cutting tools are named by the number on their holder. */
export type ToolName = `tool${number}`;
export type Thing = SpindleInstrument | ToolName;

/** The most tools an exercise may have. */
export const MOST_TOOLS = 8;
export const toolName = (number: number): ToolName => `tool${number}`;
/** The number of a cutting tool; null for an instrument or an empty spindle. */
export const toolNumber = (thing: Thing | null): number | null =>
  thing?.startsWith("tool") ? Number(thing.slice(4)) : null;
export const isThing = (text: unknown): text is Thing =>
  typeof text === "string" && (spindleInstruments.some((name) => name === text) || /^tool[1-8]$/.test(text));

/** Everything else that lies in the drawer or stands beside the machine. */
const HAND_INSTRUMENTS = {
  paper: "paper",
  feeler: "feeler",
  block: "gauge block",
  pin: "gauge pin",
  lampGauge: "height gauge with lamp",
  plungerSetter: "plunger setter",
  beamSetter: "beam setter",
  presetter: "presetter",
  caliper: "caliper",
  micrometer: "micrometer",
  rule: "rule",
  boreGauge: "bore gauge",
  straightEdge: "straight edge",
  setterArm: "setter arm",
  gaugeBlocks: "set of gauge blocks",
  settingGauge: "setting gauge",
} as const;
export type HandInstrument = keyof typeof HAND_INSTRUMENTS;
export const handInstruments = Object.keys(HAND_INSTRUMENTS) as HandInstrument[];
export type InstrumentName = SpindleInstrument | HandInstrument;
export const instrumentNames: readonly InstrumentName[] = [...spindleInstruments, ...handInstruments];

const isSpindleInstrument = (name: string): name is SpindleInstrument => Object.hasOwn(SPINDLE_INSTRUMENTS, name);
/** What an instrument is called. */
export const instrumentName = (name: InstrumentName): string =>
  isSpindleInstrument(name) ? SPINDLE_INSTRUMENTS[name].name : HAND_INSTRUMENTS[name];
/** What is so of an instrument that hangs in the spindle; null for a cutting tool or the bare nose. */
export const heldAs = (thing: Thing | null): (typeof SPINDLE_INSTRUMENTS)[SpindleInstrument] | null =>
  thing !== null && isSpindleInstrument(thing) ? SPINDLE_INSTRUMENTS[thing] : null;
/** Things that must never turn under power. */
export const neverTurns = (thing: Thing | null): boolean => heldAs(thing)?.neverTurns ?? false;

export const toolKinds = ["endMill", "drill", "spotDrill", "faceMill"] as const;
export type ToolKind = (typeof toolKinds)[number];

export interface Shape {
  /** Parts that do not give way. */
  readonly rigid: readonly UprightCylinder[];
  /** The sensing tip, for instruments whose tip gives way. */
  readonly tip: UprightCylinder | null;
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
/** How far above its lever an indicator's arm begins, mm. */
export const INDICATOR_ARM_MM = 25;
/** How much of a cutter stands out of its holder, mm. */
const CUTTER_REACH_MM = 32;
/** How far the middle of a face mill's face lies above its inserts, mm: nothing cuts or touches there. */
export const FACE_MILL_RECESS_MM = 3;
/** Width of the ring on which a face mill's inserts stand, mm. */
export const FACE_MILL_RING_MM = 6;

const POINT_HEIGHT: Record<ToolKind, (radiusMm: number) => number> = {
  endMill: () => 0,
  faceMill: () => 0,
  // a drill's point of 118 degrees, a spot drill's of 90
  drill: (radiusMm) => radiusMm * 0.6,
  spotDrill: (radiusMm) => radiusMm,
};

function cutter(kind: ToolKind, lengthMm: number, diameterMm: number): Shape {
  const radiusMm = diameterMm / 2;
  const pointMm = POINT_HEIGHT[kind](radiusMm);
  const point: UprightCylinder[] = pointMm > 0 ? [{ radiusMm: 0.4, fromMm: 0, toMm: pointMm }] : [];
  return {
    rigid: [...point, { radiusMm, fromMm: pointMm, toMm: CUTTER_REACH_MM }, ...holderAbove(CUTTER_REACH_MM, lengthMm)],
    tip: null,
    tipRadiusMm: pointMm > 0 ? 0.4 : radiusMm,
    survivesClickMm: 0.01,
  };
}

/** The solid of each thing for its length from the gauge line, and the bare nose when nothing is held. */
export const shapes = {
  edgeFinder: (lengthMm: number, tipDiameterMm: number): Shape => {
    const tip = { radiusMm: tipDiameterMm / 2, fromMm: 0, toMm: EDGE_FINDER_TIP_HEIGHT_MM };
    return {
      rigid: [{ radiusMm: 10, fromMm: EDGE_FINDER_TIP_HEIGHT_MM, toMm: lengthMm }, ...holderAbove(55, lengthMm)],
      tip,
      tipRadiusMm: tip.radiusMm,
      survivesClickMm: 0.01,
    };
  },
  pointedTool: (lengthMm: number): Shape => ({
    rigid: [{ radiusMm: 0.2, fromMm: 0, toMm: 4 }, { radiusMm: 4, fromMm: 4, toMm: 45 }, ...holderAbove(45, lengthMm)],
    tip: null,
    tipRadiusMm: 0.2,
    survivesClickMm: 0.01,
  }),
  taster: (lengthMm: number): Shape => ({
    // ball and stem swing together, so the whole lever gives way sideways
    rigid: [{ radiusMm: 22, fromMm: 30, toMm: 70 }, ...holderAbove(70, lengthMm)],
    tip: { radiusMm: TASTER_BALL_RADIUS_MM, fromMm: 0, toMm: 30 },
    tipRadiusMm: TASTER_BALL_RADIUS_MM,
    survivesClickMm: 0.1,
  }),
  probe: (lengthMm: number, ballDiameterMm: number): Shape => ({
    rigid: [
      { radiusMm: PROBE_STEM_RADIUS_MM, fromMm: ballDiameterMm, toMm: 40 },
      { radiusMm: 18, fromMm: 40, toMm: 80 },
      ...holderAbove(80, lengthMm),
    ],
    tip: { radiusMm: ballDiameterMm / 2, fromMm: 0, toMm: ballDiameterMm },
    tipRadiusMm: ballDiameterMm / 2,
    survivesClickMm: 0.1,
  }),
  indicator: (lengthMm: number): Shape => ({
    rigid: [
      { radiusMm: 1.5, fromMm: 0, toMm: INDICATOR_ARM_MM },
      { radiusMm: 18, fromMm: INDICATOR_ARM_MM, toMm: 60 },
      ...holderAbove(60, lengthMm),
    ],
    tip: null,
    tipRadiusMm: 1.5,
    survivesClickMm: 0.01,
  }),
  tool: cutter,
  nose: (): Shape => ({
    rigid: [{ radiusMm: NOSE_RADIUS_MM, fromMm: 0, toMm: 200 }],
    tip: null,
    tipRadiusMm: NOSE_RADIUS_MM,
    survivesClickMm: 0.01,
  }),
};
