import { lengthSignatures } from "../../diagnosis/benchSignatures";
import { drawBetween, drawUnit } from "../../random";
import { scales, toCounts, toMm } from "../../units";
import { lengthBias } from "../bias";
import type { Exercise } from "../schema";
import type { LatheSheet, LatheTruth, TurningDraw, TurningSetup, TurretTool } from "../setup";
import { areApart, drawSheetBase, drawTruthBase, tidy, toStep } from "../sheet";
import type { LatheExercise } from "./latheSchema";

/** A new tool stands in its clamp by rule: so much beside the stated overhang, and so much off height, mm. */
const BY_RULE_MM = 0.4;
const NEW_HEIGHT_MM = { low: 0.05, high: 0.14 } as const;

/**
 * How a new tool stands beside what the rule said: along X, a diameter, and off center, mm; `times` is how many tools
 * were changed before it.
 */
export function drawNewTool(seed: string, tool: number, times: number): { xMm: number; heightMm: number } {
  const side = drawUnit(seed, "new height side", tool, times) < 0.5 ? -1 : 1;
  return {
    xMm: tidy(2 * drawBetween(-BY_RULE_MM, BY_RULE_MM, seed, "new tool", tool, times)),
    heightMm: tidy(side * drawBetween(NEW_HEIGHT_MM.low, NEW_HEIGHT_MM.high, seed, "new height", tool, times)),
  };
}

/**
 * How far beyond the near edge of a blade the edge that is set stands, mm: one blade, where its far edge finishes the
 * part.
 */
export const farEdgeMm = (tool: Pick<TurretTool, "qualified" | "bladeMm"> | undefined): number =>
  tool?.qualified === "far" ? (tool.bladeMm ?? 0) : 0;

/** A height so small that no pip could be told is none. */
const NO_PIP_MM = 0.06;
const offCenter = (mm: number): number => (mm !== 0 && Math.abs(mm) < NO_PIP_MM ? Math.sign(mm) * NO_PIP_MM : mm);
const SAW_MM = 0.4;
const BLANK_MM = 0.3;
/** A ground bar is so much smaller at most than its name, mm. */
const GROUND_MM = 0.018;
/** Length of the band that comes turned where tools are set already, mm. */
const HANDED_BAND_MM = 22;

const latheSheetOf = ({
  stock,
  tools,
  schools,
  isSchoolPrescribed,
  targets,
  arm,
  gang,
  alreadySet,
  freshInsert,
  hasHeightGauge,
  bladeFrom,
  cone,
  start,
  profile,
  axis,
}: LatheExercise): LatheSheet => ({
  ...(gang ? { gang } : {}),
  ...(start ? { start } : {}),
  ...(profile ? { profile } : {}),
  ...(axis
    ? { axis: { pinMm: axis.pinMm, set: axis.set, aboutMm: Math.round((axis.aboutMm[0] + axis.aboutMm[1]) / 2) } }
    : {}),
  ...(alreadySet.length > 0 ? { alreadySet } : {}),
  ...(freshInsert.length > 0 ? { freshInsert } : {}),
  ...(bladeFrom === "behind" ? { bladeFrom } : {}),
  ...(hasHeightGauge ? { hasHeightGauge } : {}),
  ...(cone ? { cone } : {}),
  stock: { diameterMm: stock.diameterMm, stickOutMm: stock.stickOutMm, boreMm: stock.boreMm ?? null },
  tools: tools.map(({ xMm: _x, zMm: _z, heightMm: _h, reachMm, ...tool }) => ({
    ...tool,
    ...(reachMm ? { isUnderSquare: true } : {}),
  })),
  schools,
  isSchoolPrescribed,
  targets,
  arm: arm ? { xMm: arm.xMm, zMm: arm.zMm } : null,
});

/** The hidden half of a lathe lane, from its seed. */
function drawLatheTruth(
  { control, stock, tools, faceMm, arm, alreadySet, axis }: LatheExercise,
  seed: string,
): LatheTruth {
  const between = (low: number, high: number, ...keys: (string | number)[]) =>
    tidy(drawBetween(low, high, seed, "lathe", ...keys));
  const skinMm = tidy(between(...faceMm, "face") + between(-SAW_MM, SAW_MM, "saw"));
  const isDoubted = arm?.doubtMm !== undefined && drawUnit(seed, "lathe", "arm doubt") < arm.share;
  const off = (axis: string) =>
    isDoubted && arm?.doubtMm
      ? tidy(between(...arm.doubtMm, "arm", axis) * (drawUnit(seed, "lathe", "arm sign", axis) < 0.5 ? -1 : 1))
      : 0;
  // where tools are set already, somebody has faced the part and turned a band on it; a bar is ground and only cut off
  const isHanded = alreadySet.length > 0 && control === "turret";
  const bandRadiusMm = tidy(stock.diameterMm / 2 - between(0.9, 1.4, "band"));
  return {
    skinMm,
    jawMm: tidy(skinMm - stock.stickOutMm),
    ...(isHanded
      ? { handed: { faceMm: tidy(skinMm - between(0.6, 0.9, "handed face")), bandRadiusMm, bandMm: HANDED_BAND_MM } }
      : {}),
    tools: Object.fromEntries(
      tools.map(({ number, xMm, zMm, heightMm, reachMm }) => [
        number,
        {
          kxMm: between(...xMm, "x", number),
          qMm: between(...zMm, "z", number),
          heightMm: offCenter(between(...heightMm, "height", number)),
          ...(reachMm ? { reachMm: between(...reachMm, "reach", number) } : {}),
        },
      ]),
    ),
    stock: {
      diameterMm: tidy(
        stock.diameterMm + (control === "gang" ? between(-GROUND_MM, 0, "bar") : between(-BLANK_MM, BLANK_MM, "blank")),
      ),
      runoutMm: between(...stock.runoutMm, "runout"),
      ovalMm: between(...stock.ovalMm, "oval"),
      boreMm: stock.boreMm === undefined ? null : tidy(stock.boreMm + between(0, 0.15, "bore")),
    },
    ...(axis
      ? {
          axis: {
            heightMm: between(...axis.aboutMm, "axis"),
            tailLowMm: between(...axis.tailLowMm, "tail"),
            gaugeOffMm: tidy(
              between(...axis.gaugeOffMm, "gauge") * (drawUnit(seed, "lathe", "gauge side") < 0.5 ? -1 : 1),
            ),
          },
        }
      : {}),
    arm: arm ? { xMm: tidy(arm.xMm + off("x")), zMm: tidy(arm.zMm + off("z")) } : null,
  };
}

/** The registers that hold what is true when the lane begins: of tools that are set already, and a slide's work X. */
function keptRegisters(setup: TurningSetup, { tools, handed }: LatheTruth): TurningSetup["leftovers"] {
  const rounded = (mm: number) => toMm(toCounts(mm, scales[setup.unit]), scales[setup.unit]);
  const { gang, alreadySet = [], targets } = setup.lathe;
  const [reference = 1] = targets.z;
  const set = alreadySet.flatMap((number) => {
    const { kxMm = 0, qMm = 0 } = tools[number] ?? {};
    // a library holds what is taken off the reference's readings
    if (setup.kind === "readout")
      return [
        { register: `LX${number}`, mm: rounded((tools[reference]?.kxMm ?? 0) - kxMm) },
        { register: `LZ${number}`, mm: rounded((tools[reference]?.qMm ?? 0) - qMm) },
      ];
    return [
      { register: `X${number}`, mm: rounded(kxMm - (gang?.workXMm ?? 0)) },
      ...(targets.z.length > 0 ? [{ register: `Z${number}`, mm: rounded((handed?.faceMm ?? 0) + qMm) }] : []),
    ];
  });
  return [...setup.leftovers, ...(gang ? [{ register: "G54.x", mm: gang.workXMm }] : []), ...set];
}

/** A student's own variant of a lathe's exercise; null when in this turn two of its mistakes would look alike. */
export function drawTurning(exercise: Exercise, seed: string, turn: number): TurningDraw | null {
  const { lathe } = exercise;
  if (!lathe) throw new Error(`drawTurning: ${exercise.id} is no exercise of a lathe`);
  const sheet: TurningSetup = {
    kind: lathe.control,
    ...drawSheetBase(exercise, seed, turn),
    lathe: latheSheetOf(lathe),
  };
  const facingAllowanceMm = tidy(toStep(drawBetween(...exercise.facingAllowanceMm, seed, "facing", turn), 0.1));
  const predicted = lengthSignatures({ ...sheet, facingAllowanceMm }).map(({ predictedMm }) => predictedMm);
  if (!areApart(predicted, lengthBias("paper", sheet).uMm)) return null;
  const truth = { ...drawTruthBase(sheet.gaps, seed), lathe: drawLatheTruth(lathe, seed) };
  return { kind: sheet.kind, setup: { ...sheet, leftovers: keptRegisters(sheet, truth.lathe) }, truth };
}
