import type { Command } from "@probe-lane/core/bench";
import { verbKeys, type KeyVerb } from "./keys";

/** Dialogs of a bench: those of every lane, and those that a machine brings. */
export type DialogName =
  | "speed"
  | "keys"
  | "words"
  | "handIn"
  | "sheet"
  | "check"
  | "exchange"
  | "program"
  | "drawer"
  | "measure"
  | "gap"
  | "ready"
  | "probe"
  | "setter"
  | "beam"
  | "shims"
  | "recall"
  | "changeTool"
  | "tighten"
  | "axisHeight"
  | "fit";
export type OpenDialog = DialogName | null;

/** Keys that answer to whatever stands on the controls under them now. */
export type ActKey = Extract<KeyVerb, "wobble" | "burr" | "paper" | "feel" | "block">;

/** What hands can do now: a button, maybe the key it answers to, and the command or the dialog behind it. */
export interface Act {
  readonly label: string;
  readonly on?: ActKey;
  readonly dialog?: DialogName;
  readonly command?: Command;
}

export const keyCapOf = (verb: KeyVerb): string => verbKeys[verb].key.toUpperCase();
