import { edgeSignatures, lengthSignatures } from "../../diagnosis/benchSignatures";
import {
  drawChip,
  drawPretravel,
  drawStylusRunout,
  drawTaperDirt,
  drawTasterRunout,
  toolName,
  type Thing,
} from "../../instruments";
import { drawBetween, drawOne, drawUnit } from "../../random";
import { scales, toCounts, toMm } from "../../units";
import { lengthBias, xyBias } from "../bias";
import { SETTER_HEIGHT_MM, SETTER_PLACE_MM, nominalTableMm, tableZMm } from "../scene";
import type { Exercise } from "../schema";
import type { Doubtful } from "../schools";
import type { MillDraw, MillSetup, MillTruth, SetupEdge } from "../setup";
import { areApart, drawSheetBase, drawTruthBase, tidy, toMicron, toStep } from "../sheet";

const BALL_DIAMETER_MM = 6;

function drawSetup(exercise: Exercise, seed: string, turn: number): MillSetup {
  const { datum } = exercise;
  if (datum.kind === "spindle") throw new Error(`drawSetup: ${exercise.id} is no exercise of a mill`);
  const edge = (
    axis: "x" | "y",
    { approach, edgeWorkMm }: { approach: 1 | -1; edgeWorkMm: readonly [number, number] },
  ): SetupEdge => ({ approach, edgeWorkMm: toStep(drawBetween(...edgeWorkMm, seed, "edge work", axis, turn)) });
  const ofProbe = exercise.program?.gauging ? [exercise.program.gauging.pocket] : [];
  return {
    kind: "mill",
    ...drawSheetBase(exercise, seed, turn),
    fixture: exercise.fixture,
    datum:
      datum.kind === "corner"
        ? { kind: "corner", edges: { x: edge("x", datum.edges.x), y: edge("y", datum.edges.y) } }
        : datum,
    feature: exercise.feature ?? null,
    isSkewed: exercise.skewDeg[0] !== 0 || exercise.skewDeg[1] !== 0,
    facingAllowanceMm: tidy(toStep(drawBetween(...exercise.facingAllowanceMm, seed, "facing", turn), 0.1)),
    tipDiameterMm: drawOne(exercise.tipDiameterMm, seed, "tip", turn),
    tools: exercise.tools.map(({ number, kind, diameterMm, workingRpm }) => ({ number, kind, diameterMm, workingRpm })),
    probe: null,
    setter: null,
    lampGaugeMm: exercise.lampGaugeMm,
    partBefore: exercise.partBefore ?? null,
    lengthSchools: exercise.lengthSchools,
    isSchoolPrescribed: exercise.isSchoolPrescribed,
    diameterSchool: exercise.diameterSchool ?? null,
    targets: exercise.targets,
    isAtSpeed: exercise.isAtSpeed,
    ...(exercise.hasMasters ? { hasMasters: true } : {}),
    pockets: Object.fromEntries([...exercise.tools.map(({ number }) => number), ...ofProbe].map((n) => [n, n])),
  };
}

/** Whether every two mistakes on its edges and lengths can be told apart by what the methods leave. */
function signaturesAreApart(setup: MillSetup): boolean {
  const { datum } = setup;
  const areEdges =
    datum.kind !== "corner" ||
    setup.isSkewed ||
    (["x", "y"] as const).every((axis) =>
      areApart(
        edgeSignatures(setup, axis).map(({ predictedMm }) => predictedMm),
        xyBias("edgeFinder", datum.edges[axis].approach).uMm,
      ),
    );
  return (
    areEdges &&
    areApart(
      lengthSignatures(setup).map(({ predictedMm }) => predictedMm),
      lengthBias("paper", setup).uMm,
    )
  );
}

/**
 * The registers that the setup before left, when its tools are kept: lengths on the fixed plane, work offset of the
 * part before.
 */
function keptRegisters(setup: MillSetup, truth: MillTruth): MillSetup["leftovers"] {
  if (!setup.partBefore) return setup.leftovers;
  const rounded = (mm: number) => toMm(toCounts(mm, scales[setup.unit]), scales[setup.unit]);
  const [, dy, dz] = setup.partBefore.byMm;
  const plane = tableZMm(setup, truth);
  const isOnMovingJaw =
    setup.datum.kind === "corner" && (setup.datum.edges.y.approach === 1) !== (setup.fixture.fixedJaw === "front");
  const yShift = setup.datum.kind === "middle" ? dy / 2 : Number(isOnMovingJaw) * dy;
  return [
    ...setup.tools.map(({ number }) => ({
      register: `H${number}`,
      mm: plane + (truth.lengthsMm[toolName(number)] ?? 0),
    })),
    { register: "G54.x", mm: truth.datumMm.x },
    { register: "G54.y", mm: truth.datumMm.y + (setup.fixture.fixedJaw === "front" ? yShift : -yShift) },
    { register: "G54.z", mm: truth.datumMm.z - plane + dz },
  ].map(({ register, mm }) => ({ register, mm: rounded(mm) }));
}

function drawTruth(exercise: Exercise, setup: MillSetup, seed: string): MillTruth {
  const between = (low: number, high: number, ...keys: (string | number)[]) =>
    tidy(drawBetween(low, high, seed, ...keys));
  const [sizeX, sizeY, sizeZ] = exercise.part.sizeMm;
  const skew = between(...exercise.skewDeg, "skew");
  const chips = (thing: Thing) => [thing, drawChip(seed, thing)] as const;
  const datumMm = {
    x: between(...exercise.datumMm.x, "datum", "x"),
    y: between(...exercise.datumMm.y, "datum", "y"),
    z: between(...exercise.datumMm.z, "datum", "z"),
  };
  const isDoubted = exercise.doubt !== undefined && drawUnit(seed, "doubt") < exercise.doubt.share;
  const sign = drawUnit(seed, "doubt sign") < 0.5 ? -1 : 1;
  const [first, second] = exercise.tools;
  return {
    ...drawTruthBase(setup.gaps, seed),
    datumMm,
    // parallels and vises are never as high as their drawing has it: no lift is the same in two lanes
    tableMm: tidy(nominalTableMm(setup, datumMm.z) + between(-1.8, 1.8, "table")),
    stockSizeMm: [sizeX + between(-0.2, 0.2, "size", "x"), sizeY + between(-0.2, 0.2, "size", "y"), sizeZ],
    lengthsMm: {
      edgeFinder: between(88, 94, "length", "edge finder"),
      pointedTool: between(96, 104, "length", "pointed tool"),
      taster: between(110, 116, "length", "taster"),
      probe: between(120, 130, "length", "probe"),
      indicator: between(100, 110, "length", "indicator"),
      ...Object.fromEntries(
        exercise.tools.map(({ number, lengthMm }) => [
          toolName(number),
          between(...lengthMm, "length", `tool ${number}`),
        ]),
      ),
    },
    diametersMm: Object.fromEntries(
      exercise.tools.map(({ number, diameterMm, kind }) => [
        number,
        tidy(
          diameterMm +
            (kind === "endMill" || kind === "faceMill"
              ? between(-0.09, -0.025, "diameter", number)
              : between(-0.02, 0.02, "diameter", number)),
        ),
      ]),
    ),
    burrMm: { x: between(0.05, 0.12, "burr", "x"), y: between(0.05, 0.12, "burr", "y") },
    edgeBreakMm: between(0.3, 0.6, "edge break"),
    skewDeg: Math.abs(skew) < 0.15 && setup.isSkewed ? 0.35 : skew,
    feature: exercise.feature
      ? { diameterMm: tidy(exercise.feature.diameterMm + between(-0.15, 0.15, "feature")) }
      : null,
    offStopMm: setup.tasks.includes("pushToStop") ? between(0.6, 2.4, "off the stop") : 0,
    liftMm: setup.tasks.includes("tapDown") ? between(0.06, 0.14, "lift") : 0,
    jawSkewDeg: setup.tasks.includes("sweepJaw") ? askew(between(-0.06, 0.06, "jaw")) : 0,
    taperDirtMm: setup.tasks.includes("wipeTaper") ? drawTaperDirt(seed) : 0,
    taster: drawTasterRunout(seed),
    probe: {
      pretravelMm: tidy(drawPretravel(seed)),
      runoutMm: { x: tidy(drawStylusRunout(seed, "x")), y: tidy(drawStylusRunout(seed, "y")) },
    },
    setter:
      exercise.instruments.includes("plungerSetter") || exercise.instruments.includes("beamSetter")
        ? {
            topMm: between(-362, -352, "setter"),
            centerErrorMm: {
              x: between(-0.08, 0.08, "setter center", "x"),
              y: between(-0.08, 0.08, "setter center", "y"),
            },
          }
        : null,
    presetterErrorMm: 0,
    growthMmPer1000: exercise.isAtSpeed ? between(0.0026, 0.0038, "growth") : 0,
    chipsMm: exercise.instruments.includes("beamSetter")
      ? Object.fromEntries(exercise.tools.filter((_, i) => i % 2 === 0).map(({ number }) => chips(toolName(number))))
      : {},
    doubt:
      isDoubted && exercise.doubt
        ? { of: exercise.doubt.of, byMm: toMicron(sign * between(...exercise.doubt.byMm, "doubt by")) }
        : null,
    ...(exercise.swapsPockets && first && second
      ? { pockets: { [first.number]: second.number, [second.number]: first.number } }
      : {}),
  };
}

/** Cards of probe and setter as they lie beside the machine; a doubted one states too much. */
function withCards(setup: MillSetup, truth: MillTruth, probePocket: number | undefined): MillSetup {
  const stated = (of: Doubtful, mm: number) => toMicron(mm + (truth.doubt?.of === of ? truth.doubt.byMm : 0));
  const probeMm = stated("probeLength", truth.lengthsMm.probe ?? 0);
  // the row of a probe that a program brings holds its length
  const ofProbe = probePocket === undefined ? [] : [{ register: `H${probePocket}`, mm: probeMm }];
  return {
    ...setup,
    leftovers: [...keptRegisters(setup, truth), ...ofProbe],
    probe: setup.instruments.includes("probe")
      ? {
          ballDiameterMm: BALL_DIAMETER_MM,
          effectiveRadiusMm: stated("probeRadius", BALL_DIAMETER_MM / 2 - truth.probe.pretravelMm),
          lengthMm: probeMm,
        }
      : null,
    setter: truth.setter
      ? {
          xMm: SETTER_PLACE_MM.x,
          yMm: SETTER_PLACE_MM.y,
          heightMm: SETTER_HEIGHT_MM,
          widthMm: 20,
          noseTriggerMm: stated("setter", truth.setter.topMm),
        }
      : null,
  };
}

/** A student's own variant of a mill's exercise; null when in this turn two of its mistakes would look alike. */
/** A vise that was put back by eye is off by enough to be tapped, degrees. */
const LEAST_ASKEW_DEG = 0.025;
const askew = (deg: number): number => (Math.abs(deg) < LEAST_ASKEW_DEG ? (deg < 0 ? -1 : 1) * LEAST_ASKEW_DEG : deg);

export function drawMill(exercise: Exercise, seed: string, turn: number): MillDraw | null {
  const setup = drawSetup(exercise, seed, turn);
  if (!signaturesAreApart(setup)) return null;
  const drawn = drawTruth(exercise, setup, seed);
  const truth = drawn.doubt?.of === "presetter" ? { ...drawn, presetterErrorMm: drawn.doubt.byMm } : drawn;
  return { kind: "mill", setup: withCards(setup, truth, exercise.program?.gauging?.pocket), truth };
}
