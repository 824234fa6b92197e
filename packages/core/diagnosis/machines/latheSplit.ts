import type { LatheSplit } from "../../exercises/schools";
import { farEdgeMm } from "../../exercises/machines/lathe";
import { faceMm } from "../../machines/lathe/contact";
import type { TurningLane } from "../../machines/lathe/lane";
import { workOffsetNames, type RegisterId } from "../../registers";
import { turretSum } from "../../registers/turret";
import { toMm, type Counts } from "../../units";
import { provenanceFrom, type Source } from "../account";
import { merged, noContact, type Provenance, type Term } from "../cause";
import type { Share } from "../figures";
import { sumOf, type Standing } from "../standing";
import type { TurningTrace } from "../trace";
import { unset } from "../unset";
import { contactsOf, reachMm, toolOf, type TurretAxis } from "./latheContact";
import { armSource, otherWays, rowsOf, sourcesFrom, valueOf, workOf } from "./latheSources";
import { type Acts, account, actsOf, negated, withoutSource } from "./latheAccount";

/** Schools that split Z over a row and work Z. */
type Split = Exclude<LatheSplit, "whole">;

/** What a tool's own row held, and was not called, when a work offset was captured: it is not in that, counts. */
export function rowNotInUse({ origin, act }: Standing<TurningLane>, tool: number, axis: TurretAxis): Counts {
  const { registers, lathe } = act.before;
  if (origin === null) return 0;
  return turretSum(registers.turret, axis, tool) - turretSum(registers.turret, axis, lathe.row);
}

/** A work offset that was captured, as a sum of everything that adds up for a tool. */
export const withoutRow = (at: Standing<TurningLane>, tool: number, axis: TurretAxis): Standing<TurningLane> => ({
  ...at,
  stated: at.stated + rowNotInUse(at, tool, axis),
});

/** A work offset was captured with this tool in the working position. */
export const isSetWith = (
  trace: TurningTrace,
  tool: number,
  axis: TurretAxis,
  { act }: Standing<TurningLane>,
): boolean =>
  act.before.lathe.station === tool &&
  trace.turret.some((one) => one.tool === tool && one.axis === axis && one.seq < act.seq);

/** Shares that a capture takes off by itself: what work and common offset held then. */
const withOffsetsThen = (at: Standing<TurningLane>, axis: TurretAxis): Standing<TurningLane> =>
  at.origin === null ? at : { ...at, stated: at.stated - sumOf(at.act.before, workOf(axis)) };

/** The row of a tool by itself, in the schools that split Z: from the arm, or beside the master. */
export function rowProvenance(trace: TurningTrace, tool: number, split: Split): Provenance {
  const { final, log } = trace;
  const master = final.setup.lathe.targets.z[0] ?? 1;
  const far = farEdgeMm(toolOf(final, tool));
  const rows = rowsOf(tool, "z");
  const isMaster = split === "difference" && tool === master;
  const wantedMm =
    split === "reach"
      ? reachMm(final, tool) - far
      : reachMm(final, tool) - far - (reachMm(final, master) - farEdgeMm(toolOf(final, master)));
  const closureMm = toMm(sumOf(final, rows), final.scale) - (isMaster ? 0 : wantedMm);
  if (isMaster) {
    const mm = toMm(sumOf(final, rows), final.scale);
    const act = actsOf(trace, "z", rows)?.[0].act;
    const seq = act?.seq ?? log.at(-1)?.seq ?? 0;
    const term: Term = act
      ? { id: "otherFigure", mm, seq, figure: { saidMm: mm, belongsMm: 0 } }
      : { id: "masterNotCleared", mm, seq };
    return { contact: null, terms: mm === 0 ? [] : [term], open: null, ownMm: 0 };
  }
  const set = actsOf(trace, "z", rows);
  const sources = (before: number): Source[] =>
    split === "reach"
      ? contactsOf(trace, tool, "z", before)
          .filter(({ by }) => by === "arm")
          .map((contact) => armSource(trace, contact, "z", wantedMm))
      : besideMaster(trace, tool, master, before);
  if (!set) return unset(trace, rows, closureMm, sources(Infinity).map(valueOf));
  const found = account(trace, {
    axis: "z",
    registers: rows,
    acts: set.map((one) => withOffsetsThen(one, "z")),
    sources,
    others: (source, act) => otherWays(trace, tool, "z", act, source),
  });
  return found ? provenanceFrom(found.account, found.source) : withoutSource(trace, tool, "z", set[0], closureMm);
}

/** A tool touched where the master was: the difference of the two. */
function besideMaster(trace: TurningTrace, tool: number, master: number, before: number): Source[] {
  const [theirs] = masterSources(trace, master);
  if (!theirs) return [];
  return contactsOf(trace, tool, "z", before).flatMap((contact) =>
    sourcesFrom(trace, contact, "z", before).map((source) => ({
      ...source,
      shares: [
        ...source.shares,
        { term: "other" as const, counts: -valueOf(theirs), slips: [{ id: "schoolsMixed" as const, counts: 0 }] },
      ],
      errors: [...source.errors, ...negated(theirs.errors)],
      ownMm: source.ownMm - theirs.ownMm,
    })),
  );
}

/** Where the master met the face when the shift was found: before work Z was set, or the last time. */
function masterSources(trace: TurningTrace, master: number): Source[] {
  const set = actsOf(trace, "z", workOf("z"));
  const [contact] = contactsOf(trace, master, "z", set?.at(-1)?.act.seq ?? Infinity);
  return contact ? sourcesFrom(trace, contact, "z", Infinity) : [];
}

/** Work Z in the schools that split Z: the face touched with a tool whose row is set, or with the master. */
export function workProvenance(trace: TurningTrace, split: Split): Provenance {
  const { final, log } = trace;
  const master = final.setup.lathe.targets.z[0] ?? 1;
  const registers = workOf("z");
  const face = faceMm(final) ?? 0;
  const wantedMm = split === "reach" ? face : face + reachMm(final, master) - farEdgeMm(toolOf(final, master));
  const closureMm = toMm(sumOf(final, registers), final.scale) - wantedMm;
  const set = actsOf(trace, "z", registers);
  const end = log.at(-1)?.seq ?? 0;
  if (!set) {
    const elsewhere = workElsewhere(trace, split, closureMm);
    if (elsewhere) return elsewhere;
    const [theirs] = masterSources(trace, master);
    if (split === "difference" && theirs)
      return {
        contact: theirs.contact,
        terms: merged([
          { id: "shiftMissing", mm: toMm(sumOf(final, registers) - valueOf(theirs), final.scale), seq: end },
          ...theirs.errors,
        ]),
        open: null,
        ownMm: theirs.ownMm,
      };
    return unset(trace, registers, closureMm);
  }
  return workFrom(trace, split, set, registers, closureMm);
}

function workFrom(
  trace: TurningTrace,
  split: Split,
  acts: Acts,
  registers: readonly RegisterId[],
  closureMm: number,
): Provenance {
  const { lathe } = trace.final.setup;
  const tools = split === "reach" ? lathe.tools.map(({ number }) => number) : [lathe.targets.z[0] ?? 1];
  const found = account(trace, {
    axis: "z",
    registers,
    acts: acts.map(withRowInUse),
    sources: (before, { act }) =>
      tools
        .flatMap((tool) => contactsOf(trace, tool, "z", before).filter(({ by }) => by !== "arm"))
        .sort((a, b) => b.seq - a.seq)
        .flatMap((contact) =>
          sourcesFrom(trace, contact, "z", before).map((source) =>
            split === "reach" ? besideRow(trace, contact.tool, source, act.before) : source,
          ),
        ),
    others: (source, { origin, act }) => {
      const { machine } = act.event;
      return origin !== null || machine.z === source.counts
        ? []
        : [{ id: "capturedAfterLeaving", counts: machine.z - source.counts, isReading: true }];
    },
  });
  return found ? provenanceFrom(found.account, found.source) : noContact(closureMm, acts[0].act.seq);
}

/** What the called row takes off is in a capture as if it had been stated. */
function withRowInUse(at: Standing<TurningLane>): Standing<TurningLane> {
  const { registers, lathe } = at.act.before;
  return at.origin === null ? at : { ...at, stated: at.stated - turretSum(registers.turret, "z", lathe.row) };
}

/** The face met with a tool whose row stands in the figure: what is wrong with that row is carried over. */
function besideRow(trace: TurningTrace, tool: number, source: Source, before: TurningLane): Source {
  const { final } = trace;
  const { row } = before.lathe;
  const rows = rowsOf(tool, "z");
  const [then, now] = [sumOf(before, rows), sumOf(final, rows)];
  const far = farEdgeMm(toolOf(final, tool));
  const other =
    row === null || row === tool
      ? []
      : [{ id: "neighborRow" as const, counts: -turretSum(before.registers.turret, "z", row) }];
  const share: Share = {
    term: "other",
    counts: -then,
    slips: [{ id: "toolNotActive", counts: 0 }, ...other, { id: "schoolsMixed", counts: then }],
  };
  const shares = [...source.shares, share];
  const offMm = toMm(then, final.scale) - (reachMm(final, tool) - far);
  if (then !== now)
    return {
      ...source,
      shares,
      errors: [...source.errors, { id: "carriedOver", mm: -offMm, seq: source.contact?.seq ?? 0, tool }],
    };
  const mine = rowProvenance(trace, tool, "reach");
  return { ...source, shares, errors: [...source.errors, ...negated(mine.terms)], ownMm: source.ownMm - mine.ownMm };
}

/** Work Z was set in another work offset: which. */
function workElsewhere(trace: TurningTrace, split: Split, closureMm: number): Provenance | null {
  const acts = actsOf(
    trace,
    "z",
    workOffsetNames.slice(1).map((name): RegisterId => `${name}.z`),
  );
  if (!acts) return null;
  const [at] = acts;
  const inner = workFrom(trace, split, acts, [at.register, "common.z"], closureMm);
  const carried = inner.terms.reduce((sum, { mm }) => sum + mm, inner.ownMm);
  if (inner.terms.some(({ id }) => id === "noContact")) return null;
  return {
    ...inner,
    terms: [{ id: "otherRegister", mm: closureMm - carried, seq: at.act.seq, register: at.register }, ...inner.terms],
  };
}
