import { z } from "zod";
import { readProgram } from "../../gcode";
import { type Contact, proveLathe, proveMill } from "../../proving";
import { notNegative, number, operation, place, Refused } from "../operation";
import {
  above,
  byNumber,
  latheRegisters,
  millRegisters,
  pointAngle,
  refuseWrong,
  tools,
  triple,
  withKnown,
} from "./programInput";

const startUnits = z.enum(["mm", "inch"]).optional();

const millInput = z.strictObject({
  machine: z.literal("mill"),
  program: z.string(),
  startUnits,
  registers: millRegisters,
  truth: z.strictObject({
    datum: triple,
    tools: tools(
      z.strictObject({
        length: above,
        diameter: above,
        shape: z.enum(["flat", "ball", "drill"]),
        pointAngle,
        fluteLength: above,
        shankDiameter: above,
        holder: z.strictObject({ diameter: above, length: notNegative }),
      }),
    ),
  }),
  stock: z.strictObject({ box: z.tuple([triple, triple]) }),
  solids: z.array(z.strictObject({ id: z.string(), box: z.tuple([triple, triple]) })),
  travel: z.strictObject({ min: triple, max: triple }),
  home: triple.optional(),
});

const latheInput = z.strictObject({
  machine: z.literal("lathe"),
  program: z.string(),
  startUnits,
  registers: latheRegisters,
  truth: z.strictObject({
    tools: tools(
      z.strictObject({
        kx: number,
        kz: number,
        noseRadius: notNegative,
        tipCode: z.union([z.literal(2), z.literal(3)]),
        width: above,
      }),
    ),
  }),
  stock: z.strictObject({ diameter: above, length: above, face: number.optional(), bore: notNegative.optional() }),
  chuck: z.strictObject({ z: number, diameter: above }),
  travel: z.strictObject({ min: place, max: place }),
  home: place.optional(),
});

type MillInput = z.output<typeof millInput>;
type LatheInput = z.output<typeof latheInput>;

/** Figures come in the unit in which the program starts; everything is worked out in mm. */
const scaled =
  (unit: number) =>
  <T extends readonly number[]>(values: T): T =>
    values.map((value) => value * unit) as unknown as T;

function millContact(input: MillInput, mm: number): ReturnType<typeof proveMill> {
  const s = scaled(mm);
  const { registers, truth } = input;
  const box = ([min, max]: MillInput["stock"]["box"]) => ({ min: s(min), max: s(max) });
  const isWrongWay = [input.stock.box, ...input.solids.map((solid) => solid.box)].some(([min, max]) =>
    min.some((value, i) => value >= (max[i] ?? value)),
  );
  if (isWrongWay) throw new Refused("a box begins where it ends: give its lower corner first, then its upper one");
  return proveMill(
    readProgram(input.program, "mill"),
    {
      common: s(registers.common ?? [0, 0, 0]),
      work: new Map(Object.entries(registers.work).map(([frame, at]) => [frame, s(at)])),
      lengths: byNumber(registers.tools, ({ H, Hw = 0 }) => (H + Hw) * mm),
    },
    {
      datum: s(truth.datum),
      tools: byNumber(truth.tools, (tool) => ({
        ...tool,
        length: tool.length * mm,
        diameter: tool.diameter * mm,
        fluteLength: tool.fluteLength * mm,
        shankDiameter: tool.shankDiameter * mm,
        holder: { diameter: tool.holder.diameter * mm, length: tool.holder.length * mm },
      })),
      stock: box(input.stock.box),
      solids: input.solids.map((solid) => ({ id: solid.id, ...box(solid.box) })),
      travel: { min: s(input.travel.min), max: s(input.travel.max) },
      home: s(input.home ?? [0, 0, 0]),
    },
    input.startUnits ?? "mm",
  );
}

function latheContact(input: LatheInput, mm: number): ReturnType<typeof proveLathe> {
  const s = scaled(mm);
  const { registers, truth, stock, chuck } = input;
  return proveLathe(
    readProgram(input.program, "lathe"),
    {
      common: s(registers.common ?? [0, 0]),
      work: new Map(Object.entries(registers.work).map(([frame, at]) => [frame, s(at)])),
      rows: byNumber(registers.tools, ({ x, z: along, xw = 0, zw = 0 }) => s([x + xw, along + zw] as const)),
    },
    {
      tools: byNumber(truth.tools, (tool) => ({
        ...tool,
        kx: tool.kx * mm,
        kz: tool.kz * mm,
        noseRadius: tool.noseRadius * mm,
        width: tool.width * mm,
      })),
      stock: {
        diameter: stock.diameter * mm,
        length: stock.length * mm,
        face: (stock.face ?? 0) * mm,
        bore: (stock.bore ?? 0) * mm,
      },
      chuck: { z: chuck.z * mm, diameter: chuck.diameter * mm },
      travel: { min: s(input.travel.min), max: s(input.travel.max) },
      home: s(input.home ?? [0, 0]),
    },
    input.startUnits ?? "mm",
  );
}

/** Every tool that the program may take must be known before anything is run. */
function contactOf(input: MillInput | LatheInput, mm: number): Contact | null {
  const found = withKnown(() => (input.machine === "mill" ? millContact(input, mm) : latheContact(input, mm)));
  if (found && "wrong" in found) return refuseWrong(found.wrong);
  return found && { ...found, at: found.at.map((value) => value / mm) };
}

export const proveOperation = {
  prove: operation(z.discriminatedUnion("machine", [millInput, latheInput]), (input) => ({
    first: contactOf(input, input.startUnits === "inch" ? 25.4 : 1),
  })),
};
