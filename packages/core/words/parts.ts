import type { MustHave, NotPassed } from "../grading";
import type { PartInstrument, PartSaid } from "../lane/partNames";
import { scales, showLength, type LengthUnit } from "../units";

/** Instruments that a part is measured with. */
export const partInstrumentWords: Record<PartInstrument, string> = {
  caliper: "caliper",
  micrometer: "micrometer",
  boreGauge: "bore gauge",
  depthMicrometer: "depth micrometer",
  heightGauge: "height gauge",
  gaugeStack: "gauge stack",
  plug: "plug",
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
  notDeep: {
    asks: "no tool goes much deeper than it is told",
    missed: "a tool would go deeper than it is told",
  },
  signsRight: {
    asks: "no value has its sign turned",
    missed: "a value has its sign turned",
  },
  handsClear: {
    asks: "no hand near what turns",
    missed: "a hand was at what turned",
  },
  signed: {
    asks: "an instructor signed for the first cut, where the exercise has it signed for",
    missed: "no signature stands for the first cut",
  },
};

/** What is missing of what stands over points, with the tools that go too deep by name. */
export const missedWords = ({ missed, deeper = [] }: NotPassed, unit: LengthUnit): string =>
  missed
    .flatMap((name) =>
      name === "notDeep"
        ? deeper.map(
            ({ tool, mm }) => `tool ${tool} would go ${showLength(mm, scales[unit])} ${unit} deeper than it is told`,
          )
        : [mustHaveWords[name].missed],
    )
    .join("; ");
