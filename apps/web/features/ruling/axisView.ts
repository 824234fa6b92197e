import type { RegisterRuling } from "@probe-lane/core/grading";
import { causeName } from "@probe-lane/core/words";
import { scaleSymlog } from "d3-scale";
import { placeLabels } from "../../ui/axisLabels";

interface AxisMark {
  readonly key: string;
  readonly x: number;
  readonly label: string;
  readonly row: number;
  readonly anchor: "start" | "middle" | "end";
  readonly isCause: boolean;
}
export interface AxisView {
  readonly ticks: readonly { x: number; label: string }[];
  readonly band: readonly [number, number];
  readonly method: readonly [number, number];
  readonly zero: number;
  readonly value: number;
  readonly marks: readonly AxisMark[];
  readonly rows: number;
}

const ROWS = 3;
const TICKS_MM = [0.01, 0.1, 1, 10, 100];

/** Ids of the explanation that the ruling names first. */
function causeIds({ cause }: RegisterRuling): string[] {
  if (cause.kind === "proven") return cause.terms.map(({ id }) => id);
  return cause.kind === "inferred" ? [...(cause.ranked[0]?.ids ?? [])] : [];
}

/**
 * Where everything stands on a value's axis of `width` px: linear inside the tolerance, logarithmic outside of it (the
 * page says so). Labels take the first row in which they do not touch another; those of the cause come first, then the
 * nearest.
 */
export function axisView(value: RegisterRuling, width: number): AxisView {
  const named = new Set(causeIds(value));
  const reach =
    Math.max(
      Math.abs(value.closureMm),
      ...value.signatures.map(({ predictedMm }) => Math.abs(predictedMm)),
      value.toleranceMm * 20,
    ) * 1.5;
  const scale = scaleSymlog()
    .constant(value.toleranceMm)
    .domain([-reach, reach])
    .range([8, width - 8]);
  const EDGE_PX = 22;
  const ticks = [...TICKS_MM.map((mm) => -mm).reverse(), 0, ...TICKS_MM]
    .filter((mm) => Math.abs(mm) < reach && (mm === 0 || Math.abs(mm) > value.toleranceMm))
    .map((mm) => ({ x: scale(mm), label: mm === 0 ? "0" : `${mm < 0 ? "−" : "+"}${Math.abs(mm)}` }))
    // a tick whose figure would be cut off at the end of the axis is left out
    .filter(({ x }) => x >= EDGE_PX && x <= width - EDGE_PX);
  const order = [...value.signatures].sort(
    (a, b) =>
      Number(named.has(b.id)) - Number(named.has(a.id)) ||
      Math.abs(a.predictedMm - value.closureMm) - Math.abs(b.predictedMm - value.closureMm),
  );
  const wanted = order.map(({ id, predictedMm }, place) => {
    // one mistake that can happen in several ways is named at the nearest of them only
    const isNamed = order.findIndex((one) => one.id === id) === place;
    return { id, predictedMm, x: scale(predictedMm), label: isNamed ? causeName(id) : "", isNamed };
  });
  const places = placeLabels(wanted, width, ROWS);
  const marks = wanted.map(({ id, predictedMm, x, label, isNamed }, at): AxisMark => {
    const { row = null, anchor = "middle" } = places[at] ?? {};
    return {
      key: `${id} ${predictedMm}`,
      x,
      label: row === null ? "" : label,
      row: row ?? 0,
      anchor,
      isCause: named.has(id) && isNamed,
    };
  });
  const { biasMm, uMm } = value;
  return {
    ticks,
    marks,
    zero: scale(0),
    value: scale(value.closureMm),
    band: [scale(-value.toleranceMm), scale(value.toleranceMm)],
    method: [scale(biasMm - 2 * uMm), scale(biasMm + 2 * uMm)],
    rows: Math.max(1, ...marks.map(({ row, label }) => (label ? row + 1 : 1))),
  };
}
