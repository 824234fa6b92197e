import { turretBias, type MethodBias } from "../../exercises/bias";
import type { TurretTool } from "../../exercises/setup";
import { faceMm, kxNowMm, reachNowMm } from "../../machines/lathe/contact";
import { readRegister, type RegisterId } from "../../registers/mill";
import type { TurningLane } from "../../machines/lathe/lane";
import { toCounts, toMm, type Counts } from "../../units";
import { bestAccount, provenanceFrom, type Source, type SumQuestion } from "../account";
import { signaturesFor, type Figures } from "../catalog";
import { noContact, WORTH_NAMING_MM, type CauseId, type Provenance, type Term } from "../cause";
import { cameCoarsely, pressedBetween } from "../felt";
import { writtenIn, type OtherWay, type Share, type Written } from "../figures";
import { setOf, standing } from "../standing";
import type { TurningTrace } from "../trace";
import { unset } from "../unset";
import { contactPlace, type Contact, type TurretAxis } from "./latheContact";

/** A row of a library hangs on two contacts: what two careful ones leave is no cause, mm. */
const WORTH_NAMING_OF_TWO_MM = WORTH_NAMING_MM * Math.SQRT2;
const OWN_WITHIN_U = 4;
/** What a point sighted by eye is marked within, mm: no finer way is there. */
const BY_EYE_MM = 0.3;
const LATEST = 10;

/** One value of a readout: what it holds and should hold, where it came from, the narrowest tolerance of its way. */
export interface LibraryValue {
  readonly held: number;
  readonly wanted: number;
  readonly leastMm: number;
  readonly provenance: Provenance;
  readonly figures: Figures;
  readonly bias: MethodBias;
  readonly by: string | null;
}

const rowOf = (tool: number, axis: TurretAxis): RegisterId => `${axis === "x" ? "LX" : "LZ"}${tool}`;
const zeroOf = (axis: TurretAxis): RegisterId => `G54.${axis}`;
const ownMm = ({ final }: TurningTrace, tool: number, axis: TurretAxis): number =>
  axis === "x" ? kxNowMm(final, tool) : reachNowMm(final, tool);

/** Where the corner stands: the diameter of the band at the face, or the face itself, for a tool of no reach, mm. */
function cornerMm(lane: TurningLane, axis: TurretAxis): number {
  const end = faceMm(lane) ?? 0;
  if (axis === "z") return end;
  return 2 * (lane.lathe.outer.findLast(({ toMm: to, radiusMm }) => radiusMm > 0 && to <= end + 1e-6)?.radiusMm ?? 0);
}

const between = ({ thicknessMm }: Contact, axis: TurretAxis): number => (axis === "x" ? 2 : 1) * thicknessMm;

function contactsBefore(trace: TurningTrace, tool: number, axis: TurretAxis, before: number): Contact[] {
  const found = trace.turret.filter((one) => one.tool === tool && one.axis === axis && one.seq < before).toReversed();
  const cut = found.findIndex(({ by }) => by === "cut");
  return found.filter((one, i) => one.by !== "cut" || i === cut).slice(0, LATEST);
}

/** The corner as it stood when a contact was made, mm: after the cut where that was the contact. */
function cornerThenMm(trace: TurningTrace, contact: Contact, axis: TurretAxis): number {
  if (contact.by !== "cut") return cornerMm(contact.before, axis);
  return axis === "x" ? 2 * contact.radiusMm : (contact.faceMm ?? cornerMm(trace.final, "z"));
}

/** What is known to be wrong with one contact at the corner, and its method's own error, mm. */
function errorsOf(
  trace: TurningTrace,
  contact: Contact,
  axis: TurretAxis,
  worthMm: number,
): { errors: Term[]; ownMm: number } {
  const { final } = trace;
  const nowMm = cornerMm(final, axis);
  const errorMm =
    toMm(contact.at[axis], final.scale) - between(contact, axis) - ownMm(trace, contact.tool, axis) - nowMm;
  const cutMm = cornerThenMm(trace, contact, axis) - nowMm;
  const again = trace.turret.find((one) => one.seq > contact.seq && one.by === "cut" && one.axis === axis);
  const isCutAgain = again !== undefined && Math.abs(cutMm) > 1e-9;
  const known: Term[] = isCutAgain
    ? [{ id: axis === "x" ? "bandCutAgain" : "faceCutAgain", mm: cutMm, seq: again.seq }]
    : [];
  const rest = errorMm - known.reduce((sum, { mm }) => sum + mm, 0);
  const { biasMm, uMm } = turretBias(contact.by, contact.thicknessMm, axis);
  if (Math.abs(rest - biasMm) < Math.max(worthMm, OWN_WITHIN_U * uMm)) return { errors: known, ownMm: rest };
  return { errors: [...known, { id: wrongWith(contact), mm: rest, seq: contact.seq }], ownMm: 0 };
}

function wrongWith(contact: Contact): CauseId {
  if (contact.leanMm > 0) return "leanedOnPost";
  return pressedBetween(contact) ?? cameCoarsely(contact) ?? "contactOff";
}

const negated = (terms: readonly Term[]): Term[] => terms.map((term) => ({ ...term, mm: -term.mm }));

/** A working of a library takes what was read with its sign turned. */
const turnedRound = (written: Written | null): Written | null =>
  written && {
    ...written,
    reading: written.reading === null ? null : -written.reading,
    terms: new Map([...written.terms].map(([term, counts]) => [term, -counts])),
  };

type Question = SumQuestion<TurningLane>;
const nameOf: Question["nameOf"] = (_register, change) => (change === "left" ? "masterNotCleared" : "changedAfter");

/** The zero of the readout: the reference tool at the corner, read as zero. */
function zeroProvenance(trace: TurningTrace, tool: number, axis: TurretAxis, closureMm: number): Provenance {
  const { final, set } = trace;
  const register = zeroOf(axis);
  const lineage = setOf(trace, register);
  if (!lineage) return unset(trace, [register], closureMm);
  const at = standing(register, lineage, axis);
  const contacts = contactsBefore(trace, tool, axis, at.act.seq);
  // what the reference's own row holds is added to what is shown
  const row = readRegister(final.registers, rowOf(tool, axis));
  const ofRow: Term[] =
    row === 0
      ? []
      : [{ id: "masterNotCleared", mm: -toMm(row, final.scale), seq: at.act.seq, register: rowOf(tool, axis) }];
  const questions = contacts.map((contact): Question => {
    const extra = toCounts(between(contact, axis), final.scale);
    const shares: Share[] = extra === 0 ? [] : [gapShare(extra, contact, "feelerForgotten")];
    const source: Source = {
      counts: contact.at[axis],
      contact: shownPlace(contact, axis),
      shares,
      ...errorsOf(trace, contact, axis, WORTH_NAMING_MM),
    };
    return {
      final,
      set,
      registers: [register],
      standing: at,
      isSolving: at.origin !== null,
      source,
      // whoever makes the corner read a size of the part has another zero than the sheet's
      others:
        at.origin !== null && at.lineage.base?.event.as
          ? [
              {
                id: "cornerNotZero",
                counts: -at.lineage.base.event.as - shares.reduce((sum, { counts }) => sum + counts, 0),
              },
            ]
          : [],
      written: null,
      strayId: "capturedAfterLeaving",
      nameOf,
    };
  });
  const best = bestAccount(at.origin === null ? questions : questions.slice(0, 1));
  if (!best) return noContact(closureMm, at.act.seq);
  const found = provenanceFrom(best.account, best.source);
  return { ...found, terms: [...found.terms, ...ofRow] };
}

const gapShare = (extra: Counts, { by }: Contact, id: CauseId): Share => ({
  term: by === "paper" || by === "feeler" ? "paper" : "block",
  counts: -extra,
  slips: [
    { id, counts: 0 },
    { id: "feelerOnce", counts: -Math.round(extra / 2) },
    { id: "paperWrongWay", counts: extra },
  ],
});

const shownPlace = (contact: Contact, axis: TurretAxis) => ({
  ...contactPlace(contact, axis),
  counts: contact.shown[axis],
});

/** A row of the library: the reference's place less the tool's own. */
function rowProvenance(
  trace: TurningTrace,
  tool: number,
  reference: number,
  axis: TurretAxis,
  closureMm: number,
): Provenance {
  const { final, set } = trace;
  const register = rowOf(tool, axis);
  const lineage = setOf(trace, register);
  if (!lineage) return unset(trace, [register], closureMm);
  const at = standing(register, lineage, axis);
  const zero = setOf(trace, zeroOf(axis));
  const zeroSeq = zero?.base?.seq ?? Infinity;
  const [first] = contactsBefore(trace, reference, axis, zeroSeq);
  const contacts = contactsBefore(trace, tool, axis, at.act.seq);
  if (!first) return noContact(closureMm, at.act.seq);
  const theirs = errorsOf(trace, first, axis, WORTH_NAMING_OF_TWO_MM);
  const zeroCounts = readRegister(at.act.before.registers, zeroOf(axis));
  const written = turnedRound(writtenIn(final.desk.ledger, [register]));
  const best = bestAccount(
    contacts.map((contact): Question => {
      const extra = toCounts(between(contact, axis) - between(first, axis), final.scale);
      const mine = errorsOf(trace, contact, axis, WORTH_NAMING_OF_TWO_MM);
      const ofSign = (counts: Counts): Share[] =>
        counts === 0
          ? []
          : [
              {
                term: "paper",
                counts,
                slips: [
                  { id: "feelerOnSome", counts: 0 },
                  { id: "feelerOnSome", counts: -counts },
                  { id: "feelerOnSome", counts: Math.round(counts / 2) },
                ],
              },
            ];
      const gaps = ofSign(extra);
      const shares: Share[] = [{ term: "other", counts: first.at[axis], slips: [] }, ...gaps];
      const belongs = first.at[axis] - contact.at[axis] + extra;
      // what the zero is off by is read with every tool
      const carried = zeroCounts - first.at[axis];
      const others: OtherWay[] = [
        ...turnedReading(trace, belongs, 0),
        ...(carried === 0
          ? []
          : [
              { id: "carriedOver" as const, counts: carried, tool: reference },
              ...turnedReading(trace, belongs, carried),
            ]),
        ...paperOf(trace, axis).flatMap((counts) => [
          { id: "feelerOnSome" as const, counts },
          { id: "feelerOnSome" as const, counts: -counts },
        ]),
        ...neighborRows(trace, tool, reference, axis, at.act.seq, first).map((value) => ({
          ...value,
          counts: value.counts - belongs,
        })),
      ];
      return {
        final,
        set,
        registers: [register],
        standing: at,
        isSolving: false,
        source: {
          counts: -contact.at[axis],
          contact: shownPlace(contact, axis),
          shares,
          errors: [...theirs.errors, ...negated(mine.errors)],
          ownMm: theirs.ownMm - mine.ownMm,
        },
        others,
        written,
        // a reading is shown from the zero: the reference's place is in it
        shownCounts: -contact.shown[axis],
        shownShares: gaps,
        strayId: "capturedAfterLeaving",
        nameOf,
      };
    }),
  );
  if (!best) return noContact(closureMm, at.act.seq);
  const found = provenanceFrom(best.account, best.source);
  // in a working of a library everything stands as it is read
  return { ...found, belongs: (found.belongs ?? []).map(({ term, counts }) => ({ term, counts: -counts })) };
}

/** What the catalog predicts of a reading that was typed as it stood; `carried` is what the zero was off by. */
const turnedReading = ({ final: { scale } }: TurningTrace, belongs: Counts, carried: Counts): OtherWay[] =>
  signaturesFor("lathe-readout", { reading: toMm(-belongs, scale) }).map(({ id, predictedMm }) => ({
    id,
    counts: toCounts(predictedMm, scale) - carried,
  }));

const paperOf = ({ final: { setup, scale } }: TurningTrace, axis: TurretAxis): Counts[] =>
  setup.gaps
    .filter(({ kind }) => kind === "paper" || kind === "feeler")
    .map(({ nominalMm }) => toCounts((axis === "x" ? 2 : 1) * nominalMm, scale));

/** What the rows of the other tools come to. */
function neighborRows(
  trace: TurningTrace,
  tool: number,
  reference: number,
  axis: TurretAxis,
  before: number,
  first: Contact,
): OtherWay[] {
  return trace.final.setup.lathe.tools
    .filter(({ number }) => number !== tool && number !== reference)
    .flatMap(({ number }) =>
      contactsBefore(trace, number, axis, before)
        .slice(0, 3)
        .map((one) => ({ id: "neighborRow" as const, counts: first.at[axis] - one.at[axis], tool: number })),
    );
}

/**
 * What a readout's registers hold of a tool on an axis. The reference is the tool that the zero was set with: its value
 * is the zero. Every other tool's is its row, which has to be the reference's place less its own.
 */
export function libraryValue(trace: TurningTrace, tool: TurretTool, axis: TurretAxis): LibraryValue {
  const { final } = trace;
  const { setup, scale, registers } = final;
  const reference = setup.lathe.targets[axis][0] ?? 1;
  const isReference = tool.number === reference;
  const register = isReference ? zeroOf(axis) : rowOf(tool.number, axis);
  const seq = setOf(trace, register)?.base?.seq ?? Infinity;
  const [contact] = contactsBefore(trace, tool.number, axis, seq);
  const [first] = contactsBefore(trace, reference, axis, setOf(trace, zeroOf(axis))?.base?.seq ?? Infinity);
  const own = ownMm(trace, tool.number, axis);
  const ofReference = toMm(readRegister(registers, rowOf(reference, axis)), scale);
  const held = toMm(readRegister(registers, register), scale) - (isReference ? ofReference : 0);
  const wanted = isReference ? own + cornerMm(final, axis) : ownMm(trace, reference, axis) - own + ofReference;
  const closureMm = held - wanted;
  const provenance = isReference
    ? zeroProvenance(trace, tool.number, axis, closureMm)
    : withReferenceRow(rowProvenance(trace, tool.number, reference, axis, closureMm), ofReference, seq);
  const [mine, theirs] = [contact, first].map((one) => turretBias(one?.by ?? null, one?.thicknessMm ?? 0, axis)) as [
    MethodBias,
    MethodBias,
  ];
  return {
    held,
    wanted,
    leastMm: contact?.by === "eye" ? BY_EYE_MM : 0,
    provenance,
    figures: isReference || !contact || !first ? {} : { reading: toMm(contact.at[axis] - first.at[axis], scale) },
    // a zero is read as it stands; a row is the reference's reading less the tool's
    bias: isReference ? mine : { biasMm: theirs.biasMm - mine.biasMm, uMm: Math.hypot(mine.uMm, theirs.uMm) },
    by: contact?.by ?? null,
  };
}

/** Names that say all of a closure by themselves. */
const WHOLE: ReadonlySet<CauseId> = new Set(["neverSet", "takenBack", "otherRegister", "noContact"]);

/** A row counts from the reference's: what that one holds puts it off. */
function withReferenceRow(provenance: Provenance, ofReferenceMm: number, seq: number): Provenance {
  return ofReferenceMm === 0 || provenance.terms.some(({ id }) => WHOLE.has(id))
    ? provenance
    : {
        ...provenance,
        terms: [
          ...provenance.terms,
          { id: "masterNotCleared", mm: -ofReferenceMm, seq: Number.isFinite(seq) ? seq : 0 },
        ],
      };
}
