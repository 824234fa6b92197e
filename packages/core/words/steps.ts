import type { MethodStep } from "../grading";

/** Each step of a method: what is said where it was done, was missed, or where nothing was that it is about. */
export const STEPS: Record<MethodStep, { done: string; missed: string; absent?: string }> = {
  staleNamed: {
    done: "What was to be touched again of the kept setup was named before anything moved: that, and nothing else.",
    missed: "What was named before anything moved is not what has changed since the setup was kept.",
    absent: "Nothing was named before the machine moved: what of the kept setup is to be touched again.",
  },
  programRead: {
    done: "Program and registers looked up before it cut: every answer is what stands there, and was called what it is.",
    missed:
      "Not everything was looked up rightly before it cut: an answer is missing, is not what stands there, or was called sound or faulty against what it is.",
    absent: "Nothing was looked up in program and registers.",
  },
  programFaultFound: {
    done: "The fault that came with the program was found in time.",
    missed: "The fault that came with the program was not found before it struck, or not at all.",
    absent: "No program was loaded, so that nothing could be found in it.",
  },
  deepestBeside: {
    done: "Deepest point seen beside the part, at the right height, and called as it is.",
    missed:
      "The deepest point was called of a tool that does not matter there, before the display stood at it, other than it is, or only after the program had cut.",
    absent: "No deepest point was looked at beside the part.",
  },
  airRun: {
    done: "The whole program was run in the air, lifted, and the lift was taken off.",
    missed: "The program was not run whole in the air before it cut, or its lift was left in.",
    absent: "No program was run.",
  },
  gapCompared: {
    done: "Held near the part, the gap was seen for what it is and compared with the display.",
    missed: "What was said of the gap is not what was there to be seen, or came after a strike.",
    absent: "The run was never held to compare the gap with the display.",
  },
  ranThrough: {
    done: "The program was run to its end.",
    missed: "The program never came to its end unlifted.",
    absent: "No program was run.",
  },
  runsClear: {
    done: "As it was handed in, the program runs clear with these registers.",
    missed: "As it was handed in, the program does not run clear with these registers.",
    absent: "No program was loaded.",
  },
  partMeasured: {
    done: "Every feature of the first part was measured with an instrument that is fit for its tolerance, the part cool enough for it.",
    missed:
      "Not every feature of the first part was measured with an instrument that is fit for its tolerance, on a part cool enough for it.",
    absent: "No part was measured.",
  },
  partJudged: {
    done: "The first part was called what it is.",
    missed: "The first part was not called what it is: good, rework or scrap.",
    absent: "Nobody said what the first part is.",
  },
  correctedInWear: {
    done: "What was off was put right where it belongs, the right way and by the right amount.",
    missed:
      "What was off was not put right where it belongs (in wear, not in geometry), to the right side and by the right amount: the next part was not nearer by half, or something that was good no longer is.",
    absent: "Something was off, and no other part was cut after it.",
  },
  secondPartGood: {
    done: "The second part is good in all that a register moves.",
    missed: "The last part that was cut is not good in all that a register moves.",
    absent: "No second part was cut.",
  },
  setupSaved: {
    done: "The setup of a good part was kept, as it cut that part.",
    missed: "What was kept is not the setup of a good part as it cut that part.",
    absent: "No setup was kept after a good part.",
  },
  homedFirst: {
    done: "Reference return before anything moved.",
    missed: "The machine was moved before its reference return.",
    absent: "The machine was never sent to its reference.",
  },
  burrBeforeTouch: {
    done: "Burr dressed before the touches that counted.",
    missed: "An edge was touched with the burr still on it.",
    absent: "The burr was not dressed, and no edge was touched.",
  },
  speedStated: {
    done: "Every spindle start stated its speed.",
    missed: "A spindle start left the speed to memory.",
    absent: "The spindle was never started.",
  },
  seatedFirst: {
    done: "Blank seated and the vise looked after before the first touch.",
    missed: "Something was touched before the blank was seated as the sheet asks.",
    absent: "Nothing was touched, so no seat was proven.",
  },
  twoKicksX: {
    done: "X: two contacts agreed.",
    missed: "X: there were no two contacts that agree; one reading can deceive.",
    absent: "X: nothing was touched.",
  },
  twoKicksY: {
    done: "Y: two contacts agreed.",
    missed: "Y: there were no two contacts that agree; one reading can deceive.",
    absent: "Y: nothing was touched.",
  },
  finestX: {
    done: "X: the last contact came at a click fine enough for its tolerance.",
    missed: "X: the last contact came at a click of more than a quarter of its tolerance.",
    absent: "X: nothing was touched, so no click came last.",
  },
  finestY: {
    done: "Y: the last contact came at a click fine enough for its tolerance.",
    missed: "Y: the last contact came at a click of more than a quarter of its tolerance.",
    absent: "Y: nothing was touched, so no click came last.",
  },
  finestPaper: {
    done: "Every tool was touched at a click fine enough for its tolerance, or measured by a cycle.",
    missed: "Not every tool was last touched at a click of at most a quarter of the tolerance.",
    absent: "No tool was touched or measured.",
  },
  tasterTrued: {
    done: "Taster trued before its first contact.",
    missed: "The taster was not trued before its first contact.",
    absent: "The taster was never used.",
  },
  toolWiped: {
    done: "Taper wiped before the first tool.",
    missed: "The taper was not wiped before the first tool went in.",
    absent: "No tool went in.",
  },
  tipClean: {
    done: "Tip blown clean before the beam.",
    missed: "No tip was blown clean before it was measured in the beam.",
    absent: "No tool was measured in the beam.",
  },
  checkedBefore: {
    done: "A check made with its expectation said first, and judged as it looked.",
    missed: "No check stands that was said first and judged as it looked.",
    absent: "No check was made.",
  },
  spindleLooked: {
    done: "Looked at what hung in the spindle, and put the pockets right.",
    missed: "The control believed one tool and the spindle held another; the pockets were not put right in time.",
  },
  facedClean: {
    done: "Face cut to the middle before anything was touched on it.",
    missed: "Something was touched on the sawn end, or the face was never cut to the middle.",
    absent: "The face was never cut or touched.",
  },
  measuredTwice: {
    done: "Skimmed diameter measured twice, the chuck turned in between.",
    missed: "The skimmed diameter was not measured twice, a quarter turn apart; two points repeat after half a turn.",
  },
  bandClean: {
    done: "The band had cleaned up all round before it was measured.",
    missed: "The band that was measured still showed the saw.",
    absent: "No band was cut on the diameter.",
  },
  finestTurret: {
    done: "Every touch found at a click fine enough for its tolerance.",
    missed: "Not every last touch came at a click of at most a quarter of the tolerance.",
    absent: "No tool was touched.",
  },
  armFolded: { done: "Setter arm folded away again.", missed: "The setter arm was left down." },
  recallChecked: {
    done: "Recalled a row at the corner and compared it with what was said first.",
    missed: "No recall at the corner stands that was said first and judged as it read.",
    absent: "No row of the library was recalled at the corner and compared with what was said first.",
  },
  sumChecked: {
    done: "Work Z and the tool’s row added up by hand and compared with where the tool stood at the face.",
    missed: "No sum at the face stands that was said first and judged as it read.",
    absent: "The sum of work Z and a tool’s row was never compared with where that tool stands at the face.",
  },
  barMeasured: {
    done: "The bar was measured before a tool was set by it.",
    missed: "A tool was set by the bar before the bar had been measured.",
    absent: "No tool was set by the bar.",
  },
  feedDown: {
    done: "The feed was turned down before each new tool came in the first time.",
    missed: "A new tool came in the first time with the feed not turned down.",
  },
  headstockTaken: {
    done: "Axis height taken at the headstock.",
    missed: "The axis height was taken somewhere else than at the headstock, which is the reference.",
    absent: "The axis height was never taken: no stack went under a pin.",
  },
  gaugeZeroedFirst: {
    done: "Setting gauge zeroed on the slide, and raised to the mark from below.",
    missed: "The setting gauge was not zeroed on the slide first, or was brought down onto the crest.",
    absent: "The setting gauge was never read.",
  },
  declaredAtStart: {
    done: "Declared at the start point and with its tool, every time.",
    missed: "The position was declared somewhere else than at the start point, or with another tool in position.",
  },
  overhangClear: {
    done: "New tools stand out as far as their neighbors, within the clearance of an approach.",
    missed:
      "A new tool stands out so much more or less than its neighbors that one of them strikes the bar when the slide moves across at an approach.",
  },
  coneProven: {
    done: "The cone’s pass was run again after Z was set, and just skimmed.",
    missed: "After Z was set, no pass along the cone was seen to just skim.",
  },
  calibratedFirst: {
    done: "Setter calibrated before the tools were measured on it.",
    missed: "Tools were measured on the setter before it was calibrated; their lengths hang on its old figure.",
    absent: "The setter was never calibrated.",
  },
  insertFresh: {
    done: "Insert changed before its tool was touched.",
    missed: "A tool was touched before its insert was changed; another edge sits elsewhere in the pocket.",
    absent: "The insert was never changed.",
  },
  raisedFromBelow: {
    done: "Tool lowered past the setting gauge, raised to touch it, and locked.",
    missed: "The tool was let down onto the setting gauge: the slack of the screw sinks when it is locked.",
    absent: "The tool was never set to the setting gauge.",
  },
  slowUntilProven: {
    done: "Nothing moved at rapid low over the part.",
    missed: "The machine was sent at rapid low over the part on registers that someone else had set.",
  },
  lookedTwoSides: {
    done: "Stood over zero, close to the part, and looked from two sides.",
    missed: "The zero was not looked at from two sides with the pointed tool close to the part.",
    absent: "The pointed tool never stood over zero close to the part to be looked at.",
  },
};
