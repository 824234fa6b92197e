import { z } from "zod";
import { gaugeSets, type GaugeSet } from "../desk/gaugeStack";
import { drawBetween, drawUnit } from "../random";
import { tipCodes, type TipCode } from "../registers";

const range = z
  .tuple([z.number(), z.number()])
  .refine(([low, high]) => low <= high, "the low end must not exceed the high end");
const toolNumber = z.number().int().min(1).max(8);

export const turretToolKinds = [
  "turning",
  "profiling",
  "grooving",
  "parting",
  "threading",
  "boring",
  "drill",
  "endMill",
  "neutral",
] as const;
export type TurretToolKind = (typeof turretToolKinds)[number];
/** Schools of Z on a lathe that the bench knows; `domain` of each in `registers/schools/lathe`. */
export const latheSchools = [
  "part-face",
  "setter-arm",
  "master-shift",
  "readout-library",
  "gang-bar",
  "preset",
] as const;
export type LatheSchool = (typeof latheSchools)[number];
/**
 * What carries the tools and shows where they are: a turret, a hand-wound post under a readout, a gang slide over a
 * bar.
 */
const latheControls = ["turret", "readout", "gang"] as const;
export type LatheControl = (typeof latheControls)[number];

/** A lathe of the bench: stock in the chuck, tools in the turret, and what is to be set. Diameters for X, mm. */
export const latheSchema = z
  .strictObject({
    control: z.enum(latheControls).default("turret"),
    stock: z.strictObject({
      diameterMm: z.number().positive(),
      stickOutMm: z.number().positive(),
      boreMm: z.number().positive().optional(),
      /** How far the blank stands off the axis of rotation, and how oval it is, mm. */
      runoutMm: range,
      ovalMm: range,
    }),
    tools: z
      .array(
        z.strictObject({
          number: toolNumber,
          kind: z.enum(turretToolKinds),
          insert: z.string().min(1),
          noseRadiusMm: z.number().min(0),
          tipCode: z.literal([...tipCodes]),
          /**
           * Width of a blade, or diameter of an end mill, mm; the edge of a blade nearer to the chuck is the one that
           * is set.
           */
          bladeMm: z.number().positive().optional(),
          /** The edge of a blade that finishes the part, and is set: the near one, toward the chuck, or the far one. */
          qualified: z.enum(["near", "far"]).optional(),
          /** How deep a blade can go before its holder meets the part, mm; lead angle of a turning tool, degrees. */
          deepestMm: z.number().positive().optional(),
          leadDeg: z.number().gt(0).lt(180).optional(),
          /** Machine X at which its tip lies on the axis, and how far it stands in Z beside the turret's own face. */
          xMm: range,
          zMm: range,
          /** How far the tip stands above the axis, mm; below is negative. */
          heightMm: range.default([0, 0]),
          /** How far edge or holder of a tool with an edge angle under 90° stands out before its nose in Z, mm. */
          reachMm: range.optional(),
        }),
      )
      .min(1)
      .max(8),
    /** Machine Z of the sawn face for a tool of no reach in Z. */
    faceMm: range,
    schools: z.array(z.enum(latheSchools)).min(1),
    isSchoolPrescribed: z.boolean().default(false),
    targets: z.strictObject({
      x: z.array(toolNumber),
      z: z.array(toolNumber),
      nose: z.array(toolNumber).default([]),
      height: z.array(toolNumber).default([]),
      fit: z.array(toolNumber).optional(),
    }),
    /**
     * What the part asks of a tool: the steepest slope that falls toward the chuck, degrees, and its deepest groove,
     * mm.
     */
    profile: z.strictObject({ steepestFallDeg: z.number().gt(0).lt(90), grooveMm: z.number().positive() }).optional(),
    /**
     * The height of the axis over the slide is to be found: the ground pin, the set of blocks, about how high, how low
     * the tailstock is, how far the setting gauge is off.
     */
    axis: z
      .strictObject({
        pinMm: z.number().positive(),
        set: z.enum(gaugeSets),
        aboutMm: range,
        tailLowMm: range,
        gaugeOffMm: range,
      })
      .optional(),
    /**
     * The swing-down setter arm: what its card says of its two planes; in this share of the lanes it is out of date by
     * this much.
     */
    /**
     * A gang slide: work X that all its tools share, where an approach stops over the bar, how far its tools stand out,
     * and which of them are changed in this break.
     */
    gang: z
      .strictObject({
        workXMm: z.number(),
        clearanceMm: z.number().positive(),
        overhangMm: z.number().positive(),
        changed: z.array(toolNumber).min(1),
      })
      .optional(),
    /** Where a declared position is declared: the machine figures of the start point, mm. */
    start: z.strictObject({ xMm: z.number(), zMm: z.number() }).optional(),
    /** Tools whose rows hold what is true when the lane begins. */
    alreadySet: z.array(toolNumber).default([]),
    /**
     * A cone that is turned to set a tool by: through this diameter at this Z, at this angle to the axis, so long along
     * it.
     */
    cone: z
      .strictObject({
        diameterMm: z.number().positive(),
        atMm: z.number(),
        angleDeg: z.number().gt(0).lt(90),
        lengthMm: z.number().positive(),
      })
      .optional(),
    arm: z
      .strictObject({
        xMm: z.number().positive(),
        zMm: z.number(),
        doubtMm: range.optional(),
        share: z.number().min(0).max(1).default(0),
      })
      .optional(),
  })
  .superRefine(({ tools, targets, arm, schools, control, gang, alreadySet, cone, start, profile }, context) => {
    const complain = (message: string) => context.addIssue({ code: "custom", message });
    const numbers = new Set(tools.map(({ number }) => number));
    if (numbers.size !== tools.length) complain("two tools have the same number");
    if (
      [...targets.x, ...targets.z, ...targets.nose, ...targets.height, ...(targets.fit ?? [])].some(
        (number) => !numbers.has(number),
      )
    )
      complain("a target names a tool that the turret does not have");
    if (schools.includes("setter-arm") && !arm) complain("the school of the setter arm needs an arm");
    if (
      tools.some(
        ({ kind, bladeMm }) =>
          (kind === "grooving" || kind === "parting" || kind === "endMill") !== (bladeMm !== undefined),
      )
    )
      complain("a blade has a width, an end mill a diameter, and nothing else has");
    if (
      (control === "readout") !== schools.includes("readout-library") ||
      (control === "gang") !== schools.includes("gang-bar")
    )
      complain("a readout keeps a library, a gang slide works over a bar, and nothing else does");
    if ((control === "gang") !== (gang !== undefined))
      complain("a gang slide states its clearance and its overhang, and nothing else does");
    if ((targets.fit ?? []).length > 0 !== (profile !== undefined))
      complain("whether a tool fits is asked of a profile, and of nothing else");
    if ((start !== undefined) !== schools.includes("preset"))
      complain("a declared position has a start point, and nothing else has");
    if (control === "gang" && targets.z.length > 0) complain("on a gang slide X and height are set");
    if ([...(gang?.changed ?? []), ...alreadySet].some((number) => !numbers.has(number)))
      complain("a tool that is changed or set already is not there");
    if (
      tools.some(({ reachMm, number }) => reachMm !== undefined && targets.z.includes(number)) !==
      (cone !== undefined)
    )
      complain("a tool whose edge reaches before its nose is set by a cone, and nothing else is");
  });
export type LatheExercise = z.output<typeof latheSchema>;

export interface TurretTool {
  readonly number: number;
  readonly kind: TurretToolKind;
  readonly insert: string;
  readonly noseRadiusMm: number;
  readonly tipCode: TipCode;
  readonly bladeMm?: number | undefined;
  readonly isUnderSquare?: boolean | undefined;
  readonly qualified?: "near" | "far" | undefined;
  readonly deepestMm?: number | undefined;
  readonly leadDeg?: number | undefined;
}

/** What the sheet says of a lathe: nothing here is hidden. mm, diameters for X. */
export interface LatheSheet {
  /** Absent on a turret. */
  readonly control?: Exclude<LatheControl, "turret"> | undefined;
  readonly gang?:
    | {
        readonly workXMm: number;
        readonly clearanceMm: number;
        readonly overhangMm: number;
        readonly changed: readonly number[];
      }
    | undefined;
  readonly start?: { readonly xMm: number; readonly zMm: number } | undefined;
  readonly alreadySet?: readonly number[] | undefined;
  readonly cone?:
    | { readonly diameterMm: number; readonly atMm: number; readonly angleDeg: number; readonly lengthMm: number }
    | undefined;
  readonly stock: { readonly diameterMm: number; readonly stickOutMm: number; readonly boreMm: number | null };
  readonly tools: readonly TurretTool[];
  readonly schools: readonly LatheSchool[];
  readonly isSchoolPrescribed: boolean;
  readonly targets: {
    readonly x: readonly number[];
    readonly z: readonly number[];
    readonly nose: readonly number[];
    readonly height: readonly number[];
    readonly fit?: readonly number[] | undefined;
  };
  readonly profile?: { readonly steepestFallDeg: number; readonly grooveMm: number } | undefined;
  /** The ground pin and the set of blocks, and the height by rule. */
  readonly axis?: { readonly pinMm: number; readonly set: GaugeSet; readonly aboutMm: number } | undefined;
  /**
   * The arm's card: X that a tool's tip has when it trips the arm, as a diameter, and machine Z of its plane for a tool
   * of no reach.
   */
  readonly arm: { readonly xMm: number; readonly zMm: number } | null;
}

/** What is physically so on a lathe. Machine frame, mm; X a diameter. */
export interface LatheTruth {
  /** Machine Z of the sawn face's highest place for a tool of no reach in Z, and of the chuck's jaws. */
  readonly skinMm: number;
  readonly jawMm: number;
  /**
   * Machine X at which each tip lies on the axis, its reach in Z, how far it stands above the axis, and how far edge or
   * holder stand out before its nose.
   */
  readonly tools: Readonly<
    Record<
      number,
      { readonly kxMm: number; readonly qMm: number; readonly heightMm: number; readonly reachMm?: number }
    >
  >;
  readonly stock: {
    readonly diameterMm: number;
    readonly runoutMm: number;
    readonly ovalMm: number;
    readonly boreMm: number | null;
  };
  readonly arm: { readonly xMm: number; readonly zMm: number } | null;
  /**
   * Height of the axis over the slide, how low the tailstock center is by its wear, and by how much the setting gauge
   * reads too high.
   */
  readonly axis?: { readonly heightMm: number; readonly tailLowMm: number; readonly gaugeOffMm: number };
  /**
   * The part as it was handed over, faced and with a band turned: where its face is, and the band's radius and length.
   */
  readonly handed?: { readonly faceMm: number; readonly bandRadiusMm: number; readonly bandMm: number };
}

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

const tidy = (mm: number): number => Math.round(mm * 1e4) / 1e4 || 0;
/** A height so small that no pip could be told is none. */
const NO_PIP_MM = 0.06;
const offCenter = (mm: number): number => (mm !== 0 && Math.abs(mm) < NO_PIP_MM ? Math.sign(mm) * NO_PIP_MM : mm);
const SAW_MM = 0.4;
const BLANK_MM = 0.3;
/** A ground bar is so much smaller at most than its name, mm. */
const GROUND_MM = 0.018;
/** Length of the band that comes turned where tools are set already, mm. */
const HANDED_BAND_MM = 22;

export const latheSheetOf = ({
  control,
  stock,
  tools,
  schools,
  isSchoolPrescribed,
  targets,
  arm,
  gang,
  alreadySet,
  cone,
  start,
  profile,
  axis,
}: LatheExercise): LatheSheet => ({
  ...(control === "turret" ? {} : { control }),
  ...(gang ? { gang } : {}),
  ...(start ? { start } : {}),
  ...(profile ? { profile } : {}),
  ...(axis
    ? { axis: { pinMm: axis.pinMm, set: axis.set, aboutMm: Math.round((axis.aboutMm[0] + axis.aboutMm[1]) / 2) } }
    : {}),
  ...(alreadySet.length > 0 ? { alreadySet } : {}),
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
export function drawLathe(
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
