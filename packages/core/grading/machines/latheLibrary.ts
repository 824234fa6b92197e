import { WORTH_NAMING_MM } from "../../diagnosis/cause";
import { type Evidence, type ProvenTerm } from "../../diagnosis/cause";
import { signaturesFor, type Figures } from "../../diagnosis/catalog";
import { turretBias, type MethodBias } from "../../exercises/bias";
import { readRegister, type RegisterId } from "../../registers/mill";
import { type TurningTrace } from "../../diagnosis/trace";
import { faceMm, kxNowMm } from "../../machines/lathe/contact";
import { type TurretContact } from "../../machines/told";
import { type TurretTool } from "../../exercises/setup";
import { toCounts, toMm } from "../../units/scale";
import { type NamedCounts, procedureTerms } from "../../diagnosis/arithmetic";

type TurretAxis = "x" | "z";

/** A row of a library hangs on two contacts: what two careful ones leave is no cause, mm. */
const WORTH_NAMING_OF_TWO_MM = WORTH_NAMING_MM * Math.SQRT2;
/** What a point sighted by eye is marked within, mm: no finer way is there. */
const BY_EYE_MM = 0.3;

/**
 * One value of a readout: what it holds and should hold, what the log proves of it, and the narrowest tolerance that
 * its way allows.
 */
export interface LibraryValue {
  readonly held: number;
  readonly wanted: number;
  readonly leastMm: number;
  readonly evidence: Evidence;
  readonly figures: Figures;
  readonly bias: MethodBias;
  readonly by: string | null;
}

const rowOf = (tool: number, axis: TurretAxis): RegisterId => `${axis === "x" ? "LX" : "LZ"}${tool}`;

/**
 * Where the corner stands on an axis: the diameter of the band at the face, or the face itself, machine frame of a tool
 * of no reach, mm.
 */
function cornerMm({ final }: TurningTrace, axis: TurretAxis): number {
  if (axis === "z") return faceMm(final) ?? 0;
  const end = faceMm(final) ?? 0;
  return 2 * (final.lathe.outer.findLast(({ toMm: to, radiusMm }) => radiusMm > 0 && to <= end + 1e-6)?.radiusMm ?? 0);
}

const ownMm = ({ final }: TurningTrace, tool: number, axis: TurretAxis): number =>
  axis === "x" ? kxNowMm(final, tool) : (final.truth.lathe.tools[tool]?.qMm ?? 0);

/** The last contact of a tool on an axis before its register was last set. */
function contactBefore(
  trace: TurningTrace,
  tool: number,
  axis: TurretAxis,
  register: RegisterId,
): { contact: TurretContact | undefined; setSeq: number | null } {
  const set = trace.changes.findLast(({ event }) => event.register === register);
  return {
    contact: set && trace.turret.findLast((one) => one.tool === tool && one.axis === axis && one.seq < set.seq),
    setSeq: set?.seq ?? null,
  };
}

const between = ({ thicknessMm }: TurretContact, axis: TurretAxis): number => (axis === "x" ? 2 : 1) * thicknessMm;
const isThin = ({ by }: TurretContact): boolean => by === "paper" || by === "feeler";

/**
 * What a readout's registers hold of a tool on an axis. The reference is the tool that the zero was set with: its value
 * is the zero. Every other tool's is its row, which has to be the reference's place less its own: domain of the readout
 * tool library.
 */
export function libraryValue(trace: TurningTrace, tool: TurretTool, axis: TurretAxis): LibraryValue {
  const { final } = trace;
  const { setup, scale, registers } = final;
  const reference = setup.lathe.targets[axis][0] ?? 1;
  const isReference = tool.number === reference;
  const register: RegisterId = isReference ? `G54.${axis}` : rowOf(tool.number, axis);
  const { contact, setSeq } = contactBefore(trace, tool.number, axis, register);
  const { contact: first } = contactBefore(trace, reference, axis, `G54.${axis}`);
  const own = ownMm(trace, tool.number, axis);
  const ofReference = toMm(readRegister(registers, rowOf(reference, axis)), scale);
  const held = toMm(readRegister(registers, register), scale) - (isReference ? ofReference : 0);
  const wanted = isReference ? own + cornerMm(trace, axis) : ownMm(trace, reference, axis) - own + ofReference;
  const closureMm = held - wanted;
  const leastMm = contact?.by === "eye" ? BY_EYE_MM : 0;
  const end = trace.log.at(-1)?.seq ?? 0;
  if (setSeq === null)
    return {
      held,
      wanted,
      leastMm,
      figures: {},
      bias: turretBias(null, 0, axis),
      by: null,
      evidence: { contact: null, terms: [{ id: "neverSet", mm: closureMm, seq: end }], leftMm: 0 },
    };
  if (!contact || !first)
    return {
      held,
      wanted,
      leastMm,
      figures: {},
      bias: turretBias(null, 0, axis),
      by: null,
      evidence: { contact: null, terms: [{ id: "noContact", mm: 0, seq: setSeq }], leftMm: closureMm },
    };
  // what lies between a tool and the part cancels where it lies between the reference and the part as well
  const extraMm = between(contact, axis) - (isReference ? 0 : between(first, axis));
  const figures: Figures = isReference
    ? extraMm === 0
      ? {}
      : { paper: extraMm }
    : {
        reading: toMm(contact.at[axis] - first.at[axis], scale) - extraMm,
        paper: (axis === "x" ? 2 : 1) * (setup.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0),
      };
  const [mine, theirs] = [
    turretBias(contact.by, contact.thicknessMm, axis),
    turretBias(first.by, first.thicknessMm, axis),
  ];
  // a zero is read as it stands; a row is the reference's reading less the tool's
  const bias: MethodBias = isReference
    ? mine
    : { biasMm: theirs.biasMm - mine.biasMm, uMm: Math.hypot(mine.uMm, theirs.uMm) };
  const evidence = prove(trace, { register, isReference, axis, closureMm, contact, first, extraMm, figures, bias });
  return { held, wanted, leastMm, figures, bias, by: contact.by, evidence };
}

interface Proof {
  readonly register: RegisterId;
  readonly isReference: boolean;
  readonly axis: TurretAxis;
  readonly closureMm: number;
  readonly contact: TurretContact;
  readonly first: TurretContact;
  readonly extraMm: number;
  readonly figures: Figures;
  readonly bias: MethodBias;
}

/** The register against the contacts it came from, exact in counts, and the contact against the part. */
function prove(
  trace: TurningTrace,
  { register, isReference, axis, closureMm, contact, first, extraMm, figures, bias }: Proof,
): Evidence {
  const { scale, registers } = trace.final;
  const extra = toCounts(extraMm, scale);
  const wanted = isReference ? contact.at[axis] - extra : first.at[axis] - (contact.at[axis] - extra);
  const held = readRegister(registers, register);
  const last = trace.changes.findLast(({ event }) => event.register === register);
  const seq = last?.seq ?? contact.seq;
  const saidAs = isReference && last?.event.how === "captured" ? (last.event.as ?? 0) : 0;
  const stray = isReference && last?.event.how === "captured" ? last.event.machine[axis] - contact.at[axis] : 0;
  const named: NamedCounts[] = isReference
    ? [
        ...(extra === 0 ? [] : [{ id: "feelerForgotten" as const, counts: extra }]),
        ...(saidAs === 0 ? [] : [{ id: "cornerNotZero" as const, counts: -saidAs }]),
      ]
    : signaturesFor("lathe-readout", figures).map(({ id, predictedMm }) => ({
        id,
        counts: toCounts(predictedMm, scale),
      }));
  const procedure = procedureTerms({
    held,
    wanted,
    stray: { counts: stray, id: "capturedAfterLeaving", seq },
    candidates: named,
    isTyped: last?.event.how === "typed",
    seq,
    mmOf: (counts) => toMm(counts, scale),
  });
  const terms = [...procedure, ...atContact(trace, { isReference, axis, contact, first, bias })];
  return {
    contact: { counts: contact.shown[axis], seq: contact.seq, atMs: contact.atMs },
    terms,
    leftMm: closureMm - terms.reduce((sum, { mm }) => sum + mm, 0),
  };
}

/**
 * What was wrong with a contact itself: a hand on the post, a corner that was cut again, a coarse click, pinched paper.
 */
function atContact(
  trace: TurningTrace,
  { isReference, axis, contact, first, bias }: Pick<Proof, "isReference" | "axis" | "contact" | "first" | "bias">,
): ProvenTerm[] {
  const { scale } = trace.final;
  const errorOf = (one: TurretContact): number =>
    toMm(one.at[axis], scale) - between(one, axis) - ownMm(trace, one.tool, axis) - cornerMm(trace, axis);
  const errorMm = isReference ? errorOf(contact) : errorOf(first) - errorOf(contact);
  if (Math.abs(errorMm - bias.biasMm) < Math.max(WORTH_NAMING_OF_TWO_MM, 4 * bias.uMm)) return [];
  const at = (id: ProvenTerm["id"], seq = contact.seq): ProvenTerm[] => [{ id, mm: errorMm, seq }];
  const cutAgain = trace.turret.findLast((one) => one.by === "cut" && one.axis === axis && one.on !== "bore")?.seq ?? 0;
  if (contact.leanMm > 0) return at("leanedOnPost");
  if (!isReference && first.leanMm > 0) return at("leanedOnPost", first.seq);
  if (cutAgain > Math.min(first.seq, contact.seq)) return at(axis === "x" ? "bandCutAgain" : "faceCutAgain");
  if (contact.feel === "pinched" || (isThin(contact) && contact.feel === "torn")) return at("paperPinched");
  return contact.clickMm > 0.003 ? at("coarseClick") : [];
}
