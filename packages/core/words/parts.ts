import type { PartInstrument, PartSaid } from "../lane/partNames";

/** Instruments that a part is measured with. */
export const partInstrumentWords: Record<PartInstrument, string> = {
  caliper: "caliper",
  micrometer: "micrometer",
  boreGauge: "bore gauge",
  depthMicrometer: "depth micrometer",
  heightGauge: "height gauge",
  gaugeStack: "gauge stack",
};

/** What a student says a part is. */
export const partSaidWords: Record<PartSaid, string> = { good: "good", rework: "rework", scrap: "scrap" };
