import { neverTurns, toolName, type Thing } from "../../instruments/things";
import { type MillLane } from "./lane";

/** The thing that stands in a pocket: a tool, or the probe where one of the pockets is its own. */
export const thingIn = ({ gauging }: MillLane["setup"], content: number): Thing =>
  content === gauging?.pocket ? "probe" : toolName(content);

/** What never turns is in the changer's way, unless it was brought by it. */
export const isInChangersWay = ({ holds, carried }: Pick<MillLane, "holds" | "carried">): boolean =>
  holds !== null && neverTurns(holds) && !carried.isByChanger;
