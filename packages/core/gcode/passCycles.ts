import { Wrong } from "./diagnostics";
import { type ProgramPlace } from "./moves";
import { type PassWords, type Rig } from "./rig";

/** A place of a lathe with X as a radius: r, z. */
type Half = readonly [number, number];
const BOTH = 3;
const [ROUGHS_ALONG, ROUGHS_ACROSS, PECKS_ALONG, PECKS_ACROSS] = [71, 72, 74, 75] as const;
/** Digits of a first G76 after the number of its last passes. */
const LAST_PASSES_AT = 10_000;

const half = ([x = NaN, z = NaN]: ProgramPlace): Half => [x / 2, z];
const whole = ([r, z]: Half): number[] => [r * 2, z];
const from = (rig: Rig): Half => {
  const start = half(rig.place);
  if (start.some(Number.isNaN)) throw new Wrong("position-unknown");
  return start;
};
const rapid = (rig: Rig, to: Half): void => rig.go("rapid", whole(to), BOTH);
const fed = (rig: Rig, to: Half): void => rig.go("feed", whole(to), BOTH);

/** How deep and how far back: what neither block says is asked for. */
function needed(value: number | null | undefined): number {
  if (value == null || value <= 0) throw new Wrong("word-missing");
  return value;
}

/** What is left for the finishing pass: U a diameter, W along Z. */
interface Left {
  readonly u: number;
  readonly w: number;
}

const beside = (outline: readonly ProgramPlace[], { u, w }: Left): Half[] =>
  outline.map(half).map(([r, z]) => [r + u / 2, z + w]);

/**
 * How far along a pass at one depth goes: to where the outline first comes out beyond it, else to its end. Hollows in
 * an outline are left to the last pass.
 */
function endOfPass(points: readonly Half[], deep: 0 | 1, level: number, way: number): number {
  const along = deep === 0 ? 1 : 0;
  const out = (place: Half): number => (level - place[deep]) * way;
  const at = points.findIndex((place) => out(place) > 1e-9);
  const [before, after] = [points[at - 1], points[at]];
  if (!before || !after) return (points.at(-1) ?? [NaN, NaN])[along];
  const share = out(before) >= 0 ? 0 : out(before) / (out(before) - out(after));
  return before[along] + (after[along] - before[along]) * share;
}

/** Roughing in passes of one depth, along Z (G71) or across it (G72), a pass along the outline last, and back. */
function rough(rig: Rig, deep: 0 | 1, points: readonly Half[], depth: number, back: number): void {
  const start = from(rig);
  const first = points[0] ?? start;
  const way = Math.sign(first[deep] - start[deep]) || -1;
  const total = Math.abs(first[deep] - start[deep]);
  const passes = Math.ceil(total / depth - 1e-9);
  rig.repeat(passes);
  const at = (level: number, along: number): Half => (deep === 0 ? [level, along] : [along, level]);
  const [startAlong, startLevel] = deep === 0 ? [start[1], start[0]] : [start[0], start[1]];
  for (let i = 1; i <= passes; i++) {
    const level = startLevel + way * Math.min(i * depth, total);
    const end = endOfPass(points, deep, level, way);
    const home = Math.sign(startAlong - end);
    rapid(rig, at(level, startAlong));
    fed(rig, at(level, end));
    fed(rig, at(level - way * back, end + home * Math.min(back, Math.abs(startAlong - end))));
    rapid(rig, at(level - way * back, startAlong));
  }
  rapid(rig, at(first[deep], startAlong));
  for (const place of points) fed(rig, place);
  const last = points.at(-1) ?? start;
  rapid(rig, at(startLevel, deep === 0 ? last[1] : last[0]));
  rapid(rig, start);
}

/** The outline itself, so many times, nearer each time (G73). */
function repeated(rig: Rig, points: readonly Half[], away: Half, times: number): void {
  const start = from(rig);
  rig.repeat(times);
  for (let i = 0; i < times; i++) {
    const share = times === 1 ? 0 : 1 - i / (times - 1);
    const [first, ...others] = points.map(([r, z]): Half => [r + away[0] * share, z + away[1] * share]);
    if (!first) return;
    rapid(rig, first);
    for (const place of others) fed(rig, place);
    rapid(rig, [start[0] + away[0] * share, (others.at(-1) ?? first)[1]]);
    rapid(rig, start);
  }
}

/** Roughing by an outline: G71, G72, G73. The blocks of the outline are given as places, arcs as chords. */
export function outlinePasses(rig: Rig, code: number, outline: readonly ProgramPlace[], left: Left): void {
  const { passes } = rig;
  const scaled = (value: number | undefined): number => (value ?? 0) * rig.unit;
  const points = beside(outline, left);
  if (code === ROUGHS_ALONG) return rough(rig, 0, points, needed(scaled(passes.U)), scaled(passes.R));
  if (code === ROUGHS_ACROSS) return rough(rig, 1, points, needed(scaled(passes.W)), scaled(passes.R));
  return repeated(rig, points, [scaled(passes.U), scaled(passes.W)], Math.max(1, Math.round(passes.R ?? 1)));
}

/** Levels from one to the other by a step, both of them among them; only the first where no step is said. */
function levels(first: number, last: number | null, step: number | null): number[] {
  if (last === null || !step) return [first];
  const count = Math.ceil(Math.abs(last - first) / step - 1e-9);
  return Array.from({ length: count + 1 }, (_, i) => (i === count ? last : first + Math.sign(last - first) * i * step));
}

/** Fed down in pecks at one level or several: along Z (G74) or across it (G75). */
export function peckPasses(rig: Rig, code: number): void {
  const deep = code === PECKS_ALONG ? 1 : 0;
  const start = from(rig);
  const [x, z] = [rig.length("X"), rig.length("Z")];
  const [u, w] = [rig.length("U"), rig.length("W")];
  const stepped = [u === null ? null : start[0] + u / 2, w === null ? null : start[1] + w] as const;
  const goal = [x === null ? stepped[0] : x / 2, z ?? stepped[1]] as const;
  const steps = [rig.steps(rig.said.value("P")), rig.steps(rig.said.value("Q"))];
  const [bottom, side] = deep === 1 ? [goal[1], goal[0]] : [goal[0], goal[1]];
  const [peck, over] = deep === 1 ? [steps[1], steps[0]] : [steps[0], steps[1]];
  if (bottom == null) throw new Wrong("word-missing");
  const back = (rig.passes.R ?? 0) * rig.unit;
  const [startDeep, startSide] = deep === 1 ? [start[1], start[0]] : [start[0], start[1]];
  const at = (level: number, aside: number): Half => (deep === 1 ? [aside, level] : [level, aside]);
  const way = Math.sign(bottom - startDeep);
  const sides = levels(startSide, side ?? null, over ?? null);
  const pecks = levels(startDeep, bottom, peck || Math.abs(bottom - startDeep)).slice(1);
  rig.repeat(sides.length * pecks.length);
  for (const aside of sides) {
    rapid(rig, at(startDeep, aside));
    pecks.forEach((level, i) => {
      fed(rig, at(level, aside));
      if (i < pecks.length - 1 && back > 0) rapid(rig, at(level - way * back, aside));
    });
    rapid(rig, at(startDeep, aside));
  }
  rapid(rig, start);
}

/**
 * A thread in passes of one chip (G76): the nth goes in by the first depth times the root of n, at least by the least
 * one; then the last passes, which share what was left for them. Fed in square to the axis.
 */
export function threadPasses(rig: Rig): void {
  const start = from(rig);
  const [x, z] = [rig.length("X"), rig.length("Z")];
  const [height, first] = [rig.steps(rig.said.value("P")), rig.steps(rig.said.value("Q"))];
  const taper = rig.length("R") ?? 0;
  if (x === null || z === null) throw new Wrong("word-missing");
  const deepest = needed(height);
  const chip = needed(first);
  const least = rig.steps(rig.passes.Q) ?? 0;
  const lastPasses = Math.floor((rig.passes.P ?? 0) / LAST_PASSES_AT);
  const left = Math.min(deepest, (rig.passes.R ?? 0) * rig.unit);
  const way = Math.sign(x / 2 - start[0]) || -1;
  const pass = (depth: number): void => {
    rig.repeat(1);
    const bottom = x / 2 - way * (deepest - depth);
    rapid(rig, [bottom + taper, start[1]]);
    rig.go("feed", whole([bottom, z]), BOTH, rig.lead());
    rapid(rig, [start[0], z]);
    rapid(rig, start);
  };
  let depth = 0;
  for (let n = 1; depth < deepest - left - 1e-9; n++) {
    depth = Math.min(deepest - left, Math.max(depth + least, chip * Math.sqrt(n)));
    pass(depth);
  }
  for (let i = 1; i <= lastPasses; i++) pass(deepest - left + (left * i) / lastPasses);
  if (lastPasses === 0 && left > 0) pass(deepest);
}

/** What a first block says for the second; null of a second one. */
export function passWordsOf(rig: Rig, code: number): PassWords | null {
  const { said } = rig;
  const isFirst =
    code <= 73 ? !(said.has("P") && said.has("Q")) : !["X", "Z", "U", "W"].some((letter) => said.has(letter));
  return isFirst ? said.all() : null;
}

export const isPecked = (code: number): boolean => code === PECKS_ALONG || code === PECKS_ACROSS;
