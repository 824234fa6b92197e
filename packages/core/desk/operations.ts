import { z } from "zod";
import { infer } from "../diagnosis/infer";
import { centerFromContacts } from "../registers/center";
import { circleFromContacts } from "../registers/circle";
import { closureMill } from "../registers/closure";
import { edgeFromContact } from "../registers/edge";
import { latheGeometry, latheTouchValue } from "../registers/lathe";
import { convertSchool, lengthsBySchool, setterLength } from "../registers/schools";
import { latheSchool, readoutLibrary } from "../registers/schools/lathe";
import { cornerFromContacts, skewFromContacts } from "../registers/skew";
import { sweepError } from "../registers/sweep";
import { wearCorrection } from "../registers/wear";
import { accept, refuse, type Result } from "../result";
import { must, notNegative, number, operation, place, Refused } from "./operation";
import { programOperations } from "./programOperations";
import { inspectOperation } from "./machines/inspect";
import { proveOperation } from "./machines/prove";
import { turningOperations } from "./turningOperations";
import { standardUncertainty } from "./uncertainty";

/** `unknownOperation`: not built (yet); `badInput`: one sentence that names the place and what is wrong there. */
export type OperationRefusal = { code: "unknownOperation"; op: string } | { code: "badInput"; message: string };

const id = z.string().min(1);
const side = z.union([z.literal(1), z.literal(-1)]);
const triple = z.tuple([number, number, number]);
const school = <S extends string>(name: S) => z.literal(name);
const contacts = z.array(z.strictObject({ id, contact: number })).min(1);
const touch = { feeler: notNegative.optional(), surfaceWork: number.optional() };

const lengthSchoolInput = z.discriminatedUnion("school", [
  z.strictObject({
    school: school("gauge-line"),
    tools: z.array(z.strictObject({ id, length: number })).min(1),
    workTouch: z.strictObject({ contact: number, length: number, ...touch }),
  }),
  z.strictObject({ school: school("part-touch"), tools: contacts, ...touch }),
  z.strictObject({
    school: school("plane-lift"),
    tools: contacts,
    feeler: notNegative.optional(),
    workTouch: z.strictObject({ tool: id, contact: number, ...touch }),
  }),
  z.strictObject({ school: school("master"), master: id, tools: contacts, ...touch }),
  z.strictObject({ school: school("offset-per-tool"), tools: contacts, ...touch }),
  z.strictObject({
    school: school("block-in-wear"),
    tools: contacts,
    block: notNegative,
    surfaceWork: number.optional(),
  }),
]);

const atFace = z.strictObject({ id, machineZ: number, gap: notNegative.optional() });
const table = {
  lengths: z.record(id, number).refine((lengths) => Object.keys(lengths).length > 0, "name at least one tool"),
  workZ: number,
};

/** Every calculation the command line reaches: shapes as in the reference cases, one length unit per input. */
export const operations = {
  edge: operation(
    z.strictObject({
      contact: number,
      approach: z.union([z.literal(1), z.literal(-1)]),
      tipRadius: notNegative,
      edgeWork: number.optional(),
      common: number.optional(),
    }),
    (input) => edgeFromContact(input.contact, input.approach, input.tipRadius, input.edgeWork, input.common),
  ),
  center: operation(
    z.strictObject({
      contacts: z.tuple([number, number]),
      tipRadius: notNegative,
      kind: z.enum(["outside", "inside"]),
      common: number.optional(),
    }),
    (input) =>
      must(
        centerFromContacts(input.contacts, input.tipRadius, input.kind, input.common),
        "the contacts are closer together than the tip is wide: check the contacts and the tip radius",
      ),
  ),
  circle: operation(
    z.strictObject({
      points: z.array(place).min(3, "needs at least three contacts"),
      tipRadius: notNegative,
      kind: z.enum(["bore", "boss"]),
    }),
    ({ points, tipRadius, kind }) =>
      must(
        circleFromContacts(points, tipRadius, kind),
        "the contacts lie on one line, or closer together than the tip is wide: spread them round the feature",
      ),
  ),
  skew: operation(z.strictObject({ p1: place, p2: place, face: z.enum(["x", "y"]) }), ({ p1, p2, face }) => ({
    angle: must(skewFromContacts(p1, p2, face), "both contacts are the same place: move along the face between them"),
  })),
  corner: operation(
    z.strictObject({ p1: place, p2: place, p3: place, tipRadius: notNegative, part: z.tuple([side, side]) }),
    ({ p1, p2, p3, tipRadius, part }) =>
      must(
        cornerFromContacts(p1, p2, p3, tipRadius, part),
        "p1 and p2 are the same place: move along the face between them",
      ),
  ),
  sweep: operation(
    z.strictObject({ readings: z.tuple([number, number, number, number]), kind: z.enum(["bore", "boss"]) }),
    ({ readings, kind }) => sweepError(readings, kind),
  ),
  closureMill: operation(
    z.strictObject({
      datum: triple,
      common: triple.optional(),
      work: triple,
      tools: z
        .array(z.strictObject({ id, length: number, geometry: number, wear: number.optional() }))
        .min(1, "name at least one tool"),
    }),
    (input) => closureMill(input.datum, input.common ?? [0, 0, 0], input.work, input.tools),
  ),
  lengthSchool: operation(lengthSchoolInput, (input) =>
    must(lengthsBySchool(input), "the tool named as master or for the work touch is not among the tools"),
  ),
  convertSchool: operation(
    z.discriminatedUnion("to", [
      z.strictObject({ ...table, to: school("gauge-line"), known: z.strictObject({ id, length: number }) }),
      z.strictObject({ ...table, to: school("part-touch") }),
      z.strictObject({ ...table, to: school("master"), master: id }),
    ]),
    ({ lengths, workZ, ...rest }) =>
      must(
        convertSchool(
          lengths,
          workZ,
          rest.to === "gauge-line"
            ? { school: rest.to, known: rest.known }
            : rest.to === "master"
              ? { school: rest.to, master: rest.master }
              : { school: rest.to },
        ),
        "the named tool is not in the length table",
      ),
  ),
  setterLength: operation(
    z.union(
      [
        z.strictObject({ toolTrigger: number, noseTrigger: number }),
        z.strictObject({ toolTrigger: number, master: z.strictObject({ length: number, trigger: number }) }),
      ],
      { error: "needs toolTrigger, and either noseTrigger or master {length, trigger}, all as numbers" },
    ),
    ({ toolTrigger, ...reference }) => ({ length: setterLength(toolTrigger, reference) }),
  ),
  wear: operation(
    z
      .strictObject({
        kind: z.enum(["outside", "inside", "turned", "bored", "depth"]),
        measured: number,
        target: number,
        mode: z.enum(["diameter", "radius"]).optional(),
        percent: notNegative.optional(),
        limit: notNegative.optional(),
      })
      .refine(
        ({ kind, mode }) => kind === "depth" || mode !== undefined,
        "mode: say whether the register holds a diameter or a radius",
      ),
    ({ kind, measured, target, mode = "diameter", percent, limit }) =>
      wearCorrection(kind, measured, target, mode, percent, limit),
  ),
  latheTouch: operation(
    z.strictObject({
      machine: number,
      work: number.optional(),
      common: number.optional(),
      wear: number.optional(),
      touch: z.discriminatedUnion("kind", [
        z.strictObject({ kind: z.literal("skim"), diameter: notNegative }),
        z.strictObject({ kind: z.literal("feelerOutside"), diameter: notNegative, feeler: notNegative }),
        z.strictObject({ kind: z.literal("feelerBore"), diameter: notNegative, feeler: notNegative }),
        z.strictObject({ kind: z.literal("face"), surfaceWork: number.optional(), gap: notNegative.optional() }),
      ]),
    }),
    ({ machine, work, common, wear, touch: made }) => {
      const value = latheTouchValue(made);
      return { value, geometry: latheGeometry(machine, value, common, work, wear) };
    },
  ),
  latheSchool: operation(
    z.discriminatedUnion("school", [
      z.strictObject({ school: school("part-face"), tools: z.array(atFace).min(1) }),
      z.strictObject({ school: school("master-shift"), tools: z.array(atFace).min(1), master: id }),
      z.strictObject({
        school: school("setter-arm"),
        plane: number,
        tools: z.array(z.strictObject({ id, trigger: number })).min(1),
        active: atFace,
      }),
    ]),
    (input) => must(latheSchool(input), "the tool named as master or active is not among the tools"),
  ),
  readout: operation(
    z.strictObject({ reference: id, readings: z.array(z.strictObject({ tool: id, x: number, z: number })) }),
    ({ reference, readings }) => ({
      offsets: must(
        readings.some(({ tool }) => tool === reference) ? null : readoutLibrary(reference, readings),
        "the reference reads zero by itself: leave it out of the readings",
      ),
    }),
  ),
  uncertainty: operation(
    z.strictObject({
      terms: z
        .array(
          z.strictObject({
            kind: z.enum(["normal", "uniform", "resolution"]),
            value: notNegative,
            sensitivity: number.optional(),
          }),
        )
        .min(1),
    }),
    (input) => {
      const standard = standardUncertainty(input.terms);
      return { standard, expanded: 2 * standard };
    },
  ),
  diagnose: operation(
    z.strictObject({
      closure: number,
      u: z.number().positive("must be above zero"),
      resolution: notNegative.optional(),
      none: notNegative,
      candidates: z.array(z.strictObject({ id, predicted: number, prior: notNegative })),
      other: z.strictObject({ prior: notNegative, span: z.number().positive("must be above zero") }).optional(),
    }),
    infer,
  ),
  ...turningOperations,
  ...programOperations,
  ...proveOperation,
  ...inspectOperation,
} as const;

/** The answer of one operation, or a refusal; never a number for an input that cannot be. */
export function runOperation(op: string, input: unknown): Result<unknown, OperationRefusal> {
  if (!Object.hasOwn(operations, op)) return refuse({ code: "unknownOperation", op });
  const { schema, run } = operations[op as keyof typeof operations];
  const parsed = schema.safeParse(input);
  if (!parsed.success) {
    const first = parsed.error.issues[0];
    const place = first?.path.length ? `${first.path.join(".")}: ` : "";
    return refuse({ code: "badInput", message: `${place}${first?.message ?? "not readable"}` });
  }
  try {
    return accept(run(parsed.data));
  } catch (error) {
    if (error instanceof Refused) return refuse({ code: "badInput", message: error.message });
    throw error;
  }
}
