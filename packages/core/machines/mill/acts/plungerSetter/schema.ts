import { z } from "zod";
import { typed } from "../../../../lane/pieces";

export const commands = [
  z.strictObject({
    type: z.literal("askSetter"),
    what: z.enum(["length", "diameterBoth", "diameterOne"]),
    isTurning: z.boolean(),
    offset: typed,
    about: typed,
  }),
] as const;
export const events = [] as const;
export const incidents = { setterDamaged: 0.3 } as const;
