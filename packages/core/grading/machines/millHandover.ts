import type { MillTrace } from "../../diagnosis";
import { skinZMm, SLOW_BELOW_MM, type Fault } from "../../exercises";
import { toolName, toolNumber } from "../../instruments";
import { toMm } from "../../units";
import { effectOn } from "../handover";
import { last, type HandoverRules, type Read as ReadOf } from "../kit";

type Read = ReadOf<MillTrace>;

/** What an eye or a rule can tell, mm. */
const BY_EYE_MM = 1.5;
const BY_RULE_MM = 3;

/** The first rapid move that read a register and ended low over the part: from there on nothing is found in time. */
export function firstFastMoveOnMill(trace: MillTrace): number | null {
  const { log, final } = trace;
  const { setup, truth, scale } = final;
  // a block's own move is the first after it; what a cycle does later reads no register
  let readsRegisters = false;
  let holds: string | null = null;
  for (const { seq, event } of log) {
    if (event.type === "blockRan") readsRegisters = !/G53/i.test(event.text);
    if (event.type === "loaded") holds = event.thing;
    if (event.type === "unloaded") holds = null;
    if (event.type !== "moved") continue;
    // what a log of earlier days does not say is read off the block
    const isByBlock = event.reads !== undefined || readsRegisters;
    readsRegisters = false;
    if (!event.isRapid || !isByBlock) continue;
    const tipMm =
      toMm(event.to.z, scale) - (holds === null ? 0 : (truth.lengthsMm[holds as keyof typeof truth.lengthsMm] ?? 0));
    if (tipMm < skinZMm(setup, truth.datumMm.z) + SLOW_BELOW_MM) return seq;
  }
  return null;
}

const contactOn =
  (axis: "x" | "y"): Read =>
  ({ contacts, places }, before) =>
    last(
      contacts.findLast((one) => one.axis === axis && one.seq < before)?.seq,
      places.findLast((one) => one.axis === axis && one.seq < before)?.seq,
    );

/** Stood over the zero and looked along the other axis, so that an error of some mm shows. */
const lookOver =
  (axis: "x" | "y"): Read =>
  ({ log }, before) => {
    const across = axis === "x" ? ["front", "back"] : ["left", "right"];
    return last(
      log.findLast(
        ({ seq, event }) =>
          seq < before && event.type === "lookedFrom" && event.isOverZero && across.includes(event.side),
      )?.seq,
    );
  };

const placeRead =
  (axis: "x" | "y", byMm: number): Read =>
  (trace, before) =>
    last(contactOn(axis)(trace, before), Math.abs(byMm) >= BY_EYE_MM ? lookOver(axis)(trace, before) : null);

/** The tool was let down on something, or a setter gave its length. */
const toolMeasured =
  (tool: number): Read =>
  ({ touches, readings }, before) =>
    last(
      touches.findLast(({ seq, holds, feel }) => seq < before && holds === toolName(tool) && feel !== "torn")?.seq,
      readings.findLast(({ seq, event }) => seq < before && event.tool === tool && event.values.length !== undefined)
        ?.seq,
    );

/** A rule beside the tool: enough for a length that is grossly wrong. */
const toolRuled =
  (tool: number): Read =>
  ({ readings, log }, before) => {
    const checks = log.filter(
      ({ seq, event }) =>
        seq < before && event.type === "checkExpected" && event.check === "ruleBeside" && event.tool === tool,
    );
    return last(
      readings.findLast(({ seq, event }) => seq < before && event.what === "reach" && event.tool === tool)?.seq,
      checks.at(-1)?.seq,
    );
  };

const toolRead =
  (tool: number, byMm: number): Read =>
  (trace, before) =>
    last(toolMeasured(tool)(trace, before), Math.abs(byMm) >= BY_RULE_MM ? toolRuled(tool)(trace, before) : null);

/** The part touched with something whose length does not hang on the setter: the bare nose, or the probe. */
const partTouched =
  (isByNose: boolean): Read =>
  ({ touches }, before) =>
    last(
      touches.findLast(
        ({ seq, on, holds, feel }) =>
          seq < before &&
          (on === "stock" || on === "boss") &&
          feel !== "torn" &&
          (!isByNose || holds === null || holds === "probe"),
      )?.seq,
    );

/** The setter proved: by the bare nose on its plunger, or by the part touched with the nose and with a tool. */
const setterRead: Read = (trace, before) => {
  const nose = trace.touches.findLast(({ seq, on, holds }) => seq < before && on === "setter" && holds === null)?.seq;
  const byNose = partTouched(true)(trace, before);
  const byTool = trace.touches.findLast(
    ({ seq, on, holds }) => seq < before && on === "stock" && toolNumber(holds) !== null,
  )?.seq;
  return last(nose, byNose !== null && byTool !== undefined ? Math.max(byNose, byTool) : null);
};

const tools = ({ effects }: Fault): number[] =>
  effects.flatMap(({ target }) => (/^z\d/.test(target) ? [Number(target.slice(1))] : []));

const separates = (fault: Fault): Read => {
  const { kind, tool = 0, axis = "x" } = fault;
  switch (kind) {
    case "neighborRow":
      return (trace, before) =>
        last(...tools(fault).map((one) => toolRead(one, effectOn(fault, { id: `z${one}` }))(trace, before)));
    case "staleWear":
      return toolMeasured(tool);
    case "schoolMixed":
      return toolRead(tool, effectOn(fault, { id: `z${tool}` }));
    case "radiusSign":
      return placeRead(axis, effectOn(fault, { id: axis }));
    case "setterMoved":
      return setterRead;
    case "wrongOffset":
      return (trace, before) =>
        last(
          placeRead("x", effectOn(fault, { id: "x" }))(trace, before),
          placeRead("y", effectOn(fault, { id: "y" }))(trace, before),
          partTouched(false)(trace, before),
        );
    case "offStop":
      return placeRead("x", effectOn(fault, { id: "x" }));
    case "feelerOnce":
    case "bladeEdge":
    case "oldWorkZ":
    case "facedAgain":
      throw new Error(`separates: ${kind} belongs to a lathe`);
  }
};

/** How a mill's setup that was handed over is read and put right. */
export const millHandover: HandoverRules<MillTrace> = {
  firstFastMove: firstFastMoveOnMill,
  separates,
  readingOf: ({ kind, axis, tool }) => {
    if (kind !== "place") return toolMeasured(tool ?? 0);
    const along = axis === "y" ? "y" : "x";
    return (trace, before) => last(contactOn(along)(trace, before), lookOver(along)(trace, before));
  },
  // a sum can be put right in any of its registers
  mends: (_trace, fault) => tools(fault).flatMap((tool) => [`H${tool}`, `HW${tool}`, "G54.z", "common.z"]),
  mendedAt: ({ log }, { kind }) =>
    kind === "offStop"
      ? (log.findLast(({ event }) => event.type === "taskDone" && event.task === "pushToStop")?.seq ?? null)
      : undefined,
};
