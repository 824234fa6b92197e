import { z } from "zod";
import { millLengthSchools, setupTasks } from "../exercises/schema";
import { handMeasures, isThing, probeQuestions, type Thing } from "../instruments";
import { isRegisterId, type RegisterId } from "../registers";
import type { LengthUnit } from "../units";

export const jogSizeNames = ["rapid", "coarse", "middle", "fine"] as const;
export type JogSize = (typeof jogSizeNames)[number];
/** Least increments of one click of each size; on an inch machine 0.05, 0.005, 0.0005 and 0.0001 in. */
export const jogClicks: Readonly<Record<LengthUnit, Readonly<Record<JogSize, number>>>> = {
  mm: { rapid: 1000, coarse: 100, middle: 10, fine: 1 },
  inch: { rapid: 500, coarse: 50, middle: 5, fine: 1 },
};
/** A rapid jog refuses with the door open. */
export const jogMm = (unit: LengthUnit, size: JogSize): number =>
  jogClicks[unit][size] * (unit === "mm" ? 0.001 : 0.00254);

export const sides = ["front", "back", "left", "right"] as const;
export type Side = (typeof sides)[number];

/** Terms a student can choose for a ledger line. */
export const termNames = [
  "tipRadius",
  "edgeWork",
  "paper",
  "facing",
  "moved",
  "lift",
  "other",
  "block",
  "toolLength",
  "probeLength",
  "halfSize",
  "nominal",
  "diameter",
  "bladeWidth",
  "armPlane",
] as const;
export type TermName = (typeof termNames)[number];

/** Checks that a student can make of what was set, each with what is expected said beforehand. */
export const checkNames = [
  "overZero",
  "knownHeight",
  "sameEdge",
  "ruleBeside",
  "liftedMove",
  "sumByHand",
  "recalled",
  "clearance",
] as const;
export type CheckName = (typeof checkNames)[number];

/** What caliper, micrometer and rule can be put to. */
const measurable = ["toolDiameter", "toolReach", "gapThing", "stockX", "stockY", "stockZ", "feature"] as const;
export type Measurable = (typeof measurable)[number];

const axis = z.enum(["x", "y", "z"]);
const turnedFace = z.enum(["face", "diameter", "bore"]);
const flatAxis = z.enum(["x", "y"]);
const direction = z.union([z.literal(1), z.literal(-1)]);
const register = z.custom<RegisterId>(
  (value) => typeof value === "string" && isRegisterId(value),
  "not a register of this machine",
);
const thing = z.custom<Thing>(isThing, "not a thing of this bench");
const typed = z.string().max(200);
const id = z.string().min(1).max(40);
const tool = z.number().int().min(1).max(8);

/**
 * What a student can ask of the bench. Lengths arrive as typed text, so that what cannot be read is answered in words.
 */
export const commandSchema = z.discriminatedUnion("type", [
  z.strictObject({ type: z.literal("home") }),
  z.strictObject({ type: z.literal("doTask"), task: z.enum(setupTasks) }),
  z.strictObject({
    type: z.literal("jog"),
    axis,
    direction,
    clicks: z.number().int().min(1).max(200),
    size: z.enum(jogSizeNames),
  }),
  z.strictObject({ type: z.literal("load"), thing }),
  z.strictObject({ type: z.literal("unload") }),
  z.strictObject({ type: z.literal("swapPockets"), a: tool, b: tool }),
  z.strictObject({
    type: z.literal("startSpindle"),
    direction: z.enum(["forward", "reverse"]),
    rpm: z.number().int().min(0).max(99_999).optional(),
  }),
  z.strictObject({ type: z.literal("stopSpindle") }),
  z.strictObject({ type: z.literal("setDoor"), isOpen: z.boolean() }),
  z.strictObject({ type: z.literal("lookFrom"), side: z.enum(sides) }),
  // instruments
  z.strictObject({ type: z.literal("setWobbling") }),
  z.strictObject({ type: z.literal("trueTaster") }),
  z.strictObject({ type: z.literal("turnSpindle") }),
  z.strictObject({ type: z.literal("placePaper"), id: id.optional() }),
  z.strictObject({ type: z.literal("feelPaper") }),
  z.strictObject({ type: z.literal("pullPaper") }),
  z.strictObject({ type: z.literal("tryBlock"), id }),
  z.strictObject({ type: z.literal("pullBlock") }),
  z.strictObject({ type: z.literal("wipeBlocks") }),
  z.strictObject({ type: z.literal("standLamp") }),
  z.strictObject({ type: z.literal("takeLamp") }),
  z.strictObject({ type: z.literal("blowTip") }),
  z.strictObject({
    type: z.literal("askProbe"),
    question: z.enum(probeQuestions),
    axis: flatAxis.optional(),
    direction: direction.optional(),
    directionY: direction.optional(),
    size: typed.optional(),
    depth: typed.optional(),
  }),
  z.strictObject({
    type: z.literal("askSetter"),
    what: z.enum(["length", "diameterBoth", "diameterOne"]),
    isTurning: z.boolean(),
    offset: typed,
    about: typed,
  }),
  z.strictObject({
    type: z.literal("askBeam"),
    what: z.enum(["length", "diameter"]),
    rpm: z.number().int().min(0).max(99_999),
    isAtEdge: z.boolean(),
  }),
  z.strictObject({ type: z.literal("askPresetter"), tool }),
  z.strictObject({ type: z.literal("sweep") }),
  z.strictObject({
    type: z.literal("measure"),
    what: z.enum(measurable),
    by: z.enum(handMeasures),
    id: id.optional(),
    tool: tool.optional(),
  }),
  z.strictObject({ type: z.literal("dressBurr") }),
  z.strictObject({ type: z.literal("tapPart"), direction, strength: z.enum(["hard", "light"]) }),
  // a lathe's own
  z.strictObject({ type: z.literal("index"), station: tool, withOffset: z.boolean() }),
  /** On a hand-wound lathe: where the other hand rests while it is felt. */
  z.strictObject({ type: z.literal("placeGap"), id, on: turnedFace, hand: z.enum(["clear", "post"]).optional() }),
  z.strictObject({ type: z.literal("tryGap"), id, on: turnedFace }),
  z.strictObject({ type: z.literal("pullGap") }),
  z.strictObject({ type: z.literal("swingArm"), isDown: z.boolean() }),
  z.strictObject({ type: z.literal("turnChuck") }),
  z.strictObject({
    type: z.literal("measureTurned"),
    what: z.enum(["turned", "bored", "pip"]),
    by: z.enum(["micrometer", "caliper", "boreGauge"]),
  }),
  z.strictObject({ type: z.literal("shimTool"), text: typed }),
  z.strictObject({ type: z.literal("recall"), row: tool.nullable() }),
  z.strictObject({ type: z.literal("sightEdge") }),
  z.strictObject({ type: z.literal("changeTool"), tool, overhang: typed }),
  z.strictObject({ type: z.literal("loosenTool") }),
  z.strictObject({ type: z.literal("slideTool") }),
  z.strictObject({ type: z.literal("tightenTool"), how: z.enum(["inTurn", "oneRightDown"]) }),
  z.strictObject({ type: z.literal("turnFeed"), isLow: z.boolean() }),
  z.strictObject({ type: z.literal("switchOff") }),
  z.strictObject({ type: z.literal("stateFit"), tool, fits: z.boolean() }),
  z.strictObject({ type: z.literal("tryStack"), text: typed, under: z.enum(["spindle", "tailstock"]) }),
  z.strictObject({ type: z.literal("zeroGauge") }),
  z.strictObject({ type: z.literal("readGauge"), from: z.enum(["below", "above"]) }),
  z.strictObject({ type: z.literal("stateHeight"), what: z.enum(["axisHeight", "gaugeError"]), text: typed }),
  z.strictObject({ type: z.literal("runCone"), isHeld: z.boolean() }),
  // registers and ledger
  z.strictObject({ type: z.literal("zeroCounter"), axis, text: typed.optional() }),
  z.strictObject({ type: z.literal("captureRegister"), register, asText: typed }),
  z.strictObject({
    type: z.literal("typeRegister"),
    register,
    text: typed,
    how: z.enum(["set", "add"]),
    isConfirmed: z.boolean(),
  }),
  z.strictObject({
    type: z.literal("takeInRegisters"),
    rows: z
      .array(z.strictObject({ register, text: typed }))
      .min(1)
      .max(80),
  }),
  z.strictObject({ type: z.literal("undoRegister") }),
  z.strictObject({ type: z.literal("runBlock"), text: z.string().max(400) }),
  z.strictObject({ type: z.literal("reset") }),
  z.strictObject({ type: z.literal("takeReading"), register, from: z.number().int().min(1).optional() }),
  z.strictObject({ type: z.literal("writeTerm"), register, term: z.enum(termNames), text: typed }),
  z.strictObject({ type: z.literal("writeSum"), register, text: typed }),
  z.strictObject({ type: z.literal("strikeLine"), line: z.number().int().min(1) }),
  // checks
  z.strictObject({ type: z.literal("expectCheck"), check: z.enum(checkNames), text: typed, tool: tool.optional() }),
  z.strictObject({ type: z.literal("lookCheck") }),
  z.strictObject({ type: z.literal("judgeCheck"), isAsExpected: z.boolean() }),
  z.strictObject({ type: z.literal("judgeSetup"), isSound: z.boolean() }),
  z.strictObject({ type: z.literal("raiseHand") }),
  z.strictObject({ type: z.literal("lowerHand") }),
  z.strictObject({ type: z.literal("handIn"), school: z.enum(millLengthSchools).optional() }),
]);
export type Command = z.infer<typeof commandSchema>;
export type CommandOf<T extends Command["type"]> = Extract<Command, { type: T }>;
