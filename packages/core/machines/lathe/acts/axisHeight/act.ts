import type * as schema from "./schema";
import { accept, refuse, type Result } from "../../../../result";
import { type Refusal } from "../../../../lane/refusals";
import { readGaugeSet } from "../../../../desk/gaugeStack";
import { parseLengthMm } from "../../../../units/parse";
import { type LatheAct, type LatheDraft } from "../../lane";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { mayReach } from "../../hands";
import { drawNormal } from "../../../../random";
import { onLathe } from "../../evidence";

/** Blocks rub in the slot and the pin gives a little: a stack goes that is not more than so much too high, mm. */
const RUBS_MM = 0.0008;

/**
 * A setting gauge that was not zeroed on this slide stands where it was left; brought down onto the crest it hangs in
 * its backlash, mm.
 */
const NOT_ZEROED_MM = { mean: 0.14, deviation: 0.03 } as const;

const BACKLASH_MM = { mean: 0.045, deviation: 0.006 } as const;

const READS_MM = 0.002;

const INCH_MM = 25.4;

const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** Blocks named with + between, each once, all of them in the set; in mm. */
function readStack(text: string, set: "inch-81" | "metric-88"): Result<number[], Refusal> {
  const has = new Set(readGaugeSet(set).map((size) => size.toFixed(4)));
  const names = text
    .split("+")
    .map((one) => one.trim())
    .filter(Boolean);
  if (names.length === 0) return refuse({ code: "stackEmpty" });
  const seen = new Set<string>();
  const blocks: number[] = [];
  for (const name of names) {
    const read = parseLengthMm(name, set === "inch-81" ? "inch" : "mm");
    if (!read.ok) return refuse({ code: "text", problem: read.error });
    const key = (read.value / (set === "inch-81" ? INCH_MM : 1)).toFixed(4);
    if (!has.has(key)) return refuse({ code: "notInTheSet", text: name });
    if (seen.has(key)) return refuse({ code: "blockOnce", text: name });
    seen.add(key);
    blocks.push(round(read.value));
  }
  return accept(blocks);
}

function tryStack({ state }: LatheDraft, { text, under }: CommandOf<"tryStack">): Decision {
  const { axis } = state.setup.lathe;
  const truth = state.truth.lathe.axis;
  if (!axis || !truth) return refuse({ code: "notOnThisMachine" });
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  const stack = readStack(text, axis.set);
  if (!stack.ok) return stack;
  const number = state.lathe.stacksTried + 1;
  const slotMm = truth.heightMm - (under === "tailstock" ? truth.tailLowMm : 0) - axis.pinMm / 2;
  const heightMm = stack.value.reduce((sum, mm) => sum + mm, 0);
  const goes = heightMm <= slotMm + RUBS_MM + drawNormal(0, 0.0004, state.truth.seed, "stack", number);
  return accept([{ type: "stackTried", blocks: stack.value, under, goes, number }]);
}

/** The setting gauge brought to the crest of the pin: from below past it and raised to the mark, or down onto it. */
function readGauge(draft: LatheDraft, { from }: CommandOf<"readGauge">): Decision {
  const { state } = draft;
  const { axis } = state.setup.lathe;
  const truth = state.truth.lathe.axis;
  if (!axis || !truth) return refuse({ code: "notOnThisMachine" });
  const problem = mayReach(state);
  if (problem) return refuse(problem);
  const { gaugeReads, isGaugeZeroed } = state.lathe;
  const number = gaugeReads + 1;
  const draw = (key: string, { mean, deviation }: { mean: number; deviation: number }) =>
    drawNormal(mean, deviation, state.truth.seed, "gauge", key, number);
  const wrongMm =
    (isGaugeZeroed ? 0 : draw("not zeroed", NOT_ZEROED_MM)) + (from === "above" ? draw("backlash", BACKLASH_MM) : 0);
  const crestMm =
    truth.heightMm +
    axis.pinMm / 2 +
    truth.gaugeOffMm +
    wrongMm +
    drawNormal(0, READS_MM, state.truth.seed, "gauge", "reads", from);
  draft.emit({ type: "gaugeRead", from, isZeroed: isGaugeZeroed, number });
  draft.emit({
    type: "readingShown",
    number: state.desk.readingsMade + 1,
    instrument: "settingGauge",
    what: "pinCrest",
    values: { height: Math.round(crestMm * 1000) / 1000 },
  });
  return accept(draft.events);
}

function zeroGauge({ state }: LatheDraft): Decision {
  if (!state.setup.lathe.axis) return refuse({ code: "notOnThisMachine" });
  const problem = mayReach(state);
  return problem ? refuse(problem) : accept([{ type: "gaugeZeroed" }]);
}

function stateHeight({ state }: LatheDraft, { what, text }: CommandOf<"stateHeight">): Decision {
  if (!state.setup.lathe.axis) return refuse({ code: "notOnThisMachine" });
  const read = parseLengthMm(text, state.setup.unit);
  return read.ok
    ? accept([{ type: "heightStated", what, mm: read.value }])
    : refuse({ code: "text", problem: read.error });
}

const STACKS_KEPT = 12;

/** How high the axis stands over the slide: a stack of blocks under a ground pin, and the shop's setting gauge. */
export const axisHeight: LatheAct<typeof schema> = {
  decide: { tryStack, zeroGauge, readGauge, stateHeight },
  evolve: {
    stackTried: onLathe((lathe, { blocks, under, goes, number }) => ({
      ...lathe,
      stacksTried: number,
      stacks: [...lathe.stacks, { blocks, under, goes }].slice(-STACKS_KEPT),
    })),
    gaugeZeroed: onLathe((lathe) => ({ ...lathe, isGaugeZeroed: true })),
    // brought down from the slide and up to the pin it has to be zeroed anew for the next
    gaugeRead: onLathe((lathe, { number }) => ({ ...lathe, gaugeReads: number, isGaugeZeroed: false })),
    heightStated: onLathe((lathe, { what, mm }) => ({ ...lathe, stated: { ...lathe.stated, [what]: mm } })),
  },
};
