/** What a student does otherwise than a careful one on a lathe. */
export interface LatheHabits {
  feelerOnce?: boolean;
  gapForgotten?: boolean;
  radiusForX?: boolean;
  /** Clicks of 0.1 by which the tool is moved on before the register is taken. */
  movesBeforeX?: number;
  movesBeforeZ?: number;
  otherBladeEdge?: boolean;
  /** Counts the point of a threading tool where its side is asked for. */
  pointForSide?: boolean;
  /** Touches the face with a threading tool that stands too far out for its side. */
  flankAtRim?: boolean;
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
  /** Keeps the old insert, or changes it only after its tool was touched. */
  keepsInsert?: boolean;
  insertAfter?: boolean;
  /** Reads a row anew that was to be kept. */
  spoilsLibrary?: boolean;
  /** Touches the band with the chuck turning, and not paper with it still. */
  scrapes?: boolean;
  /** Lets the tool down onto the setting gauge. */
  fromAbove?: boolean;
}
