import { z } from "zod";
import { setupTasks } from "../../../../exercises/schools";
import { direction, mm } from "../../../../lane/pieces";

export const commands = [
  z.strictObject({ type: z.literal("doTask"), task: z.enum(setupTasks) }),
  z.strictObject({ type: z.literal("dressBurr") }),
  /** Other parallels under the blank: higher (above 0) or lower. */
  z.strictObject({ type: z.literal("changeParallels"), byMm: z.union([z.literal(-2), z.literal(2)]) }),
  z.strictObject({ type: z.literal("tapPart"), direction, strength: z.enum(["hard", "light"]) }),
] as const;
export const events = [
  z.strictObject({ type: z.literal("taskDone"), task: z.enum(setupTasks) }),
  z.strictObject({ type: z.literal("burrDressed") }),
  /** So much higher than at first the blank stands now, mm. */
  z.strictObject({ type: z.literal("parallelsChanged"), raisedMm: mm }),
  z.strictObject({ type: z.literal("partTapped"), skewDeg: mm, shiftMm: z.strictObject({ x: mm, y: mm }) }),
] as const;
export const incidents = {} as const;
