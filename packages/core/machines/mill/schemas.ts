import type { z } from "zod";
import type { laneCommands, laneEvents } from "../../lane/schemas";
import type * as program from "../program/schema";
import * as beamSetter from "./acts/beamSetter/schema";
import * as blank from "./acts/blank/schema";
import * as block from "./acts/block/schema";
import * as calibration from "./acts/calibration/schema";
import * as edgeFinder from "./acts/edgeFinder/schema";
import * as handMeasures from "./acts/handMeasures/schema";
import * as kept from "./acts/kept/schema";
import * as holder from "./acts/holder/schema";
import * as lampGauge from "./acts/lampGauge/schema";
import * as paper from "./acts/paper/schema";
import * as points from "./acts/points/schema";
import * as plungerSetter from "./acts/plungerSetter/schema";
import * as presetter from "./acts/presetter/schema";
import * as probe from "./acts/probe/schema";
import * as taster from "./acts/taster/schema";
import * as touch from "./acts/touch/schema";

/** What a mill can be asked besides what every lane can, what can happen on it, and what can go wrong. */
export const millCommands = [
  ...holder.commands,
  ...edgeFinder.commands,
  ...taster.commands,
  ...paper.commands,
  ...block.commands,
  ...lampGauge.commands,
  ...beamSetter.commands,
  ...probe.commands,
  ...plungerSetter.commands,
  ...presetter.commands,
  ...handMeasures.commands,
  ...blank.commands,
  ...touch.commands,
  ...calibration.commands,
  ...points.commands,
  ...kept.commands,
] as const;

export const millEvents = [
  ...holder.events,
  ...edgeFinder.events,
  ...taster.events,
  ...touch.events,
  ...calibration.events,
  ...points.events,
  ...kept.events,
  ...paper.events,
  ...block.events,
  ...lampGauge.events,
  ...beamSetter.events,
  ...blank.events,
  ...handMeasures.events,
  ...plungerSetter.events,
  ...presetter.events,
  ...probe.events,
] as const;

export const millIncidents = {
  ...holder.incidents,
  ...edgeFinder.incidents,
  ...taster.incidents,
  ...probe.incidents,
  indicatorBroken: 0.4,
  ...paper.incidents,
  ...block.incidents,
  ...lampGauge.incidents,
  ...plungerSetter.incidents,
  ...beamSetter.incidents,
  ...blank.incidents,
  ...handMeasures.incidents,
  ...presetter.incidents,
  ...touch.incidents,
  ...calibration.incidents,
  ...points.incidents,
  ...kept.incidents,
} as const;

type NameIn<T extends readonly z.ZodType<{ type: string }>[]> = z.infer<T[number]>["type"];
/** Everything that a mill has to answer, and every fact that it has to fold: what is missing does not compile. */
export type MillCommandName =
  NameIn<typeof millCommands> | NameIn<typeof laneCommands> | NameIn<typeof program.commands>;
export type MillEventName =
  NameIn<typeof millEvents> | NameIn<typeof laneEvents> | NameIn<typeof program.events> | "incidentHappened";
