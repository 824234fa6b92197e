import type { MillLane } from "./lane";

/** What the control and the student count with: the card of the sheet, of a successor, or what a calibration found. */
type Carded = Pick<MillLane, "setup" | "cards">;

/** Effective radius of the probe's ball, mm. */
export const probeRadiusMm = ({ setup, cards }: Carded): number =>
  cards.probeRadius ?? setup.probe?.effectiveRadiusMm ?? 0;
/** Length of the probe from the gauge line, mm. */
export const probeLengthMm = ({ setup, cards }: Carded): number => cards.probeLength ?? setup.probe?.lengthMm ?? 0;
/** Machine Z at which the bare nose triggers the setter, mm. */
export const setterTriggerMm = ({ setup, cards }: Carded): number => cards.setter ?? setup.setter?.noseTriggerMm ?? 0;
