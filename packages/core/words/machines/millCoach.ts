import type { MillSeen } from "../../bench";
import { edgeOf, paperOf } from "../../exercises";
import type { CoachStep } from "../../lane";
import type { millCoachCodes } from "../../machines/mill/coach";
import { scales, showLength } from "../../units";
import { schoolWords } from "../firstNames";

const axisWord = (step: CoachStep) => (step.axis ?? "").toUpperCase();
const toolWord = (step: CoachStep) => `tool ${step.tool ?? 1}`;

/** Which face of the blank an axis is to be met on, as a person standing in front of the machine says it. */
function faceOf(step: CoachStep, { sheet }: MillSeen): string {
  const edge = edgeOf(sheet, step.axis === "y" ? "y" : "x");
  if (step.axis === "x") return edge?.approach === 1 ? "left" : "right";
  return edge?.approach === 1 ? "front" : "back";
}

function placeAdvice(step: CoachStep, seen: MillSeen): string {
  const { sheet } = seen;
  const axis = axisWord(step);
  if (sheet.datum.kind === "middle") {
    return `${axis} is the middle of the blank: touch the two faces that lie across ${axis}, from outside, in the same way. Between two contacts the radius cancels; the size they leave does not lie.`;
  }
  if (sheet.datum.kind === "feature") {
    return sheet.instruments.includes("indicator")
      ? "The datum is an axis: carry the indicator round it, read four places, move by half of the difference, and sweep again until it hardly moves."
      : "The datum is an axis: let the probe find the round feature, twice, from about its middle. Give the size as you measured it, not as you hope.";
  }
  if (sheet.isSkewed)
    return "The blank lies turned: two contacts on one face say by how much, and the corner has to be worked out with it.";
  return sheet.instruments.includes("taster")
    ? `Bring the taster to the ${faceOf(step, seen)} face until BOTH hands stand at zero: then the axis stands over the edge and no radius is left to count.`
    : `Find the ${axis} edge with what the drawer holds, twice, and set ${axis}.`;
}

function lengthAdvice(step: CoachStep, { sheet }: MillSeen): string {
  const [school] = sheet.lengthSchools;
  return `Take ${toolWord(step)} to whatever your school measures on (${school ? schoolWords[school] : "any"}), take the reading, and work out what its row must hold.`;
}

/** What the coach says on a mill. */
export const millCoachWords: Record<(typeof millCoachCodes)[number], (step: CoachStep, seen: MillSeen) => string> = {
  openDoor: () => "Open the door: the next step needs your hands inside.",
  stopSpindle: () => "Stop the spindle before you reach in.",
  dressBurr: () =>
    "Dress the burr off the edges. A burr stands between the tip and the true face, and you would find the burr.",
  loadFinder: () => "Load the edge finder from the drawer.",
  setWobbling: () => "Withdraw well clear and set the tip wobbling: a tip that runs true already shows you nothing.",
  startSlow: (_step, seen) =>
    `State a speed and start forward: 600 rev/min suits. The spindle remembers ${seen.rememberedRpm}; the edge finder is rated 400 to 1200.`,
  goToEdge: (step, seen) =>
    `Bring the tip beside the ${faceOf(step, seen)} face, lower it a few mm below the top, then move ${axisWord(step)} toward the part.`,
  lookAcross: (step) =>
    `Look along ${axisWord(step)}: the face drags the tip along itself, so from the side you look now a kick would be hard to see.`,
  closeIn: (step) => `The part is straightening the tip. Smaller clicks on ${axisWord(step)} now.`,
  finestClicks: () => "Very near now: use the finest click until the tip jumps aside.",
  kickedOnce: (step) =>
    `It kicked. Take the reading into the ledger. Then back off ${axisWord(step)} well clear, set it wobbling and come in once more: two kicks should land on the same number.`,
  setFromKick: (step) =>
    `Two kicks. Now work out where the spindle axis stands from the edge, write it in the ledger, and set ${axisWord(step)}.`,
  liftFirst: () => "Raise Z well clear before anything else: the retract axis always moves first.",
  swapToTool1: () => "Take the edge finder out and load tool 1.",
  placePaper: (step) =>
    `Spindle stopped? Bring ${toolWord(step)} over the part, a few tenths above, and place the paper under it.`,
  lowerOntoPaper: () => "Lower Z in ever smaller clicks and feel the paper at each one, until it just drags.",
  setLength: (step, { sheet }) =>
    sheet.gaps.length > 0 && sheet.lengthSchools.every((school) => school === "part-touch" || school === "plane-lift")
      ? `It drags: the tip stands one paper, ${showLength(paperOf(sheet), scales[sheet.unit])}, above what is below. Take the reading, then set the length of ${toolWord(step)} so that the sum comes out right.`
      : `Take the reading into the ledger, then set the row of ${toolWord(step)} so that the sum comes out right.`,
  easePaper: () =>
    "That is too far: the paper no longer slides as it should. Raise Z until it slides freely, then come down again in the finest clicks until it just drags.",
  tornPaper: () => "The paper is torn: the tip has touched. Raise Z, pull it out, and begin this touch anew.",
  pullPaper: () => "Raise Z a little and pull the paper out.",
  loadPointed: () =>
    "Raise Z, take out what hangs in the spindle and load the pointed tool: it shows by eye where zero is.",
  shutDoor: () => "Shut the door: typed moves are locked while it is open.",
  expectZero: () =>
    "Open the checks and say first how far off the drawing’s zero the point will stand: over zero that is 0.",
  goOverZero: () =>
    "High above the part run G0 G54 X0 Y0, then come down by clicks until the point is a few millimetres over the part, or low beside it: from far above nobody can tell.",
  lookFromTwoSides: () =>
    "Look from the front and from one side: does the point stand over what the drawing calls zero? Then say in the check what you saw.",
  replaceFinder: () => "That edge finder is gone. Take it out and load another one; state the speed this time.",
  findPlace: placeAdvice,
  findTurn: () =>
    "Find out by how much the blank lies turned: two contacts on one face, as far apart as it allows. Then tap it square and measure again, or call the turn with G68 R.",
  loadTool: (step) => `Bring ${toolWord(step)} into the spindle, and look that it is ${toolWord(step)}.`,
  calibrateFirst: (_step, { sheet }) =>
    sheet.instruments.includes("probe")
      ? "The setter’s card is older than its place. Calibrate the probe on the known block first, then the setter by the probe: a calibration is only as good as what it is made with."
      : "The setter’s card is older than its place. With nothing in the spindle, calibrate it by the master pin; then measure the tools.",
  measureLength: lengthAdvice,
  touchWork: () =>
    "The tools are set and stay as they are. Ask which numbers the new part changes, and touch only for those.",
  measureDiameter: (step) =>
    `Measure the cutter of ${toolWord(step)}, more than once, and set its diameter as your school has it.`,
  readPlace: () =>
    "Read the ledger that came with the setup: do its terms and signs make sense, does each sum stand in its register? Then find out where zero really is: high above the part with the pointed tool, or at the edges.",
  readTool: (step) =>
    `Say first what the length of ${toolWord(step)} should read, geometry and wear together. Then measure it, and compare. What measures it may itself be out of date.`,
  readWork: () => "Touch the part with something whose length you trust. What should the position read there?",
  compareKept: () =>
    "Open the setup that was kept. Hold its card against today, line by line: what is not as it was, and which registers hang on that? Say so before anything moves.",
  takeBack: () =>
    "Take the setup back: its registers and its program as they were. What you named is touched again then.",
  touchAgain: () =>
    "Touch again what you named, and nothing else: find it as on a new setup, and set it over what was taken back.",
};
