import type { FigureName, Figures, Method, MistakeId } from "../diagnosis/catalog";

/** What is set, and how, as a person would pick it from a list. */
export const methodWords: Record<Method, string> = {
  "mill-edge": "Mill: work X or Y from one edge",
  "mill-center": "Mill: work X or Y from the middle of two faces",
  "mill-length": "Mill: tool length or work Z",
  "mill-diameter": "Mill: cutter diameter",
  "lathe-x": "Lathe: tool X",
  "lathe-z": "Lathe: tool Z or work Z",
  "lathe-readout": "Lathe: tool library of a readout",
  "lathe-nose": "Lathe: nose radius",
  "lathe-tip": "Lathe: tip code",
};

/** What a figure is called in a form; lengths without their unit. */
export const figureWords: Record<FigureName, string> = {
  approach: "direction of approach",
  tipRadius: "tip radius",
  edgeWork: "work coordinate of that edge",
  partSize: "size of the part across it",
  burr: "height of the burr",
  dialTurn: "travel of one dial turn",
  paper: "paper or feeler",
  block: "block or pin in the gap",
  facing: "work Z of the touched face",
  partHeight: "height of the part",
  lift: "datum’s height over the plane",
  leftoverWork: "old value in the work offset",
  leftoverCommon: "value in the common offset",
  oldWear: "old wear",
  neighbors: "how much longer a neighbor tool is",
  lengthInUse: "geometry and wear of the tool in use",
  growth: "spindle growth at speed",
  cutterDiameter: "measured cutter diameter",
  nominalDiameter: "nominal cutter diameter",
  touchDiameter: "diameter touched or measured",
  outside: "outside or bore",
  bladeWidth: "width of the blade",
  noseRadius: "nose radius",
  tipCode: "tip code",
  shift: "shift of the work",
  masterOld: "old value in the master’s row",
  otherAxis: "what the other axis should hold",
  toolLength: "length of the tool",
  probeError: "probe entered too long by",
  sensorConstant: "sensor constant of the setter",
  plateReach: "edge or holder stands out before the nose by",
  reading: "reading at the corner",
  wanted: "what the register should hold",
};

type Show = (value: number) => string;
interface MistakeWords {
  /** The prediction in the person's own figures. */
  equation: (f: Figures, show: Show) => string;
  /** What to look at to tell it from others. */
  check: string;
}

const times = (count: string, name: string, value: number | undefined, show: Show): string =>
  `${count}${name} ${show(value ?? 0)}`;
const toward = ({ approach }: Figures, isSame: boolean): string => ((approach === 1) === isSame ? "+" : "−");

export const mistakeWords: Record<MistakeId, MistakeWords> = {
  radiusForgotten: {
    equation: (f, show) => `${toward(f, false)}r, r = ${show(f.tipRadius ?? 0)}`,
    check: "Is there a line for the tip radius in your working?",
  },
  radiusSignTurned: {
    equation: (f, show) => `${toward(f, false)}2r, r = ${show(f.tipRadius ?? 0)}`,
    check: "Which way does your radius line go: toward the part or away from it?",
  },
  diameterForRadius: {
    equation: (f, show) => `${toward(f, true)}r, r = ${show(f.tipRadius ?? 0)}`,
    check: "Is the radius line half of what is written on the tip?",
  },
  edgeWorkForgotten: {
    equation: (f, show) => times("+", "the edge’s", f.edgeWork, show),
    check: "Did you call the edge zero, or its own coordinate?",
  },
  edgeWorkSignTurned: {
    equation: (f, show) => times("+2 × ", "the edge’s", f.edgeWork, show),
    check: "On which side of the datum does the touched edge lie?",
  },
  otherEdge: {
    equation: (f, show) => `${toward(f, true)}size ${show(f.partSize ?? 0)}`,
    check: "Which of the two faces did you touch?",
  },
  burr: {
    equation: (f, show) => `${toward(f, false)}burr ${show(f.burr ?? 0)}`,
    check: "Dress the edge and touch it again: does the number move?",
  },
  dialTurnShort: {
    equation: (f, show) => `${toward(f, false)}one turn ${show(f.dialTurn ?? 0)}`,
    check: "Do BOTH hands of the dial stand at zero?",
  },
  radiusOnOneSide: {
    equation: (f, show) => `± r/2, r = ${show(f.tipRadius ?? 0)}`,
    check: "Is a radius in one of the two contacts? In the middle it cancels.",
  },
  paperForgotten: {
    equation: (f, show) => times("+", "paper", f.paper, show),
    check: "Is there a line for the paper in your working?",
  },
  paperWrongWay: {
    equation: (f, show) => times("+2 × ", "paper", f.paper, show),
    check: "Did the paper make the value more negative, as it must?",
  },
  blockForgotten: {
    equation: (f, show) => times("+", "block", f.block, show),
    check: "Is there a line for the block in your working?",
  },
  blockWrongWay: {
    equation: (f, show) => times("+2 × ", "block", f.block, show),
    check: "Was the block added where it must come off?",
  },
  facingForgotten: {
    equation: (f, show) => times("+", "skin", f.facing, show),
    check: "Did you count how far the touched skin stands over the datum?",
  },
  facingWrongWay: {
    equation: (f, show) => times("+2 × ", "skin", f.facing, show),
    check: "Did the allowance make the value more negative, as it must?",
  },
  partHeightMiscounted: {
    equation: (f, show) => times("± ", "part height", f.partHeight, show),
    check: "Is the height of the part in your sum twice, or not at all?",
  },
  liftMissing: {
    equation: (f, show) => times("−", "lift", f.lift, show),
    check: "Tools touched on a plane: is the datum’s height over it in work Z?",
  },
  leftoverWorkZ: {
    equation: (f, show) => times("+", "old work offset", f.leftoverWork, show),
    check: "What did the work offset hold before, and does it still?",
  },
  leftoverCommonZ: {
    equation: (f, show) => times("+", "common offset", f.leftoverCommon, show),
    check: "Does the common offset hold anything?",
  },
  oldWear: {
    equation: (f, show) => times("+", "old wear", f.oldWear, show),
    check: "Is the wear register of that row zero?",
  },
  neighborRow: {
    equation: (f, show) => `a neighbor’s difference ${(f.neighbors ?? []).map(show).join(" or ")}`,
    check: "Read the row beside it: does it hold what this one should?",
  },
  lengthNotCalled: {
    equation: (f, show) => times("−", "length", f.lengthInUse, show),
    check: "Was length compensation on, with this tool’s row?",
  },
  spindleGrowth: {
    equation: (f, show) => times("+", "growth", f.growth, show),
    check: "Measure the tool again at speed: does it come out longer?",
  },
  radiusInDiameter: {
    equation: (f, show) => times("−½ × ", "cutter", f.cutterDiameter, show),
    check: "Does this control keep diameters or radii?",
  },
  diameterInRadius: {
    equation: (f, show) => times("+½ × ", "cutter", f.cutterDiameter, show),
    check: "Does this control keep radii?",
  },
  nominalForMeasured: {
    equation: (f, show) => `nominal ${show(f.nominalDiameter ?? 0)} − measured ${show(f.cutterDiameter ?? 0)}`,
    check: "Measure the cutter: is it what is written on it?",
  },
  diameterEmpty: {
    equation: (f, show) => times("−", "cutter", f.cutterDiameter, show),
    check: "Is the diameter row empty?",
  },
  wearSignTurned: {
    equation: (f, show) => times("−2 × ", "wear", f.oldWear, show),
    check: "Part too large outside: did the correction go minus?",
  },
  feelerOnce: {
    equation: (f, show) => `${f.outside === -1 ? "−" : "+"}feeler ${show(f.paper ?? 0)}`,
    check: "X is a diameter: is the feeler in your sum twice?",
  },
  feelerForgotten: {
    equation: (f, show) => `${f.outside === -1 ? "−" : "+"}2 × feeler ${show(f.paper ?? 0)}`,
    check: "Is there a line for the feeler in your working?",
  },
  diameterAsRadius: {
    equation: (f, show) => times("+½ × ", "diameter", f.touchDiameter, show),
    check: "Did you enter the radius where the control wants the diameter?",
  },
  workXNotZero: {
    equation: (f, show) => times("+", "work X", f.leftoverWork, show),
    check: "Is work X zero, as it must be on a lathe?",
  },
  noseCenterX: {
    equation: (f, show) => `2 × nose radius ${show(f.noseRadius ?? 0)}, by tip code ${f.tipCode ?? "?"}`,
    check: "Was the center of the nose set instead of the tip?",
  },
  gapForgotten: {
    equation: (f, show) => times("+", "gap", f.block, show),
    check: "Is there a line for the pin or block in the gap?",
  },
  gapWrongWay: {
    equation: (f, show) => times("+2 × ", "gap", f.block, show),
    check: "Was the gap counted to the wrong side?",
  },
  faceForgotten: {
    equation: (f, show) => times("+", "face", f.facing, show),
    check: "Did you call the touched face zero, or its own Z?",
  },
  otherBladeEdge: {
    equation: (f, show) => times("± ", "blade", f.bladeWidth, show),
    check: "Which edge of the blade finishes the part, and which one did you set?",
  },
  toolNotActive: {
    equation: (f, show) => times("+", "tool’s Z", f.lengthInUse, show),
    check: "Was the tool’s offset called when work Z was taken?",
  },
  shiftMissing: {
    equation: (f, show) => times("−", "shift", f.shift, show),
    check: "Is the shift of the master in work Z?",
  },
  masterNotCleared: {
    equation: (f, show) => times("−", "master’s row", f.masterOld, show),
    check: "Was the master’s row zero when the others were taken?",
  },
  noseCenterZ: {
    equation: (f, show) => `nose radius ${show(f.noseRadius ?? 0)}, by tip code ${f.tipCode ?? "?"}`,
    check: "Was the center of the nose set instead of the tip?",
  },
  librarySign: {
    equation: (f, show) => times("+2 × ", "reading", f.reading, show),
    check: "Recall the tool at the corner: does it read zero, or twice the difference?",
  },
  feelerOnSome: {
    equation: (f, show) => times("± ", "feeler", f.paper, show),
    check: "Was the same feeler used with every tool?",
  },
  axesSwapped: {
    equation: (f, show) => `the other axis ${show(f.otherAxis ?? 0)} − ${show(f.wanted ?? 0)}`,
    check: "Does the other axis hold this one’s value?",
  },
  schoolsMixed: {
    equation: (f, show) => times("± ", "tool length", f.toolLength, show),
    check: "Are lengths from the setter used with a work Z from a touched tool, or the reverse?",
  },
  probeLengthWrong: {
    equation: (f, show) => times("−", "error of the probe’s length", f.probeError, show),
    check: "Measure the probe’s length again: is it what is entered?",
  },
  wearTwice: {
    equation: (f, show) => times("+", "wear", f.oldWear, show),
    check: "Was the correction added to one that stood there already?",
  },
  sensorConstant: {
    equation: (f, show) => times("± ", "sensor constant", f.sensorConstant, show),
    check: "Touch a part with a tool set by the arm: is every tool off by the same?",
  },
  plateMetEarly: {
    equation: (f, show) => times("+", "reach", f.plateReach, show),
    check: "Did the nose meet the plate, or the edge or holder before it?",
  },
  wholeSignTurned: {
    equation: (f, show) => times("−2 × ", "the right value", f.wanted, show),
    check: "Is there a minus sign before the value?",
  },
  inchForMm: {
    equation: (f, show) => `right value ${show(f.wanted ?? 0)} × 25.4, or ÷ 25.4`,
    check: "In which unit does the control stand, and in which the reading?",
  },
  decimalShifted: {
    equation: (f, show) => `right value ${show(f.wanted ?? 0)} × 10, or ÷ 10`,
    check: "Is the decimal point where it belongs?",
  },
  digitsSwapped: {
    equation: (f, show) => `two neighboring digits of ${show(f.wanted ?? 0)} changed round`,
    check: "Read the register digit by digit beside your sum.",
  },
  digitMistyped: {
    equation: (f, show) => `one digit of ${show(f.wanted ?? 0)} is another one`,
    check: "Read the register digit by digit beside your sum.",
  },
};
