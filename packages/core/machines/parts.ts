import { readWhereItLies, verdictOf, type PartVerdict } from "../inspection/features";
import { featuresBy, type FeatureCut } from "./firstPart";
import { latheProgramPorts } from "./lathe/program";
import { millProgramPorts } from "./mill/program";
import { type LaneState } from "./kits";
import { type ProgramGauged, type ProgramRun } from "../lane/programDesk";
import { type LaneBase } from "../lane/state";
import { Course, runsOnPart } from "./program/course";
import { type ProgramPorts } from "./program/ports";
import { cutsOn, partSizesMm } from "./program/parts";
import { halfSectionCut, halfSectionSeen, type HalfSection } from "./lathe/partPicture";
import { reliefCut, reliefSeen, type Relief } from "./mill/partPicture";

/** What every feature of a part really is after it was cut so often, mm; null of one that is not cut. */
const sizesMm = (state: LaneState, part: number, cuts: number): (number | null)[] =>
  state.kind === "mill"
    ? partSizesMm(millProgramPorts, state, part, cuts)
    : partSizesMm(latheProgramPorts, state, part, cuts);

/** A part as it came out of a run: which one, how often it had been cut, and its features as they really are. */
export interface PartCut {
  readonly part: number;
  readonly cut: number;
  readonly features: readonly {
    readonly name: string;
    readonly actualMm: number | null;
    readonly verdict: PartVerdict;
  }[];
}

const known = new WeakMap<object, readonly PartCut[]>();

/**
 * Every part of a lane after each run that cut it, in their order; none where no part is measured. Reads the truth: for
 * lanes that were handed in.
 */
export function partsCut(state: LaneState): readonly PartCut[] {
  const { setup, program } = state;
  if (setup.blanks === undefined) return [];
  const found = known.get(program.done);
  if (found) return found;
  const all = Array.from({ length: program.parts.current }, (_, at) => at + 1).flatMap((part) =>
    runsOnPart(program, part).map((_, before): PartCut => {
      const sizes = sizesMm(state, part, before + 1);
      return {
        part,
        cut: before + 1,
        features: (setup.features ?? []).map((feature, at) => {
          const actualMm = sizes[at] ?? null;
          return { name: feature.name, actualMm, verdict: verdictOf(feature, actualMm) };
        }),
      };
    }),
  );
  known.set(program.done, all);
  return all;
}

/** What moves a feature, and what it would measure if nothing gave way, wore or grew warm. */
export type StillCut = Pick<FeatureCut, "movedBy" | "actualMm">;

const still = new WeakMap<object, ReadonlyMap<string, StillCut>>();

/**
 * Each feature of a part by the registers that it was last cut with, by its name; none where that run would not have
 * come to its end.
 */
export function stillCut({ program }: LaneState, part: number): ReadonlyMap<string, StillCut> {
  const run = runsOnPart(program, part).at(-1);
  if (!run) return new Map();
  const found = still.get(run);
  if (found) return found;
  const before = run.before as LaneState;
  const isWhole = program.done.some((one) => one.run === run && one.why === "end");
  const gauged = program.gauged.filter((one) => one.part === part && one.cut === runsOnPart(program, part).length);
  const text = before.program.held?.lines.join("\n") ?? "";
  const cut = isWhole ? featuresBy(before, text, (of) => stillRays(of, run, gauged)) : [];
  const all = new Map(cut.map((one) => [one.name, one]));
  still.set(run, all);
  return all;
}

/** Rays through what a run would cut with other registers, if nothing gave way, wore or grew warm. */
function stillRays(
  of: LaneState,
  { fromLine, isUnread }: Pick<ProgramRun, "fromLine" | "isUnread">,
  gauged: readonly ProgramGauged[],
) {
  const rays = <S extends LaneBase>(ports: ProgramPorts<S>, lane: S) => {
    const before = { ...lane, truth: { ...lane.truth, cutting: undefined } };
    return ports.rays([{ before, ways: new Course(ports, before, fromLine, isUnread, gauged).cutTo(Infinity, 0) }]);
  };
  return of.kind === "mill" ? rays(millProgramPorts, of) : rays(latheProgramPorts, of);
}

/** What every feature would be if the program that is held were run on the part now, mm. */
export function sizesOfRun(state: LaneState): readonly (number | null)[] {
  const sizes = <S extends LaneBase>(ports: ProgramPorts<S>, before: S) => {
    const course = new Course(ports, before, 0);
    const rays = ports.rays([{ before, ways: course.cutTo(Infinity, 0) }]);
    const frame = course.frame();
    const off = frame === null ? [] : ports.putsOff(before, frame);
    return (before.setup.features ?? []).map((feature) =>
      rays ? readWhereItLies(feature, ports.axes, rays, off) : null,
    );
  };
  return state.kind === "mill" ? sizes(millProgramPorts, state) : sizes(latheProgramPorts, state);
}

/** What moves each feature of the part that the program that is held cuts, nothing giving way. */
export const movedOfRun = (state: LaneState): readonly FeatureCut[] =>
  featuresBy(state, state.program.held?.lines.join("\n") ?? "", (of) =>
    stillRays(of, { fromLine: 0, isUnread: false }, []),
  );

/** A part as it is drawn after it was cut. */
export type PartPicture = Relief | HalfSection;

/**
 * The part that is held; null where nothing was run on it. As an eye sees it, or exactly as it came out: for who may
 * know, an instructor at any time and a student after the hand-in.
 */
export function partPicture(state: LaneState, isExact = false): PartPicture | null {
  const { current } = state.program.parts;
  if (runsOnPart(state.program, current).length === 0) return null;
  if (state.kind === "mill") return (isExact ? reliefCut : reliefSeen)(state, cutsOn(millProgramPorts, state, current));
  return (isExact ? halfSectionCut : halfSectionSeen)(state, cutsOn(latheProgramPorts, state, current));
}
