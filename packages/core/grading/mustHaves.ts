import type { Marking } from "../exercises";
import type { Finding } from "./findings";
import { isValueRight, type Deeper, type RegisterRuling } from "./values";

/** What a lane must have and has not. */
export const mustHaveNames = ["runsClear", "checked", "notDeep", "signsRight"] as const;
export type MustHave = (typeof mustHaveNames)[number];

/** What stands over points and is missing, and how much of a hundred counts at most. */
export interface NotPassed {
  readonly missed: readonly MustHave[];
  readonly capPercent: number;
  /** Tools that go too deep, where that is what is missing. */
  readonly deeper?: readonly Deeper[];
}

/** A lane as far as what stands over its points is read from it. */
export interface Judged {
  readonly findings: readonly Finding[];
  readonly values: readonly RegisterRuling[];
  readonly deeper: readonly Deeper[];
}

type MustHaves = NonNullable<Marking["mustHaves"]>;

/** A sign that was turned on the way to a register, by how such causes are named. */
const TURNED = /Sign(Turned)?$/;

const tooDeep = (deeper: readonly Deeper[], { deepestMm }: MustHaves): Deeper[] =>
  deeper.filter(({ mm }) => mm > deepestMm);

function isTurned({ cause }: RegisterRuling): boolean {
  // what is only likely stands over nobody's points
  return cause.kind === "proven" && cause.terms.some(({ id }) => TURNED.test(id));
}

/** What tells that something is missing; a step that the lane does not ask for misses nothing. */
const MISSED: Record<MustHave, (lane: Judged, mustHaves: MustHaves) => boolean> = {
  runsClear: ({ findings }) =>
    findings.some(
      (finding) => finding.code === "programStrikes" || (finding.code === "stepMissed" && finding.step === "runsClear"),
    ),
  checked: ({ findings }) =>
    findings.some((finding) => finding.code === "stepMissed" && finding.step === "checkedBefore"),
  notDeep: ({ deeper }, mustHaves) => tooDeep(deeper, mustHaves).length > 0,
  signsRight: ({ values }) => values.some((value) => !isValueRight(value) && isTurned(value)),
};

/** What is missing of a lane; null where nothing is, or where nothing stands over points. */
export function notPassed(lane: Judged, { mustHaves }: Pick<Marking, "mustHaves">): NotPassed | null {
  if (!mustHaves) return null;
  const missed = mustHaveNames.filter((name) => mustHaves[name] && MISSED[name](lane, mustHaves));
  if (missed.length === 0) return null;
  const deeper = missed.includes("notDeep") ? { deeper: tooDeep(lane.deeper, mustHaves) } : {};
  return { missed, capPercent: mustHaves.capPercent, ...deeper };
}

/** Points with the cap of what is missing. */
export const capped = (total: number, outOf: number, missing: NotPassed | null | undefined): number =>
  missing ? Math.min(total, Math.floor(outOf * missing.capPercent) / 100) : total;
