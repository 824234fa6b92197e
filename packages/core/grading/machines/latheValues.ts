import { type Target } from "../../exercises/target";
import { type RegisterId } from "../../registers/mill";
import { type TurningTrace } from "../../diagnosis/trace";
import { turretSum } from "../../registers/turret";
import { calledHeightMm, faceMm, kxNowMm } from "../../machines/lathe/contact";
import { farEdgeMm } from "../../exercises/machines/lathe";
import { type LatheSchool } from "../../exercises/schools";
import { type TurretContact } from "../../machines/told";
import { type TurretTool } from "../../exercises/setup";
import { type NamedCounts, procedureTerms } from "../../diagnosis/arithmetic";
import { turretBias, type MethodBias, type TurretMethod } from "../../exercises/bias";
import {
  causeOf,
  type Cause,
  type CauseId,
  type CauseSignature,
  type Evidence,
  type ProvenTerm,
} from "../../diagnosis/cause";
import { signaturesFor, type Figures } from "../../diagnosis/catalog";
import { toCounts, toMm } from "../../units/scale";
import { coneTouchZ } from "../../machines/lathe/acts/cone/cone";
import { type Marking } from "../../exercises/schema";
import { libraryValue } from "./latheLibrary";
import { OPEN, type RegisterRuling, valueMarks } from "../values";
import { ruleStated } from "./latheStated";

/** Below this an error of a contact is its method's own, mm. */
const WORTH_NAMING_MM = 0.012;
/** A tip this near to the axis is on center, mm. */
const HEIGHT_MM = 0.025;
/** Half of a pip read with a caliper, standard deviation, mm. */
const HALF_PIP_U_MM = 0.006;
type TurretAxis = "x" | "z";

const upper = (axis: TurretAxis): "X" | "Z" => (axis === "x" ? "X" : "Z");

/** Registers that add up to what a tool's display takes off on an axis. */
const addends = (tool: number, axis: TurretAxis): RegisterId[] => [
  `${upper(axis)}${tool}`,
  `${upper(axis)}W${tool}`,
  `G54.${axis}`,
  `common.${axis}`,
];

/** C + W + geometry + wear of a tool, counts. */
function turretSumCounts({ final: { registers } }: TurningTrace, tool: number, axis: TurretAxis): number {
  return registers.common[axis] + registers.work.G54[axis] + turretSum(registers.turret, axis, tool);
}

/** Where a tool's tip lies on the axis, or on the face as it has been cut, machine frame, mm. */
function wantedMm({ final }: TurningTrace, tool: number, axis: TurretAxis): number {
  return axis === "x"
    ? kxNowMm(final, tool)
    : (faceMm(final) ?? 0) +
        (final.truth.lathe.tools[tool]?.qMm ?? 0) -
        farEdgeMm(final.setup.lathe.tools.find(({ number }) => number === tool));
}

/** The school of Z, read from what was touched: the arm, or the face with or without a master whose row stayed zero. */
export function latheSchoolOf({ final, turret }: TurningTrace): LatheSchool | "unclear" {
  const { lathe } = final.setup;
  const [only] = lathe.schools;
  if (lathe.isSchoolPrescribed && only) return only;
  if (turret.some(({ by, axis }) => by === "arm" && axis === "z")) return "setter-arm";
  const rows = lathe.targets.z.map((tool) => final.registers.turret?.z[tool] ?? 0);
  if (rows.every((row) => row === 0)) return "unclear";
  return rows.includes(0) && final.registers.work.G54.z !== 0 ? "master-shift" : "part-face";
}

/** The contact that a tool's registers hang on: the last on its axis before the last of them was set. */
function contactOf(
  trace: TurningTrace,
  tool: number,
  axis: TurretAxis,
): { contact: TurretContact | undefined; setSeq: number | null } {
  const own = addends(tool, axis).slice(0, 2);
  const of = (register: RegisterId) =>
    trace.changes.findLast(({ event }) => event.register === register && event.how !== "cleared");
  const set =
    trace.changes.findLast(({ event }) => own.includes(event.register)) ??
    (trace.final.setup.lathe.start ? of(`common.${axis}`) : undefined) ??
    of(`G54.${axis}`);
  const changedSeq = trace.log.findLast(({ event }) => event.type === "toolChanged" && event.tool === tool)?.seq ?? 0;
  const slid =
    axis === "x"
      ? trace.turret.findLast((one) => one.tool === tool && one.by === "slid" && one.seq > changedSeq)
      : undefined;
  // a tool that was put where its register says is set by that, whatever its register
  if (slid && slid.seq > (set?.seq ?? 0)) return { contact: slid, setSeq: slid.seq };
  if (!set || set.seq < changedSeq) return { contact: undefined, setSeq: null };
  return {
    contact: trace.turret.findLast(
      (one) => one.tool === tool && one.axis === axis && one.seq < set.seq && one.seq > changedSeq,
    ),
    setSeq: set.seq,
  };
}

/**
 * The diameter that stands for a contact: what was measured after the cut, or last before the touch; null when nothing
 * was measured.
 */
function measuredMm(trace: TurningTrace, contact: TurretContact, setSeq: number): { mm: number; seq: number } | null {
  const what = contact.on === "bore" ? "bored" : "turned";
  const between = trace.readings.filter(
    ({ event, seq }) => event.what === what && seq < setSeq && (contact.by !== "cut" || seq > contact.seq),
  );
  const last = between.at(-1);
  if (!last) return null;
  // readings of one cut taken round the part count together
  const cut = trace.turret.findLast((one) => one.by === "cut" && one.axis === "x" && one.seq < last.seq)?.seq ?? 0;
  const same = between.filter(({ seq }) => seq > cut);
  return { mm: same.reduce((sum, { event }) => sum + (event.values.diameter ?? 0), 0) / same.length, seq: last.seq };
}

/**
 * Mistakes in work Z that every tool carries: taken without the offset, never shifted, an old value in the master's
 * row.
 */
function sharedZ(trace: TurningTrace, tool: TurretTool): NamedCounts[] {
  const { final, changes, turret } = trace;
  const { registers, setup } = final;
  const master = setup.lathe.targets.z[0];
  const taken = changes.findLast(({ event }) => event.register === "G54.z" && event.how === "captured");
  const atMaster = turret.findLast((one) => one.tool === master && one.axis === "z")?.at.z ?? 0;
  const ofMaster = registers.turret?.z[master ?? 0] ?? 0;
  const school = latheSchoolOf(trace);
  const named: NamedCounts[] = [
    ...(taken?.before.lathe.row === null && school === "setter-arm"
      ? [{ id: "toolNotActive" as const, counts: registers.turret?.z[taken.before.lathe.station ?? 0] ?? 0 }]
      : []),
    ...(school === "master-shift" && registers.work.G54.z === 0
      ? [{ id: "shiftMissing" as const, counts: -atMaster }]
      : []),
    ...(school === "master-shift" && tool.number === master && ofMaster !== 0
      ? [{ id: "masterNotCleared" as const, counts: ofMaster }]
      : []),
  ];
  return named.filter(({ counts }) => counts !== 0);
}

/** A cone is met with the bare nose, and is a way of its own. */
const wayOf = ({ by, on }: TurretContact): TurretMethod => (on === "cone" ? "cone" : by);

interface Weighed {
  readonly evidence: Evidence;
  readonly figures: Figures;
  readonly bias: MethodBias;
  readonly by: string | null;
}

/**
 * What the log proves of one axis of one tool: the register sum against the contact it came from, and the contact
 * against the part.
 */
function weigh(trace: TurningTrace, tool: TurretTool, axis: TurretAxis, closureMm: number): Weighed {
  const { final } = trace;
  const { scale, setup, registers } = final;
  const { contact, setSeq } = contactOf(trace, tool.number, axis);
  const neverSet: Evidence = {
    contact: null,
    terms: [{ id: "neverSet", mm: closureMm, seq: trace.log.at(-1)?.seq ?? 0 }],
    leftMm: 0,
  };
  if (setSeq === null) return { evidence: neverSet, figures: {}, bias: turretBias(null, 0, axis), by: null };
  if (!contact)
    return {
      evidence: { contact: null, terms: [{ id: "noContact", mm: 0, seq: setSeq }], leftMm: closureMm },
      figures: {},
      bias: turretBias(null, 0, axis),
      by: null,
    };
  const bias = turretBias(wayOf(contact), contact.thicknessMm, axis, contact.on === "bore" ? -1 : 1);
  // a shank that is swept lies on the axis itself
  const measured =
    axis !== "x" || contact.by === "arm"
      ? null
      : contact.by === "indicator"
        ? { mm: 0, seq: contact.seq }
        : measuredMm(trace, contact, setSeq);
  const outside = contact.on === "bore" ? -1 : 1;
  const thin = contact.by === "paper" || contact.by === "feeler";
  const leftover = setup.leftovers.find(({ register }) => register === `G54.${axis}`)?.mm ?? 0;
  const figures: Figures =
    axis === "x"
      ? {
          outside,
          touchDiameter: measured?.mm,
          ...(thin ? { paper: contact.thicknessMm } : {}),
          ...(registers.work.G54.x === 0 ? {} : { leftoverWork: toMm(registers.work.G54.x, scale) }),
        }
      : {
          ...(contact.thicknessMm > 0 ? { block: contact.thicknessMm } : {}),
          ...(tool.bladeMm ? { bladeWidth: tool.bladeMm } : {}),
          ...(leftover === 0 ? {} : { leftoverWork: leftover }),
        };
  const arm = setup.lathe.arm;
  if (contact.by === "arm") {
    const truth = final.truth.lathe.arm;
    const offMm = truth && arm ? (axis === "x" ? truth.xMm - arm.xMm : truth.zMm - arm.zMm) : 0;
    const shared =
      axis === "z"
        ? sharedZ(trace, tool).find(
            ({ counts }) => Math.abs(toMm(counts, scale) - closureMm) < WORTH_NAMING_MM + 4 * bias.uMm,
          )
        : undefined;
    if (shared)
      return {
        evidence: {
          contact: null,
          terms: [
            {
              id: shared.id,
              mm: toMm(shared.counts, scale),
              seq: trace.changes.findLast(({ event }) => event.register === "G54.z")?.seq ?? contact.seq,
            },
          ],
          leftMm: closureMm - toMm(shared.counts, scale),
        },
        figures,
        bias,
        by: contact.by,
      };
    const terms: ProvenTerm[] =
      Math.abs(offMm) >= WORTH_NAMING_MM && Math.abs(closureMm - offMm) < WORTH_NAMING_MM + 4 * bias.uMm
        ? [{ id: "armOff", mm: offMm, seq: contact.seq }]
        : [];
    return {
      evidence: { contact: null, terms, leftMm: closureMm - terms.reduce((sum, { mm }) => sum + mm, 0) },
      figures: { ...figures, sensorConstant: axis === "x" ? arm?.xMm : arm?.zMm },
      bias,
      by: contact.by,
    };
  }
  const place = { counts: contact.at[axis], seq: contact.seq, atMs: contact.atMs };
  if (axis === "x" && !measured)
    return {
      evidence: { contact: place, terms: [{ id: "notMeasured", mm: closureMm, seq: contact.seq }], leftMm: 0 },
      figures,
      bias,
      by: contact.by,
    };
  const value =
    axis === "x"
      ? (measured?.mm ?? 0) + outside * 2 * contact.thicknessMm
      : contact.on === "cone"
        ? coneValue(trace, tool, contact)
        : contact.thicknessMm + farEdgeMm(tool);
  return {
    evidence: fromContact(trace, tool, axis, closureMm, {
      contact,
      value,
      measured: measured?.mm ?? 0,
      figures,
      place,
    }),
    figures,
    bias,
    by: contact.by,
  };
}

/** What Z must read where the nose touches the cone, with X as the tool's row has it, mm. */
function coneValue(trace: TurningTrace, tool: TurretTool, contact: TurretContact): number {
  const { scale, setup } = trace.final;
  const cone = setup.lathe.cone;
  return cone ? coneTouchZ(cone, tool, toMm(contact.at.x - turretSumCounts(trace, tool.number, "x"), scale)) : 0;
}

interface Touched {
  readonly contact: TurretContact;
  readonly value: number;
  readonly measured: number;
  readonly figures: Figures;
  readonly place: NonNullable<Evidence["contact"]>;
}

function fromContact(
  trace: TurningTrace,
  tool: TurretTool,
  axis: TurretAxis,
  closureMm: number,
  { contact, value, measured, figures, place }: Touched,
): Evidence {
  const { scale } = trace.final;
  const capture = trace.changes.findLast(
    ({ event, seq }) =>
      seq > contact.seq && event.how === "captured" && event.register === `${upper(axis)}${tool.number}`,
  );
  const held = turretSumCounts(trace, tool.number, axis);
  const wanted = contact.at[axis] - toCounts(value, scale);
  const stray = capture ? capture.event.machine[axis] - contact.at[axis] : 0;
  const named: NamedCounts[] = [
    ...(axis === "z" ? sharedZ(trace, tool) : []),
    ...declared(trace, tool, axis),
    ...builtIn(trace, tool, axis, contact),
    ...coneNose(trace, tool, contact),
    ...signaturesFor(axis === "x" ? "lathe-x" : "lathe-z", figures).map(({ id, predictedMm }) => ({
      id,
      counts: toCounts(predictedMm, scale),
    })),
  ];
  const last = trace.changes.findLast(({ event }) => addends(tool.number, axis).includes(event.register));
  const seq = last?.seq ?? contact.seq;
  const procedure = procedureTerms({
    held,
    wanted,
    stray: {
      counts: stray,
      id: contact.by === "indicator" ? "notOverMiddle" : "capturedAfterLeaving",
      seq: capture?.seq ?? seq,
    },
    candidates: named,
    isTyped: last?.event.how === "typed",
    seq,
    mmOf: (counts) => toMm(counts, scale),
  });
  const terms = [...procedure, ...atContact(trace, tool, axis, contact, value, measured)];
  return { contact: place, terms, leftMm: closureMm - terms.reduce((sum, { mm }) => sum + mm, 0) };
}

/**
 * What was declared last, against what was in force when the tool was set: at another place, with another tool, or not
 * at all any more.
 */
function declared(trace: TurningTrace, tool: TurretTool, axis: TurretAxis): NamedCounts[] {
  const { final, changes } = trace;
  if (!final.setup.lathe.start) return [];
  const register: RegisterId = `common.${axis}`;
  const said = changes.filter(({ event }) => event.register === register && event.how !== "cleared");
  const set = changes.findLast(({ event }) => event.register === `${upper(axis)}${tool.number}`);
  const then = (set ? said.findLast(({ seq }) => seq < set.seq) : said[0])?.event.to ?? 0;
  const now = final.registers.common[axis];
  return now === then ? [] : [{ id: now === 0 ? "declarationLost" : "declaredElsewhere", counts: now - then }];
}

/** What a row held, uncalled, when its tool was put against the bar: it is in the tool's place then. */
function builtIn(trace: TurningTrace, tool: TurretTool, axis: TurretAxis, contact: TurretContact): NamedCounts[] {
  const row = contact.by === "slid" ? turretSum(trace.final.registers.turret, axis, tool.number) : 0;
  return row === 0 ? [] : [{ id: "registerBuiltIn", counts: row }];
}

/** What the touch of a cone comes to with the nose taken for its imaginary tip. */
function coneNose(trace: TurningTrace, tool: TurretTool, contact: TurretContact): NamedCounts[] {
  if (contact.on !== "cone") return [];
  const left = coneValue(trace, tool, contact) - coneValue(trace, { ...tool, noseRadiusMm: 0 }, contact);
  return [{ id: "coneNoseLeftOut", counts: toCounts(left, trace.final.scale) }];
}

/**
 * What was wrong with the contact itself: a band that had not cleaned up, a face cut again since, a coarse click,
 * pinched paper.
 */
function atContact(
  trace: TurningTrace,
  tool: TurretTool,
  axis: TurretAxis,
  contact: TurretContact,
  value: number,
  measured: number,
): ProvenTerm[] {
  const errorMm = toMm(contact.at[axis], trace.final.scale) - value - wantedMm(trace, tool.number, axis);
  const { biasMm, uMm } = turretBias(wayOf(contact), contact.thicknessMm, axis, contact.on === "bore" ? -1 : 1);
  // what the method itself may leave is no mistake
  if (Math.abs(errorMm - biasMm) < Math.max(WORTH_NAMING_MM, 4 * uMm)) return [];
  const at = (id: CauseId): ProvenTerm[] => [{ id, mm: errorMm, seq: contact.seq }];
  if (contact.by === "slid")
    return trace.log.some(
      ({ seq, event }) =>
        seq > contact.seq && event.type === "toolTightened" && event.tool === tool.number && event.xMm !== 0,
    )
      ? at("clampShifted")
      : [];
  if (contact.on === "face" && tool.isUnderSquare) return at("plateMetEarly");
  if (
    axis === "x" &&
    contact.by === "cut" &&
    (!contact.isClean || Math.abs(measured - 2 * contact.radiusMm) > WORTH_NAMING_MM)
  )
    return at("notCleanedUp");
  if (
    axis === "z" &&
    contact.faceMm !== null &&
    Math.abs(contact.faceMm - (faceMm(trace.final) ?? contact.faceMm)) > WORTH_NAMING_MM / 2
  )
    return at("faceCutAgain");
  if (contact.feel === "pinched") return at("paperPinched");
  if (contact.clickMm > 0.003) return at("coarseClick");
  return axis === "x" && contact.by !== "cut" ? at("touchedRunout") : [];
}

/** What stands of a value against what should, and how it was come by. */
interface Standing {
  readonly held: number;
  readonly wanted: number;
  readonly toleranceMm: number;
  readonly weighed: Weighed;
  readonly signatures: readonly CauseSignature[];
}

/** X or Z of a tool by its registers; of a readout by its library. */
function standingOffset(trace: TurningTrace, tool: TurretTool, axis: TurretAxis, marking: Marking): Standing {
  const { final } = trace;
  const { number } = tool;
  if (final.kind === "readout") {
    const library = libraryValue(trace, tool, axis);
    const toleranceMm = Math.max(marking.tolerancesMm[axis], library.leastMm);
    return { ...library, toleranceMm, weighed: library, signatures: signaturesFor("lathe-readout", library.figures) };
  }
  const held = toMm(turretSumCounts(trace, number, axis), final.scale);
  const wanted = wantedMm(trace, number, axis);
  const weighed = weigh(trace, tool, axis, held - wanted);
  const { tools } = final.truth.lathe;
  const own = tools[number];
  const neighbors = Object.entries(tools)
    .filter(([other]) => Number(other) !== number)
    .map(([, one]) => (axis === "x" ? one.kxMm - (own?.kxMm ?? 0) : one.qMm - (own?.qMm ?? 0)));
  const figures: Figures = {
    ...weighed.figures,
    ...(neighbors.length > 0 ? { neighbors } : {}),
    noseRadius: tool.noseRadiusMm,
    tipCode: tool.tipCode,
  };
  const signatures = signaturesFor(axis === "x" ? "lathe-x" : "lathe-z", figures);
  return { held, wanted, toleranceMm: marking.tolerancesMm[axis], weighed, signatures };
}

const unweighed = (closureMm: number, uMm: number): Weighed => ({
  evidence: OPEN(closureMm),
  figures: {},
  bias: { biasMm: 0, uMm },
  by: null,
});

/** What is typed off a card has one right value and no method; it differs or it does not. */
const EXACT = { toleranceMm: 0.001, uMm: 0.0005 } as const;

function standingOf(trace: TurningTrace, { kind, axis }: Target, tool: TurretTool, marking: Marking): Standing {
  const { registers, scale } = trace.final;
  const { number } = tool;
  const typed = (held: number, wanted: number): Standing => ({
    held,
    wanted,
    toleranceMm: EXACT.toleranceMm,
    weighed: unweighed(held - wanted, EXACT.uMm),
    signatures: [],
  });
  switch (kind) {
    case "nose":
      return typed(toMm(registers.turret?.r[number] ?? 0, scale), tool.noseRadiusMm);
    case "tipCode":
      return typed(Math.round((registers.turret?.q[number] ?? 0) / scale.countsPerUnit), tool.tipCode);
    case "height": {
      const held = calledHeightMm(trace.final, number);
      return { held, wanted: 0, toleranceMm: HEIGHT_MM, weighed: unweighed(held, HALF_PIP_U_MM), signatures: [] };
    }
    case "place":
    case "turn":
    case "toolSum":
    case "toolRow":
    case "workZ":
    case "diameter":
    case "toolOffset":
    case "fit":
    case "axisHeight":
    case "gaugeError":
      return standingOffset(trace, tool, axis === "x" ? "x" : "z", marking);
  }
}

/** One value of a lathe lane against its tolerance, with its cause. */
export function ruleLatheValue(trace: TurningTrace, target: Target, marking: Marking, outOf: number): RegisterRuling {
  const { kind } = target;
  if (kind === "fit" || kind === "axisHeight" || kind === "gaugeError")
    return ruleStated(trace, { ...target, kind }, marking, outOf);
  const { scale, setup } = trace.final;
  const tool = setup.lathe.tools.find(({ number }) => number === target.tool);
  if (!tool) throw new Error(`ruleLatheValue: no tool ${target.tool}`);
  const { held, wanted, toleranceMm, weighed, signatures } = standingOf(trace, target, tool, marking);
  const { evidence, bias, by } = weighed;
  const closureMm = held - wanted;
  const isWithin = Math.abs(closureMm) <= toleranceMm;
  const isTyped = kind === "nose" || kind === "tipCode";
  const causeOfMiss = (): Cause =>
    isTyped || kind === "height"
      ? { kind: "unexplained" }
      : causeOf(closureMm, evidence, bias, signatures, scale.countMm);
  return {
    target,
    held,
    wanted,
    closureMm,
    toleranceMm,
    sharedMm: 0,
    isFollowThrough: false,
    ...bias,
    outOf,
    signatures,
    method: by === null ? null : { by, offMm: 0 },
    zeroAtMm: toleranceMm * marking.zeroAtMultiple,
    marks: isTyped ? Number(isWithin) * outOf : valueMarks(closureMm, toleranceMm, marking.zeroAtMultiple, outOf),
    contact: evidence.contact,
    cause: isWithin ? { kind: "none" } : causeOfMiss(),
  };
}
