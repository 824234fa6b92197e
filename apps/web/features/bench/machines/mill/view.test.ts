import { millLane, type LaneDriver } from "@probe-lane/students";
import { findDemoExercise } from "../../../../../../demo";
import type { Command, MillSeen } from "@probe-lane/core/bench";
import { describe, expect, it } from "vitest";
import { shownFor } from "../../lane/camera";
import {
  across,
  depth,
  dialHands,
  leftOutMm,
  nearestMm,
  placeOf,
  sceneWindows,
  sensationOf,
  sheetLine,
  solidsOf,
  thingLabel,
  towardPart,
} from "./view";
import { gapLabel } from "../../lane/things";
import { millActs } from "./acts";

const lane = (id: string, ...commands: Command[]): LaneDriver<MillSeen> => {
  const made = millLane(findDemoExercise(id).exercise, "view");
  for (const command of commands) made.do(command);
  return made;
};
const labels = (made: LaneDriver<MillSeen>) =>
  millActs(made.seen)
    .filter(({ on }) => on !== "burr")
    .map(({ label }) => label);
/** What is still to be done before the first touch. */
const readyActs = (id: string) => millActs(lane(id).seen).filter(({ on }) => on === "burr");
const says = (made: LaneDriver<MillSeen>) => sensationOf(made.seen, made.seen.machine).strong;

describe("the four lines of sight", () => {
  it("opposite sides mirror what lies across, and turn round what is far", () => {
    for (const [a, b] of [
      ["front", "back"],
      ["left", "right"],
    ] as const) {
      expect(across(a, 3, 7) + across(b, 3, 7)).toBe(0);
      expect(depth(a, 3, 7) + depth(b, 3, 7)).toBe(0);
    }
    expect([across("front", 3, 7), depth("front", 3, 7)]).toEqual([3, 7]);
  });
});

describe("a dial's hands", () => {
  it.each([
    [0, "0.0", "at 0"],
    [-1, "0.0", "at −1"],
    [-0.62, "38.0", "between −1 and 0"],
    [0.25, "25.0", "between 0 and 1"],
    [-2, "0.0", "at −2"],
    [-1.75, "25.0", "between −2 and −1"],
  ])("%f mm: large hand %s, small hand %s", (mm, large, small) => {
    expect(dialHands(mm)).toEqual({ large, small });
  });
});

describe("what stands on the controls", () => {
  const open: Command[] = [{ type: "home" }, { type: "setDoor", isOpen: true }];
  it("is what the thing in the spindle can do, and nothing else", () => {
    expect(labels(lane("clamp-corner-taster", ...open, { type: "load", thing: "taster" }))).toEqual([
      "True the ball",
      "Turn by hand",
    ]);
    expect(labels(lane("clamp-middle-probe", ...open, { type: "load", thing: "probe" }))).toEqual(["Ask the probe …"]);
    expect(labels(lane("plate-bore-sweep", ...open, { type: "load", thing: "indicator" }))).toEqual(["Carry it round"]);
    expect(labels(lane("five-tools-block-in-wear", ...open, { type: "load", thing: "tool1" }))).toEqual([
      "Try gauge block 25.000",
      "Wipe the blocks",
    ]);
    expect(labels(lane("lengths-at-speed", ...open, { type: "load", thing: "tool1" }))).toEqual([
      "Stand the height gauge",
      "Ask the beam …",
      "Blow the tip clean",
    ]);
    expect(labels(lane("five-tools-plane-lift", ...open))).toEqual(["Place paper", "Stand the height gauge"]);
  });
  it("one open task is a button, several are a list, a screwed-down part can be tapped", () => {
    expect(readyActs("focuser-plate-lower-left")).toEqual([
      { label: "Dress burr", on: "burr", command: { type: "dressBurr" } },
    ]);
    expect(readyActs("bracket-cold-machine")[0]).toMatchObject({
      dialog: "ready",
      label: "Get ready … (8 open)",
    });
    expect(readyActs("plate-skewed")[0]).toMatchObject({ dialog: "ready" });
    expect(readyActs("five-tools-master")).toEqual([]);
  });
});

describe("what eye, ear and finger say", () => {
  it("names the thing, and what it stands over", () => {
    const made = lane(
      "five-tools-plane-lift",
      { type: "home" },
      { type: "setDoor", isOpen: true },
      { type: "load", thing: "tool3" },
    );
    expect(says(made)).toBe("tool 3 over the table");
    const { stock } = made.seen.boxes;
    made.do({ type: "setDoor", isOpen: false });
    made.do({
      type: "runBlock",
      text: `G53 G0 X${((stock.low.x + stock.high.x) / 2).toFixed(3)} Y${((stock.low.y + stock.high.y) / 2).toFixed(3)}`,
    });
    expect(says(made)).toBe("tool 3 over the part");
    made.do({ type: "setDoor", isOpen: true });
    made.do({ type: "standLamp" });
    expect(says(made)).toBe("tool 3 over the height gauge with lamp");
  });
  it("an indicator says how far opposite places differ, never where the axis is", () => {
    const made = lane(
      "plate-bore-sweep",
      { type: "home" },
      { type: "setDoor", isOpen: true },
      { type: "load", thing: "indicator" },
    );
    expect(sensationOf(made.seen, made.seen.machine)).toEqual({
      strong: "indicator at the bore",
      soft: "not carried round yet",
      isContact: false,
    });
  });
  it("labels carry the machine's own unit", () => {
    const { seen } = lane("inch-bracket");
    expect(thingLabel(seen, "tool1")).toBe("tool 1, end mill ⌀ 0.500");
    expect(gapLabel(seen, "paper")).toMatch(/^paper 0\.00[34]0$/);
    expect(sheetLine(seen)[0]).toBe("left edge is X 0.0000");
  });
});

describe("the camera", () => {
  const { seen } = lane("focuser-plate-lower-left");
  const stock = seen.boxes.stock;
  /** Machine counts that bring the tip to a place, mm. */
  const at = (x: number, y: number, tipZ: number) => ({
    x: Math.round(x * 1000),
    y: Math.round(y * 1000),
    z: Math.round((tipZ + seen.heldLengthMm) * 1000),
  });
  const middle = [(stock.low.x + stock.high.x) / 2, (stock.low.y + stock.high.y) / 2] as const;

  it("always holds the tip and the blank, from home to the contact, from every side", () => {
    for (const sight of ["front", "right", "back", "left"] as const)
      for (const machine of [at(0, 0, 0), at(-500, -350, -100), at(middle[0], middle[1], stock.high.z + 3)])
        for (const shown of ["near", "far"] as const) {
          const view = { ...seen, sight };
          const { x, y, tipZ } = placeOf(view, machine);
          const { plan, section } = sceneWindows(view, machine, shown);
          expect(x).toBeGreaterThan(plan.left);
          expect(x).toBeLessThan(plan.right);
          expect(y).toBeGreaterThan(plan.bottom);
          expect(y).toBeLessThan(plan.top);
          expect(across(sight, x, y)).toBeGreaterThan(section.left);
          expect(across(sight, x, y)).toBeLessThan(section.right);
          // a tip far above is drawn over a break
          expect(tipZ - leftOutMm(view, tipZ, shown)).toBeLessThan(section.top);
          expect(plan.right).toBeGreaterThan(stock.high.x);
          expect(section.bottom).toBeLessThan(stock.low.z);
        }
  });
  it("comes close by itself within 5 mm of daylight, and leaves only at 9", () => {
    const high = (mm: number) => nearestMm(seen, at(middle[0], middle[1], stock.high.z + mm));
    expect(high(4)).toBeCloseTo(4, 2);
    expect(shownFor("auto", high(6), "near")).toBe("near");
    expect(shownFor("auto", high(4), "near")).toBe("contact");
    expect(shownFor("auto", high(7), "contact")).toBe("contact");
    expect(shownFor("auto", high(10), "contact")).toBe("near");
    expect(shownFor("far", high(1), "near")).toBe("far");
  });
  it("says which key leads to the part: beside it sideways, over it down", () => {
    expect(towardPart(seen, at(stock.low.x - 8, middle[1], stock.high.z - 3))).toEqual([{ axis: "x", direction: 1 }]);
    expect(towardPart(seen, at(middle[0], stock.high.y + 8, stock.high.z - 3))).toEqual([{ axis: "y", direction: -1 }]);
    expect(towardPart(seen, at(middle[0], middle[1], stock.high.z + 8))).toEqual([{ axis: "z", direction: -1 }]);
    expect(towardPart(seen, at(middle[0], middle[1], stock.high.z - 1))).toEqual([]);
  });
});

describe("the drawing", () => {
  it("shows every solid, and its near window holds blank and vise or plate", () => {
    for (const id of [
      "focuser-plate-lower-left",
      "plate-skewed",
      "bracket-boss-sweep",
      "change-of-part",
      "five-tools-gauge-line",
    ]) {
      const { seen } = lane(id);
      expect(
        solidsOf(seen)
          .map(({ name }) => name)
          .sort(),
      ).toEqual(Object.keys(seen.solids).sort());
      const { plan } = sceneWindows(seen, seen.machine, "near");
      expect(plan.left).toBeLessThan(seen.boxes.stock.low.x);
      expect(plan.top).toBeGreaterThan(seen.boxes.stock.high.y);
    }
  });
});
