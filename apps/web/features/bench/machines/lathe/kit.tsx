import type { Command, TurningSeen } from "@probe-lane/core/bench";
import type { LatheKind } from "@probe-lane/core/exercises";
import type { Axis, RegisterId } from "@probe-lane/core/registers";
import { inShopWords } from "@probe-lane/core/words";
import type { ActKey } from "../../lane/act";
import { verbKeys, type KeyVerb } from "../../lane/keys";
import { programControls, type BenchKit, type Control } from "../../lane/kit";
import type { Noise } from "../../lane/sound";
import { latheActs } from "./acts";
import { AxisHeight } from "./dialogs/AxisHeight";
import { Fit } from "./dialogs/Fit";
import { ChangeTool, Recall, Tighten } from "./dialogs/HandTurning";
import { LatheSheet } from "./dialogs/Sheet";
import { MeasureTurned, Shims, Turret, TurningGap } from "./dialogs/Turning";
import { handWoundKeys, latheKeys } from "./keys";
import { LathePicture } from "./Picture";
import { turningSpace, wayInTurningSpace } from "./space";
import { LatheTable } from "./RegisterTable";
import { asMm, LatheSentence } from "./Sentence";
import { TipCodes } from "./TipCodes";
import { toolOf, turretLabel } from "./view";

type LatheKit = BenchKit<TurningSeen>;

const ASKS: Record<ActKey | "look", Command> = {
  wobble: { type: "sweep" },
  burr: { type: "turnChuck" },
  paper: { type: "pullGap" },
  feel: { type: "shimTool", text: "" },
  block: { type: "pullGap" },
  look: { type: "lookFrom", side: "front" },
};

/** A rule is no gauge for what was turned. */
const MEASURES = new Set<string>(["caliper", "micrometer", "presetter", "boreGauge"]);

const VERBS: Partial<Record<KeyVerb, string>> = {
  drawer: "another tool",
  measure: "measure what was turned",
  fit: "near view or whole travel",
};
/** Keys whose meaning is what stands on the controls now. */
const BY_ACT = new Set<KeyVerb>(["wobble", "burr", "paper", "feel", "block"]);
/** Keys that a lathe has nothing for, and those that one wound by hand has nothing for. */
const NOT_TURNING = new Set<KeyVerb>(["look"]);
const NOT_BY_HAND = new Set<KeyVerb>(["home", "typeBlock"]);

function verbWords(verb: KeyVerb, seen: TurningSeen): string | null {
  if (NOT_TURNING.has(verb) || (seen.kind === "readout" && NOT_BY_HAND.has(verb))) return null;
  if (BY_ACT.has(verb)) return latheActs(seen).find(({ on }) => on === verb)?.label ?? null;
  return VERBS[verb] ?? inShopWords(verbKeys[verb].words, seen.kind);
}

/** A row of the tool table on one of the slide's two axes. */
const rowOn = (axis: Axis, x: "X" | "LX", z: "Z" | "LZ", row: number): RegisterId =>
  axis === "x" ? `${x}${row}` : `${z}${row}`;

/** Where the power was lost, the first tool's lines are about the common offset. */
function turretLedger({ lathe, sheet }: TurningSeen, axis: Axis): RegisterId {
  if (sheet.lathe.start && lathe.station === sheet.lathe.targets.z[0]) return axis === "x" ? "common.x" : "common.z";
  return rowOn(axis, "X", "Z", lathe.station);
}

/** The controls that a coach's step is about. */
const POINTS: Readonly<Record<string, readonly Control[]>> = {
  home: ["home"],
  resetAfterStrike: ["hand"],
  doTask: ["act burr"],
  faceFirst: ["spindle"],
  changeTool: ["drawer"],
  setWorkZ: ["register"],
  checkIt: ["check"],
  checkAgain: ["check"],
  answerCheck: ["check"],
  handIn: ["handIn"],
};

/** What an edge in metal sounds like while it moves. */
const HEARD: Partial<Record<NonNullable<TurningSeen["lathe"]["heard"]>, Noise>> = { cuts: "cut", chatters: "chatter" };

const called = ({ lathe: { station, row } }: TurningSeen): string =>
  `T${station}, ${row === null ? "no offset called" : `offset ${row} called`}`;

const SAMPLE = "G10 L2 P1 Z0\nG10 L10 P10003 X-280.412 Z-294.180 R0.4 Q3";

/** What all lathes have in the browser, as a turret has it. */
const turret: LatheKit = {
  jogKeys: latheKeys,
  verbWords,
  acts: latheActs,
  asks: (key) => ASKS[key],
  runsPrograms: ({ kind }) => kind === "turret",
  canMeasure: ({ sheet }) => sheet.instruments.some((name) => MEASURES.has(name)),
  sounds: ({ lathe: { heard } }) => HEARD[heard ?? "air"] ?? null,
  noticed: ({ lathe }) => [
    lathe.gap?.feel,
    lathe.block?.id,
    lathe.isArmTripped,
    lathe.isResting,
    lathe.pip,
    lathe.cone,
    lathe.sighted?.looks,
  ],
  dialogs: {
    drawer: { title: "Turret", Body: Turret, isWide: true },
    sheet: { title: "Exercise sheet", Body: LatheSheet, isWide: true },
    measure: { title: "Measure the part", Body: MeasureTurned },
    gap: { title: "What goes between tool and part?", Body: TurningGap },
    shims: { title: "Shim the holder", Body: Shims },
    recall: { title: "Recall a row of the library", Body: Recall },
    changeTool: { title: "Change a worn tool", Body: ChangeTool },
    axisHeight: { title: "How high does the axis stand?", Body: AxisHeight, isWide: true },
    fit: { title: "Which tool does for the part?", Body: Fit, isWide: true },
    tighten: { title: "Tighten the clamp", Body: Tighten },
  },
  carrier: { where: "In the working position", opens: "Turret …" },
  held: (seen) => {
    const tool = toolOf(seen);
    return { what: tool ? turretLabel(tool) : "nothing" };
  },
  startNotes: () => [],
  block: ({ sheet }) => ({ sample: sheet.lathe.start ? "G50 X… Z…" : "T0101 or G0 X60 Z5" }),
  schoolsToName: () => [],
  asksOf: { knownHeight: "How far before the face do you expect the tip to stand?" },
  firstCheck: () => null,
  pointsAt: (step) => POINTS[step.code] ?? programControls(step) ?? [],
  position: {
    title: "Position",
    axes: ["x", "z"],
    workHead: "Work",
    showsMachine: true,
    marks: { x: { mark: "⌀", means: "X counts diameters" } },
    inUse: (seen) => ({ offset: seen.modal.workOffset, called: called(seen) }),
  },
  registers: {
    Table: LatheTable,
    first: ({ sheet }) => `X${sheet.lathe.targets.x[0] ?? 1}`,
    forAxis: ({ lathe }, axis) => rowOn(axis, "X", "Z", lathe.station),
    Sentence: LatheSentence,
    asMm,
    codes: { is: (register) => register.startsWith("Q"), Picker: TipCodes },
    rowOf: ({ lathe }) => lathe.row,
    exchange: { dialect: "lathe", hasProgram: true, sample: SAMPLE },
  },
  ledger: { forAxis: turretLedger, firstTerm: (axis) => (axis === "x" ? "diameter" : "block") },
  picture: {
    title: () => "Half section from the front",
    Picture: LathePicture,
    space: turningSpace,
    called: ({ lathe }) => (lathe.row === null ? null : lathe.station),
    wayInSpace: wayInTurningSpace,
    standing: () => "",
  },
};

/** A post under a readout: nothing moves but by hand, and there is no program. */
const readout: LatheKit = {
  ...turret,
  jogKeys: handWoundKeys,
  dialogs: { ...turret.dialogs, drawer: { title: "Tool post", Body: Turret, isWide: true } },
  carrier: { where: "On the post", opens: "Tool post …" },
  block: () => ({
    byHand:
      "Wheels of this lathe, clockwise: cross slide X−, toward the axis; carriage Z+, away from the chuck. Nothing moves but by hand.",
  }),
  position: {
    ...turret.position,
    title: "Readout",
    workHead: "Shows",
    showsMachine: false,
    inUse: ({ lathe: { station, row } }) => ({
      offset: null,
      called: `T${station}, ${row === null ? "no row recalled" : `row ${row} recalled`}`,
    }),
  },
  registers: {
    ...turret.registers,
    first: () => "G54.x",
    forAxis: (_seen, axis) => `G54.${axis}`,
    exchange: { dialect: "lathe", hasProgram: false, sample: "LX2,-7.333\nLZ2,10.117" },
  },
  ledger: {
    ...turret.ledger,
    forAxis: ({ lathe }, axis, choices) =>
      choices.find((id) => id === rowOn(axis, "LX", "LZ", lathe.station)) ?? choices[0] ?? "LX2",
  },
  picture: { ...turret.picture, title: () => "Half section from above, as its operator stands" },
};

/** A gang slide: tools side by side over a bar. */
const gang: LatheKit = {
  ...turret,
  dialogs: { ...turret.dialogs, drawer: { title: "Gang slide", Body: Turret, isWide: true } },
  carrier: { where: "Over the bar", opens: "Gang slide …" },
};

export const latheKits: Record<LatheKind, LatheKit> = { turret, readout, gang };
