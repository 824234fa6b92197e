import { z } from "zod";
import { readProgram, type Program } from "../../gcode";
import { millRay, millSweeps, turnedRay, turnedSweeps, type CutProblem } from "../../inspection";
import { undersideOf } from "../../proving";
import { notNegative, number, operation, place, Refused } from "../operation";
import {
  above,
  byNumber,
  latheRegisters,
  millRegisters,
  pointAngle,
  refuseWrong,
  tipCode,
  tools,
  triple,
  withKnown,
} from "./programInput";

const millInput = z.strictObject({
  machine: z.literal("mill"),
  program: z.string(),
  registers: millRegisters,
  truth: z.strictObject({
    datum: triple,
    tools: tools(
      z.strictObject({
        length: above,
        diameter: above,
        shape: z.enum(["flat", "ball", "drill"]),
        pointAngle,
      }),
    ),
  }),
  rays: z.array(z.strictObject({ from: triple, to: triple })),
});

const latheInput = z.strictObject({
  machine: z.literal("lathe"),
  program: z.string(),
  registers: latheRegisters,
  truth: z.strictObject({ tools: tools(z.strictObject({ kx: number, kz: number, noseRadius: notNegative, tipCode })) }),
  rays: z.array(z.strictObject({ from: place, to: place })),
});

type MillInput = z.output<typeof millInput>;
type LatheInput = z.output<typeof latheInput>;

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
  const { distances, problems } = withKnown(() =>
    input.machine === "mill" ? millDistances(input) : latheDistances(input),
  );
  // a contour that cannot be followed is cut all the same, as a control would
  const first = problems.find(({ code }) => code !== "gouge" && code !== "arc-too-small");
  return first ? refuseWrong(first) : distances;
}

export const inspectOperation = {
  inspect: operation(z.discriminatedUnion("machine", [millInput, latheInput]), (input) => ({
    distances: distancesOf(input),
  })),
};
