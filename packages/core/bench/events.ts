import { z } from "zod";
import { feelNames, thingNames, wobbleNames } from "../instruments";
import { isMillRegisterId, workOffsetNames, type MillRegisterId } from "../registers";
import { jogSizeNames, sides, termNames } from "./commands";
import type { Setup, Truth } from "../exercises";
import type { Refusal } from "./refusals";

const counts = z.number().int();
const mm = z.number();
const axis = z.enum(["x", "y", "z"]);
const place = z.strictObject({ x: counts, y: counts, z: counts });
const register = z.custom<MillRegisterId>((value) => typeof value === "string" && isMillRegisterId(value));
const approach = z.union([z.literal(1), z.literal(-1)]);
const surfaces = ["stock", "frontJaw", "backJaw", "table"] as const;

/** Incidents: what went wrong, whether it says so at once, whether safety fails outright by it. */
const incidentCodes = [
  "finderThrown", "finderBent", "finderBroken", "toolChipped", "noseStruck", "paperUnderTurningTool", "paperTorn",
] as const;
export type IncidentCode = (typeof incidentCodes)[number];

/** Where the numbers of a contact come from, mm; hidden until the ruling. */
const contactParts = z.strictObject({ kickPastMm: mm, burrMm: mm, lateMm: mm, bendMm: mm, clickMm: mm });

/** Facts of a lane, past tense, numbers resolved. Sequence, time and actor stand in the envelope. */
export const eventSchema = z.discriminatedUnion("type", [
  z.strictObject({
    type: z.literal("laneOpened"), isCoachOn: z.boolean(),
    setup: z.custom<Setup>((value) => typeof value === "object" && value !== null),
    truth: z.custom<Truth>((value) => typeof value === "object" && value !== null),
    finderOwnKickMm: mm,
  }),
  z.strictObject({ type: z.literal("homed") }),
  z.strictObject({ type: z.literal("jogged"), axis, size: z.enum(jogSizeNames), direction: approach, clicks: counts, to: place }),
  z.strictObject({ type: z.literal("moved"), to: place, isRapid: z.boolean() }),
  z.strictObject({ type: z.literal("loaded"), thing: z.enum(thingNames) }),
  z.strictObject({ type: z.literal("finderReplaced"), copy: counts, ownKickMm: mm }),
  z.strictObject({ type: z.literal("unloaded") }),
  z.strictObject({ type: z.literal("spindleStarted"), direction: z.enum(["forward", "reverse"]), rpm: counts, isStated: z.boolean() }),
  z.strictObject({ type: z.literal("spindleStopped") }),
  z.strictObject({ type: z.literal("speedSet"), rpm: counts }),
  z.strictObject({ type: z.literal("doorSet"), isOpen: z.boolean() }),
  z.strictObject({ type: z.literal("lookedFrom"), side: z.enum(sides), isOverZero: z.boolean() }),
  z.strictObject({ type: z.literal("setWobbling") }),
  z.strictObject({
    type: z.literal("approachBegan"),
    approach: z.strictObject({ number: counts, kickPastMm: mm, overMm: mm, thresholdsMm: z.array(mm) }),
  }),
  z.strictObject({ type: z.literal("approachEnded") }),
  z.strictObject({ type: z.literal("wobbleChanged"), wobble: z.enum(wobbleNames) }),
  z.strictObject({
    type: z.literal("kicked"), axis: z.enum(["x", "y"]), approach, atCounts: counts, isSeen: z.boolean(), parts: contactParts,
  }),
  z.strictObject({ type: z.literal("touchedHard"), on: z.enum(surfaces) }),
  z.strictObject({ type: z.literal("leftHard") }),
  z.strictObject({ type: z.literal("paperPlaced"), on: z.enum(surfaces), feel: z.enum(feelNames) }),
  z.strictObject({ type: z.literal("paperFelt"), on: z.enum(surfaces), feel: z.enum(feelNames), machineZ: counts, clickMm: mm }),
  z.strictObject({ type: z.literal("paperPulled") }),
  z.strictObject({ type: z.literal("burrDressed") }),
  z.strictObject({ type: z.literal("counterZeroed"), axis, at: counts }),
  z.strictObject({
    type: z.literal("registerChanged"), register, from: counts, to: counts,
    how: z.enum(["captured", "typed", "added", "undone"]), as: counts.optional(), machine: place,
  }),
  z.strictObject({
    type: z.literal("modalChanged"),
    motion: z.enum(["rapid", "feed"]).optional(), distance: z.enum(["absolute", "incremental"]).optional(),
    workOffset: z.enum(workOffsetNames).optional(), lengthRow: counts.nullable().optional(),
    feedMmPerMin: mm.optional(), tool: counts.optional(),
  }),
  z.strictObject({ type: z.literal("blockRan"), text: z.string() }),
  z.strictObject({
    type: z.literal("incidentHappened"), code: z.enum(incidentCodes), isSilent: z.boolean(), failsOutright: z.boolean(),
    on: z.enum(surfaces).optional(), rpm: counts.optional(), bendMm: mm.optional(), shorterMm: mm.optional(),
    thing: z.enum(thingNames).optional(), stopsMachine: z.boolean(),
  }),
  z.strictObject({ type: z.literal("machineReset") }),
  z.strictObject({
    type: z.literal("lineWritten"), line: counts, register, kind: z.enum(["reading", "term", "sum"]),
    term: z.enum(termNames).optional(), counts,
  }),
  z.strictObject({ type: z.literal("lineStruck"), line: counts }),
  z.strictObject({ type: z.literal("handRaised") }),
  z.strictObject({ type: z.literal("handLowered") }),
  z.strictObject({
    type: z.literal("commandRefused"), command: z.string(),
    refusal: z.custom<Refusal>((value) => typeof value === "object" && value !== null && "code" in value),
  }),
  z.strictObject({ type: z.literal("handedIn") }),
]);
export type LaneEvent = z.infer<typeof eventSchema>;
export type EventOf<T extends LaneEvent["type"]> = Extract<LaneEvent, { type: T }>;

/**
 * Named migrations of old log entries, oldest first; each turns one stored shape into the next. None is needed yet:
 * every log was written by this version. A stored event is parsed here before it is folded.
 */
export const upgradeEvent = (stored: unknown): LaneEvent => eventSchema.parse(stored);
