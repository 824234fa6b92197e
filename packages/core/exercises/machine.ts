import type { Exercise } from "./schema";

/** The machines that exercises are worked on, in the order in which a class meets them. */
export const machines = ["mill", "turret", "readout", "gang"] as const;
export type Machine = (typeof machines)[number];
export const machineOf = ({ lathe }: Pick<Exercise, "lathe">): Machine => lathe?.control ?? "mill";
