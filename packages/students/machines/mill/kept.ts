import { toolName } from "@probe-lane/core/instruments";
import type { KeptChangeKind, KeptThing } from "@probe-lane/core/exercises";
import type { RegisterId } from "@probe-lane/core/registers";
import type { MillBench } from "../../bench";
import type { Habits } from "../../habits";
import { findEdge } from "./edges";
import { bySetter, set, setDiameters, touch } from "./lengths";
import { moveTo } from "../../moves";
import { swapTo } from "./moves";

type Row = {
  readonly thing: KeptThing;
  readonly tool?: number | undefined;
  readonly change: KeptChangeKind | "unlike" | null;
};

/** What hangs on a line of the card that is not as it was: what somebody knows who has set such a machine. */
function hangsOn({ change, tool }: Row, diameters: readonly number[]): RegisterId[] {
  switch (change) {
    case "viseMoved":
      return ["G54.x", "G54.y", "G54.z"];
    case "stopMoved":
      return ["G54.x"];
    case "otherParallels":
      return ["G54.z"];
    case "newCutter":
      return [`H${tool}`, ...(diameters.includes(tool ?? 0) ? [`D${tool}`] : [])] as RegisterId[];
    case "setDeeper":
      return [`H${tool}` as RegisterId];
    case "unlike":
    case null:
      return [];
  }
}

/** Compares the card with today, names what is touched again, and takes the setup back. */
export function takeBack(lane: MillBench, { namesOfKept }: Habits): void {
  const { kept, targets } = lane.seen.sheet;
  if (!kept) return;
  const right = [...new Set(kept.rows.flatMap((row) => hangsOn(row, targets.diameters)))];
  const named = { nothing: [], everything: kept.registers.map(({ register }) => register), right };
  lane.do({ type: "nameStale", registers: named[namesOfKept ?? "right"] });
  lane.do({ type: "takeSetupBack" });
}

/** Touches again what was named, in the order of the work. */
export function touchAgain(lane: MillBench, habits: Habits): void {
  const named = lane.seen.program?.kept.named ?? [];
  const { sheet } = lane.seen;
  for (const axis of ["x", "y"] as const)
    if (named.includes(`G54.${axis}`)) {
      swapTo(lane, "edgeFinder");
      findEdge(lane, axis, habits);
    }
  for (const tool of sheet.tools)
    if (named.includes(`H${tool.number}` as RegisterId)) {
      swapTo(lane, toolName(tool.number));
      set(lane, `H${tool.number}` as RegisterId, bySetter(lane, tool, habits));
    }
  const diameters = sheet.targets.diameters.filter((tool) => named.includes(`D${tool}` as RegisterId));
  setDiameters(lane, habits, diameters);
  if (named.includes("G54.z")) {
    moveTo(lane, { z: 0 });
    swapTo(lane, null);
    const { z, t } = touch(lane, "stock", "paper", "G54.z");
    set(lane, "G54.z", z - t - sheet.facingAllowanceMm);
  }
}
