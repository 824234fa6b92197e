import { z } from "zod";
import { counts, mm, place, register, tool, typed } from "../../lane/pieces";
import { partInstrumentNames, partVerdicts, readingInstruments, triedInstruments } from "../../lane/partNames";
import { askKinds, gaugeOutcomes, outcomes, runEnds, runHolds } from "../../lane/programNames";

const line = z.number().int().min(1).max(100_000);
/** A feature of the part, by its name on the sheet. */
const feature = z.string().min(1).max(80);
const percent = z.union([z.literal(5), z.literal(25), z.literal(50), z.literal(100)]);
/** Which thing is looked up: of a tool where there is one for each. */
const ask = { ask: z.enum(askKinds), tool: tool.optional() };

export const commands = [
  // program
  /** From the store; `as` is the number that it is to bear, where that is not its own. */
  z.strictObject({
    type: z.literal("loadProgram"),
    number: line,
    as: z.number().int().min(1).max(9999).optional(),
    isConfirmed: z.boolean(),
  }),
  /** A program of the student's own, in practice. */
  z.strictObject({ type: z.literal("takeProgram"), text: z.string().min(1).max(16_000), isConfirmed: z.boolean() }),
  z.strictObject({ type: z.literal("mendLine"), line, text: z.string().max(200) }),
  // looked up before it is run
  z.strictObject({ type: z.literal("lookUp"), ...ask, text: typed, isSound: z.boolean() }),
  z.strictObject({ type: z.literal("judgeDeepest"), tool, outcome: z.enum(outcomes) }),
  /** Asks whoever signs to look at program, registers and answers. */
  z.strictObject({ type: z.literal("askSignature") }),
  // run
  /** At a tool what stands before it is read first, unless it is said not to be: then what is in force stays so. */
  z.strictObject({ type: z.literal("startCycle"), fromTool: tool.optional(), isUnread: z.literal(true).optional() }),
  z.strictObject({ type: z.literal("runOn"), ms: z.number().int().min(1).max(20_000) }),
  z.strictObject({ type: z.literal("holdCycle") }),
  z.strictObject({ type: z.literal("resumeCycle") }),
  z.strictObject({
    type: z.literal("setPace"),
    rapidPercent: percent.optional(),
    feedPercent: z.number().int().min(0).max(150).optional(),
    isSingle: z.boolean().optional(),
    stopsAtOptional: z.boolean().optional(),
    passesSlash: z.boolean().optional(),
  }),
  /** The gap that is seen or measured with a rule, held on the way, against what is still to go. */
  z.strictObject({ type: z.literal("sayGap"), text: typed, isAlike: z.boolean() }),
  // the part that was cut
  z.strictObject({ type: z.literal("measurePart"), feature, with: z.enum(readingInstruments) }),
  /** Whether a stack of this size goes into a slot. */
  z.strictObject({ type: z.literal("tryGauge"), feature, with: z.enum(triedInstruments), text: typed }),
  z.strictObject({ type: z.literal("letCool") }),
  z.strictObject({ type: z.literal("judgePart"), verdict: z.enum(partVerdicts) }),
  /** The part out, and the next blank in, as the first one lay. */
  z.strictObject({ type: z.literal("takeBlank") }),
  /** Keeps program and registers of a part that is good, over what was kept before only when that is said. */
  z.strictObject({ type: z.literal("saveSetup"), initials: typed, isConfirmed: z.boolean() }),
] as const;

export const events = [
  z.strictObject({
    type: z.literal("programLoaded"),
    number: counts,
    as: counts.optional(),
    text: z.string().optional(),
  }),
  z.strictObject({ type: z.literal("lineMended"), line: counts, text: z.string() }),
  z.strictObject({
    type: z.literal("lookedUp"),
    ...ask,
    said: z.string(),
    isSound: z.boolean(),
    /** What the answer hangs on: registers, and lines of the program as it stood. */
    reads: z.array(register),
    lines: z.array(counts),
    /** Whether that is what stands there, and whether what stands there is as it should be: for the ruling. */
    isRight: z.boolean(),
    isAsItShould: z.boolean(),
  }),
  z.strictObject({
    type: z.literal("deepestJudged"),
    tool,
    outcome: z.enum(outcomes),
    reads: z.array(register),
    /** Whether the display stood at the tool's deepest Z when it was said. */
    isStood: z.boolean(),
    /** What it would really be: for the ruling. */
    really: z.enum(outcomes),
    /** Whether it is a tool that matters there: for the ruling. */
    isMattering: z.boolean(),
  }),
  z.strictObject({
    type: z.literal("paceSet"),
    rapidPercent: percent.optional(),
    feedPercent: counts.optional(),
    isSingle: z.boolean().optional(),
    stopsAtOptional: z.boolean().optional(),
    passesSlash: z.boolean().optional(),
  }),
  z.strictObject({ type: z.literal("signatureAsked") }),
  /** By an instructor: what stands in program and registers at this place of the log is what is signed. */
  z.strictObject({ type: z.literal("signatureGiven"), by: z.string() }),
  z.strictObject({ type: z.literal("signatureSentBack"), by: z.string(), word: z.string() }),
  z.strictObject({ type: z.literal("cycleStarted"), fromLine: counts, isUnread: z.literal(true).optional() }),
  /** On the way of the piece of this number: so far along it, mm. */
  z.strictObject({
    type: z.literal("ran"),
    piece: counts,
    alongMm: mm,
    line: counts,
    to: place,
    isRapid: z.boolean(),
    reads: z.array(register),
  }),
  /** A piece is done, and the next one is this. */
  z.strictObject({ type: z.literal("pieceDone"), piece: counts, line: counts }),
  z.strictObject({ type: z.literal("runHeld"), why: z.enum(runHolds), line: counts }),
  z.strictObject({ type: z.literal("runResumed") }),
  z.strictObject({
    type: z.literal("runEnded"),
    why: z.enum(runEnds),
    line: counts,
    /** What was met, and with what. */
    met: z.string().optional(),
    with: z.string().optional(),
    code: z.string().optional(),
  }),
  /** What was seen between tip and part, what the display read, and by how much the two really differ, mm. */
  z.strictObject({
    type: z.literal("gapSaid"),
    mm,
    displayMm: mm,
    offMm: mm,
    tool: counts.nullable(),
    isAlike: z.boolean(),
  }),
  /** What a program gauged: read against what it aims at, what it wrote for that, and, for the ruling, what it was. */
  z.strictObject({
    type: z.literal("gauged"),
    part: counts,
    cut: counts,
    line: counts,
    axis: z.enum(["x", "y", "z"]).nullable(),
    mm,
    targetMm: mm,
    outcome: z.enum(gaugeOutcomes),
    register: register.nullable(),
    /** What was added to the register, or would have been. */
    changeMm: mm.nullable(),
    reallyMm: mm,
  }),
  /** What was read of a feature, or whether a stack of this size goes in; and what it really is, for the ruling. */
  z.strictObject({
    type: z.literal("partMeasured"),
    part: counts,
    cut: counts,
    feature,
    with: z.enum(partInstrumentNames),
    mm,
    isWarm: z.boolean(),
    goes: z.boolean().optional(),
    reallyMm: mm,
  }),
  z.strictObject({ type: z.literal("partCooled") }),
  z.strictObject({ type: z.literal("partJudged"), part: counts, cut: counts, verdict: z.enum(partVerdicts) }),
  z.strictObject({ type: z.literal("blankTaken"), part: counts }),
  z.strictObject({ type: z.literal("setupSaved"), initials: z.string(), part: counts, program: counts }),
] as const;

/** Share of the safety strand that each incident of a run costs. */
export const incidents = {
  ranIntoFixture: 1,
  ranIntoStock: 0.5,
  ranStill: 0.4,
  ranPastTravel: 0.2,
} as const;
