import type { TurningTrace } from "../../diagnosis";
import { SLOW_BELOW_MM, targetOf, type Fault, type Target } from "../../exercises";
import { toMm } from "../../units";
import { last, type HandoverRules, type Read as ReadOf } from "../kit";

type Read = ReadOf<TurningTrace>;

/**
 * On a lathe: a rapid move that reads registers and ends with the tip this near to the part, before its face and beside
 * it.
 */
export function firstFastTurn({ log, final }: TurningTrace): number | null {
  const { truth, scale } = final;
  const { tools, handed, stock } = truth.lathe;
  let readsRegisters = false;
  let station = final.setup.lathe.tools[0]?.number ?? 1;
  for (const { seq, event } of log) {
    if (event.type === "blockRan") readsRegisters = !/G53/i.test(event.text);
    if (event.type === "turretIndexed") station = event.station;
    if (event.type !== "moved") continue;
    // what a log of earlier days does not say is read off the block
    const isByBlock = event.reads !== undefined || readsRegisters;
    readsRegisters = false;
    const { kxMm, qMm } = tools[station] ?? { kxMm: 0, qMm: 0 };
    const isNear =
      toMm(event.to.z, scale) - qMm < (handed?.faceMm ?? 0) + SLOW_BELOW_MM &&
      (toMm(event.to.x, scale) - kxMm) / 2 < stock.diameterMm / 2 + SLOW_BELOW_MM;
    if (event.isRapid && isByBlock && isNear) return seq;
  }
  return null;
}

/** A turret tool met the part on an axis, or cut it. */
const turretRead =
  (tool: number, axis: "x" | "z"): Read =>
  ({ turret }, before) =>
    last(turret.findLast((one) => one.tool === tool && one.axis === axis && one.seq < before)?.seq);
const anyFace: Read = ({ turret }, before) =>
  last(turret.findLast(({ axis, seq }) => axis === "z" && seq < before)?.seq);

/** The values that a fault puts off. */
const touchedBy = ({ final }: TurningTrace, { effects }: Fault): Target[] =>
  effects.map(({ target }) => targetOf(final.setup, target));
const readOf = ({ tool, axis }: Target): Read => turretRead(tool ?? 0, axis === "x" ? "x" : "z");

const separates = (fault: Fault): Read => {
  const { kind, tool = 0 } = fault;
  switch (kind) {
    case "feelerOnce":
    case "staleWear":
      return turretRead(tool, "x");
    case "bladeEdge":
      return turretRead(tool, "z");
    case "oldWorkZ":
    case "facedAgain":
      return anyFace;
    case "neighborRow":
      return (trace, before) => last(...touchedBy(trace, fault).map((target) => readOf(target)(trace, before)));
    case "schoolMixed":
    case "radiusSign":
    case "setterMoved":
    case "wrongOffset":
    case "offStop":
      throw new Error(`separates: ${kind} belongs to a mill`);
  }
};

/** How a lathe's setup that was handed over is read and put right. */
export const latheHandover: HandoverRules<TurningTrace> = {
  firstFastMove: firstFastTurn,
  separates,
  readingOf: readOf,
  mends: (trace, fault) =>
    touchedBy(trace, fault).flatMap(({ registers }) => registers.filter((register) => !register.startsWith("common"))),
  mendedAt: () => undefined,
};
