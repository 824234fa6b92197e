import type { Calibrated, Master } from "../machines/mill/acts/calibration/names";
import type { IncidentCode, TurnedFace } from "../bench";
import type { Machine, Setup, SetupTask, Surface, Target, TurretToolKind } from "../exercises";
import {
  instrumentName,
  instrumentNames,
  toolNumber,
  type Feel,
  type GapKind,
  type InstrumentName,
  type ProbeOutcome,
  type ProbeQuestion,
  type Thing,
  type ToolKind,
  type Wobble,
} from "../instruments";
import type { CheckName, TermName } from "../lane";
import { turretPlace, type Axis, type TurretColumn } from "../registers";

export const instrumentWords = (instrument: InstrumentName): string => instrumentName(instrument);
/** An instrument by its name, a tool by its number. */
export function thingWords(thing: string): string {
  const number = toolNumber(thing as Thing);
  if (number !== null && !Number.isNaN(number)) return `tool ${number}`;
  return instrumentNames.some((name) => name === thing) ? instrumentName(thing as InstrumentName) : thing;
}
export const toolKindWords: Record<ToolKind, string> = {
  endMill: "end mill",
  drill: "drill",
  spotDrill: "spot drill",
  faceMill: "face mill",
};
export const gapKindWords: Record<GapKind, string> = {
  paper: "paper",
  feeler: "feeler",
  block: "gauge block",
  pin: "gauge pin",
};

const SURFACES: Record<Exclude<Surface, InstrumentName>, string> = {
  stock: "part",
  boss: "boss",
  frontJaw: "front jaw",
  backJaw: "back jaw",
  stop: "stop",
  plate: "fixture plate",
  table: "table",
  setter: "setter",
};
const isInstrument = (surface: Surface): surface is Surface & InstrumentName => !Object.hasOwn(SURFACES, surface);
export const surfaceWords = (surface: Surface): string =>
  isInstrument(surface) ? instrumentName(surface) : SURFACES[surface];

export const axisNames: Record<Axis, string> = { x: "X", y: "Y", z: "Z" };

const ROWS: Record<string, string> = { H: "length", HW: "length wear", D: "diameter", DW: "diameter wear" };

const TURRET: Record<TurretColumn, string> = {
  x: "X",
  z: "Z",
  xw: "X wear",
  zw: "Z wear",
  r: "nose radius",
  q: "tip code",
  lx: "library X",
  lz: "library Z",
  y: "center height",
};

/** "G54 X", "G54.1 P1 X", "common Z", "H1 length", "H1 length wear", "D1 diameter". */
export function registerWords(register: string): string {
  const [table = "", axis] = register.split(".");
  if (axis) return `${table.startsWith("P") ? `G54.1 ${table}` : table} ${axis.toUpperCase()}`;
  const turret = turretPlace(register);
  if (turret) return `T${turret.row} ${TURRET[turret.column]}`;
  const [, letters = "", row = ""] = /^([A-Z]+)(\d+)$/.exec(register) ?? [];
  return `${letters.slice(0, 1)}${row} ${ROWS[letters] ?? ""}`;
}

/** What people call registers and things where that is not what they are called elsewhere. */
const SHOP: Partial<Record<Machine, { registers: Record<string, string>; things: readonly [string, string][] }>> = {
  // the zero of a readout has no number of its own; a lathe wound by hand has a guard where others have a door
  readout: {
    registers: { "G54.x": "zero of X", "G54.z": "zero of Z" },
    things: [
      ["door", "guard"],
      ["Door", "Guard"],
    ],
  },
  gang: {
    registers: {},
    things: [["turned diameter", "diameter of the bar"]],
  },
};
/** A register as the people at this machine call it. */
export const registerName = (register: string, kind?: Machine): string =>
  (kind && SHOP[kind]?.registers[register]) ?? registerWords(register);

/** A sentence in the words of this machine's shop. */
export const inShopWords = (text: string, kind?: Machine): string =>
  (kind ? (SHOP[kind]?.things ?? []) : []).reduce((said, [from, to]) => said.replaceAll(from, to), text);

/** What a ruling calls a value. */
export function targetWords({ kind, axis, tool, id }: Target): string {
  switch (kind) {
    case "place":
      return `G54 ${axisNames[axis ?? "x"]}`;
    case "turn":
      return "Turn of the part";
    case "workZ":
      return "G54 Z";
    case "toolSum":
      return `Z with tool ${tool}`;
    case "toolRow":
      return `H${tool} length`;
    case "diameter":
      return `D${tool} diameter`;
    case "toolOffset":
    case "nose":
    case "tipCode":
      return registerWords(id);
    case "height":
      return `T${tool} center height`;
    case "fit":
      return `T${tool} fit`;
    case "axisHeight":
      return "Height of the axis";
    case "gaugeError":
      return "Error of the setting gauge";
  }
}

export const wobbleWords: Record<Wobble, string> = {
  wide: "wide wobble",
  large: "wobble large",
  middling: "wobble middling",
  small: "wobble small",
  slight: "wobble slight",
  shiver: "just a shiver",
  true: "runs true",
};

export const feelWords: Record<Feel, string> = {
  slides: "slides freely",
  drags: "drags",
  held: "held",
  pinched: "pinched hard",
  torn: "torn",
};
/** What an eye sees of a straight edge on a face: it is looked at, not felt, and nothing of it tears. */
export const edgeFeelWords: Record<Feel, string> = {
  slides: "light shows under it",
  drags: "no light shows",
  held: "the tool pushes it",
  pinched: "the tool pushes it away",
  torn: "pushed off the face",
};

export const incidentWords: Record<IncidentCode, string> = {
  finderThrown: "edge finder thrown apart by too much speed",
  finderBent: "edge finder pushed too far: tip slightly bent",
  finderBroken: "edge finder driven into something hard",
  toolChipped: "tool driven into something hard and chipped",
  noseStruck: "bare spindle nose driven into something hard",
  paperUnderTurningTool: "hand and gauge under a turning tool",
  paperTorn: "paper or feeler torn",
  tasterBroken: "lever taster pushed past its travel",
  probeBroken: "spindle probe driven into something hard",
  indicatorBroken: "indicator driven into something hard",
  startedWithInstrument: "spindle started with an instrument that must not turn",
  changerStruck: "tool changer swung with an instrument in the spindle",
  blockCrushed: "gauge block in the gap while the gap was closed",
  gaugeDamaged: "height gauge pushed past its travel",
  setterDamaged: "setter pushed past its travel",
  insertChipped: "insert driven into the part and chipped",
  edgePushedOff: "straight edge pushed off the face",
  jawStruck: "tool driven into the chuck",
  armStruck: "setter arm struck",
  handAtChuck: "hand at the part while the chuck turned",
  neighborStruck: "a tool that stands out too far struck the bar",
  ranIntoFixture: "program run into what holds the part",
  ranIntoStock: "program run into the blank where nothing may cut",
  ranStill: "tool fed into the blank that did not turn as it must",
  ranPastTravel: "program run past the end of an axis",
};

export const termWords: Record<TermName, string> = {
  tipRadius: "tip radius",
  edgeWork: "edge’s own work coordinate",
  paper: "paper or feeler",
  facing: "facing allowance",
  moved: "moved since",
  lift: "height over the plane",
  other: "other",
  block: "block or gauge height",
  toolLength: "tool length",
  probeLength: "probe length",
  halfSize: "half of a size",
  nominal: "nominal diameter",
  diameter: "diameter",
  bladeWidth: "width of the blade",
  armPlane: "plane of the setter arm",
};

export const taskWords: Record<SetupTask, { act: string; done: string }> = {
  releaseStop: { act: "Release the stop", done: "stop released" },
  lowRapid: { act: "Turn rapid down", done: "rapid turned down" },
  wipeTaper: { act: "Wipe the taper", done: "taper wiped" },
  seatOnParallels: { act: "Seat the blank on parallels", done: "blank on parallels" },
  pushToStop: { act: "Push it to the stop", done: "blank at the stop" },
  tapDown: { act: "Tap it down", done: "blank tapped down" },
  dressBurr: { act: "Dress burr", done: "edges dressed" },
  sweepJaw: { act: "Sweep the fixed jaw", done: "jaw swept" },
};

export const checkWords: Record<CheckName, { name: string; asks: string }> = {
  overZero: {
    name: "Stand over zero and look",
    asks: "How far off the drawing’s zero do you expect the point to stand?",
  },
  knownHeight: { name: "Back to a known height", asks: "How high over what is below do you expect the tip to stand?" },
  sameEdge: { name: "Touch the same edge again", asks: "At which machine figure do you expect the contact?" },
  ruleBeside: { name: "Rule beside the tool", asks: "How long do you expect the tool to be, from the spindle nose?" },
  liftedMove: { name: "A lifted move", asks: "At which machine Z do you expect the move to end?" },
  sumByHand: { name: "The sum by hand", asks: "What do work Z and length add up to?" },
  recalled: {
    name: "The corner, with the row recalled",
    asks: "What do you expect X to read at the corner, with this tool’s row recalled?",
  },
  atDiameter: {
    name: "X at a measured diameter",
    asks: "With this tool’s offset active, what must X read where it touches the diameter that was measured?",
  },
  skimmed: {
    name: "Skim and measure",
    asks: "By the display, what diameter do you expect the micrometer to read after a skim?",
  },
  clearance: { name: "Daylight at the approach", asks: "How much daylight do you expect between tip and bar?" },
};

export const questionWords: Record<ProbeQuestion, { name: string; stand: string; size: string }> = {
  face: { name: "One face", stand: "Stand before the face, below its top.", size: "look no further than" },
  surface: { name: "A surface below", stand: "Stand over the surface.", size: "look no further than" },
  twoOutside: {
    name: "Two faces from outside",
    stand: "Stand high over the middle.",
    size: "size between the faces, about",
  },
  twoInside: {
    name: "Two faces from inside",
    stand: "Stand high over the middle of the opening.",
    size: "size between the faces, about",
  },
  bore: { name: "Round hole", stand: "Stand high over the middle of the hole.", size: "diameter, about" },
  boss: { name: "Round boss", stand: "Stand high over the middle of the boss.", size: "diameter, about" },
  cornerOutside: { name: "Outside corner", stand: "Stand high over the corner.", size: "" },
  cornerInside: { name: "Inside corner", stand: "Stand high over the corner.", size: "" },
  angle: {
    name: "Angle of a face",
    stand: "Stand before the middle of the face, below its top.",
    size: "distance between the two contacts",
  },
};

export const outcomeWords: Record<ProbeOutcome, string> = {
  found: "found",
  missed: "nothing met",
  stemTouched: "the stem touched, not the ball",
  driven: "driven into something",
};

/** The figures of a reading, by their names. */
const FIGURES: Record<string, string> = {
  at: "at",
  low: "low side",
  high: "high side",
  middle: "middle",
  between: "between contacts",
  x: "X",
  y: "Y",
  across: "between contacts across",
  angleDeg: "angle",
  first: "first contact",
  second: "second contact",
  apart: "apart",
  trigger: "trigger Z",
  length: "length",
  diameter: "diameter",
  rpm: "at rev/min",
  left: "left end",
  right: "right end",
  at0: "right",
  at90: "back",
  at180: "left",
  at270: "front",
  reach: "nose to tip",
  radius: "effective radius",
  sizeX: "length",
  sizeY: "width",
  sizeZ: "height",
  thickness: "thickness",
  z: "Z",
};
/** Carried round a shank on the chuck the dial stands behind it, over it, before it and under it. */
const ROUND_SHANK: Record<string, string> = { at0: "back", at90: "top", at180: "front", at270: "bottom" };
/** A figure of a reading by its name, and by what was read. */
export const figureName = (name: string, what?: string): string =>
  (what === "shank" ? ROUND_SHANK[name] : undefined) ?? FIGURES[name] ?? thingWords(name);

const READINGS: Record<string, string> = {
  faceX: "face in X",
  faceY: "face in Y",
  middleX: "middle in X",
  middleY: "middle in Y",
  round: "round feature",
  corner: "corner",
  angle: "angle of a face",
  surface: "surface",
  length: "length",
  diameter: "diameter",
  lengthAndDiameter: "length and diameter",
  reach: "reach of what is held",
  probeRadius: "probe, calibrated in the ring",
  probeLength: "probe, calibrated on the block",
  setter: "setter, calibrated",
  thickness: "thickness",
  sizeX: "blank along X",
  shank: "shank, swept round",
  jaw: "fixed jaw, swept along",
  pip: "pip in the middle of the face",
  turned: "turned diameter",
  bored: "bored diameter",
  armX: "arm tripped in X",
  armZ: "arm tripped in Z",
  pinCrest: "crest of the ground pin over the slide",
  sizeY: "blank along Y",
  sizeZ: "height of the blank",
  across: "feature across",
};
/** What a reading is of: "length of tool 3". */
export const readingWords = (what: string, tool?: number): string =>
  `${READINGS[what] ?? questionWords[what as ProbeQuestion]?.name.toLowerCase() ?? what}${tool === undefined ? "" : ` of tool ${tool}`}`;

export const turretKindWords: Record<TurretToolKind, string> = {
  turning: "turning tool",
  profiling: "profiling tool",
  grooving: "grooving tool",
  parting: "parting tool",
  threading: "threading tool",
  boring: "boring bar",
  drill: "drill",
  endMill: "live end mill",
  neutral: "neutral tool",
};
export const turnedFaceWords: Record<TurnedFace, string> = {
  face: "face",
  diameter: "diameter",
  bore: "bore",
  cone: "cone",
};

type Touching = NonNullable<Setup["touching"]>;
const CLICK_BACK: Record<Touching["clickBack"], string | null> = {
  never: null,
  free: "one click back at a contact: as you were taught",
  always: "one click back at every contact",
};
const PAPER_IS: Record<Touching["paper"], string | null> = {
  counted: null,
  free: "paper: counted or not, as you were taught",
  ignored: "paper is not counted here",
};
/** How the shop of a sheet touches, in a few words each; nothing where a contact is taken as it is. */
export const touchingWords = ({ touching }: Pick<Setup, "touching">): string[] =>
  touching ? [CLICK_BACK[touching.clickBack], PAPER_IS[touching.paper]].filter((words) => words !== null) : [];

export const calibratedWords: Record<Calibrated, string> = {
  probeRadius: "effective radius of the probe",
  probeLength: "length of the probe",
  setter: "setter",
};
export const masterWords: Record<Master, string> = {
  ring: "the ring",
  block: "the known block",
  probe: "the calibrated probe",
  nose: "the bare nose",
  pin: "the master pin",
};
