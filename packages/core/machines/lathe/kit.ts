import type { LatheKind } from "../../exercises/schools";
import { laneDecides } from "../../lane/decides";
import { laneEvolves } from "../../lane/state";
import type { Decides, EvolvesOf } from "../act";
import type { EventOf } from "../events";
import { standing, type Kit } from "../kit";
import { arm } from "./acts/arm/act";
import { axisHeight } from "./acts/axisHeight/act";
import { chuck } from "./acts/chuck/act";
import { cone } from "./acts/cone/act";
import { fit } from "./acts/fit/act";
import { gang } from "./acts/gang/act";
import { gap } from "./acts/gap/act";
import { height } from "./acts/height/act";
import { indicator, sweepShank } from "./acts/indicator/act";
import { insert } from "./acts/insert/act";
import { power } from "./acts/power/act";
import { readout } from "./acts/readout/act";
import { station } from "./acts/station/act";
import { turning } from "./acts/turning/act";
import { runTurretBlock } from "./block";
import { latheStep } from "./coach";
import { withMeasured, withTurretSet } from "./evidence";
import { latheGates } from "./gates";
import { program } from "./program";
import { openedTurning, type TurningLane } from "./lane";
import { jog, referenceReturn } from "./motion";
import { turningSeen, type TurningSeen } from "./observe";
import { latheRules } from "./rules";
import type { LatheCommandName, LatheEventName } from "./schemas";
import { tellingOf } from "../told";

const fromLane = laneEvolves<TurningLane>();

/** A tool that was run into something: nothing that was found of it holds any more. */
function withSuspect(state: TurningLane): TurningLane {
  const { lathe } = state;
  const { evidence, station: tool } = lathe;
  const not = { [tool]: false };
  return {
    ...state,
    lathe: {
      ...lathe,
      evidence: {
        ...evidence,
        xTouched: { ...evidence.xTouched, [tool]: 0 },
        zTouched: { ...evidence.zTouched, [tool]: 0 },
        isXSet: { ...evidence.isXSet, ...not },
        isZSet: { ...evidence.isZSet, ...not },
      },
    },
  };
}

/** An insert that was chipped cuts badly until another edge sits in its pocket. */
function withChipped(before: TurningLane, event: EventOf<"incidentHappened">): TurningLane {
  const after = fromLane.incidentHappened(before, event);
  const state = event.code.startsWith("ranInto") ? withSuspect(after) : after;
  const { chipped, station } = state.lathe;
  return event.code === "insertChipped" && !chipped.includes(station)
    ? { ...state, lathe: { ...state.lathe, chipped: [...chipped, station] } }
    : state;
}

const evolve = {
  ...fromLane,
  ...station.evolve,
  ...turning.evolve,
  ...height.evolve,
  ...gap.evolve,
  ...chuck.evolve,
  ...arm.evolve,
  ...readout.evolve,
  ...gang.evolve,
  ...power.evolve,
  ...fit.evolve,
  ...axisHeight.evolve,
  ...cone.evolve,
  ...insert.evolve,
  ...program.evolve,
  incidentHappened: withChipped,
  registerChanged: (state, event) => {
    const after = fromLane.registerChanged(state, event);
    return { ...after, lathe: withTurretSet(after.lathe, event.register) };
  },
  readingShown: (state, event) => {
    const after = fromLane.readingShown(state, event);
    const isFound = event.outcome === undefined || event.outcome === "found";
    return { ...after, lathe: withMeasured(after.lathe, event.what, isFound) };
  },
} satisfies EvolvesOf<TurningLane, LatheEventName>;

/** What all lathes answer, with the rules of one of them. */
const shared = (kind: LatheKind) => ({
  ...laneDecides(latheRules(kind)),
  ...station.decide,
  ...gap.decide,
  ...chuck.decide,
  ...turning.decide,
  ...height.decide,
  ...fit.decide,
  ...axisHeight.decide,
  ...insert.decide,
  sweep: sweepShank,
  jog,
});

/** What a machine under power adds: it knows where it is, and reads blocks. */
const powered = (kind: LatheKind) =>
  ({
    home: referenceReturn,
    runBlock: (draft, command) => runTurretBlock(latheRules(kind), draft, command),
  }) satisfies Partial<Decides<TurningLane, LatheCommandName>>;

const decides = {
  turret: {
    ...shared("turret"),
    ...powered("turret"),
    ...arm.decide,
    ...cone.decide,
    ...power.decide,
    ...program.decide,
    reset: program.reset(laneDecides(latheRules("turret")).reset),
  },
  readout: { ...shared("readout"), ...readout.decide },
  gang: { ...shared("gang"), ...powered("gang"), ...gang.decide },
};
// a command of the lathes that none of them answers does not compile
void ({ ...decides.turret, ...decides.readout, ...decides.gang } satisfies Decides<TurningLane, LatheCommandName>);

const kitOf = (kind: LatheKind, decide: Kit<TurningLane, TurningSeen>["decide"]): Kit<TurningLane, TurningSeen> => ({
  opened: (event) => openedTurning(event as Parameters<typeof openedTurning>[0]),
  decide,
  evolve,
  ...standing([program]),
  rules: latheRules(kind),
  gates: latheGates,
  seen: turningSeen,
  coach: latheStep,
  drawn: () => null,
  tells: tellingOf([turning, indicator, arm, readout, gang, gap]),
});

/** The lathes: a turret, a hand-wound post under a readout, a gang slide over a bar. */
export const latheKits = {
  turret: kitOf("turret", decides.turret),
  readout: kitOf("readout", decides.readout),
  gang: kitOf("gang", decides.gang),
};
