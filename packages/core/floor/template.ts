import { z } from "zod";
import type { Figures } from "../diagnosis/catalog";
import { latheFloorSchools, latheSchoolFacts } from "../exercises/schools";
import {
  drawingNumber,
  floorCorners,
  floorDatumWords,
  floorMiddles,
  floorSchool,
  floorSchools,
  isFloorCorner,
  machineNumber,
  MIDDLES,
  type FloorExercise,
  type FloorRegister,
  type FloorSchool,
} from "./exercise";

/** Schools in which work Z holds something of its own. */
const WITH_WORK_Z = new Set<FloorSchool>([
  "plane-lift",
  "gauge-line",
  "master",
  ...latheFloorSchools.filter((one) => latheSchoolFacts[one].rowsFrom !== "face"),
]);
/** Schools in which the first tool is what the others are counted from, and holds zero by itself. */
const BY_FIRST_TOOL = new Set<FloorSchool>(["master", "readout"]);
/** A work offset for each tool, where lengths stay zero. */
const WORK_OFFSETS = ["G54", "G55", "G56", "G57", "G58", "G59"] as const;

/** What a diameter register of a mill holds: the cutter as measured, or how much it differs from its nominal size. */
export const floorDiameters = ["none", "measured", "difference"] as const;

/** What an instructor fills in; everything else follows from it. Lengths in mm. */
export const templateSchema = z
  .strictObject({
    title: z.string().trim().min(3).max(80),
    machine: z.enum(["mill", "lathe"]),
    machineNumber: machineNumber.optional(),
    drawingNumber: drawingNumber.optional(),
    unit: z.enum(["mm", "inch"]),
    datum: z.enum([...floorCorners, ...floorMiddles]),
    school: floorSchool,
    asksNose: z.boolean(),
    tools: z.number().int().min(1).max(8),
    /** Names of the tools in the order of their numbers; empty where a number is enough. */
    toolNames: z.array(z.string().trim().max(24)).max(9).optional(),
    diameters: z.enum(floorDiameters).optional(),
    /** Nominal diameter of each tool whose diameter is asked for; null where it is not. */
    nominalDiametersMm: z.array(z.number().positive().max(500).nullable()).max(9).optional(),
    readingsNeeded: z.number().int().min(1).max(5),
    tipDiameterMm: z.number().positive().max(50),
    edgeXMm: z.number().min(-500).max(500),
    edgeYMm: z.number().min(-500).max(500),
    /** Paper or feeler on a top or on a diameter; zero where a diameter is skimmed and measured. */
    paperMm: z.number().min(0).max(100),
    /** Block or pin: under a tool, or before the face of a lathe. */
    blockMm: z.number().min(0).max(100),
    skinMm: z.number().min(-500).max(500),
    toleranceXyMm: z.number().positive().max(5),
    toleranceZMm: z.number().positive().max(5),
  })
  .refine(
    (t) => (floorSchools[t.machine] as readonly string[]).includes(t.school),
    "that school is of the other machine",
  )
  .refine(
    (t) => t.school !== "offset-per-tool" || t.tools <= WORK_OFFSETS.length,
    `there are ${WORK_OFFSETS.length} work offsets, one for each tool`,
  )
  .refine(
    (t) => (t.diameters ?? "none") === "none" || (t.nominalDiametersMm ?? []).some((mm) => mm !== null),
    "a diameter is asked for of no tool",
  );
export type FloorTemplate = z.infer<typeof templateSchema>;

/** Which figures of the sheet a school of a machine has: no other one is asked for, and none is two things. */
export function templateFigures({
  machine,
  school,
}: Pick<FloorTemplate, "machine" | "school">): readonly ("paper" | "block" | "skin")[] {
  if (school === "readout") return ["paper"];
  if (machine === "lathe") return ["paper", "block", "skin"];
  return school === "block-in-wear" ? ["block", "skin"] : ["paper", "skin"];
}
/** Whether the others are counted from the first tool, which is not set then. */
export const isByFirstTool = (school: FloorSchool): boolean => BY_FIRST_TOOL.has(school);

/** Standard uncertainty of a careful touch on the floor, mm: tip or paper, scatter and the last click; a micrometer. */
const TOUCH_U_MM = { edge: 0.004, paper: 0.006, micrometer: 0.002 } as const;

/**
 * What lies between a tool's reading and its row, by school: on the part paper and skin, on a plane the paper, on a
 * block the block; between master and others nothing is left, and a setter reads the length itself.
 */
function lengthFigures({ school, paperMm, blockMm, skinMm }: FloorTemplate): Figures {
  if (school === "part-touch" || school === "offset-per-tool") return { paper: paperMm, facing: skinMm };
  if (school === "plane-lift") return { paper: paperMm };
  return school === "block-in-wear" ? { block: blockMm, facing: skinMm } : {};
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

interface Given {
  readonly t: FloorTemplate;
  /** Numbers of the tools that are set. */
  readonly tools: readonly number[];
  readonly xy: Pick<FloorRegister, "toleranceMm" | "uMm">;
  readonly z: Pick<FloorRegister, "toleranceMm" | "uMm">;
}

/** A register's label, with what its tool is called. */
function labeled({ toolNames = [] }: FloorTemplate, tool: number, label: string): string {
  const name = toolNames[tool - 1] ?? "";
  return name === "" ? label : `${label} (${name})`;
}

/** Lengths of a mill, by school: rows, or a work offset for each tool. */
function millLengths({ t, tools, z: held }: Given): FloorRegister[] {
  const figures = lengthFigures(t);
  if (t.school === "offset-per-tool")
    return tools.map((tool, at) => {
      const offset = WORK_OFFSETS[at] ?? "G54";
      const label = labeled(t, tool, `${offset} Z, tool ${tool}`);
      return { id: `${offset}.z`, label, method: "mill-length", ...held, figures };
    });
  const isWithWear = t.school === "block-in-wear";
  return tools.map((tool) => ({
    id: `H${tool}`,
    label: labeled(t, tool, `H${tool} ${isWithWear ? "length with its wear" : "length"}`),
    method: "mill-length",
    ...held,
    figures,
    ...(isWithWear ? { holds: "withWear" as const } : {}),
  }));
}

/** Diameters of a mill, of the tools that have a nominal one. */
function millDiameters({ t, tools, xy }: Given): FloorRegister[] {
  const { diameters = "none", nominalDiametersMm = [] } = t;
  if (diameters === "none") return [];
  return tools.flatMap((tool): FloorRegister[] => {
    const nominalDiameter = nominalDiametersMm[tool - 1] ?? null;
    if (nominalDiameter === null) return [];
    const isMeasured = diameters === "measured";
    return [
      {
        id: isMeasured ? `D${tool}` : `DW${tool}`,
        label: labeled(t, tool, isMeasured ? `D${tool} diameter` : `D${tool} wear: measured less nominal`),
        method: "mill-diameter",
        toleranceMm: xy.toleranceMm,
        uMm: TOUCH_U_MM.micrometer,
        figures: { nominalDiameter },
        ...(isMeasured ? {} : { holds: "difference" as const }),
      },
    ];
  });
}

/** X and Z of each tool of a lathe, and its nose where that is asked for. */
function latheRegisters({ t, tools, xy, z: held }: Given): FloorRegister[] {
  const isLibrary = t.school === "readout";
  // a readout's reference was touched by the same feeler
  const figures = isLibrary
    ? { x: { paper: t.paperMm }, z: { paper: t.paperMm } }
    : { x: { paper: t.paperMm, outside: 1 as const }, z: { block: t.blockMm, facing: t.skinMm } };
  return tools.flatMap((tool): FloorRegister[] => [
    {
      id: `T${tool}.x`,
      label: labeled(t, tool, `tool ${tool} X`),
      method: isLibrary ? "lathe-readout" : "lathe-x",
      ...xy,
      figures: figures.x,
    },
    {
      id: `T${tool}.z`,
      label: labeled(t, tool, `tool ${tool} Z`),
      method: isLibrary ? "lathe-readout" : "lathe-z",
      ...held,
      figures: figures.z,
    },
    ...(t.asksNose
      ? [
          {
            id: `T${tool}.r`,
            label: labeled(t, tool, `tool ${tool} nose radius`),
            method: "lathe-nose" as const,
            toleranceMm: 0.05,
            uMm: 0.002,
            figures: {},
          },
          {
            id: `T${tool}.tip`,
            label: labeled(t, tool, `tool ${tool} tip code`),
            method: "lathe-tip" as const,
            toleranceMm: 0.5,
            uMm: 0.01,
            figures: {},
          },
        ]
      : []),
  ]);
}

/**
 * The exercise that a template describes. Mill: work X and Y from a corner or a middle, a length for each tool, and a
 * diameter where one is asked for. Lathe: X and Z of each tool. Where others are counted from the first tool, it holds
 * zero by itself, and `tools` are those beside it.
 */
export function floorFromTemplate(t: FloorTemplate): FloorExercise {
  const { machine } = t;
  const first = isByFirstTool(t.school) ? 2 : 1;
  const given: Given = {
    t,
    tools: Array.from({ length: t.tools }, (_, index) => index + first),
    xy: { toleranceMm: t.toleranceXyMm, uMm: TOUCH_U_MM.edge },
    z: { toleranceMm: t.toleranceZMm, uMm: TOUCH_U_MM.paper },
  };
  const gap = machine === "mill" ? { paper: t.paperMm } : { block: t.blockMm };
  const workZ: FloorRegister[] = WITH_WORK_Z.has(t.school)
    ? [
        {
          id: "G54.z",
          label: "G54 Z",
          method: machine === "mill" ? "mill-length" : "lathe-z",
          ...given.z,
          figures: { ...gap, facing: t.skinMm },
        },
      ]
    : [];
  const place = (["x", "y"] as const).map((axis): FloorRegister => ({
    id: `G54.${axis}`,
    label: `G54 ${axis.toUpperCase()}`,
    ...given.xy,
    ...zeroed(t, axis),
  }));
  return {
    title: t.title,
    machine,
    ...(t.machineNumber ? { machineNumber: t.machineNumber } : {}),
    ...(t.drawingNumber ? { drawingNumber: t.drawingNumber } : {}),
    unit: t.unit,
    readingsNeeded: t.readingsNeeded,
    school: t.school,
    datum: machine === "mill" ? floorDatumWords(t.datum) : "axis and front face",
    registers:
      machine === "mill"
        ? [...place, ...workZ, ...millLengths(given), ...millDiameters(given)]
        : [...workZ, ...latheRegisters(given)],
  };
}
