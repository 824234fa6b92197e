import { z } from "zod";
import { centerHeight } from "../registers/centerHeight";
import { coneTouch, noseResidue, steepestFallDeg, taperShift, tipCodes } from "../registers/nose";
import { cuttingData } from "./cuttingData";
import { gaugeSets, gaugeStack } from "./gaugeStack";
import { readInsert, type InsertRefusal } from "./insert";
import { must, notNegative, number, operation, place } from "./operation";

const tipCode = z.literal([...tipCodes], { error: "a tip code is one of 0 to 9" });
const positive = number.positive("must be above zero");
const angle = number.gt(0, "must be above 0").lt(90, "must be below 90");
const flank = number.gt(0, "must be above 0").lt(180, "must be below 180");

const INSERT_REFUSALS: Record<InsertRefusal, string> = {
  letters: "code: an insert begins with four letters, such as CCMT",
  shape: "code: no shape has that first letter",
  clearance: "code: no clearance angle has that second letter",
  digits: "code: the digits after the four letters are missing or cannot be read",
  edge: "code: no standard circle has an edge of that length",
  thickness: "code: no thickness has that code",
};

function insert({ code, system }: { code: string; system: "metric" | "inch" }) {
  const read = readInsert(code, system);
  return typeof read === "string" ? must(null, INSERT_REFUSALS[read]) : read;
}

/** Calculations about turning tools, gauges and cutting: nose, cone, edge, center height, inserts, stacks, speeds. */
export const turningOperations = {
  noseResidue: operation(z.strictObject({ noseRadius: notNegative, tipCode, normal: place }), (input) =>
    must(
      noseResidue(input.noseRadius, input.tipCode, input.normal),
      "normal: a direction of no length says nothing; give one such as [1, 1]",
    ),
  ),
  taperShift: operation(z.strictObject({ noseRadius: notNegative, angle }), (input) =>
    taperShift(input.noseRadius, input.angle),
  ),
  coneTouch: operation(
    z.strictObject({
      noseRadius: notNegative,
      tipCode,
      cone: z.strictObject({ diameter: notNegative, z: number, normal: place }),
      display: place,
      geometryZ: number,
    }),
    ({ noseRadius, tipCode: code, cone, display, geometryZ }) =>
      must(coneTouch(noseRadius, code, cone, display, geometryZ), "cone.normal: a cylinder cannot tell Z; turn a cone"),
  ),
  edgeClearance: operation(z.strictObject({ lead: flank, nose: flank }), ({ lead, nose }) => ({
    maxFallingSlope: steepestFallDeg(lead, nose),
  })),
  centerHeight: operation(
    z.strictObject({ height: number, touchDiameter: positive, commandedDiameter: notNegative }),
    ({ height, touchDiameter, commandedDiameter }) =>
      must(
        centerHeight(height, touchDiameter, commandedDiameter),
        "height: so far off center the tool passes over the bar",
      ),
  ),
  cuttingData: operation(
    z
      .strictObject({
        system: z.enum(["metric", "inch"]),
        surfaceSpeed: positive,
        diameter: positive,
        flutes: z.number().int("must be a whole number").positive("must be above zero"),
        feedPerTooth: notNegative,
        maxSpeed: positive.optional(),
        minSpeed: notNegative.optional(),
      })
      .refine(({ maxSpeed = Infinity, minSpeed = 0 }) => minSpeed <= maxSpeed, "minSpeed: must not be above maxSpeed"),
    cuttingData,
  ),
  insert: operation(z.strictObject({ code: z.string().max(40), system: z.enum(["metric", "inch"]) }), insert),
  gaugeStack: operation(
    z.strictObject({
      set: z.enum(gaugeSets),
      size: positive,
      wearBlocks: z
        .strictObject({
          count: z
            .number()
            .int("must be a whole number")
            .min(0, "must not be below zero")
            .max(4, "more than four wear blocks is no stack"),
          size: positive,
        })
        .optional(),
      without: z.array(positive).optional(),
    }),
    ({ set, size, wearBlocks, without }) =>
      must(gaugeStack(set, size, wearBlocks, without), "without: that block is not in the set"),
  ),
} as const;
