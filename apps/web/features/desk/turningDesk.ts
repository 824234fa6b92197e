import {
  centerHeight,
  cuttingData,
  gaugeStack,
  noseAngleOf,
  readInsert,
  steepestFallDeg,
  type GaugeSet,
  type GaugeStackAnswer,
  type InsertAnswer,
  type InsertRefusal,
} from "@probe-lane/core/desk";
import { parseLengthMm, type LengthUnit } from "@probe-lane/core/units";

const INCH_MM = 25.4;
/** A plain number as people write it; null for anything else. */
export function plainNumber(text: string): number | null {
  const tidy = text.trim().replace(",", ".").replace("−", "-");
  return /^-?(\d+\.?\d*|\.\d+)$/.test(tidy) ? Number(tidy) : null;
}
const length = (text: string, unit: LengthUnit): number | null => {
  const read = parseLengthMm(text, unit);
  return read.ok ? read.value : null;
};

interface HeightPoint {
  readonly commandedMm: number;
  readonly errorMm: number;
}
export interface HeightView {
  readonly points: readonly HeightPoint[];
  readonly pipMm: number;
  readonly at: (HeightPoint & { readonly cutMm: number }) | null;
}
const CURVE_POINTS = 60;

/**
 * What a tool off center does to every smaller diameter than the one it was set at: how much larger each comes out, mm.
 * Null while a figure is missing, "over" when the tool is so far off that it passes over the bar.
 */
export function heightView({
  unit,
  height,
  touch,
  at,
}: {
  unit: LengthUnit;
  height: string;
  touch: string;
  at: string;
}): HeightView | "over" | null {
  const [h, d1, d2] = [length(height, unit), length(touch, unit), length(at, unit)];
  if (h === null || d1 === null || d1 <= 0) return null;
  const cut = (commandedMm: number) => centerHeight(h, d1, commandedMm);
  if (!cut(d1)) return "over";
  // closer together toward the middle, where the curve bends
  const points = Array.from({ length: CURVE_POINTS + 1 }, (_, n) => d1 * (n / CURVE_POINTS) ** 2).map(
    (commandedMm): HeightPoint => ({ commandedMm, errorMm: cut(commandedMm)?.error ?? 0 }),
  );
  const answer = d2 === null || d2 < 0 ? null : cut(d2);
  return {
    points,
    pipMm: 2 * Math.abs(h),
    at: answer && d2 !== null ? { commandedMm: d2, errorMm: answer.error, cutMm: answer.diameter } : null,
  };
}

/**
 * Blocks that make a size, or the nearest sizes that can be made; in the set's own unit. Null while a figure is
 * missing, "unknown" for a block on loan that is not of the set.
 */
export function stackView({
  set,
  size,
  wear,
  loan,
}: {
  set: GaugeSet;
  size: string;
  wear: string;
  loan: string;
}): GaugeStackAnswer | "unknown" | null {
  const wanted = plainNumber(size);
  const away = loan
    .split(/[;\s]+/)
    .filter(Boolean)
    .map(plainNumber);
  if (wanted === null || wanted <= 0 || away.some((one) => one === null)) return null;
  const worn = plainNumber(wear);
  return (
    gaugeStack(
      set,
      wanted,
      worn === null || worn <= 0 ? { count: 0, size: 0 } : { count: 2, size: worn },
      away.flatMap((one) => one ?? []),
    ) ?? "unknown"
  );
}

export const insertView = ({
  code,
  system,
}: {
  code: string;
  system: "metric" | "inch";
}): InsertAnswer | InsertRefusal | null => (code.trim() === "" ? null : readInsert(code, system));

/**
 * Steepest falling slope that clears, degrees, from a lead angle and a nose angle or a designation; null while one is
 * missing.
 */
export function clearanceView({
  lead,
  nose,
}: {
  lead: string;
  nose: string;
}): { leadDeg: number; noseDeg: number; fallDeg: number } | null {
  const leadDeg = plainNumber(lead);
  const noseDeg = plainNumber(nose) ?? noseAngleOf(nose);
  return leadDeg === null || noseDeg === null || leadDeg <= 0 || leadDeg >= 180 || noseDeg <= 0
    ? null
    : { leadDeg, noseDeg, fallDeg: steepestFallDeg(leadDeg, noseDeg) };
}

export interface SpeedForm {
  readonly system: "metric" | "inch";
  readonly surface: string;
  readonly diameter: string;
  readonly teeth: string;
  readonly feed: string;
  readonly most: string;
}
/** Spindle speed and feed; null while a figure is missing or not above zero. */
export function speedView({
  system,
  surface,
  diameter,
  teeth,
  feed,
  most,
}: SpeedForm): { speed: number; feed: number; clamped: boolean } | null {
  const [vc, d, z, fz, max] = [
    plainNumber(surface),
    length(diameter, system === "metric" ? "mm" : "inch"),
    plainNumber(teeth),
    plainNumber(feed),
    plainNumber(most),
  ];
  if (
    vc === null ||
    d === null ||
    z === null ||
    fz === null ||
    vc <= 0 ||
    d <= 0 ||
    z < 1 ||
    !Number.isInteger(z) ||
    fz < 0
  )
    return null;
  return cuttingData({
    system,
    surfaceSpeed: vc,
    diameter: system === "metric" ? d : d / INCH_MM,
    flutes: z,
    feedPerTooth: fz,
    ...(max === null || max <= 0 ? {} : { maxSpeed: max }),
  });
}
