import type { Command, CommandOf, Observation } from "@probe-lane/core/bench";
import type { Refusal } from "@probe-lane/core/lane";
import { registerAxis, type RegisterId } from "@probe-lane/core/registers";
import { scales, showLength } from "@probe-lane/core/units";
import type { Bench } from "./bench";

/**
 * Slips of the hand on the way to a register, whatever the school: laid over any student, who does not notice. A slip
 * is made once, at the last figure that goes into a register.
 */
export const slipKinds = [
  /** Two neighboring digits changed round; one digit another one; the sign; the point; the unit. */
  "digitsSwapped",
  "digitMistyped",
  "signTurned",
  "decimalShifted",
  "inchForMm",
  /** Another figure, by an amount that no mistake predicts. */
  "offFigure",
  /** The machine moved on before the value was taken. */
  "leftFirst",
  /** Typed or taken in a work offset that nothing works in. */
  "otherOffset",
  /** Never done. */
  "notSet",
  /** Set, and then taken back. */
  "undone",
  /** Set, and added to once more. */
  "addedAgain",
] as const;
export type SlipKind = (typeof slipKinds)[number];

export interface SlipPlan {
  readonly kind: SlipKind;
  readonly register: RegisterId;
  /** Which of the commands that set the register, from 0. */
  readonly nth: number;
  /** Picks digits and amounts. */
  readonly turn: number;
}

type Setting = CommandOf<"captureRegister" | "typeRegister">;
const isSetting = (command: Command): command is Setting =>
  command.type === "captureRegister" || command.type === "typeRegister";
/** The figure that goes in, with the minus of a keyboard. */
const figureOf = (command: Setting): string =>
  (command.type === "captureRegister" ? command.asText : command.text).replace("−", "-");
const withFigure = (command: Setting, text: string): Setting =>
  command.type === "captureRegister" ? { ...command, asText: text } : { ...command, text };

/** Amounts that are no size of anything on a sheet, mm. */
const OFF_MM = [0.437, -0.213, 1.283, -2.671, 0.093, -0.137, 3.319, -0.874] as const;

function swapped(text: string, turn: number): string | null {
  const places = [...text].flatMap((digit, i) => {
    const j = text[i + 1] === "." ? i + 2 : i + 1;
    const next = text[j];
    return /\d/.test(digit) && next !== undefined && /\d/.test(next) && next !== digit ? [[i, j] as const] : [];
  });
  const pick = places[turn % Math.max(1, places.length)];
  if (!pick) return null;
  const digits = [...text];
  [digits[pick[0]], digits[pick[1]]] = [digits[pick[1]] ?? "", digits[pick[0]] ?? ""];
  return digits.join("");
}

/** One digit of the whole part made another one. */
function mistyped(text: string, turn: number): string | null {
  const point = text.indexOf(".");
  const whole = [...text.slice(0, point < 0 ? undefined : point)].flatMap((digit, i) => (/\d/.test(digit) ? [i] : []));
  const place = whole[turn % Math.max(1, whole.length)];
  if (place === undefined || whole.length < 2) return null;
  const digit = (Number(text[place]) + 1 + (turn % 8)) % 10;
  return text.slice(0, place) + String(digit) + text.slice(place + 1);
}

/** Keeps how often each register is set by a student who slips nowhere. */
export function settingsOf<S extends Observation>(bench: Bench<S>): Bench<S> & { readonly made: RegisterId[] } {
  const made: RegisterId[] = [];
  const note = (command: Command) => {
    if (isSetting(command)) made.push(command.register);
  };
  return {
    made,
    get seen() {
      return bench.seen;
    },
    attempt: (command) => {
      note(command);
      return bench.attempt(command);
    },
    do: (command) => {
      note(command);
      return bench.do(command);
    },
  };
}

/** A student's bench with one slip laid over it; `isMade` says whether there was an occasion for it. */
export class SlippingBench<S extends Observation> implements Bench<S> {
  isMade = false;
  private met = 0;
  private lastJog: Partial<Record<"x" | "y" | "z", 1 | -1>> = {};

  constructor(
    private readonly bench: Bench<S>,
    private readonly plan: SlipPlan,
  ) {}

  get seen(): S {
    return this.bench.seen;
  }

  attempt(command: Command): Refusal | null {
    if (command.type === "jog") this.lastJog[command.axis] = command.direction;
    if (!isSetting(command) || command.register !== this.plan.register || this.met++ !== this.plan.nth)
      return this.bench.attempt(command);
    return this.slip(command);
  }

  do(command: Command): S {
    const refusal = this.attempt(command);
    if (refusal) throw new Error(`SlippingBench: ${JSON.stringify(command)} refused: ${JSON.stringify(refusal)}`);
    return this.bench.seen;
  }

  private slip(command: Setting): Refusal | null {
    const { kind, turn } = this.plan;
    const { unit } = this.bench.seen.sheet;
    const text = figureOf(command);
    const value = Number(text);
    const show = (figure: number) => showLength(unit === "mm" ? figure : figure * 25.4, scales[unit]);
    const typed = (figure: string | null): Refusal | null => {
      if (figure === null || Number(figure) === value || value === 0) return this.bench.attempt(command);
      const refusal = this.bench.attempt(withFigure(command, figure));
      this.isMade = refusal === null;
      return refusal === null ? null : this.bench.attempt(command);
    };
    switch (kind) {
      case "digitsSwapped":
        return typed(swapped(text, turn));
      case "digitMistyped":
        return typed(mistyped(text, turn));
      case "signTurned":
        return typed(show(-value));
      case "decimalShifted":
        return typed(show(value / 10));
      case "inchForMm":
        return typed(show(value / 25.4));
      case "offFigure":
        return this.made(
          withFigure(command, show(value + (OFF_MM[turn % OFF_MM.length] ?? 0) / (unit === "mm" ? 1 : 25.4))),
        );
      case "leftFirst":
        return this.leaveFirst(command);
      case "otherOffset": {
        const axis = registerAxis(command.register);
        return this.made({ ...command, register: `G58.${axis}` });
      }
      case "notSet":
        this.isMade = true;
        return null;
      case "undone": {
        const refusal = this.bench.attempt(command);
        this.isMade = refusal === null && this.bench.attempt({ type: "undoRegister" }) === null;
        return refusal;
      }
      case "addedAgain": {
        const refusal = this.bench.attempt(command);
        const again = {
          type: "typeRegister",
          register: command.register,
          text: show(0.31),
          how: "add",
          isConfirmed: true,
        } as const;
        this.isMade = refusal === null && this.bench.attempt(again) === null;
        return refusal;
      }
    }
  }

  private made(command: Setting): Refusal | null {
    const refusal = this.bench.attempt(command);
    this.isMade = refusal === null;
    return refusal;
  }

  private leaveFirst(command: Setting): Refusal | null {
    const axis = registerAxis(command.register);
    const toward = this.lastJog[axis];
    if (command.type === "captureRegister" && toward !== undefined) {
      const clicks = 7 + (this.plan.turn % 20);
      const jog = { type: "jog", axis, direction: toward === 1 ? -1 : 1, clicks, size: "coarse" } as const;
      this.isMade = this.bench.attempt(jog) === null;
    }
    return this.bench.attempt(command);
  }
}
