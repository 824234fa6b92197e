import type { MillLengthSchool } from "../../exercises/schools";
import { toolName } from "../../instruments/things";
import { toCounts, toMm, type Counts } from "../../units";
import type { Source } from "../account";
import type { CauseId, Term } from "../cause";
import type { OtherWay, Share } from "../figures";
import type { MillTrace } from "../trace";
import {
  contactOfTouch,
  lengthWantedMm,
  readingErrors,
  touchErrors,
  touchShares,
  type LengthReading,
  type Touch,
} from "./millTouch";
import type { SplitSchool } from "./millSplit";

/** As many touches as one approach on paper makes, and some attempts. */
const LATEST = 32;

export const valueOf = ({ counts, shares }: Source): Counts =>
  shares.reduce((sum, share) => sum + share.counts, counts);

export const negated = (terms: readonly Term[]): Term[] => terms.map((term) => ({ ...term, mm: -term.mm }));

/**
 * Touches that something made on a surface before a moment, the latest first; torn paper only where nothing else is.
 */
export function touchesOf(trace: MillTrace, holds: (touch: Touch) => boolean, before: number): Touch[] {
  const all = trace.touches.filter((touch) => touch.seq < before && holds(touch));
  const felt = all.filter(({ feel }) => feel !== "torn");
  return (felt.length > 0 ? felt : all).slice(-LATEST).reverse();
}

const byTool = (trace: MillTrace, tool: number, on: string, before: number): Touch[] =>
  touchesOf(trace, (touch) => touch.holds === toolName(tool) && touch.on === on, before);

/** A contact that is in force at a capture stands where the machine stands then. */
export function fromTouch(trace: MillTrace, touch: Touch, more: readonly Share[] = []): Source {
  return {
    counts: touch.machineZ,
    contact: contactOfTouch(touch),
    shares: [...touchShares(trace.final, touch), ...more],
    ...touchErrors(trace, touch),
  };
}

function fromReading(trace: MillTrace, reading: LengthReading, more: readonly Share[] = []): Source {
  const counts = toCounts(reading.mm, trace.final.scale);
  const { errors, ownMm } = readingErrors(trace, reading);
  const corrected = more.reduce((sum, share) => sum + share.counts, 0);
  return {
    counts,
    contact: { counts, seq: reading.seq, atMs: reading.atMs },
    shares: more,
    ...(corrected === 0 ? { errors, ownMm } : corrects(errors, ownMm, toMm(corrected, trace.final.scale))),
  };
}

/** A correction that was found takes away what it was found for. */
function corrects(errors: readonly Term[], ownMm: number, byMm: number): { errors: Term[]; ownMm: number } {
  const mended = errors.filter(({ id }) => id === "setterMoved" || id === "gaugeHit");
  const left = mended.reduce((sum, { mm }) => sum + mm, 0);
  return { errors: errors.filter((term) => !mended.includes(term)), ownMm: ownMm + left + byMm };
}

const readingsOf = ({ lengths }: MillTrace, tool: number, before: number): LengthReading[] =>
  lengths
    .filter((one) => one.tool === tool && one.seq < before)
    .slice(-8)
    .reverse();

/** What was read hangs on where a setter stands, so that a bare nose let down on it tells. */
const hangsOnSetter = ({ known }: LengthReading): boolean => known.some(({ id }) => id === "setterMoved");

/** By how much the bare nose found the setter off its card, counts; null where it was not let down on it. */
function setterFoundOff(trace: MillTrace, before: number): Counts | null {
  const { setter } = trace.final.setup;
  const nose = touchesOf(trace, ({ holds, on }) => holds === null && on === "setter", before)[0];
  return setter && nose ? nose.machineZ - toCounts(setter.noseTriggerMm, trace.final.scale) : null;
}

export const lengthShare = (counts: Counts, id: CauseId): Share => ({
  term: "toolLength",
  counts: -counts,
  slips: [
    { id, counts: 0 },
    { id: "schoolsMixed", counts },
  ],
});

/** What the row of a tool can come from in a school. */
export function rowSources(trace: MillTrace, tool: number, { school, master }: SplitSchool, before: number): Source[] {
  const { final } = trace;
  switch (school) {
    case "part-touch":
      return byTool(trace, tool, "stock", before).map((touch) => fromTouch(trace, touch));
    case "block-in-wear":
      return byTool(trace, tool, "stock", before).map((touch) => fromTouch(trace, touch));
    case "plane-lift":
      return byTool(trace, tool, "table", before).map((touch) => fromTouch(trace, touch));
    case "gauge-line": {
      const off = setterFoundOff(trace, before);
      const nose = toCounts(final.setup.setter?.noseTriggerMm ?? 0, final.scale);
      const correction: Share[] = off === null ? [] : [{ term: "other", counts: -off, slips: [] }];
      return [
        ...readingsOf(trace, tool, before).flatMap((reading) => [
          fromReading(trace, reading),
          ...(off !== null && off !== 0 && hangsOnSetter(reading) ? [fromReading(trace, reading, correction)] : []),
        ]),
        ...byHandOnSetter(trace, tool, before, nose),
      ];
    }
    case "master":
      return masterPairs(trace, tool, master, before);
    case "offset-per-tool":
      return [];
  }
}

/** Let down on the setter by hand: where it triggers, less where the bare nose does by the card or by the touch. */
function byHandOnSetter(trace: MillTrace, tool: number, before: number, cardNose: Counts): Source[] {
  const { final } = trace;
  const off = setterFoundOff(trace, before) ?? 0;
  const { setter, doubt } = final.truth;
  if (!setter) return [];
  const cycled = readingsOf(trace, tool, before);
  const touches = touchesOf(
    trace,
    ({ holds, on, seq }) =>
      holds === toolName(tool) &&
      on === "setter" &&
      !cycled.some((reading) => reading.seq > seq && reading.seq < seq + 6),
    before,
  );
  return touches.flatMap((touch) =>
    [...new Set([0, off])].map((correction): Source => {
      const nose = cardNose + correction;
      const errorMm = toMm(touch.machineZ - nose, final.scale) - lengthWantedMm(trace, toolName(tool));
      const movedMm = correction === 0 && doubt?.of === "setter" ? -doubt.byMm : 0;
      const errors: Term[] = movedMm === 0 ? [] : [{ id: "setterMoved", mm: movedMm, seq: touch.seq }];
      return {
        counts: touch.machineZ,
        contact: contactOfTouch(touch),
        shares: [{ term: "other", counts: -nose, slips: [{ id: "schoolsMixed", counts: 0 }] }],
        errors,
        ownMm: errorMm - movedMm,
      };
    }),
  );
}

/** A tool beside the master, both touched on one surface: the difference of the two. */
function masterPairs(trace: MillTrace, tool: number, master: number, before: number): Source[] {
  return (["stock", "table"] as const).flatMap((on) => {
    const [theirs] = byTool(trace, master, on, Infinity);
    if (!theirs) return [];
    return byTool(trace, tool, on, before).map((touch): Source => {
      const mine = touchErrors(trace, touch);
      const other = touchErrors(trace, theirs);
      const thick = toCounts(touch.thicknessMm - theirs.thicknessMm, trace.final.scale);
      return {
        counts: touch.machineZ,
        contact: contactOfTouch(touch),
        shares: [
          { term: "other", counts: -theirs.machineZ, slips: [{ id: "schoolsMixed", counts: 0 }] },
          ...(thick === 0
            ? []
            : [{ term: "paper" as const, counts: -thick, slips: [{ id: "paperForgotten" as const, counts: 0 }] }]),
        ],
        errors: [...mine.errors, ...negated(other.errors)],
        ownMm: mine.ownMm - other.ownMm,
      };
    });
  });
}

/** What other figures a row may hold: another tool's, another school's. */
export function otherRows(
  trace: MillTrace,
  tool: number,
  split: SplitSchool,
  before: number,
  belongs: Counts,
): OtherWay[] {
  const others = trace.final.setup.tools.filter(({ number }) => number !== tool);
  const neighbors = others.flatMap(({ number }) =>
    rowSources(trace, number, split, before)
      .slice(0, 4)
      .map((source) => ({ id: "neighborRow" as const, counts: valueOf(source) - belongs, tool: number })),
  );
  const schools: readonly MillLengthSchool[] = ["part-touch", "gauge-line", "plane-lift"];
  const mixed = schools
    .filter((school) => school !== split.school)
    .flatMap((school) =>
      rowSources(trace, tool, { ...split, school }, before)
        .slice(0, 4)
        .map((source) => ({ id: "schoolsMixed" as const, counts: valueOf(source) - belongs })),
    );
  return [...neighbors, ...mixed];
}
