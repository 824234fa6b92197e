import type { Command, Observation, PartPicture } from "@probe-lane/core/bench";
import type { Axis, AxisCounts, RegisterId } from "@probe-lane/core/registers";
import type { ComponentType, Ref } from "react";
import type { CheckName, CoachStep, TermName } from "@probe-lane/core/lane";
import type { MillLengthSchool } from "@probe-lane/core/exercises";
import type { Act, ActKey, DialogName } from "./act";
import type { Framing } from "./camera";
import type { Jog } from "./drawing";
import type { JogKey, KeyVerb } from "./keys";
import type { Noise } from "./sound";
import type { SpaceScene } from "./space/bodies";

export interface DialogProps<S extends Observation = Observation> {
  seen: S;
  kit: BenchKit;
  send(command: Command): void;
  onClose(): void;
  isReadOnly: boolean;
}
export interface BenchDialog<S extends Observation> {
  readonly title: string;
  readonly Body: ComponentType<DialogProps<S>>;
  readonly isWide?: boolean;
}

export interface PictureProps<S extends Observation = Observation> {
  seen: S;
  machine: AxisCounts;
  framing: Framing;
  lastAxis: Axis;
  onJog: Jog | null;
  send(command: Command): void;
  isReadOnly: boolean;
  /** Controls that the coach speaks of. */
  pointed: ReadonlySet<Control>;
  /** What eyes, ears and fingers have now, as a text: a held key stops where it changes. */
  stopsAt: string;
}

/** The cool outline of a control that the coach speaks of. */
export const outlined = (pointed: ReadonlySet<Control>, control: Control): string =>
  pointed.has(control) ? "outline-3 outline-offset-2 outline-expected" : "";

/** What of a bench can be pointed at by its coach. */
export type Control =
  | "home"
  | "hand"
  | "door"
  | "spindle"
  | "drawer"
  | "look"
  | "size"
  | "reading"
  | "register"
  | "measure"
  | "check"
  | "block"
  | "handIn"
  | "load"
  | "compare"
  | "takeBack"
  | "lookUp"
  | "run"
  | "part"
  | `act ${ActKey}`
  | `key ${Axis}`;

/** What the coach's steps of a program name, on every machine. */
export const programControls = ({ code, school }: CoachStep<string>): readonly Control[] | undefined => {
  if (code === "loadProgram") return ["load"];
  if (code === "runProgram") return ["run"];
  if (code === "measurePart" || code === "correctPart") return ["part"];
  if (code !== "proveProgram") return undefined;
  return [school === "lookedUp" || school === "deepestBeside" ? "lookUp" : "run"];
};

/** What is filled in to set a register from where the machine stands; texts as they were typed. */
export interface Filled {
  readonly distance: string;
  readonly edge: string;
  readonly where: "" | "minus" | "plus";
}
export interface SentenceProps<S extends Observation = Observation> {
  seen: S;
  register: RegisterId;
  filled: Filled;
  fill(change: Partial<Filled>): void;
  firstBox: Ref<HTMLInputElement>;
}

/** Registers on a machine's bench: which, how they are shown, and the sentence that sets one from where it stands. */
interface RegisterKit<S extends Observation> {
  readonly Table: ComponentType<{ seen: S }>;
  first(seen: S): RegisterId;
  /** The register that an axis asks for with what is held now. */
  forAxis(seen: S, axis: Axis): RegisterId;
  readonly Sentence: ComponentType<SentenceProps<S>>;
  /** The value that the sentence gives the register, mm; null while it cannot be read. */
  asMm(seen: S, register: RegisterId, filled: Filled): number | null;
  /** Registers that hold a code and no length, and how one is chosen; null where there are none. */
  readonly codes: {
    is(register: RegisterId): boolean;
    readonly Picker: ComponentType<{ chosen: string; onChoose(code: string): void }>;
  } | null;
  /** The row that is called, for what a capture would store. */
  rowOf(seen: S): number | null;
  /** Whether registers can be printed as a program, and what a list to take in looks like. */
  readonly exchange: { readonly dialect: "mill" | "lathe"; readonly hasProgram: boolean; readonly sample: string };
}

interface LedgerKit<S extends Observation> {
  forAxis(seen: S, axis: Axis, choices: readonly RegisterId[]): RegisterId;
  firstTerm(axis: Axis): TermName;
}

/** How positions are shown: which axes, and what the display is told of offsets in use. */
interface PositionKit<S extends Observation> {
  readonly title: string;
  readonly axes: readonly Axis[];
  readonly workHead: string;
  readonly showsMachine: boolean;
  /** What stands beside an axis's letter, and what it means. */
  readonly marks: Partial<Record<Axis, { readonly mark: string; readonly means: string }>>;
  inUse(seen: S): { readonly offset: string | null; readonly called: string };
}

/** Everything that a machine is to the bench in the browser. The bench itself knows no machine. */
export interface BenchKit<S extends Observation = Observation> {
  readonly jogKeys: Readonly<Record<string, JogKey>>;
  /** What a key does here, in words; null where it does nothing. */
  verbWords(verb: KeyVerb, seen: S): string | null;
  /** What hands can do now. */
  acts(seen: S): readonly Act[];
  /** What a key asks for while nothing on the controls answers to it: the bench then says why not. */
  asks(key: ActKey | "look", seen: S): Command;
  /** The control of this machine runs programs. */
  runsPrograms(seen: S): boolean;
  /** Something stands beside the machine that measures. */
  canMeasure(seen: S): boolean;
  /** What eyes, ears and fingers have now; when it changes, presses that wait are dropped. */
  noticed(seen: S): unknown;
  /** What is heard of the tool while it moves; null where nothing but the click is. */
  sounds(seen: S): Noise | null;
  readonly dialogs: Readonly<Partial<Record<DialogName, BenchDialog<S>>>>;
  /** What carries the tools: where it stands on the controls, and what opens it. */
  readonly carrier: { readonly where: string; readonly opens: string };
  held(seen: S): { readonly what: string; readonly besides?: string };
  /** Said before the spindle is started with what hangs there. */
  startNotes(seen: S): readonly { readonly words: string; readonly isStop: boolean }[];
  /** The typed block's example; where nothing moves but by hand, what is said there instead. */
  block(seen: S): { readonly sample: string } | { readonly byHand: string };
  /** Schools to name at hand-in, where the exercise leaves more than one. */
  schoolsToName(seen: S): readonly { readonly id: MillLengthSchool; readonly words: string }[];
  /** What a check asks for, where it is not what it asks for everywhere. */
  readonly asksOf: Readonly<Partial<Record<CheckName, string>>>;
  /** The controls that a step of the coach names. */
  pointsAt(step: CoachStep<string>, seen: S): readonly Control[];
  /** The check that is asked for first, where it is not the first of the list. */
  firstCheck(seen: S): CheckName | null;
  readonly position: PositionKit<S>;
  readonly registers: RegisterKit<S>;
  readonly ledger: LedgerKit<S>;
  readonly picture: {
    title(seen: S): string;
    readonly Picture: ComponentType<PictureProps<S>>;
    /** The same in space, from nothing but what the drawing has. */
    space(seen: S, machine: AxisCounts, part: PartPicture | null): SpaceScene;
    /** The tool whose ways stand out. */
    called(seen: S): number | null;
    /** A programmed place there, through the student's own zero; null where it has none. */
    wayInSpace(seen: S, place: readonly number[], frame: string): readonly [number, number, number] | null;
    /** How machine and blank stand, in a few words. */
    standing(seen: S): string;
  };
}
