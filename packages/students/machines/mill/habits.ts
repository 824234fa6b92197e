import type { MillLengthSchool } from "@probe-lane/core/exercises";

/** What a student does otherwise than a careful one on a mill. */
export interface MillHabits {
  radius?: Partial<Record<"x" | "y", "forgotten" | "turned" | "diameter">>;
  edgeWork?: Partial<Record<"x" | "y", "forgotten" | "turned">>;
  /** Which of the three equal ways enters the radius: capture o − s·r, jog by r and capture o, or capture 0 and add. */
  way?: "capture" | "motion" | "add";
  paper?: "forgotten" | "wrongWay";
  facing?: "forgotten" | "wrongWay";
  leavesOldWorkZ?: boolean;
  /** Backs off by this many middle clicks before the capture, and does not count them. */
  backsOffFirst?: Partial<Record<"x" | "y", number>>;
  keepsBurr?: boolean;
  coarseLastClick?: Partial<Record<"x" | "y", boolean>>;
  startsAtRememberedSpeed?: boolean;
  overTravels?: boolean;
  school?: MillLengthSchool;
  otherRow?: "x" | "y";
  paperUnderTurningTool?: boolean;
  skipsLook?: boolean;
  /** Says “as expected” of a check, whatever was seen. */
  saysAsExpected?: boolean;
  oneKick?: boolean;
  driveIntoPart?: boolean;
  /** Other instruments. */
  dialTurnShort?: "x" | "y";
  skipsTrue?: boolean;
  radiusOnOneSide?: "x" | "y";
  oneFaceOnly?: "x" | "y";
  /** Tells the probe a size that is this much too small or large, mm. */
  wrongSizeMm?: number;
  sweepWrongWay?: boolean;
  forgetsTurn?: boolean;
  squares?: "rotate" | "tap";
  trustsCard?: boolean;
  /** Lets the cycle write the offset, or sets it from points that the control kept. */
  writesByCycle?: boolean;
  setsFromPoints?: boolean;
  /** What is named of a kept setup; by right what hangs on what has changed. */
  namesOfKept?: "nothing" | "everything";
  /** Calibrates the setter by the probe without having calibrated the probe. */
  skipsBlock?: boolean;
  measuresStill?: boolean;
  keepsChips?: boolean;
  radiusForDiameter?: number;
  nominalForMeasured?: number;
  neighborRow?: boolean;
  touchesNothingNew?: boolean;
  keepsDirt?: boolean;
  /** Sweeps the jaw and leaves it as it reads. */
  leavesJaw?: boolean;
  leavesBlockOut?: boolean;
  trustsPockets?: boolean;
  /** One slip of the pen in the working of X, while the register itself is set right. */
  ledger?: "sum" | "sign" | "missing" | "reading" | "none";
  /** The first tool's length entered so much too large, mm; whatever hangs on it follows. */
  firstLengthOffMm?: number;
}
