import { z } from "zod";
import { register } from "../../../../lane/pieces";

/** More registers than any card names. */
const MOST_NAMED = 40;

export const commands = [
  /** Of a setup that was kept before: which of its registers are touched again; none of them where all stand. */
  z.strictObject({ type: z.literal("nameStale"), registers: z.array(register).max(MOST_NAMED) }),
  z.strictObject({ type: z.literal("takeSetupBack") }),
] as const;
export const events = [
  z.strictObject({ type: z.literal("staleNamed"), registers: z.array(register) }),
  z.strictObject({ type: z.literal("setupTakenBack") }),
] as const;
export const incidents = {} as const;
