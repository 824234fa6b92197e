import type * as schema from "./schema";
import { type MillAct, type MillDraft } from "../../lane";
import { type AxisCounts } from "../../../../registers/mill";
import { toolNumber } from "../../../../instruments/things";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { drawTry, goesUnder, isFelt } from "../../../../instruments/gap";
import { accept, refuse } from "../../../../result";
import { gapOverMm, inGap, needsSolidTip, reachIn } from "../gapUnder";
import { bearingBelow } from "../../eye";
import { toMm } from "../../../../units/scale";
import { jogMm } from "../../../../lane/names";
import { withLengthTouch } from "../../evidence";

/** A block or pin in the gap while the gap closes: something gives, and it is not the block. */
function senseBlock(draft: MillDraft, from: AxisCounts): boolean {
  const { block, position } = draft.state;
  if (!block || position.z >= from.z) return false;
  draft.emit({
    type: "incidentHappened",
    code: "blockCrushed",
    isSilent: false,
    failsOutright: false,
    stopsMachine: true,
    on: block.on,
    ...(draft.state.holds ? { thing: draft.state.holds, shorterMm: toolNumber(draft.state.holds) ? 0.04 : 0 } : {}),
  });
  draft.emit({ type: "blockPulled" });
  return true;
}

/**
 * A block or pin tried in the gap as it is now. The gap counts as opened when the try before, lower down, did not go.
 */
function tryBlock({ state }: MillDraft, { id }: CommandOf<"tryBlock">): Decision {
  const block = state.setup.gaps.find((gap) => gap.id === id);
  if (!block || isFelt(block.kind)) return refuse({ code: "gapThingNotHere", id });
  const problem = inGap(state) ?? reachIn(state);
  if (problem) return refuse(problem);
  if (!needsSolidTip(state)) return refuse({ code: "paperNeedsTool" });
  const on = bearingBelow(state);
  if (!on) return refuse({ code: "paperNothingBelow" });
  const number = state.blocks.tries + 1;
  const dirtMm = state.areBlocksWiped ? 0 : state.truth.dirtMm;
  const goes = goesUnder(
    gapOverMm(state, on),
    state.truth.gapsMm[id] ?? block.nominalMm,
    drawTry(state.truth.seed, number),
    dirtMm,
  );
  const {
    position,
    blocks: { last: lastTry },
  } = state;
  const isOpened = goes && lastTry !== null && lastTry.id === id && !lastTry.goes && lastTry.machineZ < position.z;
  const clickMm = isOpened ? toMm(position.z - lastTry.machineZ, state.scale) : jogMm(state.setup.unit, "rapid");
  return accept([{ type: "blockTried", id, on, goes, machineZ: position.z, number, dirtMm, clickMm, isOpened }]);
}

const pullBlock = ({ state }: MillDraft): Decision =>
  state.block ? accept([{ type: "blockPulled" }]) : refuse({ code: "blockNotInGap" });

/** A block or pin tried in the gap: it goes or it does not. */
export const block: MillAct<typeof schema> = {
  decide: { tryBlock, pullBlock },
  evolve: {
    blockTried: (state, { id, on, goes, number, machineZ, isOpened }) => ({
      ...state,
      block: goes ? { id, on } : null,
      blocks: { ...state.blocks, tries: number, last: { id, goes, machineZ } },
      evidence: goes && isOpened ? withLengthTouch(state.evidence, state.holds, on) : state.evidence,
    }),
    blockPulled: (state) => ({ ...state, block: null }),
  },
  tells: {
    blockTried: (before, at, { id, on, goes, isOpened, machineZ, clickMm, dirtMm }) => {
      if (!goes || !isOpened) return {};
      const tried = before.setup.gaps.find((one) => one.id === id);
      return {
        touches: [
          {
            ...at,
            machineZ,
            on,
            by: tried?.kind ?? "block",
            thicknessMm: tried?.nominalMm ?? 0,
            clickMm,
            feel: "goes",
            holds: before.holds,
            seatMm: before.carried.seatMm,
            known: [{ id: "gaugeDirt", mm: dirtMm }],
          },
        ],
      };
    },
  },
  senses: (draft, fromStep) => senseBlock(draft, fromStep),
};
