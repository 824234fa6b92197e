import type { IncidentCode } from "../bench";
import type { CauseId } from "../diagnosis";
import type { Target } from "../exercises";
import type { MethodStep } from "../grading";
import type { LanePattern, MachinePattern, ValueMet } from "./lane";

/** A lane by the name that whoever asks knows it by, with what its ruling says. */
export interface Met {
  readonly lane: string;
  readonly pattern: LanePattern | MachinePattern;
}

/** One mistake, the lanes in which the log shows it, and those in which it is only likely. */
export interface MistakeMade {
  readonly id: CauseId;
  readonly made: readonly string[];
  readonly likely: readonly string[];
}

/** One value over all lanes: where each fell, and where the mistakes that somebody made would have put it, mm. */
export interface ValueSpread {
  readonly target: Target;
  readonly toleranceMm: number;
  readonly dots: readonly { readonly lane: string; readonly closureMm: number; readonly isRight: boolean }[];
  readonly lines: readonly { readonly id: CauseId; readonly mm: number; readonly lanes: number }[];
}

export interface ClassPatterns {
  /** What most lanes have first. */
  readonly mistakes: readonly MistakeMade[];
  readonly values: readonly ValueSpread[];
  readonly incidents: readonly { readonly code: IncidentCode; readonly lanes: readonly string[] }[];
  readonly missed: readonly { readonly step: MethodStep; readonly lanes: readonly string[] }[];
}

const isBench = (pattern: Met["pattern"]): pattern is LanePattern => "values" in pattern;

/** Lanes by what each of them has, each once; what most have first, then by name. */
function counted<K extends string>(has: readonly (readonly [K, string])[]): { key: K; lanes: string[] }[] {
  const found = new Map<K, Set<string>>();
  for (const [key, lane] of has) found.set(key, (found.get(key) ?? new Set()).add(lane));
  return [...found]
    .map(([key, lanes]) => ({ key, lanes: [...lanes] }))
    .sort((a, b) => b.lanes.length - a.lanes.length || a.key.localeCompare(b.key));
}

const middle = (figures: readonly number[]): number =>
  figures.toSorted((a, b) => a - b)[Math.floor(figures.length / 2)] ?? 0;

function spreadOf(met: readonly { readonly lane: string; readonly value: ValueMet }[]): ValueSpread[] {
  const ids = [...new Set(met.map(({ value }) => value.target.id))];
  return ids.flatMap((id): ValueSpread[] => {
    const own = met.filter(({ value }) => value.target.id === id);
    const [first] = own;
    if (!first || first.value.target.unit === "choice") return [];
    const { target, toleranceMm } = first.value;
    const behind = counted(
      own.flatMap(({ lane, value }) => [...value.made, ...value.likely].map((cause) => [cause, lane] as const)),
    );
    const lines = behind.flatMap(({ key, lanes }) => {
      // a mistake that turns either way is drawn where those who made it were
      const at = own.filter(({ lane }) => lanes.includes(lane)).flatMap(({ value }) => nearest(value, key));
      return at.length === 0 ? [] : [{ id: key, mm: middle(at), lanes: lanes.length }];
    });
    return [
      {
        target,
        toleranceMm,
        dots: own.map(({ lane, value }) => ({ lane, closureMm: value.closureMm, isRight: value.isRight })),
        lines,
      },
    ];
  });
}

/** Where a mistake would have put a value, of several ways the nearest to where it was; none where nobody knows. */
function nearest({ lines, closureMm }: ValueMet, id: CauseId): number[] {
  const ways = lines.filter((line) => line.id === id).map(({ mm }) => mm);
  return ways.toSorted((a, b) => Math.abs(a - closureMm) - Math.abs(b - closureMm)).slice(0, 1);
}

/** What a class gets wrong: every lane counts once for each thing, however often it has it. */
export function patternsOf(lanes: readonly Met[]): ClassPatterns {
  const bench = lanes.flatMap(({ lane, pattern }) => (isBench(pattern) ? [{ lane, pattern }] : []));
  const values = bench.flatMap(({ lane, pattern }) => pattern.values.map((value) => ({ lane, value })));
  const proven = counted(values.flatMap(({ lane, value }) => value.made.map((id) => [id, lane] as const)));
  const inferred = counted([
    ...values.flatMap(({ lane, value }) => value.likely.map((id) => [id, lane] as const)),
    ...lanes.flatMap(({ lane, pattern }) => (isBench(pattern) ? [] : pattern.likely.map((id) => [id, lane] as const))),
  ]);
  const mistakes = [...new Set([...proven, ...inferred].map(({ key }) => key))].map((id): MistakeMade => {
    const made = proven.find(({ key }) => key === id)?.lanes ?? [];
    const likely = (inferred.find(({ key }) => key === id)?.lanes ?? []).filter((lane) => !made.includes(lane));
    return { id, made, likely };
  });
  const size = ({ made, likely }: MistakeMade): number => made.length + likely.length;
  return {
    mistakes: mistakes.sort((a, b) => size(b) - size(a) || b.made.length - a.made.length || a.id.localeCompare(b.id)),
    values: spreadOf(values),
    incidents: counted(
      bench.flatMap(({ lane, pattern }) => pattern.incidents.map((code) => [code, lane] as const)),
    ).map(({ key, lanes: own }) => ({ code: key, lanes: own })),
    missed: counted(bench.flatMap(({ lane, pattern }) => pattern.missed.map((step) => [step, lane] as const))).map(
      ({ key, lanes: own }) => ({ step: key, lanes: own }),
    ),
  };
}
