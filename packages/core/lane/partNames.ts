import type { FeatureReads, FeatureShape } from "../exercises/schools";

/** What is to be done with a part: it is good, metal that is left can be cut, metal that is gone cannot be put back. */
export const partVerdicts = ["good", "rework", "scrap"] as const;
export type PartSaid = (typeof partVerdicts)[number];

interface InstrumentFacts {
  /** Deviation of what it reads, and the step in which it reads, mm. */
  readonly errorMm: number;
  readonly stepMm: number;
  /** What can be read with it. */
  readonly shapes: readonly FeatureShape[];
  readonly reads: readonly FeatureReads[];
  /** It stands on a plate beside the part, which a bar in a chuck does not. */
  readonly isOnPlate?: true;
}

const ANY = ["slot", "hole", "outside", "step"] as const;

/** Instruments that a part is measured with. A gauge stack and a plug read nothing: one goes in, or it does not. */
export const partInstruments = {
  caliper: { errorMm: 0.015, stepMm: 0.02, shapes: ANY, reads: ["width", "wall", "depth", "middle", "land"] },
  micrometer: { errorMm: 0.002, stepMm: 0.001, shapes: ["outside"], reads: ["land", "wall", "depth"] },
  boreGauge: { errorMm: 0.002, stepMm: 0.001, shapes: ["hole"], reads: ["width", "wall"] },
  depthMicrometer: { errorMm: 0.002, stepMm: 0.001, shapes: ["slot", "step"], reads: ["depth"] },
  heightGauge: { errorMm: 0.01, stepMm: 0.01, shapes: ANY, reads: ["wall", "depth", "middle"], isOnPlate: true },
  gaugeStack: { errorMm: 0.002, stepMm: 0.001, shapes: ["slot"], reads: ["width"] },
  plug: { errorMm: 0.001, stepMm: 0.001, shapes: ["hole"], reads: ["width"] },
} as const satisfies Record<string, InstrumentFacts>;

export type PartInstrument = keyof typeof partInstruments;
export const partInstrumentNames = Object.keys(partInstruments) as [PartInstrument, ...PartInstrument[]];
/** Those that are tried in a size at a time, and go or do not go. */
export const triedInstruments = ["gaugeStack", "plug"] as const satisfies PartInstrument[];
export type TriedInstrument = (typeof triedInstruments)[number];
export const isTried = (one: PartInstrument): one is TriedInstrument => one === "gaugeStack" || one === "plug";
/** Those that show a figure. */
export type ReadingInstrument = Exclude<PartInstrument, TriedInstrument>;
export const readingInstruments = partInstrumentNames.filter((one): one is ReadingInstrument => !isTried(one));

interface Measured {
  readonly reads: FeatureReads;
  readonly shape?: FeatureShape | undefined;
  readonly toleranceMm: readonly [number, number];
}

/** Whether a feature can be read with an instrument at all, on a part that lies on a mill or stands in a chuck. */
export function canRead(instrument: PartInstrument, { reads, shape = "step" }: Measured, isTurned: boolean): boolean {
  const facts: InstrumentFacts = partInstruments[instrument];
  return facts.shapes.includes(shape) && facts.reads.includes(reads) && !(isTurned && facts.isOnPlate);
}

/** A tolerance (half of what lies between its limits) is told by what errs by at most this share of it. */
export const FIT_SHARE = 0.25;
/** Steel grows by so much for each degree, of 1; a part off the machine is so much warmer than the room, degrees. */
export const GROWS_PER_DEGREE = 11.5e-6;
export const WARMER_BY = { low: 6, high: 12 } as const;

/** Whether what an instrument reads tells good from not good. */
export const isFit = (instrument: PartInstrument, { toleranceMm: [low, high] }: Measured): boolean =>
  partInstruments[instrument].errorMm <= ((high - low) / 2) * FIT_SHARE + 1e-9;
