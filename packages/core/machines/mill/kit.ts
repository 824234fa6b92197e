import type { SetupTask } from "../../exercises/schools";
import { laneDecides } from "../../lane/decides";
import { lookedAfter, seatedAgain } from "../../lane/programDesk";
import { laneEvolves } from "../../lane/state";
import type { Decides, EvolvesOf } from "../act";
import type { EventOf } from "../events";
import { standing, type Kit } from "../kit";
import { beamSetter } from "./acts/beamSetter/act";
import { blank } from "./acts/blank/act";
import { block } from "./acts/block/act";
import { calibration } from "./acts/calibration/act";
import { edgeFinder, finderAfter, seesKick } from "./acts/edgeFinder/act";
import { handMeasures } from "./acts/handMeasures/act";
import { kept } from "./acts/kept/act";
import { holder } from "./acts/holder/act";
import { indicator, sweep } from "./acts/indicator/act";
import { lampGauge } from "./acts/lampGauge/act";
import { paper } from "./acts/paper/act";
import { plungerSetter } from "./acts/plungerSetter/act";
import { points } from "./acts/points/act";
import { presetter } from "./acts/presetter/act";
import { probe } from "./acts/probe/act";
import { taster } from "./acts/taster/act";
import { touch } from "./acts/touch/act";
import { runBlock } from "./block";
import { isPlaceLooked } from "./checking";
import { millStep } from "./coach";
import { seenScene } from "./eye";
import { toolNumber } from "../../instruments/things";
import { evidenceOfReading, withContactSeen, withRegisterSet, withToolSuspect } from "./evidence";
import { millGates } from "./gates";
import { program } from "./program";
import { openedMill, type MillAct, type MillLane, type Senses } from "./lane";
import { jog, millSenses, referenceReturn } from "./motion";
import { millSeen, type MillSeen } from "./observe";
import { millRules } from "./rules";
import { type MillCommandName, type MillEventName } from "./schemas";
import { tellingOf } from "../told";

const senseOf = (acts: readonly Pick<MillAct<never>, "senses">[]): Senses[] =>
  acts.flatMap(({ senses }) => (senses ? [senses] : []));
/** What stands in the gap is felt before anything hard is; then what hangs in the spindle or is pressed by it. */
const senses = millSenses(senseOf([block, paper]), senseOf([edgeFinder, taster, probe, lampGauge, plungerSetter]));
/** What ends when the spindle is drawn up and away. */
const retracted = [edgeFinder, taster, probe, lampGauge, plungerSetter, touch].flatMap((act) => act.retracted ?? []);

const fromLane = laneEvolves<MillLane>();

/** An instrument lost with the spindle started on it, or in the changer. */
const isLost = ({ code, thing }: EventOf<"incidentHappened">) =>
  thing !== undefined && (code === "startedWithInstrument" || code === "changerStruck");
const BREAKS = new Set(["tasterBroken", "probeBroken", "indicatorBroken"]);

function withIncident(before: MillLane, event: EventOf<"incidentHappened">): MillLane {
  const { code, thing, shorterMm = 0, shiftMm = 0 } = event;
  const state = fromLane.incidentHappened(before, event);
  const { harm } = state;
  const isBroken = thing !== undefined && (BREAKS.has(code) || isLost(event));
  const free = (name: "taster" | "probe") => isBroken && thing === name;
  // what was run into something is trusted again when it has been set anew
  const suspect = code.startsWith("ranInto") ? toolNumber(thing ?? null) : null;
  const shorter = thing && shorterMm > 0 ? { [thing]: (harm.shorterMm[thing] ?? 0) + shorterMm } : {};
  return {
    ...state,
    finder: finderAfter(state, event),
    evidence: suspect === null ? state.evidence : withToolSuspect(state.evidence, suspect),
    taster: free("taster") ? { ...state.taster, touch: null } : state.taster,
    probe: free("probe") ? { ...state.probe, touch: null } : state.probe,
    lamp: code === "gaugeDamaged" ? { ...state.lamp, lowMm: state.lamp.lowMm + shiftMm } : state.lamp,
    setter: code === "setterDamaged" ? { ...state.setter, shiftMm: state.setter.shiftMm + shiftMm } : state.setter,
    harm: {
      shorterMm: { ...harm.shorterMm, ...shorter },
      broken: isBroken && !harm.broken.includes(thing) ? [...harm.broken, thing] : harm.broken,
    },
  };
}

function withLook(state: MillLane, { side, isOverZero }: EventOf<"lookedFrom">): MillLane {
  const { finder } = state;
  const isNewlySeen =
    finder.tip === "aside" && finder.kickAxis !== null && !finder.isKickSeen && seesKick(side, finder.kickAxis);
  const evidence = isNewlySeen && finder.kickAxis ? withContactSeen(state.evidence, finder.kickAxis) : state.evidence;
  const isNew = isOverZero && !evidence.sidesOverZero.includes(side);
  return {
    ...state,
    sight: side,
    finder: isNewlySeen ? { ...finder, isKickSeen: true } : finder,
    evidence: isNew ? { ...evidence, sidesOverZero: [...evidence.sidesOverZero, side] } : evidence,
  };
}

/** A place that changes after it was looked at from over it has to be looked at again. */
function withRegister(before: MillLane, event: EventOf<"registerChanged">): MillLane {
  const state = withRegisterSet(fromLane.registerChanged(before, event), event);
  const { evidence, checking } = state;
  const isStale = event.from !== event.to && evidence.sidesOverZero.length > 0 && isPlaceLooked(before, event.register);
  return isStale
    ? {
        ...state,
        evidence: { ...evidence, sidesOverZero: [] },
        checking: {
          ...checking,
          withdrawn: [...checking.withdrawn, { check: "overZero", register: event.register }],
        },
      }
    : state;
}

function withModal(before: MillLane, event: EventOf<"modalChanged">): MillLane {
  const state = fromLane.modalChanged(before, event);
  return event.rotationDeg !== undefined && state.evidence.angleReadings > 0
    ? { ...state, evidence: { ...state.evidence, isAngleSet: true } }
    : state;
}

const isInstrument = (thing: MillLane["holds"]): boolean => thing !== null && toolNumber(thing) === null;

/** What hangs in the spindle or sits in a pocket has to be looked at again after it was changed. */
function lookedAtAgain(state: MillLane, by: "spindle" | "pockets", isChanged = true): MillLane {
  const after = isChanged ? lookedAfter(state.program, by) : state.program;
  return after === state.program ? state : { ...state, program: after };
}

/** What was seen beside a part holds for as long as it lies so. */
function seenAgain(before: MillLane, state: MillLane): MillLane {
  const after = before.seat === state.seat ? state.program : seatedAgain(state.program);
  return after === state.program ? state : { ...state, program: after };
}

const withTask = (done: readonly SetupTask[], task: SetupTask): readonly SetupTask[] =>
  done.includes(task) ? done : [...done, task];

const decide = {
  ...laneDecides(millRules),
  ...holder.decide,
  ...edgeFinder.decide,
  ...taster.decide,
  ...paper.decide,
  ...block.decide,
  ...lampGauge.decide,
  ...beamSetter.decide,
  ...probe.decide,
  ...plungerSetter.decide,
  ...presetter.decide,
  ...handMeasures.decide,
  ...blank.decide,
  ...calibration.decide,
  ...points.decide,
  ...program.decide,
  reset: program.reset(laneDecides(millRules).reset),
  ...kept.decide,
  sweep,
  home: (draft) => referenceReturn(retracted, draft),
  jog: (draft, command) => jog(senses, draft, command),
  runBlock: (draft, command) => runBlock(senses, millRules, draft, command),
} satisfies Decides<MillLane, MillCommandName>;

const evolve = {
  ...fromLane,
  ...holder.evolve,
  loaded: (state, event) => lookedAtAgain(holder.evolve.loaded(state, event), "spindle", isInstrument(event.thing)),
  unloaded: (state, event) => lookedAtAgain(holder.evolve.unloaded(state, event), "spindle", isInstrument(state.holds)),
  pocketsSwapped: (state, event) => lookedAtAgain(holder.evolve.pocketsSwapped(state, event), "pockets"),
  ...edgeFinder.evolve,
  ...taster.evolve,
  ...touch.evolve,
  ...paper.evolve,
  ...block.evolve,
  ...lampGauge.evolve,
  ...beamSetter.evolve,
  ...blank.evolve,
  taskDone: (state, event) => seenAgain(state, blank.evolve.taskDone(state, event)),
  parallelsChanged: (state, event) => seenAgain(state, blank.evolve.parallelsChanged(state, event)),
  partTapped: (state, event) => seenAgain(state, blank.evolve.partTapped(state, event)),
  ...calibration.evolve,
  ...points.evolve,
  ...kept.evolve,
  ...program.evolve,
  registerChanged: withRegister,
  readingShown: (state, event) => ({
    ...fromLane.readingShown(state, event),
    tasksDone: event.what === "jaw" ? withTask(state.tasksDone, "sweepJaw") : state.tasksDone,
    evidence: evidenceOfReading(state.evidence, event),
  }),
  lookedFrom: withLook,
  modalChanged: withModal,
  incidentHappened: withIncident,
} satisfies EvolvesOf<MillLane, MillEventName>;

/** The mill: every act of it, and what it says of itself. */
export const millKit: Kit<MillLane, MillSeen> = {
  opened: (event) => openedMill(event as Parameters<typeof openedMill>[0]),
  decide,
  evolve,
  ...standing([holder, beamSetter, probe, plungerSetter, calibration, kept, program]),
  rules: millRules,
  gates: millGates,
  seen: millSeen,
  coach: millStep,
  drawn: seenScene,
  tells: tellingOf([
    edgeFinder,
    taster,
    probe,
    indicator,
    paper,
    block,
    lampGauge,
    plungerSetter,
    beamSetter,
    presetter,
    touch,
  ]),
};
