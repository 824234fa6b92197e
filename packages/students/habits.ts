import type { LatheHabits } from "./machines/lathe/habits";
import type { ProvingHabits } from "./proving";
import type { MillHabits } from "./machines/mill/habits";

/** What a student does otherwise than a careful one with somebody else's setup, on any machine. */
interface HandoverHabits {
  /**
   * With someone else's setup: believes the setter's card, looks at no tool, at neither X nor Y, or at nothing at all.
   */
  believes?: "setter" | "tools" | "place" | "all";
  /** Says this of the setup whatever was found. */
  says?: "sound" | "faulty";
  /** Sends the machine down at rapid before anything is looked at. */
  goesFast?: boolean;
  /** Sets this tool's length wrong though it was sound, mm. */
  spoilsBy?: number;
}

/** What this student does otherwise than a careful one. Empty: everything right. */
export interface Habits extends MillHabits, LatheHabits, HandoverHabits, ProvingHabits {
  /** Stops working at this point, leaving the lane open. */
  stopsAfter?: "homed" | "dressed" | "x" | "y" | "z" | "zero";
}
