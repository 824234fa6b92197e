import { z } from "zod";
import { gapKinds, instrumentNames, toolKinds, MOST_TOOLS } from "../instruments";
import { isRegisterId, type RegisterId } from "../registers";
import { latheSchema } from "./machines/latheSchema";
import {
  doubtful,
  faultKinds,
  keptChangeKinds,
  millLengthSchools,
  featureReads,
  featureShapes,
  featureSides,
  programFaultKinds,
  provingSchools,
  setupTasks,
  type Machine,
} from "./schools";
import { upgradeExercise } from "./upgrade";

const range = z
  .tuple([z.number(), z.number()])
  .refine(([low, high]) => low <= high, "the low end must not exceed the high end");
const approach = z.union([z.literal(1), z.literal(-1)]);
const choices = z.tuple([z.number().positive()], z.number().positive());
const triple = z.tuple([z.number().positive(), z.number().positive(), z.number().positive()]);
const register = z.custom<RegisterId>(
  (value) => typeof value === "string" && isRegisterId(value),
  "not a register of this machine",
);
const toolNumberSchema = z.number().int().min(1).max(MOST_TOOLS);

/** Which way an edge is met, and the work coordinate of that edge (drawn from a range in steps of 0.5 mm). */
const edge = z.strictObject({ approach, edgeWorkMm: range });

/** The schools of tool length that the mill bench knows; `domain` of each in `registers/schools`. */

/** What can be wrong with a setup that was handed over; `exercises/handover` seeds them. */
/** Those of them that a lathe's setup can have. */
const TURNING_FAULTS = new Set<string>([
  "neighborRow",
  "staleWear",
  "feelerOnce",
  "bladeEdge",
  "oldWorkZ",
  "facedAgain",
]);

const settings = z.strictObject({
  lengthCapture: z.enum(["machine", "counter", "display"]).default("machine"),
  diameterMode: z.enum(["diameter", "radius"]).default("diameter"),
  /** Whether a reset drops the active length. */
  resetDropsLength: z.boolean().default(true),
  /** Whether a changed length row acts at once, or when it is called again. */
  rowActs: z.enum(["atOnce", "whenCalled"]).default("atOnce"),
  /** What happens when the spindle is started with taster, probe or indicator in it. */
  spindleGuard: z.enum(["refuses", "destroys"]).default("refuses"),
  /** Whether setting a length geometry by capture zeroes that row's wear. */
  captureClearsWear: z.boolean().default(false),
  /** Whether a cycle of the probe may write what it found into a work offset. */
  probeWrites: z.boolean().default(false),
  /** Whether the control keeps points of contacts made by hand, and sets edge or middle from them. */
  keepsPoints: z.boolean().default(false),
});

/** How a shop touches: whether one click is taken back at a contact, and whether the paper is counted. */
const touching = z.strictObject({
  clickBack: z.enum(["never", "free", "always"]).default("never"),
  paper: z.enum(["counted", "free", "ignored"]).default("counted"),
});
export type Touching = z.output<typeof touching>;

/** One program fault: what stands in the program instead of what should, line by line, whole lines. */
const programFault = z.strictObject({
  kind: z.enum(programFaultKinds),
  /** The tool that it is about. */
  tool: toolNumberSchema.optional(),
  lines: z.array(z.strictObject({ right: z.string().min(1), wrong: z.string().min(1) })).min(1),
});

/** The program of a part: the shop's store, the one that belongs to it, what may be wrong in it, how it is proved. */
const programmed = z
  .strictObject({
    number: z.number().int().min(1).max(9999),
    store: z
      .array(
        z.strictObject({
          number: z.number().int().min(1).max(9999),
          title: z.string().min(1),
          text: z.string().min(1).max(60_000),
        }),
      )
      .min(1),
    /** What each tool is to do by the drawing, and how deep that goes, in part coordinates. */
    operations: z
      .array(
        z.strictObject({
          tool: toolNumberSchema,
          what: z.string().min(1),
          deepestMm: z.number(),
          /** 0 of what must not turn. */
          rpm: z.number().int().min(0),
        }),
      )
      .min(1),
    /**
     * Features of the part as the drawing has them: looked along from a place in the room that is cut, in part
     * coordinates (a lathe: diameter and Z); a width and a middle both ways.
     */
    features: z
      .array(
        z.strictObject({
          name: z.string().min(1),
          reads: z.enum(featureReads),
          /** What it is to an instrument; a step where it is left out. */
          shape: z.enum(featureShapes).optional(),
          from: z.array(z.number()).min(2).max(3),
          toward: z.enum(featureSides),
          /** Of a land: a place in the room on its other side. */
          across: z.array(z.number()).min(2).max(3).optional(),
          nominalMm: z.number(),
          /** Limits about the nominal size. */
          toleranceMm: z.tuple([z.number().max(0), z.number().min(0)]),
        }),
      )
      .default([]),
    /** Blanks for parts that are cut, measured and corrected; left out where nothing is measured. */
    blanks: z.number().int().min(1).max(9).optional(),
    /** What cutting does that no setting could know, mm: drawn for each lane; left out where none of it is wanted. */
    cutting: z
      .strictObject({
        springPerMm: z.tuple([z.number().min(0), z.number().min(0)]),
        springCapMm: z.number().min(0).max(1),
        wearMm: z.tuple([z.number().min(0), z.number().min(0)]),
        warmMm: z.tuple([z.number(), z.number()]),
      })
      .optional(),
    /**
     * Of a program that gauges, on a mill: the pocket in which the probe stands, whose row holds its length, and the
     * number of the way whose tool and stock are to be meant.
     */
    gauging: z.strictObject({ pocket: toolNumberSchema, way: z.number().int().positive() }).optional(),
    faults: z.array(programFault).default([]),
    soundShare: z.number().min(0).max(1).default(1),
    /** An instructor signs before the first cut of a graded lane. */
    signOff: z.boolean().default(false),
    /** Schools of proving that are asked for before it is run whole. */
    proving: z.array(z.enum(provingSchools)).default([]),
  })
  .superRefine(({ number, store, faults, soundShare, features, blanks }, context) => {
    const complain = (message: string) => context.addIssue({ code: "custom", message });
    const own = store.filter((one) => one.number === number);
    if (own.length !== 1) complain("the program of the part stands in the store once");
    if (new Set(store.map((one) => one.number)).size !== store.length) complain("two programs have the same number");
    const lines = own[0]?.text.split("\n").map((line) => line.trim()) ?? [];
    if (faults.some((fault) => fault.lines.some(({ right }) => !lines.includes(right.trim()))))
      complain("a fault names a line that the program does not have");
    if (features.some(({ reads, across }) => (reads === "land") !== (across !== undefined)))
      complain("a land, and nothing else, is looked along from both its sides");
    if (new Set(features.map(({ name }) => name)).size !== features.length) complain("two features have the same name");
    if (blanks !== undefined && features.length === 0) complain("blanks are for parts with features to be measured");
    if (soundShare < 1 && faults.length === 0) complain("a share of the lanes has a fault, and no fault is named");
  });

/** One exercise version: scene, schools and what varies by student. Versions in use never change. */
const currentSchema = z
  .strictObject({
    format: z.literal(2),
    id: z.string().min(1),
    version: z.number().int().positive(),
    title: z.string().min(1),
    story: z.string().min(1),
    /** What the coach says about this exercise, beyond the steps. */
    advice: z.string().default(""),
    unit: z.enum(["mm", "inch"]).default("mm"),
    part: z.strictObject({ name: z.string().min(1), sizeMm: triple }),
    fixture: z.strictObject({
      kind: z.enum(["vise", "plate", "chuck"]),
      fixedJaw: z.enum(["front", "back"]).default("front"),
      proudMm: z.number().positive(),
      hasStop: z.boolean().default(false),
    }),
    datum: z.discriminatedUnion("kind", [
      z.strictObject({ kind: z.literal("corner"), edges: z.strictObject({ x: edge, y: edge }) }),
      z.strictObject({ kind: z.literal("middle") }),
      z.strictObject({ kind: z.literal("feature") }),
      z.strictObject({ kind: z.literal("spindle") }),
    ]),
    /** A turret lathe instead of a mill; the tools then stand here. */
    lathe: latheSchema.optional(),
    feature: z
      .strictObject({
        kind: z.enum(["bore", "boss", "pocket"]),
        /** Diameter of a bore or boss; of a pocket its size along X, with `acrossYMm` the other. */
        diameterMm: z.number().positive(),
        acrossYMm: z.number().positive().optional(),
        heightMm: z.number().positive(),
        atMm: z.tuple([z.number(), z.number()]),
      })
      .optional(),
    /** How far the blank is turned when the lane begins, degrees. */
    skewDeg: range.default([0, 0]),
    /** The touched skin stands this far above the datum plane. */
    facingAllowanceMm: range,
    datumMm: z.strictObject({ x: range, y: range, z: range }),
    tipDiameterMm: choices.default([10]),
    paperMm: choices,
    /** Feelers, blocks and pins in the drawer besides paper. */
    gaps: z
      .array(
        z.strictObject({
          id: z.string().regex(/^[a-z][a-z0-9]*$/),
          kind: z.enum(gapKinds),
          nominalMm: z.number().positive(),
        }),
      )
      .default([]),
    tools: z
      .array(
        z.strictObject({
          number: toolNumberSchema,
          kind: z.enum(toolKinds),
          diameterMm: z.number().positive(),
          lengthMm: range.default([74, 86]),
          workingRpm: z.number().int().positive().default(2000),
        }),
      )
      .max(MOST_TOOLS)
      .default([]),
    instruments: z.array(z.enum(instrumentNames)).min(1),
    lampGaugeMm: z.number().positive().default(50),
    /** One calibration that may be wrong: in this share of the lanes, by this much. */
    doubt: z.strictObject({ of: z.enum(doubtful), byMm: range, share: z.number().min(0).max(1) }).optional(),
    /** Ring, known block and known lengths are at hand, by which probe and setter are calibrated. */
    hasMasters: z.boolean().default(false),
    rememberedRpm: z.number().int().positive(),
    /** What the job before left in the registers. */
    leftovers: z.array(z.strictObject({ register, mm: range })).default([]),
    /** The part before, whose setup is kept: it was longer, wider and taller than this one by so much. */
    partBefore: z.strictObject({ byMm: z.tuple([z.number(), z.number(), z.number()]) }).optional(),
    /**
     * Someone else's setup: registers and ledger come set from the gauge line, with so many of these faults in them; a
     * share is sound. `account` is what whoever hands it over says of it.
     */
    handover: z
      .strictObject({
        from: z.string().min(1),
        account: z.string().min(1),
        faults: z.array(z.enum(faultKinds)).min(1),
        count: z.tuple([z.number().int().min(1), z.number().int().max(3)]),
        soundShare: z.number().min(0).max(1),
      })
      .optional(),
    /** A proven setup of this part is kept: which things may have changed since, and so many registers at most. */
    kept: z
      .strictObject({
        initials: z.string().min(1).max(4),
        daysAgo: z.tuple([z.number().int().min(1), z.number().int().max(60)]),
        changes: z.array(z.enum(keptChangeKinds)).min(1),
        count: z.tuple([z.number().int().min(0), z.number().int().max(3)]),
        mostRegisters: z.number().int().min(1).max(8),
        /** Parts that were cut since with the same edges, of which each wore them by the program's figure. */
        partsSince: z.tuple([z.number().int().min(0), z.number().int().max(200)]).optional(),
      })
      .optional(),
    settings: settings.prefault({}),
    touching: touching.prefault({}),
    lengthSchools: z.array(z.enum(millLengthSchools)).default([]),
    /** A prescribed school is graded register by register; a free one by what the registers add up to. */
    isSchoolPrescribed: z.boolean().default(false),
    diameterSchool: z.enum(["control-comp", "wear-comp"]).optional(),
    targets: z.strictObject({
      xy: z.boolean().default(true),
      rotation: z.boolean().default(false),
      lengths: z.array(toolNumberSchema).default([]),
      diameters: z.array(toolNumberSchema).default([]),
    }),
    /** Lengths are wanted as they are at working speed, with the spindle grown. */
    isAtSpeed: z.boolean().default(false),
    /** Two tools stand in each other's pockets. */
    swapsPockets: z.boolean().default(false),
    tasks: z.array(z.enum(setupTasks)).default([]),
    program: programmed.optional(),
  })
  .superRefine((exercise, context) => {
    const complain = (message: string) => context.addIssue({ code: "custom", message });
    const isLathe = exercise.lathe !== undefined;
    if (isLathe !== (exercise.fixture.kind === "chuck") || isLathe !== (exercise.datum.kind === "spindle"))
      complain("a lathe has a chuck and its datum on the spindle's axis, and nothing else has");
    if (isLathe ? exercise.tools.length > 0 || exercise.targets.xy : exercise.tools.length === 0)
      complain("a mill has at least one tool; a lathe's tools and targets stand under lathe");
    const numbers = new Set(exercise.tools.map(({ number }) => number));
    if (numbers.size !== exercise.tools.length) complain("two tools have the same number");
    if ([...exercise.targets.lengths, ...exercise.targets.diameters].some((number) => !numbers.has(number)))
      complain("a target names a tool that the exercise does not have");
    if (exercise.targets.lengths.length > 0 && exercise.lengthSchools.length === 0)
      complain("name at least one school of length");
    if (exercise.isSchoolPrescribed && exercise.lengthSchools.length !== 1)
      complain("a prescribed school is exactly one");
    if (exercise.targets.diameters.length > 0 && !exercise.diameterSchool) complain("name the school of diameters");
    if (exercise.handover && exercise.lathe) {
      const { schools, targets: wanted } = exercise.lathe;
      if (
        schools.join() !== "part-face" ||
        wanted.x.length < 2 ||
        wanted.x.join() !== wanted.z.join() ||
        wanted.nose.length + wanted.height.length > 0
      )
        complain("a lathe that is handed over has X and Z of two tools or more set at the part's face");
      if (exercise.handover.faults.some((fault) => !TURNING_FAULTS.has(fault)))
        complain("a lathe's setup cannot have that fault");
    } else if (exercise.handover) {
      if (
        exercise.handover.faults.some((fault) => ["feelerOnce", "bladeEdge", "oldWorkZ", "facedAgain"].includes(fault))
      )
        complain("a mill's setup cannot have that fault");
      const isFitting =
        exercise.datum.kind === "corner" &&
        exercise.targets.xy &&
        exercise.targets.lengths.length > 1 &&
        !exercise.isSchoolPrescribed &&
        exercise.lengthSchools.join() === "gauge-line";
      if (!isFitting)
        complain(
          "a setup that is handed over has its datum on a corner and two tools or more set from the gauge line, marked by their sums",
        );
      if (exercise.handover.faults.includes("setterMoved") && !exercise.instruments.includes("plungerSetter"))
        complain("a setter that moved needs a plunger setter");
      if (
        exercise.handover.faults.includes("offStop") &&
        !(exercise.tasks.includes("pushToStop") && exercise.fixture.hasStop)
      )
        complain("a blank off the stop needs a stop and the task of pushing it there");
    }
    if (exercise.program?.gauging && (exercise.lathe || !exercise.instruments.includes("probe")))
      complain("a program gauges on a mill, with a probe");
    if (exercise.program?.gauging && exercise.tools.some(({ number }) => number === exercise.program?.gauging?.pocket))
      complain("the probe stands in a pocket of its own");
    if (exercise.kept) {
      const isFitting =
        exercise.datum.kind === "corner" &&
        exercise.lengthSchools.join() === "gauge-line" &&
        exercise.program !== undefined &&
        !exercise.handover &&
        !exercise.partBefore;
      if (!isFitting)
        complain(
          "a kept setup has its datum on a corner, its tools set from the gauge line, and a program of the part",
        );
    }
    if (exercise.kept?.partsSince && !exercise.program?.cutting)
      complain("parts that were cut since a setup was kept need the figure by which an edge wears");
    if (exercise.program && exercise.handover) complain("a setup that is handed over is not run yet");
    if (exercise.program && exercise.lathe && exercise.lathe.control !== "turret")
      complain("programs are run on a mill or a turret lathe");
    if (exercise.datum.kind === "feature" && !exercise.feature) complain("a datum on a feature needs the feature");
  });

/** Reads an exercise of this or an earlier format. */
export const exerciseSchema = z.preprocess(upgradeExercise, currentSchema);
export type Exercise = z.output<typeof currentSchema>;
/** The machine that an exercise is worked on. */
export const machineOf = ({ lathe }: Pick<Exercise, "lathe">): Machine => lathe?.control ?? "mill";

/** Bounds of what is marked by: within them no total is anything but a number, mm and points. */
const tolerance = z.number().min(0.0001).max(100);
const weight = z.number().min(0).max(1000);

/** What stands over points: without it a lane is not passed, and no more than so much of a hundred counts. */
export const mustHavesSchema = z.strictObject({
  /** The program as it was handed in strikes nothing with these registers. */
  runsClear: z.boolean().default(false),
  /** A check was made with its expectation said first, and judged as it looked. */
  checked: z.boolean().default(false),
  /** No tool goes deeper than it is told by more than `deepestMm`: it would strike without any program too. */
  notDeep: z.boolean().default(false),
  deepestMm: z.number().positive().max(100).default(1),
  /** No value has a sign turned. */
  signsRight: z.boolean().default(false),
  /** No hand came near what turned. */
  handsClear: z.boolean().default(false),
  /** An instructor signed for the first cut, where the exercise has it signed for. */
  signed: z.boolean().default(false),
  capPercent: z.number().min(0).max(100).default(40),
});
export type MustHaves = z.output<typeof mustHavesSchema>;

/** Tolerances and weights: append-only revisions beside the exercise version; a ruling cites both. */
export const markingSchema = z.strictObject({
  revision: z.number().int().positive(),
  /**
   * x, y, z for work offsets and lengths; d for diameter registers; `rotation` is what the far end of the part may miss
   * by.
   */
  tolerancesMm: z.strictObject({
    x: tolerance,
    y: tolerance,
    z: tolerance,
    d: tolerance.default(0.02),
    rotation: tolerance.default(0.03),
  }),
  /** What an incident costs: to people, spindle and machine, or to tool and stock. */
  severity: z
    .strictObject({
      grave: z.enum(["costs", "failsSafety", "failsLane"]).default("failsLane"),
      tool: z.enum(["costs", "failsSafety", "failsLane"]).default("costs"),
    })
    .prefault({}),
  mustHaves: mustHavesSchema.optional(),
  /** A value this many tolerances off earns nothing. */
  zeroAtMultiple: z.number().gt(1).max(1000),
  weights: z
    .strictObject({
      values: weight,
      working: weight.default(0),
      method: weight,
      safety: weight,
      proving: weight.default(0),
    })
    .refine((weights) => Object.values(weights).some((one) => one > 0), "at least one strand must weigh something"),
});
export type Marking = z.output<typeof markingSchema>;

/** A marking, with what a class asks for itself over points in place of the exercise's; null where it does not. */
export const askedHere = (marking: Marking, own: MustHaves | null): Marking =>
  own === null ? marking : { ...marking, mustHaves: own };
