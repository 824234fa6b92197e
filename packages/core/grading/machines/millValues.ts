import { type MillTrace } from "../../diagnosis/trace";
import { type SchoolRead } from "../kit";
import { readRegister } from "../../registers/mill";
import { toolName } from "../../instruments/things";
import { lengthBias, together, type LengthMethod, type MethodBias, type XyMethod, xyBias } from "../../exercises/bias";
import { causeOf, type Provenance } from "../../diagnosis/cause";
import { UNKNOWN_WAY, type RegisterRuling, valueMarks, withSignaturesOf, keptOf } from "../values";
import { type Figures } from "../../diagnosis/catalog";
import {
  diameterProvenance,
  masterOf,
  placeProvenance,
  rowProvenance,
  rowWantedMm,
  sumProvenance,
  turnProvenance,
  workProvenance,
  workWantedMm,
  type SplitSchool,
} from "../../diagnosis/machines";
import { standsAsKept } from "../../diagnosis/kept";
import { sumOf } from "../../diagnosis/standing";
import { toMm } from "../../units/scale";
import { datumNowMm, skewNowDeg } from "../../machines/mill/solids";
import { edgeOf } from "../../exercises/setup";
import { expectedDiameter, wantedLengthMm } from "../../exercises/machines/millExpected";
import { type RegisterId } from "../../registers/mill";
import { allowedIn, allowedMm, beyond, withClickBack } from "../touching";
import { type MillLengthSchool } from "../../exercises/schools";
import { type Target } from "../../exercises/target";
import { type Marking } from "../../exercises/schema";
import { targetSignatures } from "../../diagnosis/benchSignatures";

/** The school that the way of setting one tool's length tells; unclear where it tells none. */
function schoolOfTool({ changes, touches, readings, final }: MillTrace, tool: number): SchoolRead {
  const { lengthSchools } = final.setup;
  const taken = changes.findLast(({ event }) => event.register === `H${tool}`);
  if (!taken) return "unclear";
  const held = readRegister(final.registers, `H${tool}`);
  const isMeasured = readings.some(
    ({ event, seq }) => event.tool === tool && event.values.length !== undefined && seq < taken.seq,
  );
  const isTouched = touches.some(({ holds, on }) => holds === toolName(tool) && on !== "setter");
  if (isMeasured && (held > 0 || !isTouched)) return "gauge-line";
  const touch = touches.findLast(({ seq, holds }) => holds === toolName(tool) && seq < taken.seq);
  if (!touch) return "unclear";
  if (readRegister(final.registers, `HW${tool}`) !== 0 && lengthSchools.includes("block-in-wear"))
    return "block-in-wear";
  if (touch.on === "setter") return held > 0 ? "gauge-line" : "plane-lift";
  return touch.on === "stock" ? "part-touch" : "plane-lift";
}

/** A tool left at zero that was touched on the part and never measured, beside others that are not: a master. */
function isMasterLike({ changes, touches, readings, final }: MillTrace): boolean {
  const { lengthSchools, targets } = final.setup;
  const [tool, ...others] = targets.lengths;
  return (
    lengthSchools.includes("master") &&
    tool !== undefined &&
    readRegister(final.registers, `H${tool}`) === 0 &&
    touches.some(({ holds, on }) => holds === toolName(tool) && on === "stock") &&
    !readings.some(({ event }) => event.tool === tool && event.values.length !== undefined) &&
    changes.some(({ event }) => event.register === "G54.z") &&
    others.some((other) => readRegister(final.registers, `H${other}`) !== 0)
  );
}

/** The school read from how the tools' lengths were taken, the first that tells; a prescribed one is what it is. */
function schoolFromLog(trace: MillTrace): SchoolRead {
  const { lengthSchools, isSchoolPrescribed, targets } = trace.final.setup;
  const [only] = lengthSchools;
  if (isSchoolPrescribed && only) return only;
  if (isMasterLike(trace)) return "master";
  const told = targets.lengths.map((tool) => schoolOfTool(trace, tool)).find((school) => school !== "unclear");
  const isPerTool =
    lengthSchools.includes("offset-per-tool") && trace.changes.some(({ event }) => event.register.endsWith(".z"));
  return told ?? (isPerTool ? "offset-per-tool" : "unclear");
}

interface Measured {
  readonly held: number;
  readonly wanted: number;
  readonly closureMm: number;
  readonly bias: MethodBias;
  readonly provenance: Provenance;
  readonly method: RegisterRuling["method"];
  readonly figures: Figures;
  readonly tolerance: "x" | "y" | "z" | "d" | "rotation";
}

const heldIn = ({ final }: MillTrace, { registers }: Target): number => toMm(sumOf(final, registers), final.scale);

function measurePlace(trace: MillTrace, target: Target, axis: "x" | "y"): Measured {
  const { setup } = trace.final;
  const held = heldIn(trace, target);
  const wanted = datumNowMm(trace.final)[axis];
  const closureMm = held - wanted;
  const provenance = placeProvenance(trace, axis, closureMm);
  const seq = provenance.contact?.seq;
  const contact = trace.contacts.findLast((one) => one.axis === axis && Math.ceil(one.seq) === seq);
  const read = trace.places.findLast((one) => one.axis === axis && one.seq === seq);
  const by: XyMethod =
    read?.by ??
    contact?.by ??
    (["edgeFinder", "taster", "probe", "indicator"] as const).find((name) => setup.instruments.includes(name)) ??
    "edgeFinder";
  const edge = edgeOf(setup, axis);
  const offMm = contact && !read ? contact.approach * contact.radiusMm : 0;
  return {
    held,
    wanted,
    closureMm,
    provenance,
    bias: xyBias(by, edge && !read ? (contact?.approach ?? edge.approach) : null),
    tolerance: axis,
    figures: {},
    method: contact || read ? { by, offMm } : null,
  };
}

/** The bias of the way in which a tool was last touched or measured. */
function lengthMethod(trace: MillTrace, tool: number): MethodBias {
  const { setup } = trace.final;
  const touch = trace.touches.findLast(({ holds, feel }) => holds === toolName(tool) && feel !== "torn");
  const read = trace.readings.findLast(({ event }) => event.tool === tool && event.values.length !== undefined);
  const by: LengthMethod | null =
    touch && (!read || touch.seq > read.seq)
      ? touch.by
      : ((read?.event.instrument as LengthMethod | undefined) ?? null);
  return by ? lengthBias(by, setup) : UNKNOWN_WAY;
}

/** The bias of the touch that work Z hangs on, where a tool's own touch does not stand in the sum. */
function workBias(trace: MillTrace): MethodBias {
  const { setup } = trace.final;
  const touch = trace.touches.findLast(({ on, feel }) => (on === "stock" || on === "boss") && feel !== "torn");
  return touch ? lengthBias(touch.by, setup) : UNKNOWN_WAY;
}

function figuresOf(trace: MillTrace, tool: number): Figures {
  const { truth, setup } = trace.final;
  const own = truth.lengthsMm[toolName(tool)] ?? 0;
  return {
    neighbors: setup.tools
      .filter(({ number }) => number !== tool)
      .map(({ number }) => (truth.lengthsMm[toolName(number)] ?? 0) - own),
    toolLength: own,
  };
}

/** The school by which a lane's registers are told apart: the one that was read, or named; else the first allowed. */
function splitSchool(trace: MillTrace): SplitSchool {
  const { school } = millSchool(trace);
  const [first = "part-touch"] = trace.final.setup.lengthSchools;
  const known = trace.final.setup.lengthSchools.find((one) => one === school);
  const split = known ?? first;
  const [lowest = 1] = [...trace.final.setup.targets.lengths].sort((a, b) => a - b);
  return { school: split, master: split === "master" ? masterOf(trace) : lowest };
}

function measureSum(trace: MillTrace, target: Target, tool: number): Measured {
  const { final } = trace;
  const wanted =
    datumNowMm(final).z + wantedLengthMm(final.setup, final.truth, tool) - (final.harm.shorterMm[toolName(tool)] ?? 0);
  const held = heldIn(trace, target);
  const closureMm = held - wanted;
  const split = splitSchool(trace);
  const own = lengthMethod(trace, tool);
  const isShared = split.school === "gauge-line" || split.school === "plane-lift" || split.school === "master";
  return {
    held,
    wanted,
    closureMm,
    provenance: sumProvenance(trace, tool, split, closureMm),
    tolerance: "z",
    bias: isShared ? together(own, workBias(trace)) : own,
    method: null,
    figures: figuresOf(trace, tool),
  };
}

/** The geometry and wear of one row of a prescribed school. */
function measureRow(trace: MillTrace, target: Target, tool: number): Measured {
  const { final } = trace;
  const [school = "part-touch"] = final.setup.lengthSchools;
  const held = heldIn(trace, target);
  const split = splitSchool(trace);
  const wanted = rowWantedMm(trace, tool, split);
  const own = lengthMethod(trace, tool);
  return {
    held,
    wanted,
    closureMm: held - wanted,
    provenance: rowProvenance(trace, tool, split),
    tolerance: "z",
    bias: school === "master" ? { biasMm: 0, uMm: Math.SQRT2 * own.uMm } : own,
    method: null,
    figures: { ...figuresOf(trace, tool), wanted },
  };
}

/** Work Z of a prescribed school. */
function measureWorkZ(trace: MillTrace, target: Target): Measured {
  const { final } = trace;
  const { setup } = final;
  const [school = "part-touch"] = setup.lengthSchools;
  const held = heldIn(trace, target);
  const [first = 1] = [...setup.targets.lengths].sort((a, b) => a - b);
  const split = splitSchool(trace);
  const wanted = workWantedMm(trace, first, split);
  return {
    held,
    wanted,
    closureMm: held - wanted,
    provenance: workProvenance(trace, first, split),
    tolerance: "z",
    bias: workZBias(trace, school, first),
    method: null,
    figures: {},
  };
}

function workZBias(trace: MillTrace, school: MillLengthSchool, first: number): MethodBias {
  // where it stays zero it is typed, and exact
  if (school === "part-touch" || school === "block-in-wear") return { biasMm: 0, uMm: 0.001 };
  return school === "plane-lift" ? together(workBias(trace), lengthMethod(trace, first)) : workBias(trace);
}

function measureDiameter(trace: MillTrace, target: Target, tool: number): Measured {
  const { setup, truth } = trace.final;
  const held = heldIn(trace, target);
  const wanted = expectedDiameter(setup, truth, tool);
  const closureMm = held - wanted;
  return {
    held,
    wanted,
    closureMm,
    provenance: diameterProvenance(trace, tool, closureMm),
    tolerance: "d",
    bias: { biasMm: 0, uMm: 0.002 },
    method: null,
    figures: { cutterDiameter: truth.diametersMm[tool], wanted },
  };
}

/** What the far end of the part misses by when the turn called is not the turn that the part has. */
function measureTurn(trace: MillTrace): Measured {
  const { final } = trace;
  const held = final.modal.rotationDeg;
  const wanted = skewNowDeg(final);
  const reachMm = Math.max(...final.setup.partSizeMm.slice(0, 2));
  const closureMm = reachMm * Math.sin(((held - wanted) * Math.PI) / 180);
  return {
    held,
    wanted,
    closureMm,
    provenance: turnProvenance(trace, closureMm),
    tolerance: "rotation",
    bias: { biasMm: 0, uMm: 0.004 },
    method: null,
    figures: {},
  };
}

function measureTarget(trace: MillTrace, target: Target): Measured {
  const { kind, tool, axis } = target;
  switch (kind) {
    case "place":
      return measurePlace(trace, target, axis === "y" ? "y" : "x");
    case "turn":
      return measureTurn(trace);
    case "workZ":
      return measureWorkZ(trace, target);
    case "toolRow":
      return measureRow(trace, target, tool ?? 1);
    case "toolSum":
      return measureSum(trace, target, tool ?? 1);
    case "diameter":
      return measureDiameter(trace, target, tool ?? 1);
    case "toolOffset":
    case "nose":
    case "tipCode":
    case "height":
    case "fit":
    case "axisHeight":
    case "gaugeError":
      throw new Error(`measureTarget: ${target.id} is no value of a mill`);
  }
}

export function ruleMillValue(trace: MillTrace, target: Target, marking: Marking, outOf: number): RegisterRuling {
  const { held, wanted, closureMm, bias, provenance, method, figures, tolerance } = measureTarget(trace, target);
  const { setup, scale } = trace.final;
  const toleranceMm = marking.tolerancesMm[tolerance];
  const allowed = allowedIn(trace, provenance);
  const markedMm = closureMm - allowedMm(allowed);
  const isWithin = Math.abs(markedMm) <= toleranceMm;
  return {
    target,
    held,
    wanted,
    closureMm,
    toleranceMm,
    sharedMm: 0,
    isFollowThrough: false,
    ...withClickBack({ biasMm: bias.biasMm, uMm: bias.uMm }, allowed),
    ...(allowed.length > 0 ? { allowed } : {}),
    ...(standsAsKept(trace, target.registers) ? { isKept: true as const } : {}),
    outOf,
    signatures: withSignaturesOf(provenance, targetSignatures(setup, target, figures)),
    method,
    zeroAtMm: toleranceMm * marking.zeroAtMultiple,
    marks: valueMarks(markedMm, toleranceMm, marking.zeroAtMultiple, outOf),
    contact: provenance.contact,
    cause: isWithin ? { kind: "none" } : causeOf(beyond(provenance, allowed), bias, scale.countMm),
    provenance: keptOf(provenance),
  };
}

/**
 * Work Z that is right given a wrong length of the tool it was touched with keeps its marks: the tool lands where it
 * should.
 */
export function followThroughMill(
  trace: MillTrace,
  values: readonly RegisterRuling[],
  { tolerancesMm }: Marking,
): RegisterRuling[] {
  const { setup, truth, scale } = trace.final;
  const [school] = setup.lengthSchools;
  if (school !== "plane-lift" && school !== "master") return [...values];
  const tools = [...setup.targets.lengths].sort((a, b) => a - b);
  return values.map((value) => {
    if (value.target.kind !== "workZ" || Math.abs(value.closureMm) <= value.toleranceMm) return value;
    const landsRight = tools.some((tool) => {
      const wanted =
        datumNowMm(trace.final).z +
        wantedLengthMm(setup, truth, tool) -
        (trace.final.harm.shorterMm[toolName(tool)] ?? 0);
      const isOff = values.some(
        ({ target, closureMm, toleranceMm }) =>
          target.kind === "toolRow" && target.tool === tool && Math.abs(closureMm) > toleranceMm,
      );
      return isOff && Math.abs(toMm(sumOf(trace.final, sumRegisters(tool)), scale) - wanted) <= tolerancesMm.z;
    });
    return landsRight ? { ...value, isFollowThrough: true, marks: value.outOf } : value;
  });
}

const sumRegisters = (tool: number): RegisterId[] => ["common.z", "G54.z", `H${tool}`, `HW${tool}`];

/** The school of lengths as the log tells it; where it does not, the one that was named at hand-in. */
export function millSchool(trace: MillTrace): { school: SchoolRead; isNamed: boolean } {
  const read = schoolFromLog(trace);
  const { namedSchool } = trace.final.desk;
  return read === "unclear" && namedSchool ? { school: namedSchool, isNamed: true } : { school: read, isNamed: false };
}
