import type { LatheSplit } from "../../exercises/schools";
import type { TurningLane } from "../../machines/lathe/lane";
import { readRegister, type RegisterId } from "../../registers";
import { turretSum } from "../../registers/turret";
import { toCounts, toMm } from "../../units";
import { provenanceFrom, type Source } from "../account";
import { merged, wholeTerm, type Provenance, type Term } from "../cause";
import { setOf, sumOf, type Standing } from "../standing";
import { lastAct } from "../lineage";
import type { TurningTrace } from "../trace";
import { unset } from "../unset";
import { contactPlace, measuredFor, turretErrors, type Contact, type TurretAxis } from "./latheContact";
import { KEPT_MM, allSources, otherWays, rowsOf, valueOf, workOf } from "./latheSources";
import { account, actsOf, inOtherOffset, withoutSource } from "./latheAccount";
import { isSetWith, rowNotInUse, rowProvenance, withoutRow, workProvenance } from "./latheSplit";

/**
 * What a gang slide's tool came to that was slid in its clamp against the bar: its register has nothing to do with
 * it.
 */
function slidProvenance(trace: TurningTrace, tool: number, slid: Contact, closureMm: number): Provenance {
  const { final } = trace;
  const { scale, registers } = final;
  const measured = measuredFor(trace, slid, slid.seq)[0]?.mm ?? 2 * slid.radiusMm;
  const { errors, ownMm } = turretErrors(trace, slid, "x", measured, measured);
  const belongs = slid.at.x - toCounts(measured, scale);
  const delta = sumOf(final, ["common.x", "G54.x", ...rowsOf(tool, "x")]) - belongs;
  const row = turretSum(registers.turret, "x", tool);
  const built = row !== 0 && Math.abs(delta - row) <= Math.abs(delta) ? row : 0;
  const left = delta - built;
  const terms: Term[] = [
    ...(built === 0 ? [] : [{ id: "registerBuiltIn" as const, mm: toMm(built, scale), seq: slid.seq }]),
    ...(Math.abs(left) <= 2 ? [] : [{ id: "otherFigure" as const, mm: toMm(left, scale), seq: slid.seq }]),
  ];
  const small = Math.abs(left) <= 2 ? toMm(left, scale) : 0;
  const own = closureMm - [...terms, ...errors].reduce((sum, { mm }) => sum + mm, 0);
  return {
    contact: contactPlace(slid, "x"),
    terms: merged([...terms, ...errors]),
    open: null,
    ownMm: Math.abs(own - (ownMm + small)) < 0.002 ? ownMm + small : own,
  };
}

/** A row that nobody touched and that was right when the lane began, beside what was put into the other registers. */
function kept(trace: TurningTrace, tool: number, axis: TurretAxis, closureMm: number): Provenance | null {
  const { final } = trace;
  const rows = rowsOf(tool, axis);
  if (sumOf(final, rows) === 0 || rows.some((register) => setOf(trace, register) !== null)) return null;
  const terms = workOf(axis).flatMap((register): Term[] => {
    const lineage = setOf(trace, register);
    const mm = toMm(readRegister(final.registers, register), final.scale);
    return lineage && mm !== 0
      ? [{ id: "otherFigure", mm, seq: lastAct(lineage).seq, register, figure: { saidMm: mm, belongsMm: 0 } }]
      : [];
  });
  const ownMm = closureMm - terms.reduce((sum, { mm }) => sum + mm, 0);
  return Math.abs(ownMm) <= KEPT_MM ? { contact: null, terms, open: null, ownMm } : null;
}

/** Everything that adds up to a tool's value, from one contact. */
function wholeSum(trace: TurningTrace, tool: number, axis: TurretAxis, closureMm: number): Provenance {
  const { final, log } = trace;
  const registers = [...rowsOf(tool, axis), ...workOf(axis)];
  const changed = log.findLast(({ event }) => event.type === "toolChanged" && event.tool === tool)?.seq ?? 0;
  const slid =
    axis === "x"
      ? trace.turret.findLast((one) => one.tool === tool && one.by === "slid" && one.seq > changed)
      : undefined;
  const start = final.setup.lathe.start;
  const own = actsOf(trace, axis, rowsOf(tool, axis));
  const shared = actsOf(trace, axis, start ? [`common.${axis}`, `G54.${axis}`] : workOf(axis));
  // a work offset counts for a tool only where its own row was not set
  const isFirst = start !== undefined && tool === final.setup.lathe.targets[axis][0];
  const isShared = own === null && shared !== null && (isFirst || (!start && isSetWith(trace, tool, axis, shared[0])));
  const keptRow = own === null ? kept(trace, tool, axis, closureMm) : null;
  const acts = own ?? (isShared ? shared.map((act) => withoutRow(act, tool, axis)) : null);
  const at = acts?.[0];
  if (slid && slid.seq > (at?.act.seq ?? 0)) return slidProvenance(trace, tool, slid, closureMm);
  const declared = isFirst && own === null ? declaredProvenance(trace, tool, axis) : null;
  if (declared) return declared;
  if (keptRow) return keptRow;
  if (!acts || !at || at.act.seq < changed)
    return (
      inOtherOffset(trace, axis, tool, closureMm) ??
      unset(trace, rowsOf(tool, axis), closureMm, allSources(trace, tool, axis, Infinity).map(valueOf))
    );
  const found = account(trace, {
    axis,
    registers,
    acts,
    sources: (before) => allSources(trace, tool, axis, before),
    others: (source, act) => [
      ...otherWays(trace, tool, axis, act, source),
      ...(own === null ? [{ id: "toolNotActive" as const, counts: rowNotInUse(act, tool, axis) }] : []),
    ],
    ...(final.kind === "gang"
      ? { shown: ({ counts }: Source) => counts - final.registers.common[axis] - final.registers.work.G54[axis] }
      : {}),
  });
  if (!found) return withoutSource(trace, tool, axis, at, closureMm);
  const whole = provenanceFrom(found.account, found.source);
  const isBare =
    axis === "x" && found.source.shares.some(({ term, slips }) => term === "diameter" && slips.length === 0);
  return isBare
    ? {
        ...whole,
        terms: whole.terms.map((term) => (term.id === "otherFigure" ? { ...term, id: "notMeasured" } : term)),
      }
    : whole;
}

/**
 * A position that was declared: at the start point and with the tool of the sheet, the figure that follows from where
 * that tool met the part; lost, where the machine was switched off since.
 */
function declaredProvenance(trace: TurningTrace, tool: number, axis: TurretAxis): Provenance | null {
  const { final, changes, log } = trace;
  const { start } = final.setup.lathe;
  const register: RegisterId = `common.${axis}`;
  const said = changes.findLast(({ event }) => event.register === register && event.how === "declared");
  if (!start || !said) return null;
  const { event, before, seq } = said;
  const startCounts = toCounts(axis === "x" ? start.xMm : start.zMm, final.scale);
  const inUse = turretSum(before.registers.turret, axis, before.lathe.row);
  const off = event.machine[axis] - startCounts - inUse;
  const now = sumOf(final, [...rowsOf(tool, axis), ...workOf(axis)]);
  const gone = now - event.to;
  const sources = allSources(trace, tool, axis, seq);
  // where it stood is one thing, the figure that was declared another
  const at: Standing<TurningLane> = {
    register,
    lineage: { base: said, added: [] },
    act: said,
    origin: null,
    stated: event.to - off,
    isAnew: false,
  };
  const found = account(trace, {
    axis,
    registers: [register],
    acts: [at],
    sources: () => sources,
    others: () => [],
  });
  if (!found) return null;
  const lostSeq =
    log.findLast((one) => one.event.type === "registerChanged" && one.event.register === register)?.seq ?? seq;
  const whole = provenanceFrom(found.account, found.source);
  return {
    ...whole,
    terms: merged([
      ...whole.terms,
      ...(off === 0 ? [] : [{ id: "declaredElsewhere" as const, mm: toMm(off, final.scale), seq }]),
      ...(gone === 0
        ? []
        : [
            {
              id:
                event.to !== 0 && final.registers.common[axis] === 0
                  ? ("declarationLost" as const)
                  : ("changedAfter" as const),
              mm: toMm(gone, final.scale),
              seq: lostSeq,
            },
          ]),
    ]),
  };
}

/** Where X or Z of a tool on a turret or a gang slide came from. */
export function offsetProvenance(
  trace: TurningTrace,
  tool: number,
  axis: TurretAxis,
  split: LatheSplit,
  closureMm: number,
): Provenance {
  if (axis === "x" || split === "whole") return wholeSum(trace, tool, axis, closureMm);
  const row = rowProvenance(trace, tool, split);
  const work = workProvenance(trace, split);
  const isUnset = ({ terms }: Provenance) => terms.some(({ id }) => id === "neverSet" || id === "takenBack");
  if (isUnset(row) && work.contact === null)
    return wholeTerm(
      row.terms.find(({ id }) => id === "takenBack")?.id ?? "neverSet",
      closureMm,
      row.terms[0]?.seq ?? 0,
    );
  return {
    belongs: row.contact ? row.belongs : work.belongs,
    contact: row.contact ?? work.contact,
    terms: merged([...row.terms, ...work.terms]),
    open: row.open ?? work.open,
    ownMm: row.ownMm + work.ownMm,
  };
}
