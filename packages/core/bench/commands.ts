import { z } from "zod";
import { thingNames } from "../instruments";
import { isMillRegisterId, type MillRegisterId } from "../registers";

export const jogSizeNames = ["rapid", "coarse", "middle", "fine"] as const;
export type JogSize = (typeof jogSizeNames)[number];
/** One click of each size, mm. A rapid jog runs in whole millimetres and refuses with the door open. */
export const jogSizesMm: Readonly<Record<JogSize, number>> = { rapid: 1, coarse: 0.1, middle: 0.01, fine: 0.001 };

export const sides = ["front", "back", "left", "right"] as const;
export type Side = (typeof sides)[number];

/** Terms a student can choose for a ledger line. */
export const termNames = ["tipRadius", "edgeWork", "paper", "facing", "moved", "lift", "other"] as const;
export type TermName = (typeof termNames)[number];

const axis = z.enum(["x", "y", "z"]);
const register = z.custom<MillRegisterId>((value) => typeof value === "string" && isMillRegisterId(value), "not a register of this machine");
const typed = z.string().max(200);

/** What a student can ask of the bench. Lengths arrive as typed text, so that what cannot be read is answered in words. */
export const commandSchema = z.discriminatedUnion("type", [
  z.strictObject({ type: z.literal("home") }),
  z.strictObject({
    type: z.literal("jog"), axis, direction: z.union([z.literal(1), z.literal(-1)]),
    clicks: z.number().int().min(1).max(200), size: z.enum(jogSizeNames),
  }),
  z.strictObject({ type: z.literal("load"), thing: z.enum(thingNames) }),
  z.strictObject({ type: z.literal("unload") }),
  z.strictObject({ type: z.literal("startSpindle"), direction: z.enum(["forward", "reverse"]), rpm: z.number().int().min(0).max(99_999).optional() }),
  z.strictObject({ type: z.literal("stopSpindle") }),
  z.strictObject({ type: z.literal("setDoor"), isOpen: z.boolean() }),
  z.strictObject({ type: z.literal("lookFrom"), side: z.enum(sides) }),
  z.strictObject({ type: z.literal("setWobbling") }),
  z.strictObject({ type: z.literal("placePaper") }),
  z.strictObject({ type: z.literal("feelPaper") }),
  z.strictObject({ type: z.literal("pullPaper") }),
  z.strictObject({ type: z.literal("dressBurr") }),
  z.strictObject({ type: z.literal("zeroCounter"), axis }),
  z.strictObject({ type: z.literal("captureRegister"), register, asText: typed }),
  z.strictObject({ type: z.literal("typeRegister"), register, text: typed, how: z.enum(["set", "add"]), isConfirmed: z.boolean() }),
  z.strictObject({ type: z.literal("undoRegister") }),
  z.strictObject({ type: z.literal("runBlock"), text: z.string().max(400) }),
  z.strictObject({ type: z.literal("reset") }),
  z.strictObject({ type: z.literal("takeReading"), register }),
  z.strictObject({ type: z.literal("writeTerm"), register, term: z.enum(termNames), text: typed }),
  z.strictObject({ type: z.literal("writeSum"), register, text: typed }),
  z.strictObject({ type: z.literal("strikeLine"), line: z.number().int().min(1) }),
  z.strictObject({ type: z.literal("raiseHand") }),
  z.strictObject({ type: z.literal("lowerHand") }),
  z.strictObject({ type: z.literal("handIn") }),
]);
export type Command = z.infer<typeof commandSchema>;
