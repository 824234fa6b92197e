import { readWhereItLies, type RunsClear } from "../../inspection/features";
import { type Draft } from "../../lane/draft";
import { canRead, GROWS_PER_DEGREE, partInstruments, WARMER_BY, type PartInstrument } from "../../lane/partNames";
import { type PartFigure, type ProgramDesk } from "../../lane/programDesk";
import { type LaneBase } from "../../lane/state";
import { drawBetween, drawNormal } from "../../random";
import { accept, refuse, type Result } from "../../result";
import { type Refusal } from "../../lane/refusals";
import { parseLengthMm } from "../../units";
import { type Decision } from "../act";
import { type CommandOf } from "../commands";
import { type EventOf } from "../events";
import { courseOf, runsOnPart } from "./course";
import { type ProgramPorts } from "./ports";

type Features = NonNullable<LaneBase["setup"]["features"]>;
type Feature = Features[number];

const INITIALS = /^\p{L}{1,4}$/u;
/** The least that a stack of blocks or a plug is made in, mm. */
const LEAST_GAUGE_MM = 1;

const rounded = (mm: number, step: number): number => Math.round(Math.round(mm / step) * step * 1e6) / 1e6;

/** How often the part that is held was cut. */
export const cutsOf = ({ program }: Pick<LaneBase, "program">): number =>
  runsOnPart(program, program.parts.current).length;

/** What the first `cuts` runs on a part went and cut, all of them where that is not said. */
export const cutsOn = <S extends LaneBase>(ports: ProgramPorts<S>, { program }: S, part: number, cuts?: number) =>
  runsOnPart(program, part)
    .slice(0, cuts)
    .map((run) => ({ before: run.before as S, ways: courseOf(ports, run).cutTo(run.piece, run.alongMm) }));

/** What the last run on a part left of it: rays through it, kept as long as its log is. */
const looked = new WeakMap<object, RunsClear | null>();

/** What the first `cuts` runs on a part left of it, looked through by rays; null where nothing was run on it. */
function raysOfPart<S extends LaneBase>(
  ports: ProgramPorts<S>,
  state: S,
  part: number,
  cuts: number,
): RunsClear | null {
  const last = runsOnPart(state.program, part)[cuts - 1];
  if (!last) return null;
  const known = looked.get(last);
  if (known !== undefined) return known;
  const rays = ports.rays(cutsOn(ports, state, part, cuts));
  looked.set(last, rays);
  return rays;
}

/**
 * What every feature of a part really is after so many runs on it, in the order of the sheet; null of one that is not
 * cut, or not met.
 */
export function partSizesMm<S extends LaneBase>(
  ports: ProgramPorts<S>,
  state: S,
  part: number,
  cuts: number,
  features: Features = state.setup.features ?? [],
): (number | null)[] {
  const rays = raysOfPart(ports, state, part, cuts);
  const run = runsOnPart(state.program, part)[cuts - 1];
  if (!rays || !run) return features.map(() => null);
  const frame = courseOf(ports, run).frame();
  const off = frame === null ? [] : ports.putsOff(run.before as S, frame);
  return features.map((feature) => readWhereItLies(feature, ports.axes, rays, off));
}

/** Whether hands may be at the part: nothing turns, the door is open. */
function handsProblem({ spindle, isDoorOpen }: LaneBase): Refusal | null {
  if (spindle.isOn) return { code: "spindleTurning" };
  return isDoorOpen ? null : { code: "doorShutReach" };
}

/** The act of the parts that programs cut: measured, called what they are, the next blank taken. */
export function partAct<S extends LaneBase>(ports: ProgramPorts<S>) {
  const isTurned = ports.dialect === "lathe";

  /** A feature that can be read with an instrument as things stand, with what it really is, mm. */
  function readable(
    state: S,
    name: string,
    instrument: PartInstrument,
  ): Result<{ readonly feature: Feature; readonly reallyMm: number }, Refusal> {
    if (state.setup.blanks === undefined) return refuse({ code: "partsNotMeasured" });
    const problem = handsProblem(state);
    if (problem) return refuse(problem);
    if (cutsOf(state) === 0) return refuse({ code: "partNotCut" });
    const feature = state.setup.features?.find((one) => one.name === name);
    if (!feature) return refuse({ code: "featureNotHere", name });
    if (!canRead(instrument, feature, isTurned)) return refuse({ code: "doesNotMeasureThat", by: instrument });
    const [reallyMm = null] = partSizesMm(ports, state, state.program.parts.current, cutsOf(state), [feature]);
    return reallyMm === null ? refuse({ code: "featureNotCut", name }) : accept({ feature, reallyMm });
  }

  /**
   * What an instrument meets there: one draw for each part as it was cut, feature and instrument. Plugs err by what
   * they are, on every part.
   */
  function metMm(state: S, { name, nominalMm }: Feature, instrument: PartInstrument, reallyMm: number): number {
    const { current, isWarm } = state.program.parts;
    const key = instrument === "plug" ? ["plugs"] : ["part", current, cutsOf(state), name, instrument];
    const warmer = isWarm ? drawBetween(WARMER_BY.low, WARMER_BY.high, state.truth.seed, "warm part", current) : 0;
    const grown = Math.abs(nominalMm) * GROWS_PER_DEGREE * warmer;
    return reallyMm + grown + drawNormal(0, partInstruments[instrument].errorMm, state.truth.seed, ...key);
  }

  const fact = (
    state: S,
    figure: Pick<PartFigure, "feature" | "with" | "mm" | "goes" | "reallyMm">,
  ): EventOf<"partMeasured"> => ({
    type: "partMeasured",
    part: state.program.parts.current,
    cut: cutsOf(state),
    isWarm: state.program.parts.isWarm,
    ...figure,
    reallyMm: rounded(figure.reallyMm, 1e-4),
  });

  function measurePart({ state }: Draft<S>, { feature: name, with: instrument }: CommandOf<"measurePart">): Decision {
    const found = readable(state, name, instrument);
    if (!found.ok) return found;
    const { feature, reallyMm } = found.value;
    const mm = rounded(metMm(state, feature, instrument, reallyMm), partInstruments[instrument].stepMm);
    return accept([fact(state, { feature: name, with: instrument, mm, reallyMm })]);
  }

  function tryGauge({ state }: Draft<S>, { feature: name, with: instrument, text }: CommandOf<"tryGauge">): Decision {
    const read = parseLengthMm(text, state.setup.unit);
    if (!read.ok) return refuse({ code: "text", problem: read.error });
    if (read.value < LEAST_GAUGE_MM) return refuse({ code: "gaugeTooLittle" });
    const found = readable(state, name, instrument);
    if (!found.ok) return found;
    const { feature, reallyMm } = found.value;
    const mm = rounded(read.value, partInstruments[instrument].stepMm);
    const goes = mm <= metMm(state, feature, instrument, reallyMm);
    return accept([fact(state, { feature: name, with: instrument, mm, goes, reallyMm })]);
  }

  function judgePart({ state }: Draft<S>, { verdict }: CommandOf<"judgePart">): Decision {
    const { parts } = state.program;
    const cut = cutsOf(state);
    if (state.setup.blanks === undefined) return refuse({ code: "partsNotMeasured" });
    if (cut === 0) return refuse({ code: "partNotCut" });
    if (!parts.figures.some((one) => one.part === parts.current && one.cut === cut))
      return refuse({ code: "figureFirst" });
    return accept([{ type: "partJudged", part: parts.current, cut, verdict }]);
  }

  function takeBlank({ state }: Draft<S>): Decision {
    const { blanks } = state.setup;
    if (blanks === undefined) return refuse({ code: "partsNotMeasured" });
    const problem = handsProblem(state);
    if (problem) return refuse(problem);
    if (cutsOf(state) === 0) return refuse({ code: "partNotCut" });
    const { current } = state.program.parts;
    return current >= blanks
      ? refuse({ code: "noBlankLeft", blanks })
      : accept([{ type: "blankTaken", part: current + 1 }]);
  }

  function saveSetup({ state }: Draft<S>, { initials, isConfirmed }: CommandOf<"saveSetup">): Decision {
    const { parts, held } = state.program;
    if (state.setup.blanks === undefined) return refuse({ code: "partsNotMeasured" });
    const said = parts.judged.findLast(({ part, cut }) => part === parts.current && cut === cutsOf(state));
    if (said?.verdict !== "good" || !held) return refuse({ code: "goodPartFirst" });
    const by = initials.replaceAll(/[\s.]/g, "").toUpperCase();
    if (!INITIALS.test(by)) return refuse({ code: "initialsUnread" });
    if (parts.saved && !isConfirmed) return refuse({ code: "savedAlready", initials: parts.saved.initials });
    return accept([{ type: "setupSaved", initials: by, part: parts.current, program: held.as }]);
  }

  const on = (state: S, change: Partial<ProgramDesk["parts"]>): S => ({
    ...state,
    program: { ...state.program, parts: { ...state.program.parts, ...change } },
  });

  return {
    decide: {
      measurePart,
      tryGauge,
      judgePart,
      takeBlank,
      saveSetup,
      letCool: ({ state }: Draft<S>): Decision =>
        state.program.parts.isWarm ? accept([{ type: "partCooled" }]) : refuse({ code: "partIsCool" }),
    },
    evolve: {
      partMeasured: (state: S, { type: _type, ...figure }: EventOf<"partMeasured">) =>
        on(state, { figures: [...state.program.parts.figures, figure] }),
      partCooled: (state: S) => on(state, { isWarm: false }),
      partJudged: (state: S, { type: _type, ...one }: EventOf<"partJudged">) =>
        on(state, { judged: [...state.program.parts.judged, one] }),
      setupSaved: (state: S, { initials, part, program }: EventOf<"setupSaved">) =>
        on(state, { saved: { initials, part, program, registers: state.registers } }),
      blankTaken: (state: S, { part }: EventOf<"blankTaken">) => on(state, { current: part, isWarm: false }),
    },
  };
}
