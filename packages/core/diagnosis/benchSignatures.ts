import type { MillSetup } from "../exercises/setup";
import type { Target } from "../exercises/target";
import { signaturesFor, type Figures, type Signature } from "./catalog";

type Sheet = Pick<
  MillSetup,
  | "datum"
  | "tipDiameterMm"
  | "partSizeMm"
  | "gaps"
  | "facingAllowanceMm"
  | "leftovers"
  | "instruments"
  | "probe"
  | "isSkewed"
>;

/** Travel of one turn of the taster's dial, mm. */
export const DIAL_TURN_MM = 1;

const edgeOf = ({ datum }: Sheet, axis: "x" | "y") => (datum.kind === "corner" ? datum.edges[axis] : null);
const leftover = ({ leftovers }: Pick<Sheet, "leftovers">, register: string): number =>
  leftovers.find((one) => one.register === register)?.mm ?? 0;

/**
 * What a contact leaves to count, mm: the finder's radius, the probe's effective one, nothing for a dial over the edge.
 */
export function sheetRadiusMm({ instruments, tipDiameterMm, probe }: Sheet): number {
  if (instruments.includes("edgeFinder")) return tipDiameterMm / 2;
  return instruments.includes("probe") ? (probe?.effectiveRadiusMm ?? 0) : 0;
}

/**
 * Closures in mm that each mistake of X or Y would leave on the bench, from the lane's own sheet and what the face was
 * touched with.
 */
export function edgeSignatures(sheet: Sheet, axis: "x" | "y", tipRadius = sheetRadiusMm(sheet)): Signature[] {
  const partSize = sheet.partSizeMm[axis === "x" ? 0 : 1];
  const edge = edgeOf(sheet, axis);
  if (!edge || sheet.isSkewed) return signaturesFor("mill-center", { tipRadius });
  const { approach, edgeWorkMm } = edge;
  return signaturesFor("mill-edge", {
    approach,
    tipRadius,
    edgeWork: edgeWorkMm,
    partSize,
    ...(tipRadius === 0 ? { dialTurn: DIAL_TURN_MM } : {}),
  });
}

/**
 * Closures in mm that each mistake in Z would leave on the bench: paper, block, facing allowance, work Z left from the
 * job before.
 */
export function lengthSignatures(sheet: Pick<Sheet, "gaps" | "facingAllowanceMm" | "leftovers">): Signature[] {
  const thickest = (...kinds: string[]) =>
    Math.max(0, ...sheet.gaps.filter(({ kind }) => kinds.includes(kind)).map(({ nominalMm }) => nominalMm));
  return signaturesFor("mill-length", {
    paper: thickest("paper"),
    block: thickest("block", "pin"),
    facing: sheet.facingAllowanceMm,
    leftoverWork: leftover(sheet, "G54.z"),
    leftoverCommon: leftover(sheet, "common.z"),
  });
}

/** Signatures of a value that a mill's lane is marked on, with what the truth adds to the sheet. */
export function targetSignatures(setup: MillSetup, target: Target, truth: Figures): Signature[] {
  const { kind, tool } = target;
  if (kind === "turn") return [];
  if (kind === "place") return edgeSignatures(setup, target.axis === "y" ? "y" : "x");
  if (kind === "diameter") {
    const nominal = setup.tools.find(({ number }) => number === tool)?.diameterMm ?? 0;
    const isWear = setup.diameterSchool === "wear-comp";
    return signaturesFor("mill-diameter", {
      cutterDiameter: isWear ? undefined : truth.cutterDiameter,
      nominalDiameter: isWear ? undefined : nominal,
      oldWear: isWear ? truth.wanted : undefined,
      wanted: truth.wanted,
    });
  }
  // a length from the gauge line is measured, not touched: nothing lies in its gap
  const isMeasured = kind === "toolRow" && setup.lengthSchools[0] === "gauge-line";
  const known = isMeasured ? [] : lengthSignatures(setup);
  const more = signaturesFor("mill-length", {
    neighbors: truth.neighbors,
    oldWear: leftover(setup, `HW${tool}`),
    toolLength: truth.toolLength,
    growth: truth.growth,
    probeError: truth.probeError,
  });
  return [...known, ...more.filter(({ id }) => !known.some((one) => one.id === id))];
}
