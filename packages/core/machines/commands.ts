import { z } from "zod";
import { laneCommands } from "../lane/schemas";
import { latheCommands } from "./lathe/schemas";
import { millCommands } from "./mill/schemas";
import { commands as programCommands } from "./program/schema";

/** What a student can ask of the bench: what every lane can be asked, and the acts of every machine. */
export const commandSchema = z.discriminatedUnion("type", [
  ...laneCommands,
  ...programCommands,
  ...millCommands,
  ...latheCommands,
]);
export type Command = z.infer<typeof commandSchema>;
export type CommandOf<T extends Command["type"]> = Extract<Command, { type: T }>;
