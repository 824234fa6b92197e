import type { Marking } from "../exercises";
import type { Finding } from "./findings";

/** What a lane must have and has not. */
export const mustHaveNames = ["runsClear", "checked"] as const;
export type MustHave = (typeof mustHaveNames)[number];

/** What a lane misses of what stands over points, and how much of a hundred counts at most. */
export interface NotPassed {
  readonly missed: readonly MustHave[];
  readonly capPercent: number;
}

/** Which finding tells that something is missing; a step that the lane does not ask for misses nothing. */
const MISSED: Record<MustHave, (finding: Finding) => boolean> = {
  runsClear: (finding) =>
    finding.code === "programStrikes" || (finding.code === "stepMissed" && finding.step === "runsClear"),
  checked: (finding) => finding.code === "stepMissed" && finding.step === "checkedBefore",
};

/** What is missing by the findings of a lane; null where nothing is, or where nothing stands over points. */
export function notPassed(findings: readonly Finding[], { mustHaves }: Pick<Marking, "mustHaves">): NotPassed | null {
  if (!mustHaves) return null;
  const missed = mustHaveNames.filter((name) => mustHaves[name] && findings.some(MISSED[name]));
  return missed.length > 0 ? { missed, capPercent: mustHaves.capPercent } : null;
}

/** Points with the cap of what is missing. */
export const capped = (total: number, outOf: number, missing: NotPassed | null | undefined): number =>
  missing ? Math.min(total, Math.floor(outOf * missing.capPercent) / 100) : total;
