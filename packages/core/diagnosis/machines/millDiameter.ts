import { toolName } from "../../instruments/things";
import { expectedDiameter } from "../../exercises/machines/millExpected";
import type { MillLane } from "../../machines/mill/lane";
import type { RegisterId } from "../../registers";
import { toCounts, toMm, type Counts } from "../../units";
import { bestAccount, provenanceFrom, type Source, type SumQuestion } from "../account";
import { noContact, WORTH_NAMING_MM, type CauseId, type Provenance, type Term } from "../cause";
import { keptProvenance } from "../kept";
import { writtenIn, type OtherWay, type Share } from "../figures";
import { setOf, standing } from "../standing";
import type { MillTrace } from "../trace";
import { unset } from "../unset";

type Reading = MillTrace["readings"][number];

const nameOf: SumQuestion<MillLane>["nameOf"] = (register, change) => {
  if (change === "changed") return "changedAfter";
  return register.startsWith("DW") ? "oldWear" : "schoolsMixed";
};

/** What an instrument said of a cutter's diameter, mm; undefined where it said something else. */
const diameterOf = ({ event }: Reading, tool: number): number | undefined =>
  event.tool === tool ? (event.values[toolName(tool)] ?? event.values.diameter) : event.values[toolName(tool)];

interface Measured {
  readonly mm: number;
  readonly seq: number;
  readonly atMs: number;
  readonly instrument: string;
}

/** Every reading of a cutter before a moment, and what the latest of them come to together; the latest first. */
function measuredOf({ readings }: MillTrace, tool: number, before: number): Measured[] {
  const each = readings.flatMap((reading): Measured[] => {
    const mm = reading.seq < before ? diameterOf(reading, tool) : undefined;
    return mm === undefined ? [] : [{ mm, seq: reading.seq, atMs: reading.atMs, instrument: reading.event.instrument }];
  });
  const last = each.at(-1);
  const means = [2, 3, 4, 5, 6].flatMap((count): Measured[] => {
    const latest = each.slice(-count);
    const mm = latest.reduce((sum, one) => sum + one.mm, 0) / latest.length;
    return last && latest.length === count ? [{ ...last, mm }] : [];
  });
  return [...each.toReversed(), ...means];
}

function errorsOf(measured: Measured, offMm: number): { errors: Term[]; ownMm: number } {
  if (Math.abs(offMm) < WORTH_NAMING_MM) return { errors: [], ownMm: offMm };
  const id: CauseId =
    measured.instrument === "plungerSetter"
      ? "oneSideMeasured"
      : measured.instrument === "caliper"
        ? "coarseInstrument"
        : "contactOff";
  return { errors: [{ id, mm: offMm, seq: measured.seq }], ownMm: 0 };
}

/** Where the diameter of a cutter came from: what was measured, and what the school has the register hold of it. */
export function diameterProvenance(trace: MillTrace, tool: number, closureMm: number): Provenance {
  const { final, set } = trace;
  const { setup, truth, scale } = final;
  const isWear = setup.diameterSchool === "wear-comp";
  const isRadius = setup.settings.diameterMode === "radius";
  const own: RegisterId = isWear ? `DW${tool}` : `D${tool}`;
  const registers: readonly RegisterId[] = [`D${tool}`, `DW${tool}`];
  const register = [own, ...registers].find((one) => setOf({ final, set }, one) !== null);
  const lineage = register && setOf({ final, set }, register);
  const kept = keptProvenance(trace, registers, closureMm);
  if (kept) return kept;
  if (!register || !lineage)
    return unset(
      trace,
      registers,
      closureMm,
      measuredOf(trace, tool, Infinity).map(({ mm }) => toCounts(mm / (isRadius ? 2 : 1), scale)),
    );
  const at = standing(register, lineage, "z");
  const half = isRadius ? 2 : 1;
  const counts = (mm: number): Counts => toCounts(mm / half, scale);
  const nominal = counts(setup.tools.find(({ number }) => number === tool)?.diameterMm ?? 0);
  const wantedMm = expectedDiameter(setup, truth, tool);
  const shares: Share[] = isWear
    ? [
        {
          term: "nominal",
          counts: -nominal,
          slips: [
            { id: "schoolsMixed", counts: 0 },
            { id: "wearSignTurned", counts: nominal },
          ],
        },
      ]
    : [];
  const sources = measuredOf(trace, tool, at.act.seq).map((measured): Source => {
    const offMm = toMm(counts(measured.mm) - (isWear ? nominal : 0), scale) - wantedMm;
    const place = { counts: counts(measured.mm), seq: measured.seq, atMs: measured.atMs };
    return { counts: place.counts, contact: place, shares, ...errorsOf(measured, offMm) };
  });
  const neighbors = setup.tools
    .filter(({ number }) => number !== tool)
    .flatMap(({ number }) => measuredOf(trace, number, at.act.seq).map((one) => ({ number, one })));
  const best = bestAccount(
    sources.map((source): SumQuestion<MillLane> => {
      const belongs = source.counts + shares.reduce((sum, share) => sum + share.counts, 0);
      const other = (id: CauseId, value: Counts, more: Partial<OtherWay> = {}): OtherWay => ({
        id,
        counts: Math.round(value) - belongs,
        ...more,
      });
      return {
        final,
        set,
        registers,
        standing: at,
        isSolving: false,
        source,
        strayId: "capturedAfterLeaving",
        written: writtenIn(final.desk.ledger, registers),
        nameOf,
        others: [
          ...(isWear ? [other("wearSignTurned", -belongs)] : [other("nominalForMeasured", nominal)]),
          isRadius ? other("diameterInRadius", 2 * belongs) : other("radiusInDiameter", belongs / 2),
          ...(isWear
            ? []
            : [other(isRadius ? "diameterInRadius" : "radiusInDiameter", isRadius ? 2 * nominal : nominal / 2)]),
          ...neighbors.map(({ number, one }) =>
            other("neighborRow", counts(one.mm) - (isWear ? counts(nominalMm(setup, number)) : 0), { tool: number }),
          ),
        ],
      };
    }),
  );
  if (best) return provenanceFrom(best.account, best.source);
  // nothing was measured: what is written on the cutter is all that there was
  const held = at.stated;
  const isNominal = !isWear && Math.abs(held - nominal) <= 2;
  return isNominal
    ? { contact: null, terms: [{ id: "nominalForMeasured", mm: closureMm, seq: at.act.seq }], open: null, ownMm: 0 }
    : noContact(closureMm, at.act.seq);
}

const nominalMm = ({ tools }: MillLane["setup"], tool: number): number =>
  tools.find(({ number }) => number === tool)?.diameterMm ?? 0;
