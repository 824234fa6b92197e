import type { LedgerLine } from "../bench";
import type { TermName } from "../bench/commands";
import type { LaneTrace } from "../diagnosis";
import { edgeOf, farEdgeMm, paperOf, type Setup, type TargetId } from "../exercises";
import { toolName } from "../instruments";
import { readRegister, type RegisterId } from "../registers";
import { toCounts } from "../units";

export const workingFaults = [
  "noWorking",
  "noReading",
  "wrongReading",
  "missingTerm",
  "wrongSign",
  "wrongTerm",
  "noSum",
  "wrongSum",
  "sumNotEntered",
] as const;
export type WorkingFault = (typeof workingFaults)[number];

/** One register's working: right, entered by motion, or what is wrong with it first. Counts are the machine's. */
export interface WorkingFinding {
  readonly code: "working";
  readonly register: RegisterId;
  readonly fault: WorkingFault | null;
  /** Right without a ledger line, because the log shows the radius entered by motion. */
  readonly isByMotion: boolean;
  readonly term?: TermName | undefined;
  readonly wantedCounts?: number | undefined;
  readonly heldCounts?: number | undefined;
  readonly marks: number;
  readonly outOf: number;
  readonly line: number | null;
}

/** A sum agrees with its terms when it differs by no more than rounding, counts. */
const AGREE_COUNTS = 2;
/** What one fault leaves of a register's working: the reading and the steps that are right still count. */
const KEEPS: Record<WorkingFault, number> = {
  noWorking: 0,
  noReading: 0.25,
  wrongReading: 0.25,
  missingTerm: 0.5,
  wrongSign: 0.5,
  wrongTerm: 0.5,
  noSum: 0.5,
  wrongSum: 0.5,
  sumNotEntered: 0.75,
};

interface Required {
  readonly term: TermName;
  readonly counts: number;
}

/** The row of a readout's library; the reference's own is the zero and wants no working. */
const libraryRow = (target: TargetId, reference: number | undefined): RegisterId | null =>
  Number(target.slice(1)) === reference ? null : (`L${target}` as RegisterId);

/** The register in whose line a target is worked out. */
function registerOf(target: TargetId, { lathe }: Setup): RegisterId | null {
  if (target === "x" || target === "y") return `G54.${target}`;
  if (target === "workZ") return "G54.z";
  if (target === "rotation" || target === "axisHeight" || target === "gaugeError" || /^[RQCF]/.test(target))
    return null;
  const axis = target.startsWith("X") ? "x" : "z";
  // what the declaring tool comes to stands in the declared position, its own row is zero
  if (lathe?.start && /^[XZ]/.test(target) && Number(target.slice(1)) === lathe.targets[axis][0])
    return `common.${axis}`;
  if (target.startsWith("X") || target.startsWith("Z"))
    return lathe?.control === "readout" ? libraryRow(target, lathe.targets.x[0]) : (target as RegisterId);
  return `${target.startsWith("d") ? "D" : "H"}${Number(target.slice(1))}`;
}

/** Terms that a reading at a contact cannot do without, where the way it was taken says which. */
function requiredTerms(trace: LaneTrace, register: RegisterId, lines: readonly LedgerLine[]): Required[] {
  const { setup, scale } = trace.final;
  const counts = (mm: number) => toCounts(mm, scale);
  if (setup.lathe) return turretTerms(trace, register, counts);
  const axis = register === "G54.x" ? "x" : register === "G54.y" ? "y" : null;
  const edge = axis && !setup.isSkewed ? edgeOf(setup, axis) : null;
  if (edge && axis) {
    const reading = lines.findLast(({ kind }) => kind === "reading")?.counts;
    const contact =
      trace.contacts.findLast((one) => one.axis === axis && one.atCounts === reading) ??
      trace.contacts.findLast((one) => one.axis === axis);
    const radius = contact ? edge.approach * contact.radiusMm : 0;
    return [
      ...(radius === 0 ? [] : [{ term: "tipRadius" as const, counts: counts(radius) }]),
      ...(edge.edgeWorkMm === 0 ? [] : [{ term: "edgeWork" as const, counts: counts(-edge.edgeWorkMm) }]),
    ];
  }
  const isTouchedOnPart =
    setup.lengthSchools.length > 0 &&
    setup.lengthSchools.every((school) => school === "part-touch" || school === "plane-lift") &&
    register.startsWith("H");
  if (!isTouchedOnPart) return [];
  const touch = trace.touches.findLast(
    ({ holds, feel }) => holds === toolName(Number(register.slice(1))) && feel !== "torn",
  );
  if (touch?.by !== "paper") return [];
  const isOnPart = touch.on === "stock" && !trace.touches.some(({ on }) => on === "table");
  return [
    { term: "paper", counts: counts(-paperOf(setup)) },
    ...(isOnPart && setup.facingAllowanceMm !== 0
      ? [{ term: "facing" as const, counts: counts(-setup.facingAllowanceMm) }]
      : []),
  ];
}

/**
 * What X and Z of a turret tool cannot do without: the feeler twice on a diameter, the gap at a face. The diameter is
 * the student's own reading.
 */
function turretTerms(
  { turret, final, changes }: LaneTrace,
  register: RegisterId,
  counts: (mm: number) => number,
): Required[] {
  const [, letter = "", row = ""] = /([XZ])(\d)$/.exec(register) ?? [];
  const axis = letter === "X" ? "x" : "z";
  // touches after the register was set, to check it, belong to no working of it
  const setSeq = changes.findLast(({ event }) => event.register === register)?.seq ?? Infinity;
  const contact = turret.findLast((one) => one.tool === Number(row) && one.axis === axis && one.seq < setSeq);
  const tool = final.setup.lathe?.tools.find(({ number }) => number === Number(row));
  const blade: Required[] =
    contact && axis === "z" && farEdgeMm(tool) !== 0 ? [{ term: "bladeWidth", counts: counts(-farEdgeMm(tool)) }] : [];
  if (!contact || contact.thicknessMm === 0) return blade;
  // in a library it cancels where it lay between the reference and the part as well
  const reference = register.startsWith("L")
    ? turret.findLast((one) => one.tool === final.setup.lathe?.targets[axis][0] && one.axis === axis)
    : undefined;
  if (reference?.thicknessMm === contact.thicknessMm) return [];
  const outside = contact.on === "bore" ? -1 : 1;
  const isThin = contact.by === "paper" || contact.by === "feeler";
  return [
    {
      term: isThin ? "paper" : "block",
      counts: counts(axis === "x" ? -outside * 2 * contact.thicknessMm : -contact.thicknessMm),
    },
    ...blade,
  ];
}

/**
 * Whether a reading stands for something that the log knows: a contact, a touch, a place the machine stood at when it
 * was taken, an instrument.
 */
const isTaken = (line: LedgerLine, trace: LaneTrace): boolean =>
  line.from !== undefined ||
  trace.contacts.some(({ atCounts }) => Math.abs(atCounts - line.counts) <= AGREE_COUNTS) ||
  trace.touches.some(({ machineZ }) => Math.abs(machineZ - line.counts) <= AGREE_COUNTS * 10) ||
  trace.places.some(({ atCounts }) => Math.abs(atCounts - line.counts) <= AGREE_COUNTS * 10) ||
  trace.turret.some(({ shown, axis }) => Math.abs(shown[axis] - line.counts) <= AGREE_COUNTS);

/**
 * What readings and terms of a line come to: the last reading, or on a middle the mean of its last two, and every term.
 */
function expectedSum(trace: LaneTrace, register: RegisterId, lines: readonly LedgerLine[]): number {
  const readings = lines.filter(({ kind }) => kind === "reading").map(({ counts }) => counts);
  const last = readings.at(-1) ?? 0;
  const { setup } = trace.final;
  const isMiddle =
    setup.datum.kind === "middle" &&
    (register === "G54.x" || register === "G54.y") &&
    !lines.some(({ from }) => from !== undefined);
  // faces lie on both sides of a middle: pair the last reading with the last one far from it
  const FAR_COUNTS = toCounts(2, trace.final.scale);
  const other = isMiddle ? readings.findLast((counts) => Math.abs(counts - last) > FAR_COUNTS) : undefined;
  const base = other === undefined ? last : (last + other) / 2;
  const sum = lines.reduce((total, { kind, counts }) => (kind === "term" ? total + counts : total), base);
  // a library is added to what is read: it takes the reading with its sign turned
  if (/^L[XZ]\d/.test(register)) return -sum;
  return register.startsWith("D") && setup.settings.diameterMode === "radius" ? sum / 2 : sum;
}

/** The first thing wrong with a register's lines, from the reading on; null when nothing is. */
function faultOf(
  trace: LaneTrace,
  register: RegisterId,
  lines: readonly LedgerLine[],
): Pick<WorkingFinding, "fault" | "term" | "wantedCounts" | "heldCounts" | "line"> {
  const at = (fault: WorkingFault | null, more: Partial<WorkingFinding> = {}) => ({
    fault,
    line: lines.at(-1)?.line ?? null,
    ...more,
  });
  const readings = lines.filter(({ kind }) => kind === "reading");
  const sum = lines.findLast(({ kind }) => kind === "sum");
  if (lines.length === 0) return at("noWorking");
  const reading = readings.at(-1);
  if (!reading && !register.startsWith("HW")) return at("noReading");
  if (reading && !isTaken(reading, trace))
    return at("wrongReading", { heldCounts: reading.counts, line: reading.line });
  for (const { term, counts } of requiredTerms(trace, register, lines)) {
    const written = lines.filter((line) => line.kind === "term" && line.term === term);
    const held = written.reduce((total, line) => total + line.counts, 0);
    if (written.length === 0) return at("missingTerm", { term, wantedCounts: counts });
    if (Math.abs(held - counts) <= AGREE_COUNTS) continue;
    return at(Math.abs(held + counts) <= AGREE_COUNTS ? "wrongSign" : "wrongTerm", {
      term,
      wantedCounts: counts,
      heldCounts: held,
      line: written.at(-1)?.line ?? null,
    });
  }
  if (!sum) return at("noSum");
  const wanted = expectedSum(trace, register, lines);
  if (Math.abs(sum.counts - wanted) > AGREE_COUNTS)
    return at("wrongSum", { wantedCounts: Math.round(wanted), heldCounts: sum.counts, line: sum.line });
  return at(null);
}

/**
 * The register that a working ends in: of a diameter under wear, its wear row; in one offset per tool, the tool's own
 * work Z.
 */
function endsIn(trace: LaneTrace, register: RegisterId): number {
  const { registers, setup } = trace.final;
  const row = Number(/\d+$/.exec(register)?.[0] ?? 0);
  if (register.startsWith("D") && setup.diameterSchool === "wear-comp") return readRegister(registers, `DW${row}`);
  return readRegister(registers, register);
}

/** Working lines of a target, which may stand under the row that the school writes into. */
function linesOf(trace: LaneTrace, register: RegisterId): { register: RegisterId; lines: readonly LedgerLine[] } {
  const {
    desk: { ledger },
    setup,
  } = trace.final;
  const of = (id: RegisterId) => ledger.filter((line) => line.register === id);
  const row = Number(/\d+$/.exec(register)?.[0] ?? 0);
  const place = setup.tools.findIndex(({ number }) => number === row);
  const other: RegisterId | undefined = register.startsWith("D")
    ? `DW${row}`
    : register.startsWith("H") && setup.lengthSchools.includes("offset-per-tool") && place >= 0
      ? (`G${54 + place}.z` as RegisterId)
      : undefined;
  const own = of(register);
  if (other === undefined) return { register, lines: own };
  const more = of(other);
  return more.length > 0
    ? {
        register: register.startsWith("D") ? register : other,
        lines: [...own, ...more].sort((a, b) => a.line - b.line),
      }
    : { register, lines: own };
}

/**
 * The working of every marked register, with an equal share of the strand; the part that a kept setup leaves as it is
 * wants none.
 */
export function workingFindings(trace: LaneTrace, targets: readonly TargetId[], outOf: number): WorkingFinding[] {
  const { setup, registers } = trace.final;
  const isFixed = (target: TargetId) =>
    target === "workZ" &&
    readRegister(registers, "G54.z") === 0 &&
    setup.lengthSchools.some((school) => school === "part-touch" || school === "block-in-wear");
  const wanted: RegisterId[] = setup.partBefore
    ? ["G54.z"]
    : targets.filter((target) => !isFixed(target)).flatMap((target) => registerOf(target, setup) ?? []);
  // the master's own row is zero and wants no working; work Z carries it
  const needed = wanted.filter(
    (register) =>
      !(
        setup.lengthSchools.includes("master") &&
        register.startsWith("H") &&
        readRegister(registers, register) === 0
      ) &&
      !(
        setup.lathe?.schools.includes("master-shift") &&
        register.startsWith("Z") &&
        readRegister(registers, register) === 0
      ),
  );
  const share = needed.length > 0 ? outOf / needed.length : 0;
  return needed.map((id): WorkingFinding => {
    const { register, lines } = linesOf(trace, id);
    const found = faultOf(trace, register, lines);
    const isByMotion = found.fault !== null && wasByMotion(trace, id);
    const isEntered =
      Math.abs(endsIn(trace, register) - (lines.findLast(({ kind }) => kind === "sum")?.counts ?? 0)) <=
      toCounts(0.06, trace.final.scale);
    const fault = isByMotion ? null : (found.fault ?? (isEntered ? null : "sumNotEntered"));
    return {
      code: "working",
      register,
      ...found,
      fault,
      isByMotion,
      marks: fault === null ? share : share * KEEPS[fault],
      outOf: share,
    };
  });
}

/** The radius was entered by jogging it toward the part and capturing there: the log is the working. */
function wasByMotion(trace: LaneTrace, register: RegisterId): boolean {
  // a tool that was put where its register says has no sum to be worked out
  if (
    /^X\d/.test(register) &&
    trace.turret.findLast(({ tool, axis: of }) => tool === Number(register.slice(1)) && of === "x")?.by === "slid"
  )
    return true;
  const axis = register === "G54.x" ? "x" : register === "G54.y" ? "y" : null;
  const edge = axis ? edgeOf(trace.final.setup, axis) : null;
  if (!axis || !edge) return false;
  const contact = trace.contacts.findLast((one) => one.axis === axis);
  const capture = trace.changes.findLast(({ event }) => event.register === register && event.how === "captured");
  if (!contact || !capture || contact.radiusMm === 0) return false;
  const moved = capture.event.machine[axis] - contact.atCounts;
  return (
    Math.abs(moved - toCounts(edge.approach * contact.radiusMm, trace.final.scale)) <= toCounts(0.06, trace.final.scale)
  );
}
