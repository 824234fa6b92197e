import type { Surface } from "../../exercises";
import { feelAt, FACE_MILL_RECESS_MM, toolNumber } from "../../instruments";
import type { AxisCounts } from "../../registers";
import type { Draft } from "../draft";
import { surfaceBelow } from "../eye";
import { tipPoint, trueScene } from "../solids";
import type { LaneState } from "../state";

/** Gap under the tip down to a surface, mm. */
export function gapOverMm(state: LaneState, on: Surface): number {
  return tipPoint(state, state.position).z - (trueScene(state)[on]?.highZ ?? -Infinity);
}

/** What the fingers feel after a step with paper or a feeler in place. */
export function sensePaper(draft: Draft, clickMm: number): boolean {
  const { paper, truth, position } = draft.state;
  if (!paper) return false;
  const on = surfaceBelow(draft.state) ?? paper.on;
  const feel = feelAt(gapOverMm(draft.state, on), truth.gapsMm[paper.id] ?? 0.1);
  if (feel === "torn") {
    draft.emit({ type: "paperFelt", on, feel, machineZ: position.z, clickMm });
    draft.emit({
      type: "incidentHappened",
      code: "paperTorn",
      isSilent: false,
      failsOutright: false,
      stopsMachine: false,
      on,
    });
    draft.emit({ type: "paperPulled" });
    return true;
  }
  if (feel === paper.feel && feel === "slides") return false;
  const isChange = feel !== paper.feel;
  draft.emit({ type: "paperFelt", on, feel, machineZ: position.z, clickMm });
  return isChange;
}

/** A block or pin in the gap while the gap closes: something gives, and it is not the block. */
export function senseBlock(draft: Draft, from: AxisCounts): boolean {
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
 * How far a face mill's middle stands above its inserts; a feeler or gauge under the middle would be met by nothing,
 * mm.
 */
export function recessMm({ holds, setup }: LaneState): number {
  const tool = setup.tools.find(({ number }) => number === toolNumber(holds));
  return tool?.kind === "faceMill" ? FACE_MILL_RECESS_MM : 0;
}
