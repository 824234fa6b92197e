import type { FeatureCut } from "../bench";
import { isValueRight, type FeatureRuled, type PartRuled, type RegisterRuling } from "../grading";
import { ownRegister } from "../exercises";
import type { ProgramGauged } from "../lane/programDesk";
import { scales, showLength, type LengthUnit } from "../units";
import { registerWords, targetWords } from "./names";

/** What a feature of a part is. */
export const verdictWords: Record<FeatureCut["verdict"], string> = {
  good: "good",
  rework: "rework",
  scrap: "scrap",
  notCut: "not cut",
};

const tidy = (mm: number): number => Math.round(mm * 1e4) / 1e4;
const signed = (mm: number, unit: LengthUnit): string => `${mm > 0 ? "+" : ""}${showLength(mm, scales[unit])}`;

/** Registers that move a feature, each with what a millimetre of it does; by name where there is none. */
export function movedByWords({ movedBy, actualMm }: Pick<FeatureCut, "movedBy" | "actualMm">): string {
  if (actualMm === null) return "–";
  if (movedBy.length === 0) return "none: the tool’s own size";
  return movedBy
    .map(
      ({ register, factor }) =>
        `${registerWords(register)} ×${factor > 0 ? "+" : "−"}${Number(Math.abs(factor).toFixed(2))}`,
    )
    .join(", ");
}

/** A share of a deviation that is worth its name, mm. */
const WORTH_NAMING_MM = 0.003;

/** What a gauging wrote reaches a feature that the same row moves. */
function writtenBehind({ movedBy }: Pick<FeatureCut, "movedBy">, gauged: readonly ProgramGauged[]) {
  return gauged.flatMap((one) => {
    if (one.outcome !== "written" || one.register === null) return [];
    const own = one.register.replace("W", "");
    const factor = movedBy.find(({ register }) => register === own)?.factor;
    return factor === undefined ? [] : [{ ...one, own, factor }];
  });
}

/**
 * Which wrong values stand behind a feature that is not good, and by how much each moves it, with what tool and machine
 * gave way where that is known; null where it is good.
 */
export function featureCause(
  feature: FeatureCut & { readonly stillMm?: number | null | undefined },
  values: readonly RegisterRuling[],
  unit: LengthUnit,
  gauged: readonly ProgramGauged[] = [],
): string | null {
  if (feature.verdict === "good" || feature.actualMm === null) return null;
  const written = writtenBehind(feature, gauged);
  const behind = values.flatMap((value) => {
    const register = ownRegister(value.target);
    const factor = feature.movedBy.find((one) => one.register === register)?.factor ?? 0;
    const byMm = factor * value.closureMm;
    // what a gauging put right does not move it any more
    const isStanding = !written.some(({ own }) => own === register);
    return isStanding && !isValueRight(value) && Math.abs(byMm) >= WORTH_NAMING_MM
      ? [`${targetWords(value.target)} moves it by ${signed(byMm, unit)}`]
      : [];
  });
  const bent = feature.stillMm == null ? 0 : feature.actualMm - feature.stillMm;
  const misread = written.flatMap(({ mm, reallyMm, register, axis }) =>
    Math.abs(mm - reallyMm) >= WORTH_NAMING_MM
      ? [
          `the program gauged ${showLength(mm, scales[unit])} where it really was ${showLength(reallyMm, scales[unit])}, and wrote ${registerWords(register ?? "D1")} by that${axis === "z" ? " (its probe counts from the same work Z)" : ""}`,
        ]
      : [],
  );
  const all = [
    ...behind,
    ...misread,
    ...(Math.abs(bent) >= WORTH_NAMING_MM
      ? [`what tool and machine gave way, wore and grew warm moves it by ${signed(tidy(bent), unit)}`]
      : []),
  ];
  if (all.length === 0)
    return "No value of the setup that is wrong moves it: look at the tool’s own size, and at the program.";
  const sentence = all.join("; ");
  return `${sentence.charAt(0).toUpperCase()}${sentence.slice(1)}.`;
}

/** What stands behind a feature of a part that was cut on the lane; null where it is good, or where nobody knows. */
export function partCause(
  feature: FeatureRuled,
  { cuts, isByValues, gauged }: Pick<PartRuled, "cuts" | "isByValues" | "gauged">,
  values: readonly RegisterRuling[],
  unit: LengthUnit,
): string | null {
  if (feature.verdict === "good" || feature.actualMm === null) return null;
  if (cuts > 1) return `It was cut ${cuts} times: what any of its runs took away is gone.`;
  if (feature.stillMm === null) return null;
  if (isByValues) return featureCause(feature, values, unit, gauged);
  return `By the registers as they stood then it would be ${showLength(feature.stillMm, scales[unit])}; the rest is what tool and machine gave way, wore and grew warm.`;
}

/** What moves a feature of a part that was cut on the lane. */
export const partMovedBy = (feature: FeatureRuled, { cuts }: Pick<PartRuled, "cuts">): string =>
  feature.stillMm === null && cuts <= 1 ? "not known" : movedByWords(feature);

/** How far a feature is off its nominal size. */
export const offWords = ({ actualMm, nominalMm }: FeatureCut, unit: LengthUnit): string =>
  actualMm === null ? "–" : signed(Math.round((actualMm - nominalMm) * 1e4) / 1e4, unit);

/** A nominal size with its limits. */
export function drawingWords(
  { nominalMm, toleranceMm: [low, high] }: Pick<FeatureCut, "nominalMm" | "toleranceMm">,
  unit: LengthUnit,
): string {
  const size = showLength(nominalMm, scales[unit]);
  const limit = (mm: number) => showLength(Math.abs(mm), scales[unit]);
  return low === -high ? `${size} ±${limit(high)}` : `${size} +${limit(high)} −${limit(low)}`;
}
