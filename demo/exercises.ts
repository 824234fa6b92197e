import { readFileSync } from "node:fs";
import { exerciseSchema, markingSchema, type Exercise, type Marking } from "@probe-lane/core/exercises";
import bracketBossSweep from "./exercises/bracket-boss-sweep.json" with { type: "json" };
import bracketColdMachine from "./exercises/bracket-cold-machine.json" with { type: "json" };
import changeOfPart from "./exercises/change-of-part.json" with { type: "json" };
import changeOfPartMovingJaw from "./exercises/change-of-part-moving-jaw.json" with { type: "json" };
import clampCornerTaster from "./exercises/clamp-corner-taster.json" with { type: "json" };
import clampMiddleFinder from "./exercises/clamp-middle-finder.json" with { type: "json" };
import clampMiddleProbe from "./exercises/clamp-middle-probe.json" with { type: "json" };
import clampMiddleTaster from "./exercises/clamp-middle-taster.json" with { type: "json" };
import diametersOffsetPath from "./exercises/diameters-offset-path.json" with { type: "json" };
import diametersPartContour from "./exercises/diameters-part-contour.json" with { type: "json" };
import fiveToolsBlockInWear from "./exercises/five-tools-block-in-wear.json" with { type: "json" };
import fiveToolsFree from "./exercises/five-tools-free.json" with { type: "json" };
import fiveToolsGaugeLine from "./exercises/five-tools-gauge-line.json" with { type: "json" };
import fiveToolsMaster from "./exercises/five-tools-master.json" with { type: "json" };
import fiveToolsPartTouch from "./exercises/five-tools-part-touch.json" with { type: "json" };
import fiveToolsPlaneLift from "./exercises/five-tools-plane-lift.json" with { type: "json" };
import focuserPlateLowerLeft from "./exercises/focuser-plate-lower-left.json" with { type: "json" };
import handedOverEvening from "./exercises/handed-over-evening.json" with { type: "json" };
import handedOverMorning from "./exercises/handed-over-morning.json" with { type: "json" };
import knobCenterHeight from "./exercises/knob-center-height.json" with { type: "json" };
import ringDrillSweep from "./exercises/ring-drill-sweep.json" with { type: "json" };
import latheHandedOver from "./exercises/lathe-handed-over.json" with { type: "json" };
import inchCollar from "./exercises/inch-collar.json" with { type: "json" };
import inchBracket from "./exercises/inch-bracket.json" with { type: "json" };
import lengthsAtSpeed from "./exercises/lengths-at-speed.json" with { type: "json" };
import middleBetweenJaws from "./exercises/middle-between-jaws.json" with { type: "json" };
import plateBoreProbe from "./exercises/plate-bore-probe.json" with { type: "json" };
import plateBoreSweep from "./exercises/plate-bore-sweep.json" with { type: "json" };
import platePocketProbe from "./exercises/plate-pocket-probe.json" with { type: "json" };
import plateSkewed from "./exercises/plate-skewed.json" with { type: "json" };
import beamCalibrated from "./exercises/beam-calibrated.json" with { type: "json" };
import knobFirstPart from "./exercises/knob-first-part.json" with { type: "json" };
import knobProgramFirst from "./exercises/knob-program-first.json" with { type: "json" };
import clampProbeBelieved from "./exercises/clamp-probe-believed.json" with { type: "json" };
import clampSetupKept from "./exercises/clamp-setup-kept.json" with { type: "json" };
import clampOneToolChanged from "./exercises/clamp-one-tool-changed.json" with { type: "json" };
import clampEdgesWorn from "./exercises/clamp-edges-worn.json" with { type: "json" };
import clampGaugedSlot from "./exercises/clamp-gauged-slot.json" with { type: "json" };
import collarFirstPart from "./exercises/collar-first-part.json" with { type: "json" };
import plateFirstPart from "./exercises/plate-first-part.json" with { type: "json" };
import clampFirstPart from "./exercises/clamp-first-part.json" with { type: "json" };
import clampProgramSlot from "./exercises/clamp-program-slot.json" with { type: "json" };
import collarProgram from "./exercises/collar-program.json" with { type: "json" };
import plateProgramTop from "./exercises/plate-program-top.json" with { type: "json" };
import probeCalibrated from "./exercises/probe-calibrated.json" with { type: "json" };
import probeInDoubt from "./exercises/probe-in-doubt.json" with { type: "json" };
import rollerBracketBackRight from "./exercises/roller-bracket-back-right.json" with { type: "json" };
import setterInDoubt from "./exercises/setter-in-doubt.json" with { type: "json" };
import threeToolsOffsetEach from "./exercises/three-tools-offset-each.json" with { type: "json" };
import knobFirstTool from "./exercises/knob-first-tool.json" with { type: "json" };
import collarFiveToolsFace from "./exercises/collar-five-tools-face.json" with { type: "json" };
import collarFiveToolsArm from "./exercises/collar-five-tools-arm.json" with { type: "json" };
import knobMasterShift from "./exercises/knob-master-shift.json" with { type: "json" };
import ringBoringBar from "./exercises/ring-boring-bar.json" with { type: "json" };
import collarPartingEdge from "./exercises/collar-parting-edge.json" with { type: "json" };
import knobDeclaredPosition from "./exercises/knob-declared-position.json" with { type: "json" };
import ringAxisHeight from "./exercises/ring-axis-height.json" with { type: "json" };
import collarTipsAndFit from "./exercises/collar-tips-and-fit.json" with { type: "json" };
import collarPartingBehind from "./exercises/collar-parting-behind.json" with { type: "json" };
import ringGrooveFarEdge from "./exercises/ring-groove-far-edge.json" with { type: "json" };
import knobConeNeutral from "./exercises/knob-cone-neutral.json" with { type: "json" };
import ringReadoutLibrary from "./exercises/ring-readout-library.json" with { type: "json" };
import collarGangTwoChanged from "./exercises/collar-gang-two-changed.json" with { type: "json" };
import knobNoseAndTip from "./exercises/knob-nose-and-tip.json" with { type: "json" };
import bracketJawTapped from "./exercises/bracket-jaw-tapped.json" with { type: "json" };
import collarThreadSide from "./exercises/collar-thread-side.json" with { type: "json" };
import knobInsertChanged from "./exercises/knob-insert-changed.json" with { type: "json" };
import knobSettingGauge from "./exercises/knob-setting-gauge.json" with { type: "json" };
import ringLibraryKept from "./exercises/ring-library-kept.json" with { type: "json" };

export interface ExerciseFile {
  exercise: Exercise;
  marking: Marking;
}

/** Programs lie beside the exercises as they are, in files of their own. */
const programText = (file: string): string => readFileSync(`demo/exercises/${file}`, "utf8");

interface Programmed {
  readonly program?: {
    readonly store: readonly { readonly number: number; readonly title: string; readonly file: string }[];
  };
}

function withTexts(exercise: Programmed): unknown {
  const { program } = exercise;
  if (!program) return exercise;
  const store = program.store.map(({ number, title, file }) => ({ number, title, text: programText(file) }));
  return { ...exercise, program: { ...program, store } };
}

const read = (file: { exercise: unknown; marking: unknown }): ExerciseFile => ({
  exercise: exerciseSchema.parse(withTexts(file.exercise as Programmed)),
  marking: markingSchema.parse(file.marking),
});

/**
 * The pack, in the order in which an evening class would take it: edges, middles, bores, lengths, another part,
 * diameters, doubts.
 */
export const demoExercises: readonly ExerciseFile[] = [
  focuserPlateLowerLeft,
  rollerBracketBackRight,
  bracketColdMachine,
  inchBracket,
  clampCornerTaster,
  clampMiddleFinder,
  clampMiddleTaster,
  clampMiddleProbe,
  plateBoreSweep,
  plateBoreProbe,
  platePocketProbe,
  bracketBossSweep,
  plateSkewed,
  bracketJawTapped,
  fiveToolsFree,
  fiveToolsGaugeLine,
  fiveToolsPartTouch,
  fiveToolsPlaneLift,
  fiveToolsMaster,
  threeToolsOffsetEach,
  fiveToolsBlockInWear,
  lengthsAtSpeed,
  changeOfPart,
  changeOfPartMovingJaw,
  middleBetweenJaws,
  diametersPartContour,
  diametersOffsetPath,
  setterInDoubt,
  probeInDoubt,
  beamCalibrated,
  probeCalibrated,
  plateProgramTop,
  clampProgramSlot,
  clampFirstPart,
  plateFirstPart,
  collarFirstPart,
  clampGaugedSlot,
  clampProbeBelieved,
  clampSetupKept,
  clampOneToolChanged,
  clampEdgesWorn,
  handedOverEvening,
  handedOverMorning,
  knobFirstTool,
  collarFiveToolsFace,
  collarFiveToolsArm,
  knobMasterShift,
  ringBoringBar,
  collarPartingEdge,
  collarPartingBehind,
  ringGrooveFarEdge,
  knobProgramFirst,
  knobFirstPart,
  collarProgram,
  knobNoseAndTip,
  collarTipsAndFit,
  ringDrillSweep,
  knobCenterHeight,
  knobSettingGauge,
  collarThreadSide,
  knobInsertChanged,
  knobConeNeutral,
  knobDeclaredPosition,
  inchCollar,
  ringAxisHeight,
  ringReadoutLibrary,
  ringLibraryKept,
  collarGangTwoChanged,
  latheHandedOver,
].map(read);

export function findDemoExercise(id: string): ExerciseFile {
  const found = demoExercises.find(({ exercise }) => exercise.id === id);
  if (!found) throw new Error(`findDemoExercise: no exercise ${id}`);
  return found;
}
