import { type RegisterId, type Registers } from "../registers";
import { type PartInstrument, type PartSaid } from "./partNames";
import {
  type AskKind,
  type GaugeOutcome,
  type Outcome,
  type RapidPercent,
  type RunEnd,
  type RunHold,
} from "./programNames";

/** The program that a control holds: its number in the shop's store (0: the student's own), its lines as they stand. */
interface HeldProgram {
  readonly number: number;
  /** The number that it was given when it was loaded. */
  readonly as: number;
  readonly lines: readonly string[];
  readonly mended: readonly number[];
}

/** How fast and in what steps a program is run. */
interface Pace {
  readonly rapidPercent: RapidPercent;
  readonly feedPercent: number;
  readonly isSingle: boolean;
  readonly stopsAtOptional: boolean;
  readonly passesSlash: boolean;
}

/** What a run began with, and how far it has come. `before` is the lane as it stood when the cycle was started. */
export interface ProgramRun {
  readonly before: object;
  /** Line of the tool that it was started at; 0 at the head. */
  readonly fromLine: number;
  /** What stands before that line was not read: units, work offset, feed and all else stay as they were in force. */
  readonly isUnread: boolean;
  readonly piece: number;
  readonly alongMm: number;
  readonly line: number;
  readonly held: RunHold | null;
}

/** Something looked up: what was said of it, and what that hangs on. */
export interface LookedUp {
  readonly ask: AskKind;
  readonly tool: number | null;
  readonly said: string;
  readonly isSound: boolean;
  /** Whether it was what stood there when it was said: hidden but in practice. */
  readonly isRight: boolean;
  readonly reads: readonly RegisterId[];
  readonly lines: readonly number[];
}

/** One thing that a program has to be looked up for: once, or once for each tool that it calls. */
export interface Ask {
  readonly ask: AskKind;
  readonly tool: number | null;
}
export const isSameAsk = (one: Ask, other: Ask): boolean => one.ask === other.ask && one.tool === other.tool;

/** What takes something back: a register, a line of the program, what was put into the spindle or another pocket. */
export type Taker = RegisterId | number | "spindle" | "pockets" | "seat";

/** What was withdrawn of it, and by what. */
export interface WithdrawnLook {
  readonly ask: AskKind;
  readonly tool: number | null;
  readonly by: Taker;
}

interface DeepestJudged {
  readonly tool: number;
  readonly outcome: Outcome;
  readonly reads: readonly RegisterId[];
}

/** How the signature before the first cut stands: asked for, given or sent back with a word, withdrawn by a change. */
export type Signature =
  | { readonly state: "none" | "asked" }
  | { readonly state: "given"; readonly by: string }
  | { readonly state: "sentBack"; readonly by: string; readonly word: string }
  | { readonly state: "withdrawn"; readonly changed: Taker };

/** A figure that an instrument showed of a feature of a part. */
export interface PartFigure {
  readonly part: number;
  /** How often this part was cut when it was read. */
  readonly cut: number;
  readonly feature: string;
  readonly with: PartInstrument;
  readonly mm: number;
  readonly isWarm: boolean;
  /** Of a gauge stack of this size: whether it goes in. */
  readonly goes?: boolean | undefined;
  /** What it really is, mm: never shown before the hand-in but in practice. */
  readonly reallyMm: number;
}

/** What a program gauged of a part in the run of this number on it, and what it made of that. */
export interface ProgramGauged {
  readonly part: number;
  readonly cut: number;
  readonly line: number;
  readonly axis: "x" | "y" | "z" | null;
  readonly mm: number;
  readonly targetMm: number;
  readonly outcome: GaugeOutcome;
  readonly register: RegisterId | null;
  readonly changeMm: number | null;
  readonly reallyMm: number;
}

/** The part that is held, what was measured of parts, and what was said of them. */
interface PartsDesk {
  readonly current: number;
  readonly isWarm: boolean;
  readonly figures: readonly PartFigure[];
  readonly judged: readonly { readonly part: number; readonly cut: number; readonly verdict: PartSaid }[];
  readonly saved: SavedSetup | null;
}

/** A setup that was kept after a good part: by whom, by which part, the program and every register as they stood. */
interface SavedSetup {
  readonly initials: string;
  readonly part: number;
  readonly program: number;
  readonly registers: Registers;
}

/** What is made of a setup that was kept: what is touched again, whether it was taken back, what was set after. */
interface KeptDesk {
  readonly named: readonly RegisterId[] | null;
  readonly isTaken: boolean;
  readonly changed: readonly RegisterId[];
}

/** Everything about programs on one lane. */
export interface ProgramDesk {
  readonly held: HeldProgram | null;
  readonly pace: Pace;
  /** Everything that the held program is to be looked up for. */
  readonly asks: readonly Ask[];
  readonly looked: readonly LookedUp[];
  readonly withdrawn: readonly WithdrawnLook[];
  readonly deepest: readonly DeepestJudged[];
  readonly signature: Signature;
  readonly run: ProgramRun | null;
  /** Runs that have ended: what they cut is gone. */
  readonly done: readonly { readonly run: ProgramRun; readonly why: RunEnd }[];
  readonly last: {
    readonly why: RunEnd;
    readonly line: number;
    readonly met?: string | undefined;
    readonly with?: string | undefined;
    readonly code?: string | undefined;
  } | null;
  readonly gaps: readonly { readonly mm: number; readonly displayMm: number; readonly isAlike: boolean }[];
  readonly gauged: readonly ProgramGauged[];
  readonly parts: PartsDesk;
  readonly kept: KeptDesk;
}

/** Everything that is to be looked up stands answered. */
export const isAllLookedUp = ({ asks, looked }: Pick<ProgramDesk, "asks" | "looked">): boolean =>
  asks.length > 0 && asks.every((ask) => looked.some((one) => isSameAsk(ask, one)));

/** A control that holds no program yet. */
export const noProgram: ProgramDesk = {
  held: null,
  pace: { rapidPercent: 100, feedPercent: 100, isSingle: false, stopsAtOptional: false, passesSlash: false },
  asks: [],
  looked: [],
  withdrawn: [],
  deepest: [],
  signature: { state: "none" },
  run: null,
  done: [],
  last: null,
  gaps: [],
  gauged: [],
  parts: { current: 1, isWarm: false, figures: [], judged: [], saved: null },
  kept: { named: null, isTaken: false, changed: [] },
};

/** What a changed register leaves of what was looked up. */
export function lookedAfterRegister(desk: ProgramDesk, register: RegisterId): ProgramDesk {
  const signed = unsigned(desk.signature, register);
  const hangs = ({ reads }: { readonly reads: readonly RegisterId[] }) => reads.includes(register);
  if (signed === desk.signature && !desk.looked.some(hangs) && !desk.deepest.some(hangs)) return desk;
  return { ...withdrawn(desk, hangs, register, hangs), signature: signed };
}

/** A register that is set once a kept setup was taken back is one that was touched again. */
export const setAfterKept = (desk: ProgramDesk, register: RegisterId): ProgramDesk =>
  !desk.kept.isTaken || desk.kept.changed.includes(register)
    ? desk
    : { ...desk, kept: { ...desk.kept, changed: [...desk.kept.changed, register] } };

/** A signature is of what stands there: whatever changes takes it away, by its name. */
export const unsigned = (signature: Signature, changed: Taker): Signature =>
  signature.state === "given" || signature.state === "asked" ? { state: "withdrawn", changed } : signature;

/** Takes back what no longer holds, and keeps by what it was taken back. */
export function withdrawn(
  desk: ProgramDesk,
  isLost: (one: LookedUp) => boolean,
  by: Taker,
  isDeepestLost: (one: DeepestJudged) => boolean,
): ProgramDesk {
  const lost = desk.looked.filter(isLost);
  return {
    ...desk,
    looked: desk.looked.filter((one) => !isLost(one)),
    withdrawn: [...desk.withdrawn, ...lost.map(({ ask, tool }) => ({ ask, tool, by }))],
    deepest: desk.deepest.filter((one) => !isDeepestLost(one)),
  };
}

/** A part that was seated again lies otherwise: what was seen beside it, and a signature, are of what was. */
export function seatedAgain(desk: ProgramDesk): ProgramDesk {
  const signature = unsigned(desk.signature, "seat");
  return signature === desk.signature && desk.deepest.length === 0 ? desk : { ...desk, deepest: [], signature };
}

/** What something done at the machine leaves: a run changes tools by itself, and takes nothing back. */
export function lookedAfter(desk: ProgramDesk, by: "spindle" | "pockets"): ProgramDesk {
  if (desk.run || desk.held === null) return desk;
  const ask: AskKind = by === "spindle" ? "hangs" : "pockets";
  const signature = by === "pockets" ? unsigned(desk.signature, by) : desk.signature;
  if (signature === desk.signature && !desk.looked.some((one) => one.ask === ask)) return desk;
  const after = withdrawn(
    desk,
    (one) => one.ask === ask,
    by,
    () => false,
  );
  return { ...after, signature };
}
