import { type Axis, type RegisterId } from "../registers/mill";
import { type Counts } from "../units/counts";
import { type DiagnosticCode } from "../gcode/diagnostics";
import { type AskKind } from "./programNames";
import { type LengthUnit } from "../units/scale";
import type { TurnedFace } from "../machines/lathe/faces";
import { type LengthRefusal } from "../units/parse";
import { type BlockDiagnostic } from "../gcode/parser";

/** Why the bench did not do what was asked. Nothing here tells more than the student could observe. */
export type Refusal =
  | { code: "handedInAlready" }
  | { code: "programNotHere"; number: number }
  | { code: "programHeld"; number: number }
  | { code: "ownProgramInPractice" }
  | { code: "noProgram" }
  | { code: "oneLineOnly" }
  | { code: "answerUnreadable"; ask: AskKind; tool: number | null }
  | { code: "toolFirst"; tool: number }
  | { code: "toolNotCalled"; tool: number }
  | { code: "programWrong"; line: number; problem: DiagnosticCode; said: string }
  | { code: "programNotFollowed"; line: number; word: string }
  | { code: "programRuns" }
  | { code: "cycleNotStarted" }
  | { code: "cycleHeld" }
  | { code: "holdFirst" }
  | { code: "notProvable" }
  | { code: "partsNotMeasured" }
  | { code: "partNotCut" }
  | { code: "cutAway"; isMeasured: boolean }
  | { code: "featureNotHere"; name: string }
  | { code: "featureNotCut"; name: string }
  | { code: "gaugeTooLittle" }
  | { code: "partIsCool" }
  | { code: "figureFirst" }
  | { code: "goodPartFirst" }
  | { code: "initialsUnread" }
  | { code: "savedAlready"; initials: string }
  | { code: "noBlankLeft"; blanks: number }
  | { code: "nothingKept" }
  | { code: "nameStaleFirst" }
  | { code: "takenBackAlready" }
  | { code: "notOfKept"; register: RegisterId }
  | { code: "notSigned" }
  | { code: "signedAlready" }
  | { code: "machineStopped" }
  | { code: "notHomed" }
  | { code: "pastTravel"; axis: Axis }
  | { code: "doorOpenRapid" }
  | { code: "doorOpenMotion" }
  | { code: "doorOpenSpeed"; rpm: number; limitRpm: number }
  | { code: "doorShutReach" }
  | { code: "spindleTurning" }
  | { code: "spindleOutOfRange"; lowestRpm: number; highestRpm: number }
  | { code: "spindleHolds"; thing: string }
  | { code: "spindleEmpty" }
  | { code: "noRoomToLoad" }
  | { code: "noEdgeFinder" }
  | { code: "finderDestroyed" }
  | { code: "notWithdrawn" }
  | { code: "paperNeedsTool" }
  | { code: "paperNothingBelow" }
  | { code: "paperInPlace" }
  | { code: "paperNotPlaced" }
  | { code: "paperInGap" }
  | { code: "burrDressedAlready" }
  | { code: "spindleInTheWay" }
  | { code: "registerGuard"; register: RegisterId; from: Counts; to: Counts; unit?: LengthUnit }
  | { code: "registerOutOfRange"; register: RegisterId }
  | { code: "nothingToUndo" }
  | { code: "toolNotHere"; tool: number }
  | { code: "rowNotHere"; row: number }
  | { code: "noSuchLine"; line: number }
  | { code: "ledgerFull" }
  | { code: "handUpAlready" }
  | { code: "handNotUp" }
  | { code: "stopIsHeld" }
  | { code: "instrumentNotHere"; instrument: string }
  | { code: "instrumentBroken"; thing: string }
  | { code: "notHeld"; thing: string }
  | { code: "mustNotTurn"; thing: string }
  | { code: "tasterTouches" }
  | { code: "blockInGap" }
  | { code: "blockNotInGap" }
  | { code: "gapThingNotHere"; id: string }
  | { code: "lampStandsAlready" }
  | { code: "lampNotStanding" }
  | { code: "lampPressed" }
  | { code: "noRoomForGauge"; heightMm: number }
  | { code: "taskNotHere" }
  | { code: "taskDoneAlready" }
  | { code: "seatFirst" }
  | { code: "partIsGripped" }
  | { code: "noParallels" }
  | { code: "gripTooLittle" }
  | { code: "blankTooLow" }
  | { code: "setterNeedsTool" }
  | { code: "askNeedsPositive" }
  | { code: "askNeedsSide" }
  | { code: "doesNotMeasureThat"; by: string }
  | { code: "nothingToMeasure" }
  | { code: "nothingToSweep" }
  | { code: "diameterIsTyped"; register: RegisterId }
  | { code: "nothingChanges" }
  | { code: "noSuchReading" }
  | { code: "readingOfOther" }
  | { code: "expectFirst" }
  | { code: "lookFirst" }
  | { code: "answerShows" }
  | { code: "lookCloser" }
  | { code: "lookStill" }
  | { code: "moveFirst" }
  | { code: "measureFirst" }
  | { code: "contactFirst" }
  | { code: "pointFirst" }
  | { code: "notOnThisMachine" }
  | { code: "noRoomToIndex" }
  | { code: "armIsDown" }
  | { code: "armHolds" }
  | { code: "toolInTheWay" }
  | { code: "noSuchFaceHere"; on: TurnedFace }
  | { code: "tipTooFar" }
  | { code: "notBehind" }
  | { code: "nothingHandedOver" }
  | { code: "schoolNotHere" }
  | { code: "tipCodeOnly" }
  | { code: "noShimsHere" }
  | { code: "noGaugeHere" }
  | { code: "noMastersHere" }
  | { code: "cyclesDoNotWrite" }
  | { code: "keepsNoPoints" }
  | { code: "pointsMissing"; what: "edge" | "middle" }
  | { code: "notCalibratedBy"; what: string; by: string }
  | { code: "shimTooMuch"; limitMm: number }
  | { code: "shankOutOfReach" }
  | { code: "clampLoose" }
  | { code: "clampNotLoose" }
  | { code: "toolIsGood"; tool: number }
  | { code: "noRoomAtClamp" }
  | { code: "noInsertHere" }
  | { code: "overhangNotPossible"; lowMm: number; highMm: number }
  | { code: "pointMeetsNoFace" }
  | { code: "nothingToSight" }
  | { code: "cannotTurnCone" }
  | { code: "callOffsetFirst"; tool: number }
  | { code: "startSpindleFirst" }
  | { code: "recallFirst"; tool: number }
  | { code: "touchFirst" }
  | { code: "libraryIsTyped" }
  | { code: "declareNeedsAxis" }
  | { code: "notInTheSet"; text: string }
  | { code: "blockOnce"; text: string }
  | { code: "stackEmpty" }
  | { code: "programLine"; sentence: string }
  | { code: "text"; problem: LengthRefusal }
  | { code: "block"; problem: BlockDiagnostic };
