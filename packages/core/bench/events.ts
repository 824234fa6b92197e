import { z } from "zod";
import { millLengthSchools, setupTasks } from "../exercises/schema";
import { surfaces } from "../exercises/scene";
import { upgradeSetup, upgradeTruth } from "../exercises/upgrade";
import { feelNames, instrumentNames, isThing, probeOutcomes, wobbleNames, type Thing } from "../instruments";
import { isRegisterId, workOffsetNames, type RegisterId } from "../registers";
import { checkNames, jogSizeNames, sides, termNames } from "./commands";
import type { Setup, Truth } from "../exercises";
import type { Refusal } from "./refusals";

const counts = z.number().int();
const mm = z.number();
const axis = z.enum(["x", "y", "z"]);
const place = z.strictObject({ x: counts, y: counts, z: counts });
const register = z.custom<RegisterId>((value) => typeof value === "string" && isRegisterId(value));
const thing = z.custom<Thing>(isThing);
const approach = z.union([z.literal(1), z.literal(-1)]);
const surface = z.enum(surfaces);
const turnedFace = z.enum(["face", "diameter", "bore"]);

/** Incidents: what went wrong, whether it says so at once, whether safety fails outright by it. */
const incidentCodes = [
  "finderThrown",
  "finderBent",
  "finderBroken",
  "toolChipped",
  "noseStruck",
  "paperUnderTurningTool",
  "paperTorn",
  "tasterBroken",
  "probeBroken",
  "indicatorBroken",
  "startedWithInstrument",
  "changerStruck",
  "blockCrushed",
  "gaugeDamaged",
  "setterDamaged",
  "insertChipped",
  "jawStruck",
  "armStruck",
  "handAtChuck",
  "neighborStruck",
] as const;
export type IncidentCode = (typeof incidentCodes)[number];

/** Where the numbers of a contact come from, mm; hidden until the ruling. */
/** How a point looks against an edge that it is held over, and what a pass along a cone does. */
export const sightings = ["before", "over", "behind"] as const;
export const conePasses = ["cuts", "skims", "air"] as const;

const contactParts = z.strictObject({ kickPastMm: mm, burrMm: mm, lateMm: mm, bendMm: mm, clickMm: mm });

/** A reading as an instrument shows it: named figures, mm unless the name ends in Deg. */
const readingFields = {
  instrument: z.enum(instrumentNames),
  what: z.string(),
  tool: counts.optional(),
  values: z.record(z.string(), mm),
  outcome: z.enum(probeOutcomes).optional(),
};

/** Facts of a lane, past tense, numbers resolved. Sequence, time and actor stand in the envelope. */
export const eventSchema = z.discriminatedUnion("type", [
  z.strictObject({
    type: z.literal("laneOpened"),
    isCoachOn: z.boolean(),
    setup: z.custom<Setup>((value) => typeof value === "object" && value !== null),
    truth: z.custom<Truth>((value) => typeof value === "object" && value !== null),
    finderOwnKickMm: mm,
  }),
  z.strictObject({ type: z.literal("homed") }),
  z.strictObject({ type: z.literal("taskDone"), task: z.enum(setupTasks) }),
  z.strictObject({
    type: z.literal("jogged"),
    axis,
    size: z.enum(jogSizeNames),
    direction: approach,
    clicks: counts,
    to: place,
  }),
  z.strictObject({ type: z.literal("moved"), to: place, isRapid: z.boolean() }),
  z.strictObject({ type: z.literal("loaded"), thing, seatMm: mm.optional(), isByChanger: z.boolean().optional() }),
  z.strictObject({ type: z.literal("finderReplaced"), copy: counts, ownKickMm: mm }),
  z.strictObject({ type: z.literal("instrumentReplaced"), thing }),
  z.strictObject({ type: z.literal("unloaded") }),
  z.strictObject({ type: z.literal("pocketsSwapped"), a: counts, b: counts }),
  z.strictObject({
    type: z.literal("spindleStarted"),
    direction: z.enum(["forward", "reverse"]),
    rpm: counts,
    isStated: z.boolean(),
  }),
  z.strictObject({ type: z.literal("spindleStopped") }),
  z.strictObject({ type: z.literal("spindleTurned"), quarter: counts }),
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
    type: z.literal("kicked"),
    axis: z.enum(["x", "y"]),
    approach,
    atCounts: counts,
    isSeen: z.boolean(),
    parts: contactParts,
  }),
  z.strictObject({ type: z.literal("tasterTrued") }),
  z.strictObject({
    type: z.literal("touchBegan"),
    by: z.enum(["taster", "probe", "lampGauge", "plungerSetter"]),
    axis,
    approach,
    at: place,
    number: counts,
    errorMm: mm,
    clickMm: mm,
  }),
  z.strictObject({ type: z.literal("touchEnded"), by: z.enum(["taster", "probe", "lampGauge", "plungerSetter"]) }),
  z.strictObject({ type: z.literal("touchedHard"), on: surface }),
  z.strictObject({ type: z.literal("leftHard") }),
  z.strictObject({ type: z.literal("paperPlaced"), on: surface, feel: z.enum(feelNames), id: z.string().optional() }),
  z.strictObject({ type: z.literal("paperFelt"), on: surface, feel: z.enum(feelNames), machineZ: counts, clickMm: mm }),
  z.strictObject({ type: z.literal("paperPulled") }),
  z.strictObject({
    type: z.literal("blockTried"),
    id: z.string(),
    on: surface,
    goes: z.boolean(),
    machineZ: counts,
    number: counts,
    dirtMm: mm,
    clickMm: mm,
    isOpened: z.boolean(),
  }),
  z.strictObject({ type: z.literal("blockPulled") }),
  z.strictObject({ type: z.literal("blocksWiped") }),
  z.strictObject({ type: z.literal("lampStood"), on: surface, x: mm, y: mm, footMm: mm }),
  z.strictObject({ type: z.literal("lampTaken") }),
  z.strictObject({ type: z.literal("tipBlown"), thing }),
  z.strictObject({ type: z.literal("readingShown"), number: counts, ...readingFields }),
  z.strictObject({ type: z.literal("burrDressed") }),
  z.strictObject({ type: z.literal("partTapped"), skewDeg: mm, shiftMm: z.strictObject({ x: mm, y: mm }) }),
  z.strictObject({ type: z.literal("counterZeroed"), axis, at: counts }),
  z.strictObject({
    type: z.literal("registerChanged"),
    register,
    from: counts,
    to: counts,
    how: z.enum(["captured", "typed", "added", "undone", "takenIn", "cleared", "declared"]),
    as: counts.optional(),
    machine: place,
  }),
  z.strictObject({
    type: z.literal("modalChanged"),
    motion: z.enum(["rapid", "feed"]).optional(),
    distance: z.enum(["absolute", "incremental"]).optional(),
    workOffset: z.enum(workOffsetNames).optional(),
    lengthRow: counts.nullable().optional(),
    calledLength: counts.nullable().optional(),
    feedMmPerMin: mm.optional(),
    tool: counts.optional(),
    rotationDeg: mm.optional(),
  }),
  z.strictObject({ type: z.literal("blockRan"), text: z.string() }),
  z.strictObject({
    type: z.literal("incidentHappened"),
    code: z.enum(incidentCodes),
    isSilent: z.boolean(),
    failsOutright: z.boolean(),
    on: surface.optional(),
    rpm: counts.optional(),
    bendMm: mm.optional(),
    shorterMm: mm.optional(),
    shiftMm: mm.optional(),
    thing: thing.optional(),
    stopsMachine: z.boolean(),
  }),
  z.strictObject({ type: z.literal("machineReset") }),
  z.strictObject({
    type: z.literal("lineWritten"),
    line: counts,
    register,
    kind: z.enum(["reading", "term", "sum"]),
    term: z.enum(termNames).optional(),
    counts,
    from: counts.optional(),
  }),
  z.strictObject({ type: z.literal("lineStruck"), line: counts }),
  z.strictObject({ type: z.literal("checkExpected"), check: z.enum(checkNames), mm, tool: counts.optional() }),
  z.strictObject({ type: z.literal("checkLooked"), seenMm: mm.nullable() }),
  z.strictObject({ type: z.literal("checkJudged"), isAsExpected: z.boolean() }),
  // a lathe's own
  z.strictObject({ type: z.literal("turretIndexed"), station: counts, row: counts.nullable() }),
  z.strictObject({
    type: z.literal("turned"),
    kind: z.enum(["outer", "bore"]),
    fromMm: mm,
    toMm: mm,
    radiusMm: mm,
    number: counts,
    axis: z.enum(["x", "z"]),
    at: place,
    clickMm: mm,
    /** A facing cut that went past the middle, and what it left there. */
    pip: z.strictObject({ diameterMm: mm, looks: z.enum(["none", "standing", "rubbed"]) }).optional(),
  }),
  z.strictObject({ type: z.literal("toolShimmed"), tool: counts, byMm: mm }),
  z.strictObject({
    type: z.literal("turretGapPlaced"),
    id: z.string(),
    on: turnedFace,
    feel: z.enum(feelNames),
    leanMm: mm.optional(),
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
  z.strictObject({ type: z.literal("chuckTurned"), quarter: counts }),
  z.strictObject({ type: z.literal("armSwung"), isDown: z.boolean() }),
  z.strictObject({ type: z.literal("armTripped"), axis: z.enum(["x", "z"]), at: place, number: counts, errorMm: mm }),
  z.strictObject({ type: z.literal("armLeft") }),
  z.strictObject({
    type: z.literal("metalTouched"),
    on: z.enum(["face", "diameter", "bore", "cone"]),
    at: place,
    clickMm: mm,
  }),
  z.strictObject({ type: z.literal("metalLeft") }),
  // a hand-wound lathe, a gang slide, a cone
  z.strictObject({ type: z.literal("edgeSighted"), tool: counts, looks: z.enum(sightings), at: place, errorMm: mm }),
  z.strictObject({ type: z.literal("toolChanged"), tool: counts, overhangMm: mm, xMm: mm, heightMm: mm }),
  z.strictObject({ type: z.literal("toolLoosened"), tool: counts, xMm: mm }),
  z.strictObject({ type: z.literal("toolSlid"), tool: counts, xMm: mm, at: place }),
  z.strictObject({ type: z.literal("toolTightened"), tool: counts, how: z.enum(["inTurn", "oneRightDown"]), xMm: mm }),
  z.strictObject({ type: z.literal("switchedOff") }),
  z.strictObject({ type: z.literal("fitStated"), tool: counts, fits: z.boolean() }),
  z.strictObject({
    type: z.literal("stackTried"),
    blocks: z.array(mm),
    under: z.enum(["spindle", "tailstock"]),
    goes: z.boolean(),
    number: counts,
  }),
  z.strictObject({ type: z.literal("gaugeZeroed") }),
  z.strictObject({
    type: z.literal("gaugeRead"),
    from: z.enum(["below", "above"]),
    isZeroed: z.boolean(),
    number: counts,
  }),
  z.strictObject({ type: z.literal("heightStated"), what: z.enum(["axisHeight", "gaugeError"]), mm }),
  z.strictObject({ type: z.literal("feedTurned"), isLow: z.boolean() }),
  z.strictObject({
    type: z.literal("coneRan"),
    tool: counts,
    isHeld: z.boolean(),
    looks: z.enum(conePasses),
    offMm: mm,
    number: counts,
    at: place,
    faceMm: mm,
    cone: z.strictObject({ diameterMm: mm, atMm: mm, angleDeg: mm, lengthMm: mm }),
  }),
  z.strictObject({ type: z.literal("setupJudged"), isSound: z.boolean() }),
  z.strictObject({ type: z.literal("handRaised") }),
  z.strictObject({ type: z.literal("handLowered") }),
  z.strictObject({
    type: z.literal("commandRefused"),
    command: z.string(),
    refusal: z.custom<Refusal>((value) => typeof value === "object" && value !== null && "code" in value),
  }),
  z.strictObject({ type: z.literal("handedIn"), school: z.enum(millLengthSchools).optional() }),
]);
export type LaneEvent = z.infer<typeof eventSchema>;
export type EventOf<T extends LaneEvent["type"]> = Extract<LaneEvent, { type: T }>;

/**
 * Named migrations of old log entries, oldest first; each turns one stored shape into the next. Format 1 → 2: the sheet
 * and the truth of a lane's first event. A stored event is parsed here before it is folded.
 */
export function upgradeEvent(stored: unknown): LaneEvent {
  const isFirst = typeof stored === "object" && stored !== null && "type" in stored && stored.type === "laneOpened";
  if (!isFirst) return eventSchema.parse(stored);
  const { setup, truth } = stored as { setup?: unknown; truth?: unknown };
  return eventSchema.parse({ ...stored, setup: upgradeSetup(setup), truth: upgradeTruth(truth) });
}
