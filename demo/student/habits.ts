import type { MillLengthSchool } from "@probe-lane/core/exercises";

/** What this student does otherwise than a careful one. Empty: everything right. */
export interface Habits {
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
  measuresStill?: boolean;
  keepsChips?: boolean;
  radiusForDiameter?: number;
  nominalForMeasured?: number;
  neighborRow?: boolean;
  touchesNothingNew?: boolean;
  keepsDirt?: boolean;
  leavesBlockOut?: boolean;
  trustsPockets?: boolean;
  /** One slip of the pen in the working of X, while the register itself is set right. */
  ledger?: "sum" | "sign" | "missing" | "reading" | "none";
  /** The first tool's length entered so much too large, mm; whatever hangs on it follows. */
  firstLengthOffMm?: number;
  /**
   * With someone else's setup: believes the setter's card, looks at no tool, at neither X nor Y, or at nothing at all.
   */
  believes?: "setter" | "tools" | "place" | "all";
  /** Says this of the setup whatever was found. */
  says?: "sound" | "faulty";
  /** Sends the machine down at rapid before anything is looked at. */
  goesFast?: boolean;
  /** Sets this tool's length wrong though it was sound, mm. */
  spoilsBy?: number;
  /** On a lathe. */
  feelerOnce?: boolean;
  gapForgotten?: boolean;
  radiusForX?: boolean;
  /** Clicks of 0.1 by which the tool is moved on before the register is taken. */
  movesBeforeX?: number;
  movesBeforeZ?: number;
  otherBladeEdge?: boolean;
  offsetNotCalled?: boolean;
  leavesOldRow?: boolean;
  shiftMissing?: boolean;
  skimsThin?: boolean;
  touchesRaw?: boolean;
  measuresOnce?: boolean;
  measuresWhileTurning?: boolean;
  facesAgain?: boolean;
  tipCode?: number;
  /** Shims the wrong way, or by the whole pip. */
  shims?: "wrongWay" | "whole";
  /** Takes X of a swept drill where it was swept, without moving it. */
  sweepsOnly?: boolean;
  /** On a hand-wound lathe: types the library as it was read; the feeler with some tools only; a hand on the post. */
  librarySign?: boolean;
  feelerOnSome?: boolean;
  zeroOverPaper?: boolean;
  leansOnPost?: boolean;
  recallsNothing?: boolean;
  /** Makes X read this at the corner, as on any other readout. */
  cornerReads?: string;
  /**
   * On a gang slide: puts the tool where its register says, tightens one screw right down, leaves the old register in.
   */
  toolToRegister?: boolean;
  tightensOneSide?: boolean;
  leavesRegister?: boolean;
  feedUp?: boolean;
  overhangMm?: number;
  /** Sets the boring bar by paper in the bore. */
  boreByPaper?: boolean;
  /** Of the axis: the pin left out or added whole, the tailstock taken, the gauge not zeroed or brought down. */
  axisPin?: "none" | "whole";
  atTailstock?: boolean;
  gauge?: "notZeroed" | "fromAbove";
  /** Says of every tool that it fits. */
  allFit?: boolean;
  /**
   * With a declared position, at the second start: 4 mm away from the start point, with the last tool in position, or
   * not at all.
   */
  declaresAgain?: "elsewhere" | "withOther" | "never";
  /** With a cone: works Z out by the formula instead of a held pass, with or without the nose; or believes the face. */
  cone?: "formula" | "noseLeftOut" | "faceOnly";
  /** Stops working at this point, leaving the lane open. */
  stopsAfter?: "homed" | "dressed" | "x" | "y" | "z" | "zero";
}
