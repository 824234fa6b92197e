import { z } from "zod";
import { wobbleNames } from "../../../../instruments";
import { counts, direction, flatAxis, mm } from "../../../../lane/pieces";

export const commands = [z.strictObject({ type: z.literal("setWobbling") })] as const;

/** Where the numbers of a contact come from, mm; hidden until the ruling. */
const contactParts = z.strictObject({
  kickPastMm: mm,
  burrMm: mm,
  lateMm: mm,
  bendMm: mm,
  clickMm: mm,
  scatterMm: mm.optional(),
});

export const events = [
  z.strictObject({ type: z.literal("finderReplaced"), copy: counts, ownKickMm: mm }),
  z.strictObject({ type: z.literal("setWobbling") }),
  z.strictObject({
    type: z.literal("approachBegan"),
    approach: z.strictObject({
      number: counts,
      kickPastMm: mm,
      overMm: mm,
      thresholdsMm: z.array(mm),
      scatterMm: mm.optional(),
    }),
  }),
  z.strictObject({ type: z.literal("approachEnded") }),
  z.strictObject({ type: z.literal("wobbleChanged"), wobble: z.enum(wobbleNames) }),
  z.strictObject({
    type: z.literal("kicked"),
    axis: flatAxis,
    approach: direction,
    atCounts: counts,
    isSeen: z.boolean(),
    parts: contactParts,
  }),
] as const;

/** Share of the safety strand that each incident costs. */
export const incidents = { finderThrown: 0.4, finderBent: 0.2, finderBroken: 0.4 } as const;
