import { z } from "zod";
import { readProgram, type Program } from "../../gcode";
import { millRay, millSweeps, turnedRay, turnedSweeps, type CutProblem } from "../../inspection";
import { undersideOf, UnknownRegister, UnknownTool } from "../../proving";
import { tipCodes } from "../../registers/nose";
import { notNegative, number, operation, place, Refused } from "../operation";

const triple = z.tuple([number, number, number]);
const above = z.number().positive("must be above zero");
const tools = <T extends z.ZodType>(tool: T) => z.record(z.string().regex(/^\d+$/), tool);
const tipCode = z.literal([...tipCodes], { error: "a tip code is one of 0 to 9" });

const millInput = z.strictObject({
  machine: z.literal("mill"),
  program: z.string(),
  registers: z.strictObject({
    common: triple.optional(),
    work: z.record(z.string(), triple),
    tools: tools(z.strictObject({ H: number, Hw: number.optional(), D: number.optional(), Dw: number.optional() })),
    mode: z.enum(["diameter", "radius"]),
  }),
  truth: z.strictObject({
    datum: triple,
    tools: tools(
      z.strictObject({
        length: above,
        diameter: above,
        shape: z.enum(["flat", "ball", "drill"]),
        pointAngle: z.number().positive().max(179, "must be below 180").optional(),
      }),
    ),
  }),
  rays: z.array(z.strictObject({ from: triple, to: triple })),
});

const latheInput = z.strictObject({
  machine: z.literal("lathe"),
  program: z.string(),
  registers: z.strictObject({
    common: place.optional(),
    work: z.record(z.string(), place),
    tools: tools(
      z.strictObject({
        x: number,
        z: number,
        xw: number.optional(),
        zw: number.optional(),
        noseRadius: notNegative.optional(),
        tipCode: tipCode.optional(),
      }),
    ),
  }),
  truth: z.strictObject({ tools: tools(z.strictObject({ kx: number, kz: number, noseRadius: notNegative, tipCode })) }),
  rays: z.array(z.strictObject({ from: place, to: place })),
});

type MillInput = z.output<typeof millInput>;
type LatheInput = z.output<typeof latheInput>;

const byNumber = <A, B>(record: Record<string, A>, make: (value: A) => B): Map<number, B> =>
  new Map(Object.entries(record).map(([key, value]) => [Number(key), make(value)]));

/** Program and registers share one unit: the one that the program names first, mm where it names none. */
function unitOf({ blocks }: Program): "mm" | "inch" {
  for (const { letters, values } of blocks)
    for (let i = 0; i < letters.length; i++)
      if (letters[i] === "G" && (values[i] === 20 || values[i] === 21)) return values[i] === 20 ? "inch" : "mm";
  return "mm";
}

function millDistances(input: MillInput): { distances: (number | null)[]; problems: readonly CutProblem[] } {
  const { registers, truth } = input;
  const program = readProgram(input.program, "mill");
  const share = registers.mode === "diameter" ? 0.5 : 1;
  const { sweeps, problems } = millSweeps(
    program,
    {
      common: registers.common ?? [0, 0, 0],
      work: new Map(Object.entries(registers.work)),
      lengths: byNumber(registers.tools, ({ H, Hw = 0 }) => H + Hw),
    },
    byNumber(registers.tools, ({ D = 0, Dw = 0 }) => (D + Dw) * share),
    {
      datum: truth.datum,
      tools: byNumber(truth.tools, (tool) => ({
        length: tool.length,
        end: { radius: tool.diameter / 2, underside: undersideOf(tool) },
      })),
    },
    unitOf(program),
  );
  return { distances: input.rays.map((ray) => millRay(sweeps, ray)), problems };
}

function latheDistances(input: LatheInput): { distances: (number | null)[]; problems: readonly CutProblem[] } {
  const { registers, truth } = input;
  const program = readProgram(input.program, "lathe");
  const { sweeps, problems } = turnedSweeps(
    program,
    {
      common: registers.common ?? [0, 0],
      work: new Map(Object.entries(registers.work)),
      rows: byNumber(registers.tools, ({ x, z: along, xw = 0, zw = 0 }) => [x + xw, along + zw] as const),
    },
    byNumber(registers.tools, ({ noseRadius = 0, tipCode: code = 0 }) => ({ noseRadius, tipCode: code })),
    { tools: byNumber(truth.tools, (tool) => tool) },
    unitOf(program),
  );
  return { distances: input.rays.map((ray) => turnedRay(sweeps, ray)), problems };
}

function distancesOf(input: MillInput | LatheInput): (number | null)[] {
  if (input.rays.some(({ to }) => to.every((value) => value === 0)))
    throw new Refused("a ray has no direction: give it one that is not zero");
  try {
    const { distances, problems } = input.machine === "mill" ? millDistances(input) : latheDistances(input);
    // a contour that cannot be followed is cut all the same, as a control would
    const first = problems.find(({ code }) => code !== "gouge" && code !== "arc-too-small");
    if (first) throw new Refused(`line ${first.line} of the program is wrong (${first.code}): mend it first`);
    return distances;
  } catch (error) {
    if (error instanceof UnknownTool)
      throw new Refused(`tool ${error.tool}, called in line ${error.line}, is not among the true tools: add it`);
    if (error instanceof UnknownRegister) throw new Refused(`${error.register} is not among the registers: add it`);
    throw error;
  }
}

export const inspectOperation = {
  inspect: operation(z.discriminatedUnion("machine", [millInput, latheInput]), (input) => ({
    distances: distancesOf(input),
  })),
};
