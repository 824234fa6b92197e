import type { BlockDiagnostic } from "../gcode";
import type { Axis, MillRegisterId } from "../registers";
import type { Counts, LengthRefusal } from "../units";

/** Why the bench did not do what was asked. Nothing here tells more than the student could observe. */
export type Refusal =
  | { code: "handedInAlready" }
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
  | { code: "paperDoesNotGoUnder" }
  | { code: "paperInPlace" }
  | { code: "paperNotPlaced" }
  | { code: "paperInGap" }
  | { code: "burrDressedAlready" }
  | { code: "spindleInTheWay" }
  | { code: "registerGuard"; register: MillRegisterId; from: Counts; to: Counts }
  | { code: "registerOutOfRange"; register: MillRegisterId }
  | { code: "nothingToUndo" }
  | { code: "toolNotHere"; tool: number }
  | { code: "rowNotHere"; row: number }
  | { code: "noSuchLine"; line: number }
  | { code: "ledgerFull" }
  | { code: "handUpAlready" }
  | { code: "handNotUp" }
  | { code: "text"; problem: LengthRefusal }
  | { code: "block"; problem: BlockDiagnostic };
