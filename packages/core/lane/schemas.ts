import { z } from "zod";
import { millLengthSchools } from "../exercises/schools";
import { instrumentNames, probeOutcomes } from "../instruments";
import { workOffsetNames } from "../registers";
import { checkNames, jogSizeNames, sides, termNames } from "./names";
import { axis, counts, direction, mm, place, register, tool, typed } from "./pieces";
import type { Refusal } from "./refusals";

const turning = z.enum(["forward", "reverse"]);
const rpm = z.number().int().min(0).max(99_999);

/** What can be asked of every lane. Lengths arrive as typed text, so that what cannot be read is answered in words. */
export const laneCommands = [
  z.strictObject({ type: z.literal("home") }),
  z.strictObject({
    type: z.literal("jog"),
    axis,
    direction,
    clicks: z.number().int().min(1).max(200),
    size: z.enum(jogSizeNames),
  }),
  z.strictObject({ type: z.literal("startSpindle"), direction: turning, rpm: rpm.optional() }),
  z.strictObject({ type: z.literal("stopSpindle") }),
  z.strictObject({ type: z.literal("setDoor"), isOpen: z.boolean() }),
  z.strictObject({ type: z.literal("lookFrom"), side: z.enum(sides) }),
  z.strictObject({ type: z.literal("wipeBlocks") }),
  /** The indicator carried round: on a mill in the spindle, on a lathe on the chuck. */
  z.strictObject({ type: z.literal("sweep") }),
  // registers
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
  // ledger
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
] as const;

/** A reading as an instrument shows it: named figures, mm unless the name ends in Deg. */
const readingFields = {
  instrument: z.enum(instrumentNames),
  what: z.string(),
  tool: counts.optional(),
  values: z.record(z.string(), mm),
  outcome: z.enum(probeOutcomes).optional(),
};

/** Facts of every lane, past tense, numbers resolved. Sequence, time and actor stand in the envelope. */
export const laneEvents = [
  z.strictObject({ type: z.literal("homed") }),
  z.strictObject({
    type: z.literal("jogged"),
    axis,
    size: z.enum(jogSizeNames),
    direction,
    clicks: counts,
    to: place,
  }),
  // a typed move names the registers that it went by, an incremental one none; a hand, a cycle and a move in the
  // machine's own frame have no such list
  z.strictObject({
    type: z.literal("moved"),
    to: place,
    isRapid: z.boolean(),
    reads: z.array(register).optional(),
  }),
  z.strictObject({ type: z.literal("spindleStarted"), direction: turning, rpm: counts, isStated: z.boolean() }),
  z.strictObject({ type: z.literal("spindleStopped") }),
  z.strictObject({ type: z.literal("speedSet"), rpm: counts }),
  z.strictObject({ type: z.literal("doorSet"), isOpen: z.boolean() }),
  z.strictObject({ type: z.literal("lookedFrom"), side: z.enum(sides), isOverZero: z.boolean() }),
  z.strictObject({ type: z.literal("blocksWiped") }),
  z.strictObject({ type: z.literal("readingShown"), number: counts, ...readingFields }),
  z.strictObject({ type: z.literal("counterZeroed"), axis, at: counts }),
  z.strictObject({
    type: z.literal("registerChanged"),
    register,
    from: counts,
    to: counts,
    how: z.enum([
      "captured",
      "typed",
      "added",
      "undone",
      "takenIn",
      "cleared",
      "declared",
      "byCycle",
      "byProgram",
      "takenBack",
    ]),
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
  z.strictObject({ type: z.literal("checkJudged"), isAsExpected: z.boolean(), covers: z.array(register).optional() }),
  z.strictObject({ type: z.literal("setupJudged"), isSound: z.boolean() }),
  z.strictObject({ type: z.literal("handRaised") }),
  z.strictObject({ type: z.literal("handLowered") }),
  z.strictObject({
    type: z.literal("commandRefused"),
    command: z.string(),
    refusal: z.custom<Refusal>((value) => typeof value === "object" && value !== null && "code" in value),
  }),
  z.strictObject({ type: z.literal("handedIn"), school: z.enum(millLengthSchools).optional() }),
] as const;
