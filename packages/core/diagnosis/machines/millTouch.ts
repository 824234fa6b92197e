import { lengthBias } from "../../exercises/bias";
import { wantedLengthMm } from "../../exercises/machines/millExpected";
import { tableZMm } from "../../exercises/scene";
import { toolName, toolNumber, type Thing } from "../../instruments/things";
import type { MillLane } from "../../machines/mill/lane";
import { datumNowMm } from "../../machines/mill/solids";
import type { SurfaceTouch } from "../../machines/told";
import { toCounts, toMm } from "../../units";
import { merged, WORTH_NAMING_MM, type CauseId, type SourceContact, type Term } from "../cause";
import { cameCoarsely, pressedBetween } from "../felt";
import type { Share } from "../figures";
import type { Made, MillTrace } from "../trace";

export type Touch = Made<SurfaceTouch, MillLane>;
export type LengthReading = MillTrace["lengths"][number];

/** Nothing a method leaves by itself lies further from its mean than this many of its deviations. */
const OWN_WITHIN_U = 5;

/** Where a surface lies as the marking has it, mm; null for one that no length is set on. */
function surfaceMm({ final }: MillTrace, on: string): number | null {
  if (on === "table") return tableZMm(final.setup, final.truth);
  return on === "stock" ? datumNowMm(final).z + final.setup.facingAllowanceMm : null;
}

/** The true length that a thing has to be set to, as it is at the end and as it will be used, mm. */
export function lengthWantedMm({ final }: MillTrace, thing: Thing | null): number {
  if (thing === null) return 0;
  const tool = toolNumber(thing);
  const own = tool === null ? (final.truth.lengthsMm[thing] ?? 0) : wantedLengthMm(final.setup, final.truth, tool);
  return own - (final.harm.shorterMm[thing] ?? 0);
}

/** What changed of a thing between a moment and the end, mm: incidents made it shorter since. */
function changedSince({ final }: MillTrace, thing: Thing | null, then: MillLane): number {
  return thing === null ? 0 : (final.harm.shorterMm[thing] ?? 0) - (then.harm.shorterMm[thing] ?? 0);
}

/** How far the spindle will draw a tool up at its working speed, mm, where the exercise asks for it. */
const growthWantedMm = ({ final: { setup, truth } }: MillTrace, thing: Thing | null): number => {
  const tool = toolNumber(thing);
  return tool === null ? 0 : (truth.lengthsMm[toolName(tool)] ?? 0) - wantedLengthMm(setup, truth, tool);
};

const listed = (terms: readonly (readonly [CauseId, number, number])[]): Term[] =>
  terms.filter(([, mm]) => Math.abs(mm) > 1e-9).map(([id, mm, seq]) => ({ id, mm, seq }));
const total = (terms: readonly Term[]): number => terms.reduce((sum, { mm }) => sum + mm, 0);

/** A touch against the surface, mm: what is known of its error, and the method's own. */
export function touchErrors(trace: MillTrace, touch: Touch): { errors: Term[]; ownMm: number } {
  const { final } = trace;
  const { on, by, holds, before, seq, machineZ, thicknessMm, seatMm } = touch;
  const surface = surfaceMm(trace, on) ?? 0;
  const errorMm = toMm(machineZ, final.scale) - thicknessMm - surface - lengthWantedMm(trace, holds);
  const seatedMm = on === "stock" ? datumNowMm(before).z - datumNowMm(final).z : 0;
  const raisedMm = on === "stock" ? before.seat.raisedMm - final.seat.raisedMm : 0;
  const raised = trace.log.find((one) => one.seq > seq && one.event.type === "parallelsChanged");
  const known = listed([
    ["partMoved", raisedMm, raised?.seq ?? seq],
    ["notSeated", seatedMm - raisedMm, seq],
    ["taperDirt", seatMm, seq],
    ["changedSinceTouch", changedSince(trace, holds, before), seq],
    ["spindleGrowth", growthWantedMm(trace, holds), seq],
    ...touch.known.map(({ id, mm }) => [id, mm, seq] as const),
  ]);
  const rest = errorMm - total(known);
  const { biasMm, uMm } = lengthBias(by, final.setup);
  if (Math.abs(rest - biasMm) < Math.max(WORTH_NAMING_MM, OWN_WITHIN_U * uMm)) return { errors: known, ownMm: rest };
  const id: CauseId = pressedBetween(touch) ?? cameCoarsely(touch) ?? "contactOff";
  return { errors: [...known, { id, mm: rest, seq }], ownMm: 0 };
}

/** A measured length against the true one, mm: what is known of its error, and the method's own. */
export function readingErrors(
  trace: MillTrace,
  { tool, mm, seq, before, isHeld, known: told }: LengthReading,
): { errors: Term[]; ownMm: number } {
  const thing = toolName(tool);
  const errorMm = mm - lengthWantedMm(trace, thing);
  const known = merged(
    listed([
      ["taperDirt", isHeld ? before.carried.seatMm : 0, seq],
      ["changedSinceTouch", changedSince(trace, thing, before), seq],
      ["spindleGrowth", growthWantedMm(trace, thing), seq],
      ...told.map((fault) => [fault.id, fault.mm, seq] as const),
    ]),
  );
  const rest = errorMm - total(known);
  if (Math.abs(rest) < WORTH_NAMING_MM) return { errors: known, ownMm: rest };
  return { errors: [...known, { id: besideTip(trace.final, tool, rest), mm: rest, seq }], ownMm: 0 };
}

/** What the setter met in place of the tool's true tip, by the tool and by how much it came out short. */
function besideTip({ setup }: MillLane, tool: number, mm: number): CauseId {
  const kind = setup.tools.find(({ number }) => number === tool)?.kind;
  if (kind === "faceMill" && mm < -0.1) return "measuredOnCenter";
  if ((kind === "faceMill" || kind === "endMill") && mm < 0 && mm > -0.1) return "measuredStill";
  return "measuredBesideTip";
}

export const contactOfTouch = ({ machineZ, seq, atMs }: Touch): SourceContact => ({ counts: machineZ, seq, atMs });

/** What a touch leaves to count: what stood in the gap, and the skin over the datum where it was on the part. */
export function touchShares({ setup, scale }: MillLane, touch: Touch): Share[] {
  const counts = (mm: number) => toCounts(mm, scale);
  const t = counts(touch.thicknessMm);
  const a = touch.on === "stock" ? counts(setup.facingAllowanceMm) : 0;
  const isSheet = touch.by === "paper" || touch.by === "feeler";
  const ways = isSheet
    ? ({ term: "paper", out: "paperForgotten", turned: "paperWrongWay" } as const)
    : ({ term: "block", out: "blockForgotten", turned: "blockWrongWay" } as const);
  // another sheet of the drawer, counted in place of this one
  const otherGaps = setup.gaps.map(({ nominalMm }) => counts(nominalMm)).filter((one) => one !== t && one !== 0);
  const gap: Share[] =
    t === 0
      ? []
      : [
          {
            term: ways.term,
            counts: -t,
            slips: [
              { id: ways.out, counts: 0 },
              { id: ways.turned, counts: t },
              { id: "gapTwice", counts: -2 * t },
              ...otherGaps.map((one) => ({ id: "otherGap" as const, counts: -one })),
            ],
          },
        ];
  const facing: Share[] =
    a === 0
      ? []
      : [
          {
            term: "facing",
            counts: -a,
            slips: [
              { id: "facingForgotten", counts: 0 },
              { id: "facingWrongWay", counts: a },
            ],
          },
        ];
  return [...gap, ...facing];
}
