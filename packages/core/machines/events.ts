import { z } from "zod";
import type { Setup, Truth } from "../exercises/setup";
import { upgradeSetup, upgradeTruth } from "../exercises/upgrade";
import { counts, mm, surface, thing } from "../lane/pieces";
import { laneEvents } from "../lane/schemas";
import { latheEvents, latheIncidents } from "./lathe/schemas";
import { millEvents, millIncidents } from "./mill/schemas";
import { events as programEvents, incidents as programIncidents } from "./program/schema";

/** Share of the safety strand that each incident costs. */
export const incidentCosts = { ...millIncidents, ...latheIncidents, ...programIncidents };
export type IncidentCode = keyof typeof incidentCosts;
const incidentCodes = Object.keys(incidentCosts) as [IncidentCode, ...IncidentCode[]];

const shared = [
  z.strictObject({
    type: z.literal("laneOpened"),
    isCoachOn: z.boolean(),
    setup: z.custom<Setup>((value) => typeof value === "object" && value !== null),
    truth: z.custom<Truth>((value) => typeof value === "object" && value !== null),
    finderOwnKickMm: mm,
  }),
  /** What went wrong, whether it says so at once, whether safety fails outright by it. */
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
] as const;

/** Facts of a lane: of every lane, and of the acts of every machine. */
export const eventSchema = z.discriminatedUnion("type", [
  ...shared,
  ...laneEvents,
  ...programEvents,
  ...millEvents,
  ...latheEvents,
]);
export type LaneEvent = z.infer<typeof eventSchema>;
export type EventOf<T extends LaneEvent["type"]> = Extract<LaneEvent, { type: T }>;

/**
 * Named migrations of old log entries, oldest first; each turns one stored shape into the next. Format 1 → 2 → 3: the
 * sheet and the truth of a lane's first event. A stored event is parsed here before it is folded.
 */
export function upgradeEvent(stored: unknown): LaneEvent {
  const isFirst = typeof stored === "object" && stored !== null && "type" in stored && stored.type === "laneOpened";
  if (!isFirst) return eventSchema.parse(stored);
  const { setup, truth } = stored as { setup?: unknown; truth?: unknown };
  return eventSchema.parse({ ...stored, setup: upgradeSetup(setup), truth: upgradeTruth(truth) });
}
