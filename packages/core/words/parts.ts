import type { MustHave } from "../grading";
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

/** What stands over points: what it asks for, and what is said where it is missing. */
export const mustHaveWords: Record<MustHave, { asks: string; missed: string }> = {
  runsClear: {
    asks: "the program as handed in strikes nothing",
    missed: "no program was handed in that runs clear with these registers",
  },
  checked: {
    asks: "a check made, said first and judged as it looked",
    missed: "no check stands that was said first and judged as it looked",
  },
};
