import { z } from "zod";
import { feelNames } from "../../../../instruments";
import { counts, id, mm, place, turnedFace } from "../../../../lane/pieces";

export const commands = [
  /** On a hand-wound lathe: where the other hand rests while it is felt. */
  z.strictObject({
    type: z.literal("placeGap"),
    id,
    on: turnedFace,
    hand: z.enum(["clear", "post"]).optional(),
    /** A straight edge on the face is met from in front by the near edge of a blade, from behind by its far one. */
    side: z.enum(["front", "behind"]).optional(),
  }),
  z.strictObject({ type: z.literal("tryGap"), id, on: turnedFace }),
  z.strictObject({ type: z.literal("pullGap") }),
] as const;
export const events = [
  z.strictObject({
    type: z.literal("turretGapPlaced"),
    id: z.string(),
    on: turnedFace,
    feel: z.enum(feelNames),
    leanMm: mm.optional(),
    isBehind: z.boolean().optional(),
  }),
  z.strictObject({
    type: z.literal("turretFelt"),
    id: z.string(),
    on: turnedFace,
    feel: z.enum(feelNames),
    at: place,
    clickMm: mm,
  }),
  z.strictObject({
    type: z.literal("turretTried"),
    id: z.string(),
    on: turnedFace,
    goes: z.boolean(),
    at: place,
    number: counts,
    dirtMm: mm,
    isOpened: z.boolean(),
    clickMm: mm,
  }),
  z.strictObject({ type: z.literal("turretGapPulled") }),
  z.strictObject({
    type: z.literal("metalTouched"),
    on: z.enum(["face", "diameter", "bore", "cone"]),
    at: place,
    clickMm: mm,
  }),
  z.strictObject({ type: z.literal("metalLeft") }),
] as const;
/** Share of the safety strand that each incident costs. */
export const incidents = { edgePushedOff: 0.1 } as const;
