import { stillCut, partsCut, type FeatureCut, type LaneState, type PartCut } from "../bench";
import { traceLane, type LaneTrace } from "../diagnosis";
import type { Setup } from "../exercises";
import { verdictOf } from "../inspection";
import { FIT_SHARE, GROWS_PER_DEGREE, isFit, partInstruments, WARMER_BY, type PartSaid } from "../lane/partNames";
import type { PartFigure, ProgramGauged } from "../lane/programDesk";
import type { StepRow } from "./steps";

type Feature = NonNullable<Setup["features"]>[number];

/** What a student read of a feature: the figure that counts, and with what. */
export type FigureRuled = Omit<PartFigure, "reallyMm" | "part" | "cut" | "feature">;

export interface FeatureRuled extends FeatureCut {
  readonly figure: FigureRuled | null;
  /** What it would measure if nothing had given way, worn or grown warm; null where that is not known. */
  readonly stillMm: number | null;
}

/** One part as it came out of its last run, feature by feature, beside what the student read and said. */
export interface PartRuled {
  readonly part: number;
  /** How many of its runs took something away: not those in the air, or broken off before they cut. */
  readonly cuts: number;
  /** It was cut once, with the registers that the values are marked by. */
  readonly isByValues: boolean;
  readonly features: readonly FeatureRuled[];
  /** What the program gauged of it in its last run, and what it really was then. */
  readonly gauged: readonly ProgramGauged[];
  readonly said: PartSaid | null;
}

const asCut = new WeakMap<LaneTrace, LaneTrace>();

/**
 * An instrument was put to a part that was cut, by hand or by the program: that a feature is not there tells as much as
 * where it is.
 */
const isLook = (event: LaneTrace["log"][number]["event"]): boolean =>
  event.type === "partMeasured" ||
  (event.type === "gauged" && event.axis !== null) ||
  (event.type === "commandRefused" && event.refusal.code === "featureNotCut");

/**
 * A lane as it stood when the first part that was measured was cut, with how it was handed in: what was found on that
 * part cannot make its values right. The lane itself where no part was measured.
 */
export function asFirstCut(trace: LaneTrace): LaneTrace {
  const known = asCut.get(trace);
  if (known) return known;
  const measured = trace.log.find(({ event }) => isLook(event));
  const started = trace.log.findLast(
    ({ seq, event }) => event.type === "cycleStarted" && seq < (measured?.seq ?? -Infinity),
  );
  const before = started
    ? traceLane(trace.log.filter(({ seq, event }) => seq < started.seq || event.type === "handedIn"))
    : trace;
  asCut.set(trace, before);
  return before;
}

const featuresOf = ({ setup }: Pick<LaneState, "setup">): readonly Feature[] => setup.features ?? [];

/** The figure that a student goes by: the last of a fit instrument, else of all; of stacks the largest that goes. */
function figureOf(feature: Feature, figures: readonly PartFigure[]): PartFigure | null {
  const own = figures.filter((one) => one.feature === feature.name);
  const fit = own.filter((one) => isFit(one.with, feature));
  const from = fit.length > 0 ? fit : own;
  const last = from.at(-1);
  if (last?.goes === undefined) return last ?? null;
  const going = from.filter(({ goes }) => goes).sort((a, b) => b.mm - a.mm);
  return going[0] ?? last;
}

const figuresOf = ({ program }: LaneState, { part, cut }: Pick<PartCut, "part" | "cut">): readonly PartFigure[] =>
  program.parts.figures.filter((one) => one.part === part && one.cut === cut);

/** Whether a run left any feature of its part other than it was before. */
function isTaking(all: readonly PartCut[], { part, cut, features }: PartCut): boolean {
  const before = all.find((one) => one.part === part && one.cut === cut - 1);
  return features.some(({ actualMm }, at) => actualMm !== (before?.features[at]?.actualMm ?? null));
}

/** The parts of a lane for its ruling: what they are, what the student read of each and called it. */
export function partsOf({ final }: LaneTrace): { parts?: readonly PartRuled[] } {
  if (final.program.parts.figures.length === 0) return {};
  const all = partsCut(final);
  const first = firstMeasured({ final });
  const last = all.filter(({ part, cut }) => !all.some((other) => other.part === part && other.cut > cut));
  return {
    parts: last.map((one) => {
      const still = stillCut(final, one.part);
      const taking = all.filter((other) => other.part === one.part && isTaking(all, other)).map(({ cut }) => cut);
      // of more than one run, or of one that is not the last, nobody knows which registers left it so
      const isOfLastRun = taking.length === 1 && taking[0] === one.cut;
      const figures = figuresOf(final, one);
      return {
        part: one.part,
        cuts: taking.length,
        isByValues: isOfLastRun && one.part === first?.part,
        gauged: final.program.gauged.filter(({ part, cut }) => part === one.part && cut === one.cut),
        said:
          final.program.parts.judged.findLast(({ part, cut }) => part === one.part && cut === one.cut)?.verdict ?? null,
        features: featuresOf(final).map((feature, at) => {
          const { actualMm = null, verdict = "notCut" } = one.features[at] ?? {};
          const figure = figureOf(feature, figures);
          return {
            name: feature.name,
            nominalMm: feature.nominalMm,
            toleranceMm: feature.toleranceMm,
            actualMm: actualMm === null ? null : Math.round(actualMm * 1e4) / 1e4,
            verdict,
            movedBy: still.get(feature.name)?.movedBy ?? [],
            stillMm: isOfLastRun ? (still.get(feature.name)?.actualMm ?? null) : null,
            figure: figure && {
              with: figure.with,
              mm: figure.mm,
              isWarm: figure.isWarm,
              ...(figure.goes === undefined ? {} : { goes: figure.goes }),
            },
          };
        }),
      };
    }),
  };
}

/** The first part that was measured, as it was when that began. */
function firstMeasured({ final }: Pick<LaneTrace, "final">): PartCut | null {
  const [figure] = final.program.parts.figures;
  return partsCut(final).find(({ part, cut }) => part === figure?.part && cut === figure.cut) ?? null;
}

/** How much a warm part reads too large at most, of its size. */
const WARM_SHARE = GROWS_PER_DEGREE * WARMER_BY.high;

/** Whether figures tell a feature: a fit instrument on a part that is cool enough, or two stacks that close in. */
function isTold(feature: Feature, figures: readonly PartFigure[]): boolean {
  const [low, high] = feature.toleranceMm;
  const fineMm = ((high - low) / 2) * FIT_SHARE + 1e-9;
  const own = figures.filter(
    (one) =>
      one.feature === feature.name &&
      isFit(one.with, feature) &&
      (!one.isWarm || partInstruments[one.with].errorMm + Math.abs(feature.nominalMm) * WARM_SHARE <= fineMm),
  );
  if (own.some(({ goes }) => goes === undefined)) return true;
  const goes = Math.max(...own.filter((one) => one.goes).map(({ mm }) => mm));
  const stays = Math.min(...own.filter((one) => one.goes === false).map(({ mm }) => mm));
  return stays - goes <= fineMm;
}

const RANK = { good: 0, rework: 1, notCut: 1, scrap: 2 } as const;
const RANKED: readonly PartSaid[] = ["good", "rework", "scrap"];
const worst = (verdicts: readonly (keyof typeof RANK)[]): PartSaid =>
  RANKED[Math.max(0, ...verdicts.map((verdict) => RANK[verdict]))] ?? "good";

/** So near to a limit no instrument of this bench tells on which side of it a size lies, mm. */
const UNTOLD_MM = 0.006;

/** Everything that a part may be called, given how near to their limits its features lie. */
export function callable(
  features: readonly Feature[],
  { features: cut }: Pick<PartCut, "features">,
): ReadonlySet<PartSaid> {
  const shifted = (byMm: number) =>
    features.map((feature, at) => {
      const actualMm = cut[at]?.actualMm ?? null;
      return verdictOf(feature, actualMm === null ? null : actualMm + byMm);
    });
  const each = [0, UNTOLD_MM, -UNTOLD_MM].map(shifted);
  const least = features.map((_, at) =>
    worst(
      each
        .map((list) => list[at] ?? "good")
        .sort((a, b) => RANK[a] - RANK[b])
        .slice(0, 1),
    ),
  );
  const most = features.map((_, at) => worst(each.map((list) => list[at] ?? "good")));
  return new Set([worst(each[0] ?? []), worst(least), worst(most)]);
}

/** What a size should come to: the middle of its tolerance. */
const aimMm = ({ nominalMm, toleranceMm: [low, high] }: Feature): number => nominalMm + (low + high) / 2;

/** Features that some register moves. */
function movable(state: LaneState, part: number): ReadonlySet<string> {
  return new Set([...stillCut(state, part)].flatMap(([name, { movedBy }]) => (movedBy.length > 0 ? [name] : [])));
}

const isOff = ({ features }: PartCut, names: ReadonlySet<string>): boolean =>
  features.some(({ name, verdict }) => names.has(name) && verdict !== "good");

const isWhole = ({ features }: PartCut): boolean => features.every(({ actualMm }) => actualMm !== null);

/** The first part that was cut whole on another blank after one; a run that was broken off before is none. */
function nextPart(state: LaneState, { part }: PartCut): PartCut | null {
  const others = partsCut(state).filter((one) => one.part > part);
  return others.find(isWhole) ?? others.at(-1) ?? null;
}

/** Whether what was off on one part came nearer by half on another, or good, and nothing that was good went off. */
function isNearer(features: readonly Feature[], names: ReadonlySet<string>, one: PartCut, other: PartCut): boolean {
  return features.every((feature, at) => {
    const [before, after] = [one.features[at], other.features[at]];
    if (!names.has(feature.name)) return true;
    if (!after || after.actualMm === null) return false;
    if (after.verdict === "good") return true;
    if (!before || before.actualMm === null || before.verdict === "good") return false;
    return Math.abs(after.actualMm - aimMm(feature)) <= Math.abs(before.actualMm - aimMm(feature)) / 2;
  });
}

/** Wear of a tool, or where the part lies: what is off of a tool goes into neither its length nor its size. */
const IS_CORRECTION = /^((HW|DW|XW|ZW)\d|G5\d|P\d|common)/;

function correctedAt(trace: LaneTrace): number | null {
  const { final, log } = trace;
  const first = firstMeasured(trace);
  const next = first && nextPart(final, first);
  if (!first || !next) return null;
  const taken = log.find(({ event }) => event.type === "blankTaken" && event.part === next.part)?.seq ?? Infinity;
  const measured = log.find(({ event }) => event.type === "partMeasured")?.seq ?? Infinity;
  const started = log.find(({ seq, event }) => seq > taken && event.type === "cycleStarted")?.seq ?? null;
  const isInWear = log.every(
    ({ seq, event }) =>
      seq < measured ||
      seq > (started ?? Infinity) ||
      event.type !== "registerChanged" ||
      IS_CORRECTION.test(event.register),
  );
  return isInWear && isNearer(featuresOf(final), movable(final, first.part), first, next) ? started : null;
}

const isMeasuredHere = ({ final }: Pick<LaneTrace, "final">): boolean => final.setup.blanks !== undefined;

/** Something that a register moves is off on the first part that was measured. */
function isSomethingOff(trace: Pick<LaneTrace, "final">): boolean {
  const first = isMeasuredHere(trace) ? firstMeasured(trace) : null;
  return first !== null && isOff(first, movable(trace.final, first.part));
}

const never =
  (type: LaneTrace["log"][number]["event"]["type"]) =>
  ({ log }: LaneTrace): boolean =>
    !log.some(({ event }) => event.type === type);

/** Where the setup of a good part was kept, nothing changed since that part was cut. */
function savedAt({ final, log }: LaneTrace): number | null {
  const saved = log.findLast(({ event }) => event.type === "setupSaved");
  if (saved?.event.type !== "setupSaved") return null;
  const { part } = saved.event;
  const cut = partsCut(final).findLast((one) => one.part === part);
  const started = log.findLast(({ seq, event }) => event.type === "cycleStarted" && seq < saved.seq)?.seq ?? 0;
  // what the program wrote in that run was written by what it cut
  const isAsCut = log.every(
    ({ seq, event }) =>
      seq < started ||
      seq > saved.seq ||
      event.type !== "registerChanged" ||
      event.how === "byProgram" ||
      event.from === event.to,
  );
  return cut && isAsCut && !isOff(cut, movable(final, part)) ? saved.seq : null;
}

/** What is marked of the parts that were cut, on every machine. */
export const partSteps: readonly StepRow[] = [
  {
    step: "partMeasured",
    strand: "proving",
    asked: isMeasuredHere,
    done: (trace) => {
      const first = firstMeasured(trace);
      if (!first) return null;
      const figures = figuresOf(trace.final, first);
      const isAll = featuresOf(trace.final).every((feature) => isTold(feature, figures));
      return isAll ? (trace.log.findLast(({ event }) => event.type === "partMeasured")?.seq ?? null) : null;
    },
    isAbsent: never("partMeasured"),
  },
  {
    step: "partJudged",
    strand: "proving",
    asked: isMeasuredHere,
    done: (trace) => {
      const first = firstMeasured(trace);
      const said = trace.log.findLast(
        ({ event }) => event.type === "partJudged" && event.part === first?.part && event.cut === first.cut,
      );
      if (!first || said?.event.type !== "partJudged") return null;
      return callable(featuresOf(trace.final), first).has(said.event.verdict) ? said.seq : null;
    },
    isAbsent: never("partJudged"),
  },
  {
    step: "correctedInWear",
    strand: "proving",
    asked: isSomethingOff,
    done: correctedAt,
    isAbsent: never("blankTaken"),
  },
  {
    step: "secondPartGood",
    strand: "proving",
    asked: isSomethingOff,
    done: (trace) => {
      const { final, log } = trace;
      const first = firstMeasured(trace);
      const last = partsCut(final).findLast(({ features }) => features.some(({ actualMm }) => actualMm !== null));
      if (!first || !last || last.part === first.part || isOff(last, movable(final, first.part))) return null;
      return log.findLast(({ event }) => event.type === "runEnded")?.seq ?? null;
    },
    isAbsent: never("blankTaken"),
  },
  {
    step: "setupSaved",
    strand: "proving",
    asked: isMeasuredHere,
    done: savedAt,
    isAbsent: never("setupSaved"),
  },
];
