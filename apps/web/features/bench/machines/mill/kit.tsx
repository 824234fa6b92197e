import type { Command, MillSeen } from "@probe-lane/core/bench";
import { EDGE_FINDER_HIGHEST_RPM, EDGE_FINDER_LOWEST_RPM, neverTurns, toolNumber } from "@probe-lane/core/instruments";
import { registerKind, type Axis, type RegisterId } from "@probe-lane/core/registers";
import { schoolWords, thingWords } from "@probe-lane/core/words";
import type { ActKey } from "../../lane/act";
import { verbKeys } from "../../lane/keys";
import { programControls, type BenchKit, type Control } from "../../lane/kit";
import { millActs } from "./acts";
import { Drawer } from "./dialogs/Drawer";
import { Gap, Ready } from "./dialogs/Hands";
import { Measure } from "./dialogs/Measure";
import { Probe } from "./dialogs/Probe";
import { Beam, Setter } from "./dialogs/Setters";
import { MillSheet } from "./dialogs/Sheet";
import { millKeys } from "./keys";
import { MillPicture, sideWords, standingWords } from "./Picture";
import { millSpace } from "./space";
import { MillTable } from "./RegisterTable";
import { asMm, firstRegister, MillSentence, registerForAxis } from "./Sentence";
import { nextSide, programmedAt } from "./view";

const ASKS: Record<ActKey, Command> = {
  wobble: { type: "setWobbling" },
  burr: { type: "dressBurr" },
  paper: { type: "placePaper" },
  feel: { type: "feelPaper" },
  block: { type: "pullBlock" },
};

/** The controls that a coach's step is about; where none stands here it is the key of its axis. */
const POINTS: Readonly<Record<string, readonly Control[]>> = {
  compareKept: ["compare"],
  takeBack: ["takeBack"],
  touchAgain: ["register"],
  home: ["home"],
  resetAfterStrike: ["hand"],
  doTask: ["act burr"],
  dressBurr: ["act burr"],
  openDoor: ["door"],
  shutDoor: ["door"],
  stopSpindle: ["spindle"],
  startSlow: ["spindle"],
  loadFinder: ["drawer"],
  swapToTool1: ["drawer"],
  loadPointed: ["drawer"],
  replaceFinder: ["drawer"],
  loadTool: ["drawer"],
  setWobbling: ["act wobble"],
  lookAcross: ["look"],
  finestClicks: ["size"],
  kickedOnce: ["reading"],
  setFromKick: ["register"],
  setLength: ["register"],
  liftFirst: ["key z"],
  placePaper: ["act paper"],
  pullPaper: ["act paper"],
  tornPaper: ["act paper"],
  easePaper: ["key z"],
  lowerOntoPaper: ["key z"],
  expectZero: ["check"],
  goOverZero: ["block"],
  lookFromTwoSides: ["look"],
  checkIt: ["check"],
  checkAgain: ["check"],
  answerCheck: ["check"],
  handIn: ["handIn"],
};

const MEASURES = new Set<string>(["caliper", "micrometer", "rule", "presetter", "boreGauge"]);

function held({ holds, isLoadedByChanger, sheet, modal }: MillSeen): { what: string; besides?: string } {
  const besides = sheet.tools.length > 1 && modal.tool !== null ? { besides: ` · control: T${modal.tool}` } : {};
  if (holds === null) return { what: "nothing, bare nose", ...besides };
  return { what: isLoadedByChanger ? "what the changer brought: look at it" : thingWords(holds), ...besides };
}

/** Lines about an axis belong to its offset; those about Z to the row of the tool that hangs in the spindle. */
function ledgerRegister({ holds, sheet }: MillSeen, axis: Axis, choices: readonly RegisterId[]): RegisterId {
  if (axis !== "z") return `G54.${axis}`;
  const row = holds ? toolNumber(holds) : null;
  const own = choices.find((id) => id === `H${row}`);
  if (own) return own;
  const isWorkZ = row === null && choices.includes("G54.z") && sheet.tools.length > 1;
  return isWorkZ ? "G54.z" : (choices.find((id) => registerKind(id) === "length") ?? "G54.z");
}

function startNotes({ holds }: MillSeen) {
  if (holds === "edgeFinder") {
    const words = `The edge finder is rated ${EDGE_FINDER_LOWEST_RPM} to ${EDGE_FINDER_HIGHEST_RPM} rev/min.`;
    return [{ words, isStop: false }];
  }
  return holds && neverTurns(holds)
    ? [{ words: "What hangs in the spindle must never turn under power.", isStop: true }]
    : [];
}

/**
 * What of the tip stops a hand. A dial's hands move with every click: only that they begin or stop to move does. A
 * wobble stops it where it begins to close and where it is all but gone; between them it shrinks as one looks on.
 */
function tipNoticed(tip: MillSeen["tip"]): unknown {
  if (tip?.kind === "dial") return tip.isTouching;
  if (tip?.kind !== "running" || tip.wobble === "wide") return tip;
  return tip.wobble === "shiver" || tip.wobble === "true" ? "all but true" : "closing";
}

/** A mill on the bench. */
export const millKit: BenchKit<MillSeen> = {
  jogKeys: millKeys,
  verbWords: (verb) => verbKeys[verb].words,
  acts: millActs,
  asks: (key, { sight }) => (key === "look" ? { type: "lookFrom", side: nextSide[sight] } : ASKS[key]),
  runsPrograms: () => true,
  canMeasure: ({ sheet }) => sheet.instruments.some((name) => MEASURES.has(name)),
  sounds: ({ tip, paper }) => {
    if (paper?.feel === "drags" || paper?.feel === "held") return "rustle";
    if (tip?.kind !== "running" || tip.wobble === "true") return null;
    return tip.wobble === "shiver" || tip.wobble === "slight" ? "shiver" : "flutter";
  },
  noticed: ({ tip, paper, block, resting, lamp, isSetterTriggered }) => [
    tipNoticed(tip),
    paper?.feel,
    block?.id,
    resting,
    lamp?.isLit,
    isSetterTriggered,
  ],
  dialogs: {
    drawer: { title: "Instrument drawer", Body: Drawer },
    sheet: { title: "Exercise sheet", Body: MillSheet, isWide: true },
    probe: { title: "Ask the spindle probe", Body: Probe },
    setter: { title: "Ask the plunger setter", Body: Setter },
    beam: { title: "Ask the beam setter", Body: Beam },
    measure: { title: "Measure beside the machine", Body: Measure },
    gap: { title: "What goes under the tip?", Body: Gap },
    ready: { title: "Get ready", Body: Ready },
  },
  carrier: { where: "In the spindle", opens: "Drawer" },
  held,
  startNotes,
  block: () => ({ sample: "G0 G54 X0 Y0" }),
  schoolsToName: ({ sheet: { lengthSchools, targets } }) =>
    lengthSchools.length > 1 && targets.lengths.length > 0
      ? lengthSchools.map((id) => ({ id, words: schoolWords[id] }))
      : [],
  asksOf: {},
  firstCheck: ({ sheet }) => (sheet.targets.xy ? "overZero" : "ruleBeside"),
  position: {
    title: "Position",
    axes: ["x", "y", "z"],
    workHead: "Work",
    showsMachine: true,
    marks: {},
    inUse: ({ modal: { workOffset, lengthRow } }) => ({
      offset: workOffset.startsWith("P") ? `G54.1 ${workOffset}` : workOffset,
      called: lengthRow === null ? "length comp off" : `length comp H${lengthRow}`,
    }),
  },
  registers: {
    Table: MillTable,
    first: firstRegister,
    forAxis: registerForAxis,
    Sentence: MillSentence,
    asMm,
    codes: null,
    rowOf: () => null,
    exchange: { dialect: "mill", hasProgram: true, sample: "G10 L2 P1 X-329.672 Y-191.120\nG10 L10 P1 R-250.780" },
  },
  pointsAt: (step) =>
    POINTS[step.code] ?? programControls(step) ?? [step.axis ? (`key ${step.axis}` as const) : "drawer"],
  ledger: { forAxis: ledgerRegister, firstTerm: (axis) => (axis === "z" ? "paper" : "tipRadius") },
  picture: {
    title: ({ sight }) => `Plan from above, section ${sideWords[sight]}`,
    Picture: MillPicture,
    space: millSpace,
    called: ({ modal }) => modal.tool,
    wayInSpace: (seen, place, frame) => {
      const at = programmedAt(seen, place, frame);
      return at?.tipZ == null ? null : [at.x, at.y, at.tipZ];
    },
    standing: standingWords,
  },
};
