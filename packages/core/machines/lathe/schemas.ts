import type { z } from "zod";
import type { laneCommands, laneEvents } from "../../lane/schemas";
import type * as program from "../program/schema";
import * as arm from "./acts/arm/schema";
import * as axisHeight from "./acts/axisHeight/schema";
import * as chuck from "./acts/chuck/schema";
import * as cone from "./acts/cone/schema";
import * as fit from "./acts/fit/schema";
import * as gang from "./acts/gang/schema";
import * as gap from "./acts/gap/schema";
import * as height from "./acts/height/schema";
import * as insert from "./acts/insert/schema";
import * as station from "./acts/station/schema";
import * as power from "./acts/power/schema";
import * as readout from "./acts/readout/schema";
import * as turning from "./acts/turning/schema";

/** What the lathes can be asked besides what every lane can, what can happen on them, and what can go wrong. */
export const latheCommands = [
  ...station.commands,
  ...gap.commands,
  ...arm.commands,
  ...chuck.commands,
  ...turning.commands,
  ...height.commands,
  ...readout.commands,
  ...gang.commands,
  ...power.commands,
  ...fit.commands,
  ...axisHeight.commands,
  ...cone.commands,
  ...insert.commands,
] as const;

export const latheEvents = [
  ...station.events,
  ...turning.events,
  ...height.events,
  ...gap.events,
  ...chuck.events,
  ...arm.events,
  ...readout.events,
  ...gang.events,
  ...power.events,
  ...fit.events,
  ...axisHeight.events,
  ...cone.events,
  ...insert.events,
] as const;

export const latheIncidents = {
  ...turning.incidents,
  ...arm.incidents,
  ...gang.incidents,
  ...axisHeight.incidents,
  ...chuck.incidents,
  ...cone.incidents,
  ...fit.incidents,
  ...gap.incidents,
  ...height.incidents,
  ...insert.incidents,
  ...station.incidents,
  ...power.incidents,
  ...readout.incidents,
} as const;

type NameIn<T extends readonly z.ZodType<{ type: string }>[]> = z.infer<T[number]>["type"];
/** Everything that the lathes have to answer between them, and every fact that a lathe has to fold. */
export type LatheCommandName =
  NameIn<typeof latheCommands> | NameIn<typeof laneCommands> | NameIn<typeof program.commands>;
export type LatheEventName =
  NameIn<typeof latheEvents> | NameIn<typeof laneEvents> | NameIn<typeof program.events> | "incidentHappened";
