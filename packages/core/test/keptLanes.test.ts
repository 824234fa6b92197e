import { readdirSync, readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { describe, expect, it } from "vitest";
import { eventSchema, evolve, observe, upgradeEvent, type LaneState } from "../bench";
import { markingSchema } from "../exercises";
import { rule, rulingVersion } from "../grading";

type Json = Readonly<Record<string, unknown>>;
interface Kept {
  readonly marking: Json;
  readonly log: readonly { readonly seq: number; readonly atMs: number; readonly event: unknown }[];
  /** What was shown after so many events when the lane was kept. */
  readonly frames: readonly { readonly seq: number; readonly student: Json; readonly instructor: Json | null }[];
  readonly ruling: Json;
}

const folder = new URL("fixtures/lanes/", import.meta.url);
const lanes = readdirSync(folder).map((file) => ({
  name: file.replace(".json.gz", ""),
  kept: JSON.parse(gunzipSync(readFileSync(new URL(file, folder))).toString()) as Kept,
}));

/** What only a mill has, and was once kept, empty, of a lathe's lane too. */
const OF_A_MILL = [
  "quarter",
  "holds",
  "isLoadedByChanger",
  "tip",
  "resting",
  "paper",
  "block",
  "lastTry",
  "lamp",
  "isSetterTriggered",
  "isTipBlown",
  "below",
  "solids",
  "boxes",
  "heldLengthMm",
  "heldShape",
  "isBurrDressed",
  "isOverZero",
  "evidence",
];
const MILL_SHEET = [
  "fixture",
  "datum",
  "feature",
  "isSkewed",
  "facingAllowanceMm",
  "tipDiameterMm",
  "tools",
  "probe",
  "setter",
  "lampGaugeMm",
  "partBefore",
  "lengthSchools",
  "isSchoolPrescribed",
  "diameterSchool",
  "targets",
  "isAtSpeed",
  "pockets",
];

const without = (from: Json, names: readonly string[]): Json =>
  Object.fromEntries(Object.entries(from).filter(([name]) => !names.includes(name)));

/** A sheet kept in format 2 as format 3 has it: its machine named, and nothing of another. */
function sheetNow(kept: Json): Json {
  const lathe = kept["lathe"] as Json | undefined;
  if (!lathe) return { ...kept, kind: "mill" };
  const { control = "turret", ...rest } = lathe;
  return { ...without(kept, MILL_SHEET), kind: control, lathe: rest };
}

/**
 * What an eye judges stands on a grid of its own for each quantity now, and no longer on one for all: the figures of
 * tip, part and arm of a lathe, of solids and lengths on a mill differ by less than a step, and are not compared.
 */
function withoutJudged(observed: Json): Json {
  const seen = withoutChecks(observed);
  const lathe = seen["lathe"] as Json | undefined;
  if (!lathe) return without(seen, ["boxes", "solids", "heldLengthMm", "heldShape"]);
  const kept = without(lathe, ["tip", "outer", "bore", "arm", "neighbors", ...TOLD_BY_THE_CUT]);
  return { ...seen, lathe: { ...kept, evidence: without(lathe["evidence"] as Json, NEW_EVIDENCE) } };
}

/** What is heard of an edge in metal was not told then, and what was tried with a tool outlived it. */
const TOLD_BY_THE_CUT = ["heard", "isPastCenter", "chipped", "inserts", "lastTry"];
/** What gates look at now and did not. */
const NEW_EVIDENCE = ["sidesOverZero", "isWearSet", "isOnPart", "isTipSet"];
/** Gates that ask for more than they did: checks said first, work Z wherever it is needed, nose and tip code. */
const NEW_GATES = ["verified", "workZ", "tool"];
/** A check asks for its three parts now, and what the coach says next hangs on that. */
function withoutChecks(seen: Json): Json {
  const evidence = seen["evidence"] as Json | undefined;
  return {
    ...without(seen, ["checking", "checksJudged", "check", "isOverZero", "coach", "cards", "points", "lastTry"]),
    ...(evidence ? { evidence: without(evidence, NEW_EVIDENCE) } : {}),
    gates: (seen["gates"] as readonly Json[]).filter(({ kind }) => !NEW_GATES.includes(kind as string)),
  };
}

/** An observation kept before machines had kits, as it is shown now. */
function seenNow(kept: Json): Json {
  const sheet = sheetNow(kept["sheet"] as Json);
  const { checksJudged, ...evidence } = kept["evidence"] as Json;
  const shared = { ...kept, kind: sheet["kind"], sheet, checksJudged };
  return sheet["kind"] === "mill" ? { ...without(shared, ["lathe"]), evidence } : without(shared, OF_A_MILL);
}

const isObject = (value: unknown): value is Json => typeof value === "object" && value !== null;

/** A ruling with targets by the names that they had. */
function byTargetName(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(byTargetName);
  if (!isObject(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, inner]) => [
      name,
      name === "target" && isObject(inner) ? inner["id"] : byTargetName(inner),
    ]),
  );
}

interface KeptValue extends Json {
  readonly target: string;
  readonly cause: {
    readonly kind: string;
    readonly terms?: readonly { readonly id: string; readonly mm: number }[];
    readonly ranked?: readonly { readonly ids: readonly string[] }[];
  };
}
interface KeptRuling extends Json {
  readonly values: readonly KeptValue[];
  readonly findings: readonly Json[];
}

const NAMES_OF_MARKS = ["marks", "outOf", "cost", "total"];
/** Marks are given in tenths now, and sums of them differ by a few; everything else by nothing. */
function inTenths(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(inTenths);
  if (!isObject(value)) return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, inner]) => [
      name,
      NAMES_OF_MARKS.includes(name) && typeof inner === "number"
        ? (expect.closeTo(inner, name === "total" ? 0 : 0.2) as number)
        : inTenths(inner),
    ]),
  );
}
/** A finding says its strand, and whether it is absent, only now. */
const found = (finding: Json): Json =>
  without(finding, ["strand", "isAbsent", "note", "failsLane", "failsOutright", "without"]);
/**
 * Checks are asked for on every machine now, in three parts: the steps of method and proving are compared by what was
 * done, and not by their shares.
 */
const OF_CHECKS = ["lookedTwoSides", "checkedBefore", "sumChecked", "recallChecked"];
const shareless = (finding: Json): Json =>
  finding["step"] === undefined ? finding : without(finding, ["marks", "outOf"]);
const comparable = (findings: readonly Json[]): Json[] =>
  findings.filter(({ step }) => !OF_CHECKS.includes(step as string)).map((finding) => shareless(found(finding)));
const BY_STEPS = ["method", "proving"];
const apart = ({ strands, findings, total: _total, failedBy: _failed, ...rest }: KeptRuling): Json => ({
  ...rest,
  strands: (strands as readonly Json[]).filter(({ name }) => !BY_STEPS.includes(name as string)),
  findings: comparable(findings),
});

/** A value by its marks: what a closure is taken apart into, and what hangs on that, is compared by name. */
const OF_ITS_CAUSE = ["cause", "signatures", "contact", "provenance", "method", "biasMm", "uMm"];
const marked = (value: KeptValue): Json => without(value, OF_ITS_CAUSE);

/** The names of a cause; whether they were proven or inferred is not compared: what was a guess is proven now. */
const named = ({ cause }: KeptValue): string =>
  [...(cause.terms?.map(({ id }) => id) ?? cause.ranked?.[0]?.ids ?? [])].sort().join(" ") || "nothing";

/**
 * What the log tells now and did not tell: of a setup handed over the school, by the tools that were measured again.
 */
const TOLD_NOW: Readonly<Record<string, Json>> = { "mill-handed-over": { school: "gauge-line" } };

describe("lanes kept from before machines had kits", () => {
  it("are of every machine", () => expect(lanes.length).toBeGreaterThanOrEqual(12));
  for (const { name, kept } of lanes) {
    it(`${name}: folds to the same observations and the same ruling`, () => {
      const log = kept.log.map(({ seq, atMs, event }) => ({
        seq,
        atMs,
        event: eventSchema.parse(upgradeEvent(event)),
      }));
      let state: LaneState | null = null;
      for (const { seq, event } of log) {
        state = evolve(state, event);
        const frame = kept.frames.find((one) => one.seq === seq);
        if (!frame) continue;
        const shown = (viewer: "student" | "instructor") =>
          JSON.parse(JSON.stringify(observe(state as LaneState, viewer))) as Json;
        expect(withoutJudged(shown("student")), `after ${seq}`).toEqual(withoutJudged(seenNow(frame.student)));
        if (frame.instructor)
          expect(withoutJudged(shown("instructor")), `after ${seq}`).toEqual(withoutJudged(seenNow(frame.instructor)));
      }
      const ruling = byTargetName(
        JSON.parse(JSON.stringify(rule(log, markingSchema.parse(kept.marking)))),
      ) as KeptRuling;
      const before = kept.ruling as unknown as KeptRuling;
      expect(apart({ ...ruling, values: ruling.values.map(marked) as KeptValue[] })).toEqual({
        ...(inTenths(apart(before)) as Json),
        ...TOLD_NOW[name],
        version: rulingVersion,
        sheet: sheetNow(kept.ruling["sheet"] as Json),
        values: inTenths(before.values.map(marked)),
      });
      expect(ruling.values.map(named)).toEqual(before.values.map(named));
    });
  }
});
