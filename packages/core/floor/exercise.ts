import { z } from "zod";
import { methods, type Figures } from "../diagnosis/catalog";
import { latheFloorSchools, latheSchoolFacts } from "../exercises/schools";
import { countsFromMm } from "../units";

/** How tools and work Z are set, by machine; it decides which registers the lane asks for. */
export const floorSchools = {
  mill: ["part-touch", "plane-lift", "gauge-line"],
  lathe: [...latheFloorSchools, "readout"],
} as const;
const school = z.enum([...floorSchools.mill, ...floorSchools.lathe]);
export type FloorSchool = z.infer<typeof school>;
/** Schools in which work Z holds something of its own. */
const WITH_WORK_Z = new Set<FloorSchool>([
  "plane-lift",
  "gauge-line",
  ...latheFloorSchools.filter((one) => latheSchoolFacts[one].rowsFrom !== "face"),
]);

/** Where work X and Y of a mill are zero: a corner found by its two edges, or a middle between what is touched. */
export const floorCorners = ["front left", "front right", "back left", "back right"] as const;
/** The swept ones are one reading: where the indicator stands still. The others are touched from both sides. */
export const floorMiddles = ["middle", "bore", "boss", "swept bore", "swept boss"] as const;
const MIDDLES: Record<(typeof floorMiddles)[number], { words: string; isSwept: boolean }> = {
  middle: { words: "middle of the part, both faces touched", isSwept: false },
  bore: { words: "middle of the bore, both walls touched", isSwept: false },
  boss: { words: "middle of the boss, both sides touched", isSwept: false },
  "swept bore": { words: "middle of the bore, swept by indicator", isSwept: true },
  "swept boss": { words: "middle of the boss, swept by indicator", isSwept: true },
};
type FloorDatum = (typeof floorCorners)[number] | (typeof floorMiddles)[number];
/** Whether zero is a corner, so that each of its edges may stand at another place than zero. */
export const isFloorCorner = (datum: FloorDatum): datum is (typeof floorCorners)[number] =>
  (floorCorners as readonly string[]).includes(datum);
/** A datum as a sheet names it. */
export const floorDatumWords = (datum: FloorDatum): string =>
  isFloorCorner(datum) ? `${datum} corner` : MIDDLES[datum].words;

const figuresSchema = z.custom<Figures>(
  (value) => typeof value === "object" && value !== null && !Array.isArray(value),
);

const registerSchema = z.strictObject({
  id: z.string().regex(/^[A-Za-z0-9.]{1,12}$/),
  label: z.string().min(1).max(60),
  method: z.enum(methods),
  toleranceMm: z.number().positive(),
  uMm: z.number().positive(),
  figures: figuresSchema,
  /** How often it is read where the exercise does not say it for all: a middle is touched from both sides. */
  readings: z.number().int().min(1).max(10).optional(),
});
export type FloorRegister = z.infer<typeof registerSchema>;

const machineNumber = z.string().trim().max(12);

/**
 * One exercise for the shop: what is to be set, how well, with what. Lengths in mm; `unit` is how they are typed and
 * shown.
 */
export const floorExerciseSchema = z.strictObject({
  title: z.string().trim().min(3).max(80),
  machine: z.enum(["mill", "lathe"]),
  /** As it stands on the machine. */
  machineNumber: machineNumber.optional(),
  unit: z.enum(["mm", "inch"]),
  datum: z.string().max(60),
  school,
  readingsNeeded: z.number().int().min(1).max(5),
  registers: z.array(registerSchema).min(1).max(24),
});
export type FloorExercise = z.infer<typeof floorExerciseSchema>;

/** A nose radius is read off the insert and a tip code off the picture: there is no reading and no sum to write. */
export const isReadOff = ({ method }: Pick<FloorRegister, "method">): boolean =>
  method === "lathe-nose" || method === "lathe-tip";

/** How many readings a register wants; what is read off an insert or a picture wants none. */
export function readingsWanted(
  { readingsNeeded }: Pick<FloorExercise, "readingsNeeded">,
  register: Pick<FloorRegister, "method" | "readings">,
): number {
  return isReadOff(register) ? 0 : (register.readings ?? readingsNeeded);
}

/** What an instructor fills in; everything else follows from it. */
export const templateSchema = z
  .strictObject({
    title: z.string().trim().min(3).max(80),
    machine: z.enum(["mill", "lathe"]),
    machineNumber: machineNumber.optional(),
    unit: z.enum(["mm", "inch"]),
    datum: z.enum([...floorCorners, ...floorMiddles]),
    school,
    asksNose: z.boolean(),
    tools: z.number().int().min(1).max(8),
    readingsNeeded: z.number().int().min(1).max(5),
    tipDiameterMm: z.number().positive().max(50),
    edgeXMm: z.number().min(-500).max(500),
    edgeYMm: z.number().min(-500).max(500),
    paperMm: z.number().min(0).max(100),
    skinMm: z.number().min(-500).max(500),
    toleranceXyMm: z.number().positive().max(5),
    toleranceZMm: z.number().positive().max(5),
  })
  .refine(
    (t) => (floorSchools[t.machine] as readonly string[]).includes(t.school),
    "that school is of the other machine",
  );
export type FloorTemplate = z.infer<typeof templateSchema>;

/** Standard uncertainty of a careful touch on the floor, mm: tip or paper, scatter, and the last click together. */
const TOUCH_U_MM = { edge: 0.004, paper: 0.006 } as const;

/**
 * What lies between a tool's reading and its row: on the part paper and skin, on a plane the paper; a setter reads the
 * length itself.
 */
function lengthFigures({ school: by, paperMm, skinMm }: FloorTemplate): Figures {
  if (by === "part-touch") return { paper: paperMm, facing: skinMm };
  return by === "plane-lift" ? { paper: paperMm } : {};
}

/** The side from which an edge of a corner is touched: +1 moving plus onto it. */
const APPROACH = {
  x: (corner: string): 1 | -1 => (corner.endsWith("left") ? 1 : -1),
  y: (corner: string): 1 | -1 => (corner.startsWith("front") ? 1 : -1),
};

/** How work X or Y of a mill is found: by an edge, by two touches that a middle lies between, or swept. */
function zeroed(
  { datum, tipDiameterMm, edgeXMm, edgeYMm, readingsNeeded }: FloorTemplate,
  axis: "x" | "y",
): Pick<FloorRegister, "method" | "figures" | "readings"> {
  const tipRadius = tipDiameterMm / 2;
  if (isFloorCorner(datum)) {
    const edgeWork = axis === "x" ? edgeXMm : edgeYMm;
    return { method: "mill-edge", figures: { approach: APPROACH[axis](datum), tipRadius, edgeWork } };
  }
  return MIDDLES[datum].isSwept
    ? { method: "mill-center", figures: {} }
    : { method: "mill-center", figures: { tipRadius }, readings: 2 * readingsNeeded };
}

/**
 * The exercise that a template describes. Mill: work X and Y from a corner or a middle, a length for each tool. Lathe:
 * X and Z of each tool.
 */
export function floorFromTemplate(t: FloorTemplate): FloorExercise {
  const { title, machine, unit, readingsNeeded } = t;
  const number = t.machineNumber ? { machineNumber: t.machineNumber } : {};
  const tools = Array.from({ length: t.tools }, (_, index) => index + 1);
  const z = { toleranceMm: t.toleranceZMm, uMm: TOUCH_U_MM.paper };
  const xy = { toleranceMm: t.toleranceXyMm, uMm: TOUCH_U_MM.edge };
  const workZ: FloorRegister[] = WITH_WORK_Z.has(t.school)
    ? [
        {
          id: "G54.z",
          label: "G54 Z",
          method: machine === "mill" ? "mill-length" : "lathe-z",
          ...z,
          figures: machine === "mill" ? { paper: t.paperMm, facing: t.skinMm } : { block: t.paperMm, facing: t.skinMm },
        },
      ]
    : [];
  if (machine === "lathe") {
    // in a readout's library the reference is tool 1, which holds zero by itself
    const isLibrary = t.school === "readout";
    return {
      title,
      machine,
      ...number,
      unit,
      readingsNeeded,
      school: t.school,
      datum: "axis and front face",
      registers: [
        ...workZ,
        ...(isLibrary ? tools.map((tool) => tool + 1) : tools).flatMap((tool): FloorRegister[] => [
          {
            id: `T${tool}.x`,
            label: `tool ${tool} X`,
            method: isLibrary ? "lathe-readout" : "lathe-x",
            ...xy,
            figures: isLibrary ? { paper: t.paperMm } : { paper: t.paperMm, outside: 1 },
          },
          {
            id: `T${tool}.z`,
            label: `tool ${tool} Z`,
            method: isLibrary ? "lathe-readout" : "lathe-z",
            ...z,
            figures: isLibrary ? { paper: t.paperMm } : { block: t.paperMm, facing: t.skinMm },
          },
          ...(t.asksNose
            ? [
                {
                  id: `T${tool}.r`,
                  label: `tool ${tool} nose radius`,
                  method: "lathe-nose" as const,
                  toleranceMm: 0.05,
                  uMm: 0.002,
                  figures: {},
                },
                {
                  id: `T${tool}.tip`,
                  label: `tool ${tool} tip code`,
                  method: "lathe-tip" as const,
                  toleranceMm: 0.5,
                  uMm: 0.01,
                  figures: {},
                },
              ]
            : []),
        ]),
      ],
    };
  }
  return {
    title,
    machine,
    ...number,
    unit,
    readingsNeeded,
    school: t.school,
    datum: floorDatumWords(t.datum),
    registers: [
      ...(["x", "y"] as const).map((axis): FloorRegister => ({
        id: `G54.${axis}`,
        label: `G54 ${axis.toUpperCase()}`,
        ...xy,
        ...zeroed(t, axis),
      })),
      ...workZ,
      ...tools.map((tool): FloorRegister => ({
        id: `H${tool}`,
        label: `H${tool} length`,
        method: "mill-length",
        ...z,
        figures: lengthFigures(t),
      })),
    ],
  };
}

/**
 * Registers whose tolerance is narrower than three standard uncertainties of a careful touch, mm; empty when it is
 * fair.
 */
export function floorFairness({
  registers,
}: Pick<FloorExercise, "registers">): { label: string; toleranceMm: number; leastFairMm: number }[] {
  return registers.flatMap(({ label, method, toleranceMm, uMm, figures }) => {
    // paper is felt before it is one paper thick: a mean of 0.075 t low
    const biasMm = method === "mill-length" ? 0.075 * (figures.paper ?? 0) : method === "mill-edge" ? 0.005 : 0;
    const leastFairMm = countsFromMm(biasMm + 3 * uMm) / 1000;
    return toleranceMm < leastFairMm ? [{ label, toleranceMm, leastFairMm }] : [];
  });
}
