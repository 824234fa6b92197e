import type { IncidentCode, LaneState } from "../bench";
import type { Exercise, Marking, MustHaves } from "../exercises";
import type { Finding } from "./findings";
import { isValueRight, type Deeper, type RegisterRuling } from "./values";

/** What a lane must have and has not. */
export const mustHaveNames = ["runsClear", "checked", "notDeep", "signsRight", "handsClear", "signed"] as const;
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
  /** Nobody signed for the first cut, though the lane has it signed for. */
  readonly isUnsigned: boolean;
}

/** Nobody signed for what was cut first, or stands there uncut: with the coach on nobody has to. */
export const isUnsigned = ({
  setup,
  isCoachOn,
  program,
}: Pick<LaneState, "setup" | "isCoachOn" | "program">): boolean =>
  setup.signsOff === true && !isCoachOn && program.signature.state !== "given";

/** Incidents in which a hand was at what turned. */
const HANDS = new Set<IncidentCode>(["handAtChuck", "paperUnderTurningTool"]);

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
  handsClear: ({ findings }) => findings.some((finding) => finding.code === "incident" && HANDS.has(finding.incident)),
  signed: ({ isUnsigned }) => isUnsigned,
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

/** Which of them an exercise can miss: without a program, or with nobody to sign, there is nothing to be missing. */
export const mustHavesAsked = (
  { program }: Pick<Exercise, "program">,
  isCoachOn: boolean,
  mustHaves: MustHaves | undefined,
): MustHave[] =>
  mustHaveNames.filter((name) => {
    if (mustHaves?.[name] !== true) return false;
    if (name === "runsClear") return program !== undefined;
    return name !== "signed" || (program?.signOff === true && !isCoachOn);
  });
