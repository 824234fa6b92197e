import { type Target } from "../../exercises/target";
import { type TurningTrace } from "../../diagnosis/trace";
import { calledHeightMm } from "../../machines/lathe/contact";
import { latheSchoolFacts, type LatheSchool, type LatheSplit } from "../../exercises/schools";
import { type TurretTool } from "../../exercises/setup";
import { turretBias, type MethodBias } from "../../exercises/bias";
import { causeOf, type CauseSignature, type Provenance } from "../../diagnosis/cause";
import { signaturesFor, type Figures } from "../../diagnosis/catalog";
import {
  biasOf,
  contactsOf,
  heightProvenance,
  libraryValue,
  measuredFor,
  offsetProvenance,
  offsetWantedMm,
  turretSumCounts,
  type TurretAxis,
} from "../../diagnosis/machines";
import { lastAct } from "../../diagnosis/lineage";
import { setOf } from "../../diagnosis/standing";
import { unset } from "../../diagnosis/unset";
import { toMm } from "../../units/scale";
import { type Marking } from "../../exercises/schema";
import { type RegisterRuling, valueMarks, withSignaturesOf, keptOf } from "../values";
import { allowedIn, allowedMm, beyond, withClickBack } from "../touching";
import { ruleStated } from "./latheStated";

/** A tip this near to the axis is on center, mm. */
const HEIGHT_MM = 0.025;
/** Half of a pip read with a caliper, standard deviation, mm. */
const HALF_PIP_U_MM = 0.006;

/** The school of Z, read from what was touched: the arm, or the face with or without a master whose row stayed zero. */
export function latheSchoolOf({ final, turret }: TurningTrace): LatheSchool | "unclear" {
  const { lathe } = final.setup;
  const [only] = lathe.schools;
  if (lathe.isSchoolPrescribed && only) return only;
  if (turret.some(({ by, axis }) => by === "arm" && axis === "z")) return "setter-arm";
  const rows = lathe.targets.z.map((tool) => final.registers.turret?.z[tool] ?? 0);
  if (rows.every((row) => row === 0)) return "unclear";
  const read = rows.includes(0) && final.registers.work.G54.z !== 0 ? "master-shift" : "part-face";
  return lathe.schools.includes(read) ? read : (only ?? "unclear");
}

interface Weighed {
  readonly provenance: Provenance;
  readonly bias: MethodBias;
  readonly by: string | null;
}

const splitOf = (trace: TurningTrace): LatheSplit => {
  const school = latheSchoolOf(trace);
  return school === "unclear" ? "whole" : latheSchoolFacts[school].split;
};

/** What a tool's X or Z came from, with what its way of touching leaves, and the figures that mistakes hang on. */
function weigh(
  trace: TurningTrace,
  tool: TurretTool,
  axis: TurretAxis,
  closureMm: number,
): Weighed & { readonly figures: Figures } {
  const { final } = trace;
  const { setup, registers, scale } = final;
  const provenance = offsetProvenance(trace, tool.number, axis, splitOf(trace), closureMm);
  const contact =
    trace.turret.find((one) => one.tool === tool.number && one.axis === axis && one.seq === provenance.contact?.seq) ??
    contactsOf(trace, tool.number, axis, Infinity)[0];
  if (!contact) return { provenance, figures: {}, bias: turretBias(null, 0, axis), by: null };
  const isThin = contact.by === "paper" || contact.by === "feeler";
  const leftover = setup.leftovers.find(({ register }) => register === `G54.${axis}`)?.mm ?? 0;
  const measured = measuredFor(trace, contact, Infinity)[0]?.mm;
  const figures: Figures =
    axis === "x"
      ? {
          outside: contact.on === "bore" ? -1 : 1,
          touchDiameter: contact.by === "arm" ? undefined : measured,
          ...(isThin ? { paper: contact.thicknessMm } : {}),
          ...(registers.work.G54.x === 0 || final.kind === "gang"
            ? {}
            : { leftoverWork: toMm(registers.work.G54.x, scale) }),
        }
      : {
          ...(contact.thicknessMm > 0 ? { block: contact.thicknessMm } : {}),
          ...(tool.bladeMm ? { bladeWidth: tool.bladeMm } : {}),
          ...(leftover === 0 ? {} : { leftoverWork: leftover }),
        };
  return { provenance, figures, bias: biasOf(contact, axis), by: contact.by };
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
  const held = toMm(turretSumCounts(final, number, axis), final.scale);
  const wanted = offsetWantedMm(final, number, axis);
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
  const asMarked = marking.tolerancesMm[axis];
  const toleranceMm = axis === "z" && tool.kind === "threading" ? Math.max(asMarked, THREAD_Z_MM) : asMarked;
  return { held, wanted, toleranceMm, weighed, signatures };
}

/** A thread begins before the part and runs past its end: where along it the point stands matters little, mm. */
const THREAD_Z_MM = 0.2;

/** What was typed off a card, or never. */
function typedProvenance(
  trace: TurningTrace,
  { registers: [register] }: Target,
  held: number,
  wanted: number,
): Provenance {
  const lineage = register && setOf(trace, register);
  const closureMm = held - wanted;
  if (!register || !lineage) return unset(trace, register ? [register] : [], closureMm);
  const figure = { saidMm: held, belongsMm: wanted };
  return {
    contact: null,
    terms: closureMm === 0 ? [] : [{ id: "otherFigure", mm: closureMm, seq: lastAct(lineage).seq, figure }],
    open: null,
    ownMm: 0,
  };
}

/** What is typed off a card has one right value and no method; it differs or it does not. */
const EXACT = { toleranceMm: 0.001, uMm: 0.0005 } as const;

function standingOf(trace: TurningTrace, target: Target, tool: TurretTool, marking: Marking): Standing {
  const { kind, axis } = target;
  const { registers, scale } = trace.final;
  const { number } = tool;
  const typed = (held: number, wanted: number): Standing => ({
    held,
    wanted,
    toleranceMm: EXACT.toleranceMm,
    weighed: {
      provenance: typedProvenance(trace, target, held, wanted),
      bias: { biasMm: 0, uMm: EXACT.uMm },
      by: null,
    },
    signatures: [],
  });
  switch (kind) {
    case "nose":
      return typed(toMm(registers.turret?.r[number] ?? 0, scale), tool.noseRadiusMm);
    case "tipCode":
      return typed(Math.round((registers.turret?.q[number] ?? 0) / scale.countsPerUnit), tool.tipCode);
    case "height": {
      const held = calledHeightMm(trace.final, number);
      const weighed: Weighed = {
        provenance: heightProvenance(trace, number, held),
        bias: { biasMm: 0, uMm: HALF_PIP_U_MM },
        by: null,
      };
      return { held, wanted: 0, toleranceMm: HEIGHT_MM, weighed, signatures: [] };
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
  const { provenance, bias, by } = weighed;
  const closureMm = held - wanted;
  const allowed = allowedIn(trace, provenance);
  const markedMm = closureMm - allowedMm(allowed);
  const isWithin = Math.abs(markedMm) <= toleranceMm;
  const isTyped = kind === "nose" || kind === "tipCode";
  return {
    target,
    held,
    wanted,
    closureMm,
    toleranceMm,
    sharedMm: 0,
    isFollowThrough: false,
    ...withClickBack(bias, allowed),
    ...(allowed.length > 0 ? { allowed } : {}),
    outOf,
    signatures: withSignaturesOf(provenance, signatures),
    method: by === null ? null : { by, offMm: 0 },
    zeroAtMm: toleranceMm * marking.zeroAtMultiple,
    marks: isTyped ? Number(isWithin) * outOf : valueMarks(markedMm, toleranceMm, marking.zeroAtMultiple, outOf),
    contact: provenance.contact,
    cause: isWithin ? { kind: "none" } : causeOf(beyond(provenance, allowed), bias, scale.countMm),
    provenance: keptOf(provenance),
  };
}
