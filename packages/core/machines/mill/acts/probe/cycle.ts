import { type Axis } from "../../../../registers/mill";
import { probeNeeds } from "./needs";
import {
  PROBE_SEARCH_MM,
  PROBE_STANDOFF_MM,
  PROBE_STEM_RADIUS_MM,
  drawProbeApproach,
  type ProbeOutcome,
  type ProbeQuestion,
} from "../../../../instruments/probe";
import { type MillDraft } from "../../lane";
import { pointOf, tipPoint } from "../../solids";
import { type PointMm } from "../../../../geometry/contact";
import { probeRadiusMm } from "../../cards";
import { countsOf, meets, positionTo } from "../cycles";
import { ballBeside } from "./trigger";
import { toCounts, toMm } from "../../../../units/scale";
import { circleFromContacts } from "../../../../registers/circle";
import { cornerFromContacts, skewFromContacts } from "../../../../registers/skew";
import { type CommandOf } from "../../../commands";
import { accept, refuse, type Result } from "../../../../result";
import { type LaneEvent } from "../../../events";
import { type Refusal } from "../../../../lane/refusals";
import { parseLengthMm } from "../../../../units/parse";

type Direction = 1 | -1;

/** A face that was found: the machine figures of the spindle axis at the trigger, mm. */
interface Found {
  readonly axis: Axis;
  readonly approach: Direction;
  readonly atMm: number;
  readonly point: readonly [number, number];
}

type Sought = Found | Exclude<ProbeOutcome, "found">;

/** How far along a face the first contact of a corner stands, and the second one beyond it, mm. */
const INSET_MM = 8;

const NEXT_MM = 24;

/**
 * Slow search from where the probe stands along one axis, at most so far. The ball answers at its effective radius;
 * when the stem gets there first the answer is the stem's, and worthless. The probe goes back to where it began.
 */
function search(draft: MillDraft, axis: Axis, approach: Direction, reachMm: number): Sought {
  const { state } = draft;
  const { scale, setup } = state;
  const from = tipPoint(state, state.position);
  const to: PointMm = { ...from, [axis]: from[axis] + approach * reachMm };
  const ball = (setup.probe?.ballDiameterMm ?? 6) / 2;
  const number = state.probe.touches + 1;
  const errorMm = Math.round(drawProbeApproach(state.truth.seed, number) * 1e5) / 1e5;
  const atBall =
    axis === "z"
      ? meets(state, from, to, { radiusMm: 0.5, fromMm: 0, toMm: 40 })
      : meets(state, from, to, (wall) => ballBeside(state, wall, from.z, axis, approach));
  const atStem =
    axis === "z" ? null : meets(state, from, to, { radiusMm: PROBE_STEM_RADIUS_MM, fromMm: ball * 2, toMm: 40 });
  const first = atBall && (!atStem || atBall.t <= atStem.t) ? atBall : atStem;
  if (!first) return "missed";
  const at = {
    ...state.position,
    [axis]: state.position[axis] + toCounts(approach * (first.t * reachMm + (first === atBall ? errorMm : 0)), scale),
  };
  draft.emit({ type: "moved", to: at, isRapid: false });
  draft.emit({ type: "touchBegan", by: "probe", axis, approach, at, number, errorMm, clickMm: 0 });
  draft.emit({ type: "touchEnded", by: "probe" });
  draft.emit({ type: "moved", to: state.position, isRapid: false });
  if (first === atStem) return "stemTouched";
  return { axis, approach, atMm: toMm(at[axis], scale), point: [toMm(at.x, scale), toMm(at.y, scale)] };
}

/** From above: out to a place, down, in to the face, up again. */
function visit(
  draft: MillDraft,
  at: { x: number; y: number },
  downMm: number,
  axis: "x" | "y",
  approach: Direction,
): Sought {
  const { state } = draft;
  const high = state.position;
  const over = { ...countsOf(state, { ...at, z: 0 }), z: high.z };
  const down = { ...over, z: high.z - toCounts(downMm, state.scale) };
  if (!positionTo(draft, over) || !positionTo(draft, down)) return "driven";
  const sought = search(draft, axis, approach, PROBE_STANDOFF_MM + PROBE_SEARCH_MM);
  draft.emit({ type: "moved", to: over, isRapid: false });
  return sought;
}

interface Ask {
  readonly draft: MillDraft;
  readonly startMm: PointMm;
  readonly sizeMm: number;
  readonly downMm: number;
  readonly axis: "x" | "y";
  readonly x: Direction;
  readonly y: Direction;
  readonly ballMm: number;
}

interface Answer {
  readonly what: string;
  readonly values: Record<string, number>;
}

const isFound = (sought: Sought): sought is Found => typeof sought !== "string";

const failed = (all: readonly Sought[]): Exclude<ProbeOutcome, "found"> | null =>
  all.find((one): one is Exclude<ProbeOutcome, "found"> => typeof one === "string") ?? null;

/**
 * Contacts wanted on a size that was given: from outside the probe stands off the face, from inside it stands before
 * it.
 */
function pair({ draft, startMm, sizeMm, downMm, axis, ballMm }: Ask, isOutside: boolean): Sought[] {
  const away = isOutside
    ? sizeMm / 2 + ballMm + PROBE_STANDOFF_MM
    : Math.max(0, sizeMm / 2 - ballMm - PROBE_STANDOFF_MM);
  const sought: Sought[] = [];
  for (const side of [-1, 1] as const) {
    if (sought.some((one) => typeof one === "string")) break;
    const at = { x: startMm.x, y: startMm.y, [axis]: startMm[axis] + side * away };
    sought.push(visit(draft, at, downMm, axis, isOutside ? (-side as Direction) : side));
    positionTo(draft, countsOf(draft.state, { ...startMm }));
  }
  return sought;
}

type Run = (ask: Ask) => { sought: Sought[]; answer(found: Found[]): Answer | null };

function pairAnswer(ask: Ask, isOutside: boolean): ReturnType<Run> {
  return {
    sought: pair(ask, isOutside),
    answer: ([a, b]) =>
      a && b
        ? {
            what: ask.axis === "x" ? "middleX" : "middleY",
            values: {
              low: Math.min(a.atMm, b.atMm),
              high: Math.max(a.atMm, b.atMm),
              middle: (a.atMm + b.atMm) / 2,
              between: Math.abs(b.atMm - a.atMm),
            },
          }
        : null,
  };
}

function roundAnswer(ask: Ask, isOutside: boolean): ReturnType<Run> {
  const alongX = pair({ ...ask, axis: "x" }, isOutside);
  const alongY = failed(alongX) ? [] : pair({ ...ask, axis: "y" }, isOutside);
  return {
    sought: [...alongX, ...alongY],
    answer: (found) => {
      const circle = circleFromContacts(
        found.map(({ point }) => point),
        0,
        "bore",
      );
      return circle
        ? { what: "round", values: { x: circle.center[0], y: circle.center[1], across: circle.diameter } }
        : null;
    },
  };
}

/**
 * Two contacts on the face that runs along X, one on the face along Y, beside the corner over which the probe stands.
 */
function cornerAnswer(ask: Ask, isOutside: boolean): ReturnType<Run> {
  const { draft, startMm, downMm, x, y, ballMm } = ask;
  const off = (isOutside ? 1 : -1) * (ballMm + PROBE_STANDOFF_MM);
  const inward = (mm: number, side: Direction) => -side * mm;
  const turn = isOutside ? 1 : -1;
  const places = [
    { axis: "y" as const, at: { x: startMm.x + inward(INSET_MM, x), y: startMm.y + y * off } },
    { axis: "y" as const, at: { x: startMm.x + inward(INSET_MM + NEXT_MM, x), y: startMm.y + y * off } },
    { axis: "x" as const, at: { x: startMm.x + x * off, y: startMm.y + inward(INSET_MM, y) } },
  ];
  const sought: Sought[] = [];
  for (const { axis, at } of places) {
    if (sought.some((one) => typeof one === "string")) break;
    sought.push(visit(draft, at, downMm, axis, ((axis === "x" ? x : y) * -turn) as Direction));
    positionTo(draft, countsOf(draft.state, startMm));
  }
  const part: [Direction, Direction] = [(-x * turn) as Direction, (-y * turn) as Direction];
  return {
    sought,
    answer: ([a, b, c]) => {
      const corner =
        a && b && c ? cornerFromContacts(a.point, b.point, c.point, probeRadiusMm(draft.state), part) : null;
      return corner
        ? {
            what: "corner",
            values: { x: corner.corner[0], y: corner.corner[1], angleDeg: Math.round(corner.angle * 1e4) / 1e4 },
          }
        : null;
    },
  };
}

/**
 * Two contacts on one face, a stated distance apart; `axis` is the one that the face runs along, the probe stands
 * before it.
 */
function angleAnswer({ draft, startMm, sizeMm, axis, x }: Ask): ReturnType<Run> {
  const sought: Sought[] = [];
  const across = axis === "x" ? "y" : "x";
  for (const side of [-1, 1] as const) {
    if (sought.some((one) => typeof one === "string")) break;
    const at = countsOf(draft.state, { ...startMm, [axis]: startMm[axis] + (side * sizeMm) / 2 });
    sought.push(positionTo(draft, at) ? search(draft, across, x, PROBE_STANDOFF_MM + PROBE_SEARCH_MM) : "driven");
  }
  if (!failed(sought)) positionTo(draft, countsOf(draft.state, startMm));
  return {
    sought,
    answer: ([a, b]) => {
      const angleDeg = a && b ? skewFromContacts(a.point, b.point, axis) : null;
      return a && b && angleDeg !== null
        ? {
            what: "angle",
            values: { first: a.atMm, second: b.atMm, apart: sizeMm, angleDeg: Math.round(angleDeg * 1e4) / 1e4 },
          }
        : null;
    },
  };
}

const RUNS: Record<ProbeQuestion, Run> = {
  face: ({ draft, axis, x, sizeMm }) => ({
    sought: [search(draft, axis, x, sizeMm)],
    answer: ([a]) => (a ? { what: axis === "x" ? "faceX" : "faceY", values: { at: a.atMm } } : null),
  }),
  surface: ({ draft, sizeMm }) => ({
    sought: [search(draft, "z", -1, sizeMm)],
    answer: ([a]) => (a ? { what: "surface", values: { at: a.atMm } } : null),
  }),
  twoOutside: (ask) => pairAnswer(ask, true),
  twoInside: (ask) => pairAnswer(ask, false),
  boss: (ask) => roundAnswer(ask, true),
  bore: (ask) => roundAnswer(ask, false),
  cornerOutside: (ask) => cornerAnswer(ask, true),
  cornerInside: (ask) => cornerAnswer(ask, false),
  angle: angleAnswer,
};

const LONGEST_MM = 400;

/** A question to the spindle probe: figures read first, then the cycle run with whatever they lead to. */
export function askProbe(draft: MillDraft, command: CommandOf<"askProbe">): Result<LaneEvent[], Refusal> {
  const { state } = draft;
  const needs = probeNeeds[command.question];
  const figure = (text: string | undefined, isNeeded: boolean): Result<number, Refusal> => {
    if (!isNeeded) return accept(0);
    const read = parseLengthMm(text ?? "", state.setup.unit);
    if (!read.ok) return refuse({ code: "text", problem: read.error });
    return read.value > 0 && read.value <= LONGEST_MM ? accept(read.value) : refuse({ code: "askNeedsPositive" });
  };
  const size = figure(command.size, needs.size);
  if (!size.ok) return size;
  const depth = figure(command.depth, needs.depth);
  if (!depth.ok) return depth;
  if (
    (needs.axis && !command.axis) ||
    (needs.direction && !command.direction) ||
    (needs.directionY && !command.directionY)
  )
    return refuse({ code: "askNeedsSide" });
  const ballMm = (state.setup.probe?.ballDiameterMm ?? 6) / 2;
  const { sought, answer } = RUNS[command.question]({
    draft,
    startMm: pointOf(state.position, state.scale),
    sizeMm: size.value,
    downMm: depth.value,
    axis: command.axis ?? "x",
    x: command.direction ?? 1,
    y: command.directionY ?? 1,
    ballMm,
  });
  const failure = failed(sought);
  const found = failure ? null : answer(sought.filter(isFound));
  draft.emit({
    type: "readingShown",
    number: draft.state.desk.readingsMade + 1,
    instrument: "probe",
    what: found?.what ?? command.question,
    values: found?.values ?? {},
    outcome: found ? "found" : (failure ?? "missed"),
  });
  return accept(draft.events);
}
