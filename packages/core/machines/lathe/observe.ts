import { programSeen } from "../program/observe";
import { latheProgramPorts } from "./program";
import type { CutLook } from "./acts/turning/names";
import { type LatheState, type TurningLane } from "./lane";
import type { HeldFace } from "./faces";
import { type Feel } from "../../instruments/paper";
import { seenArm, seenNeighbors, seenOutline, seenTip, type SeenStep, type SeenTurning } from "./eye";
import { lastCut, material } from "./outline";
import { cleanRadiusMm } from "./contact";
import { type TurningSetup } from "../../exercises/setup";
import { seenBase, type SeenBase } from "../../lane/observe";
import { type LatheKind } from "../../exercises/schools";
import { displayCounts, type AxisCounts } from "../../registers/mill";
import { type Gate } from "../../lane/gates";
import { latheGates, type LatheGateKind } from "./gates";
import { type CoachStep } from "../../lane/coach";
import { turretDisplay } from "./display";
import { LATHE_DOOR_LIMIT_RPM } from "./rules";
/** What of a lathe eyes and hands tell before hand-in. */
export interface LatheSeen extends Pick<
  LatheState,
  | "station"
  | "row"
  | "quarter"
  | "block"
  | "lastTry"
  | "isResting"
  | "changed"
  | "loose"
  | "chipped"
  | "inserts"
  | "isFeedLow"
  | "sighted"
  | "starts"
  | "fits"
  | "stated"
  | "stacks"
  | "isGaugeZeroed"
> {
  readonly gap: {
    readonly id: string;
    readonly on: HeldFace;
    readonly feel: Feel;
    readonly isBehind?: boolean;
  } | null;
  /** The cone: how its last pass looked, and whether it was held halfway; null before it was run. */
  readonly cone: { readonly looks: "cuts" | "skims" | "air"; readonly isHeld: boolean } | null;
  readonly tip: SeenTurning;
  readonly outer: readonly SeenStep[];
  readonly bore: readonly SeenStep[];
  readonly arm: { readonly radiusMm: number; readonly zMm: number } | null;
  readonly isArmTripped: boolean;
  /** With the chuck turning: how the edge sounds and looks where it stands; null while the chuck stands. */
  readonly heard: CutLook | "air" | null;
  /** With the chuck turning the tip has gone past the axis, where it rubs the other way. */
  readonly isPastCenter: boolean;
  /** The band that was cut last: whether it still shows the saw somewhere; null while nothing was turned. */
  readonly isCleanedUp: boolean | null;
  /** What stands or was rubbed in the middle of the face, as the eye and a finger tell it. */
  readonly pip: "none" | "standing" | "rubbed" | null;
  /** On a gang slide: how far out from the bar's axis each tip stands, by eye, as the slide is now. */
  readonly neighbors: readonly { readonly number: number; readonly radiusMm: number }[];
  readonly evidence: LatheState["evidence"];
}

/** Past the axis by more than an eye can miss, mm. */
const PAST_CENTER_MM = 0.5;

/** What is heard where the edge stands now: what its last cut there sounded like, or nothing but air. */
function heardHere({ spindle, lathe: { heard }, position }: TurningLane): CutLook | "air" | null {
  if (!spindle.isOn) return null;
  return heard && heard.at.x === position.x && heard.at.z === position.z ? heard.looks : "air";
}

function latheSeen(state: TurningLane): LatheSeen {
  const { lathe } = state;
  const {
    station,
    row,
    quarter,
    gap,
    block,
    lastTry,
    isResting,
    changed,
    loose,
    isFeedLow,
    sighted,
    starts,
    fits,
    stated,
    stacks,
    isGaugeZeroed,
    cone,
    evidence,
  } = lathe;
  const band = lastCut(material(lathe.outer, lathe.bore));
  return {
    station,
    row,
    quarter,
    block,
    lastTry,
    isResting,
    changed,
    loose,
    isFeedLow,
    sighted,
    starts,
    fits,
    stated,
    stacks,
    isGaugeZeroed,
    evidence,
    gap: gap && { id: gap.id, on: gap.on, feel: gap.feel, ...(gap.isBehind ? { isBehind: true } : {}) },
    cone: cone && { looks: cone.looks, isHeld: cone.isHeld },
    tip: seenTip(state),
    ...seenOutline(state),
    arm: seenArm(state),
    isArmTripped: lathe.arm.isTripped,
    heard: heardHere(state),
    isPastCenter: state.spindle.isOn && seenTip(state).radiusMm < -PAST_CENTER_MM,
    chipped: lathe.chipped,
    inserts: lathe.inserts,
    neighbors: seenNeighbors(state),
    pip: lathe.pip?.looks ?? null,
    isCleanedUp: band ? band.radiusMm <= cleanRadiusMm(state) : null,
  };
}

const sheets = new WeakMap<TurningSetup, TurningSetup>();

/** The sheet as it is handed out: the tip code of a tool that is asked for its tip code is not on it. */
function sheetSeen(setup: TurningSetup): TurningSetup {
  const { lathe } = setup;
  if (lathe.targets.nose.length === 0) return setup;
  const known = sheets.get(setup);
  if (known) return known;
  const asked: TurningSetup = {
    ...setup,
    lathe: {
      ...lathe,
      tools: lathe.tools.map((tool) => (lathe.targets.nose.includes(tool.number) ? { ...tool, tipCode: 0 } : tool)),
    },
  };
  sheets.set(setup, asked);
  return asked;
}

/** What may be seen of a lane on a lathe. */
export interface TurningSeen extends SeenBase {
  readonly kind: LatheKind;
  readonly sheet: TurningSetup;
  readonly work: AxisCounts;
  readonly doorLimitRpm: number;
  readonly lathe: LatheSeen;
  readonly gates: readonly Gate<LatheGateKind>[];
  readonly coach: CoachStep<string> | null;
}

/** What may be seen of a lane on a lathe, without what the coach makes of it. */
export function turningSeen(state: TurningLane, viewer: "student" | "instructor"): Omit<TurningSeen, "coach"> {
  const base = seenBase(state, viewer);
  const work = displayCounts(state.registers, state.position, state.modal.workOffset, base.lengthCounts);
  return {
    kind: state.kind,
    sheet: sheetSeen(state.setup),
    ...base,
    ...programSeen(latheProgramPorts, state),
    // less the offset row in use
    work: { ...work, x: turretDisplay(state, "x"), z: turretDisplay(state, "z") },
    doorLimitRpm: LATHE_DOOR_LIMIT_RPM,
    lathe: latheSeen(state),
    gates: latheGates(state),
  };
}
