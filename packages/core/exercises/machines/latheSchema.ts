import { z } from "zod";
import { gaugeSets } from "../../desk/gaugeStack";
import { tipCodes } from "../../registers";
import { latheSchools, turretToolKinds, type LatheKind } from "../schools";

const latheControls = ["turret", "readout", "gang"] as const satisfies readonly LatheKind[];

const range = z
  .tuple([z.number(), z.number()])
  .refine(([low, high]) => low <= high, "the low end must not exceed the high end");
const toolNumber = z.number().int().min(1).max(8);

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
          /** A threading tool whose Z is set by its side on the face: how far its point trails that side, mm. */
          sideMm: z.number().positive().optional(),
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
    /** Of those, tools whose insert has to be changed in their holder, and that are touched anew after it. */
    freshInsert: z.array(toolNumber).default([]),
    /** From which side a blade meets a straight edge on the face, as this shop does it. */
    bladeFrom: z.enum(["front", "behind"]).default("front"),
    /** The shop's setting gauge stands beside the lathe: a post is lowered past it, raised to touch, and locked. */
    hasHeightGauge: z.boolean().default(false),
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
    if (tools.some(({ kind, sideMm }) => sideMm !== undefined && kind !== "threading"))
      complain("only a threading tool is set by its side");
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
