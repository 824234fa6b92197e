import { describe, expect, it } from "vitest";
import { openLane, type Command } from "@probe-lane/core/bench";
import { machineOf, machines } from "@probe-lane/core/exercises";
import { kitFor } from "../packages/core/machines/kits";
import { byHand, pageLanes, type PageLane } from "./lanes";
import { planned } from "./workThrough";

type Type = Command["type"];
/** On a bench with a mill, and on one with any of the lathes: the browser has one set of pieces for each. */
const benchOf = ({ exercise }: PageLane) => (machineOf(exercise) === "mill" ? "mill" : "lathe");

/** What a mill answers and its bench does not offer: a lathe has no line of sight to choose. */
const NOT_OFFERED: Record<"mill" | "lathe", readonly Type[]> = { mill: [], lathe: ["lookFrom"] };

function doneOn(bench: "mill" | "lathe"): Set<Type> {
  const lanes: PageLane[] = Object.values(pageLanes).filter((lane) => benchOf(lane) === bench);
  return new Set(
    lanes.flatMap((lane) => {
      const steps = planned(lane, openLane(lane.exercise, "by hand", false));
      const isByHand = byHand(lane, steps);
      return steps.flatMap(({ command }, at) => (isByHand[at] ? [command.type] : []));
    }),
  );
}

describe("what the browser tests do by hand", () => {
  for (const bench of ["mill", "lathe"] as const) {
    it(`is between them everything that can be asked on the bench of a ${bench}`, () => {
      const kinds = machines.filter((kind) => (kind === "mill") === (bench === "mill"));
      const asked = new Set(kinds.flatMap((kind) => Object.keys(kitFor(kind).decide) as Type[]));
      const done = doneOn(bench);
      const left = [...asked].filter((type) => !done.has(type) && !NOT_OFFERED[bench].includes(type));
      expect(left).toEqual([]);
    });
  }
  it("is a lane worked whole on every machine", () => {
    const whole = Object.values<PageLane>(pageLanes).filter(({ isWhole }) => isWhole);
    expect(new Set(whole.map(({ exercise }) => machineOf(exercise)))).toEqual(new Set(machines));
  });
});
