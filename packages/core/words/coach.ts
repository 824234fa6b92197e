import type { CoachCode, CoachStep } from "../bench/coach";
import type { GateName } from "../bench/gates";
import type { Observation } from "../bench/observe";
import { formatMm } from "../units";

export const gateWords: Record<GateName, string> = {
  machineReady: "Machine ready", stockSeated: "Stock seated", xEdge: "X edge", yEdge: "Y edge", zTool1: "Z and tool 1",
  overZero: "Stand over zero", handIn: "Hand in",
};

const axisWord = (step: CoachStep) => (step.axis ?? "").toUpperCase();

/** Which face of the blank an axis is to be met on, as a person standing in front of the machine says it. */
function faceOf(step: CoachStep, { sheet }: Observation): string {
  if (step.axis === "x") return sheet.edges.x.approach === 1 ? "left" : "right";
  return sheet.edges.y.approach === 1 ? "front" : "back";
}

const WORDS: Record<CoachCode, (step: CoachStep, seen: Observation) => string> = {
  resetAfterStrike: () => "Stop. Something was struck: raise your hand and tell your instructor. Nothing is trusted until it is checked. Then reset the machine.",
  home: () => "Send the machine to its reference first: until it knows where home is, no position means anything.",
  openDoor: () => "Open the door: the next step needs your hands inside.",
  stopSpindle: () => "Stop the spindle before you reach in.",
  dressBurr: () => "Dress the burr off the edges. A burr stands between the tip and the true face, and you would find the burr.",
  loadFinder: () => "Load the edge finder from the drawer.",
  setWobbling: () => "Withdraw well clear and set the tip wobbling: a tip that runs true already shows you nothing.",
  startSlow: (_step, seen) => `State a speed and start forward: 600 rev/min suits. The spindle remembers ${seen.rememberedRpm}; the edge finder is rated 400 to 1200.`,
  goToEdge: (step, seen) => `Bring the tip beside the ${faceOf(step, seen)} face, lower it a few mm below the top, then move ${axisWord(step)} toward the part.`,
  lookAcross: (step) => `Look along ${axisWord(step)}: the face drags the tip along itself, so from the side you look now a kick would be hard to see.`,
  closeIn: (step) => `The part is straightening the tip. Smaller clicks on ${axisWord(step)} now.`,
  finestClicks: () => "Nearly true: click at 0.001 until the tip jumps aside.",
  kickedOnce: (step) => `It kicked. Take the reading into the ledger. Then back off ${axisWord(step)} well clear, set it wobbling and come in once more: two kicks should land on the same number.`,
  setFromKick: (step) => `Two kicks. Now work out where the spindle axis stands from the edge, write it in the ledger, and set ${axisWord(step)}.`,
  liftFirst: () => "Raise Z well clear before anything else: the retract axis always moves first.",
  swapToTool1: () => "Take the edge finder out and load tool 1.",
  placePaper: () => "Spindle stopped? Bring tool 1 over the part, a few tenths above, and place the paper under it.",
  lowerOntoPaper: () => "Lower Z in 0.1, then 0.01, then 0.001 and feel the paper at each click, until it just drags.",
  setLength: (_step, seen) => `It drags: the tip stands one paper, ${formatMm(seen.sheet.paperMm)}, above the skin. Take the reading, then set the length of tool 1 so that the sum comes out right.`,
  pullPaper: () => "Raise Z a little and pull the paper out.",
  loadPointed: () => "Raise Z, take tool 1 out and load the pointed tool: it shows by eye where zero is.",
  shutDoor: () => "Shut the door: typed moves are locked while it is open.",
  goOverZero: () => "High above the part, run G0 G54 X0 Y0. Say to yourself where the point should come to stand before you press.",
  lookFromTwoSides: () => "Look from the front and from one side: does the point stand over the corner that the drawing calls zero? If not, stop and find out why.",
  handIn: () => "All gates are open. Read your ledger once more, then hand in.",
  replaceFinder: () => "That edge finder is gone. Take it out and load another one; state the speed this time.",
};

/** The next step and why, in the student's own numbers. */
export const coachWords = (step: CoachStep, seen: Observation): string => WORDS[step.code](step, seen);
