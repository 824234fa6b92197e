import { type DiagnosticCode } from "./diagnostics";
import { type GaugeCall } from "./gauging";

export type MoveKind = "rapid" | "feed" | "cw" | "ccw";
export type Plane = 17 | 18 | 19;
export type Feed = { readonly value: number; readonly per: "min" | "rev" | "inverse" };
export type Turning = "forward" | "reverse" | "stopped";

/** A place of a program: mill x, y, z; lathe x (a diameter), z. NaN where an axis is not known. */
export type ProgramPlace = readonly number[];

/**
 * One move as it is commanded, in the unit in which the program starts. `from` and `to` stand in the work frame that is
 * called, or, of a move in the machine's frame, `to` in machine coordinates with NaN for axes that are not named.
 */
export interface Move {
  readonly type: "move";
  readonly line: number;
  readonly kind: MoveKind;
  readonly from: ProgramPlace;
  readonly to: ProgramPlace;
  /** Bit i is set where axis i is named: only these axes move. */
  readonly named: number;
  readonly isMachineFrame: boolean;
  /** One of the two moves of G28 or G30. */
  readonly isReturn: boolean;
  /** Null of a rapid. */
  readonly feed: Feed | null;
  readonly tool: number | null;
  readonly frame: string;
  readonly row: number | null;
  readonly compensation: "none" | "left" | "right";
  readonly diameterRow: number | null;
  readonly plane: Plane;
  /** Of an arc: its center, the two axes of the plane in the order X Y Z; a lathe's X is a diameter. */
  readonly center: readonly [number, number] | null;
  readonly spindle: Turning;
  /** The last S, in turns a minute, or a surface speed (G96); null while none was given. */
  readonly speed: { readonly value: number; readonly isSurface: boolean } | null;
  /** Where the machine stands before and after, when the registers are known to who asked. */
  readonly machine: { readonly from: ProgramPlace; readonly to: ProgramPlace } | null;
}

/**
 * What a running program does, in order. `write` is a G10: its words by letter, as they stand, in the unit then called.
 */
export type Step =
  | Move
  | { readonly type: "stop"; readonly line: number; readonly kind: "M0" | "M1" }
  | { readonly type: "end"; readonly line: number; readonly kind: "M2" | "M30" | "text" }
  | { readonly type: "tool"; readonly line: number; readonly tool: number; readonly row: number | null }
  | {
      readonly type: "write";
      readonly line: number;
      readonly words: Readonly<Record<string, number>>;
      readonly isInch: boolean;
    }
  | GaugeCall
  | { readonly type: "declare"; readonly line: number; readonly place: ProgramPlace }
  | { readonly type: "wrong"; readonly line: number; readonly code: DiagnosticCode };
