import type * as schema from "./schema";
import { mastersOf, setterMasters, setterOf, type Master } from "./names";
import { type MillAct, type MillDraft, type MillLane } from "../../lane";
import { type CommandOf } from "../../../commands";
import { type Decision } from "../../../act";
import { accept, refuse } from "../../../../result";
import { drawNormal } from "../../../../random";
import { probeLengthMm } from "../../cards";
import { isBroken } from "../../evidence";
import { trueLengthMm } from "../../solids";
import { mayCycle, seatedTop } from "../cycles";
import { effectiveRadiusMm } from "../probe/trigger";

/** A calibration finds its figure this well, mm. */
const FINDS_MM = 0.001;
const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** What a calibration comes to, mm, but for its own error. */
function foundMm(state: MillLane, { what, by }: CommandOf<"calibrate">): number {
  switch (what) {
    // in a ring what runs out to one side is taken from the other
    case "probeRadius":
      return (
        [1, -1]
          .flatMap((side) =>
            (["x", "y"] as const).map((axis) =>
              effectiveRadiusMm({ ...state, isBurrDressed: true }, axis, side === 1 ? 1 : -1),
            ),
          )
          .reduce((sum, mm) => sum + mm, 0) / 4
      );
    case "probeLength":
      return trueLengthMm(state);
    // what triggers it is as long as it is, and is counted as long as its card says
    case "setter":
      return by === "probe" ? seatedTop(state) + trueLengthMm(state) - probeLengthMm(state) : seatedTop(state);
  }
}

/** A calibration run by the control: what it finds is what is counted with from here on. */
function calibrate(draft: MillDraft, command: CommandOf<"calibrate">): Decision {
  const { state } = draft;
  const { what, by } = command;
  if (state.setup.hasMasters !== true) return refuse({ code: "noMastersHere" });
  const setter = setterOf(state.setup.instruments);
  if (what === "setter" && setter === null) return refuse({ code: "instrumentNotHere", instrument: "plungerSetter" });
  const allowed: readonly Master[] = what === "setter" && setter !== null ? setterMasters[setter] : mastersOf[what];
  if (!allowed.includes(by)) return refuse({ code: "notCalibratedBy", what, by });
  // nose and pin want an empty spindle: the pin is put in for the calibration and taken out after it
  const isEmptied = by === "nose" || by === "pin";
  if (isEmptied ? state.holds !== null : state.holds !== "probe")
    return refuse(isEmptied ? { code: "spindleHolds", thing: state.holds ?? "" } : { code: "notHeld", thing: "probe" });
  if (state.holds === "probe" && isBroken(state, "probe")) return refuse({ code: "instrumentBroken", thing: "probe" });
  const problem = mayCycle(state);
  if (problem) return refuse(problem);
  const number = state.desk.readingsMade + 1;
  const mm = round(
    foundMm(state, command) +
      drawNormal(0, FINDS_MM, state.truth.seed, "calibration", what, by, state.probe.longerMm, state.setter.shiftMm),
  );
  draft.emit({
    type: "readingShown",
    number,
    instrument: what === "setter" && setter !== null ? setter : "probe",
    what,
    values: { [FIGURES[what]]: mm },
    outcome: "found",
  });
  draft.emit({ type: "calibrated", what, by, mm });
  return accept(draft.events);
}

const FIGURES = { probeRadius: "radius", probeLength: "reach", setter: "trigger" } as const;

/** Probe and setter calibrated: what was measured by them before hangs on the old figure. */
export const calibration: MillAct<typeof schema> = {
  decide: { calibrate },
  evolve: { calibrated: (state, { what, mm }) => ({ ...state, cards: { ...state.cards, [what]: mm } }) },
  needsPower: ["calibrate"],
};
