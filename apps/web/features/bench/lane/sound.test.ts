import { LaneDriver } from "@probe-lane/students";
import { describe, expect, it } from "vitest";
import { findDemoExercise } from "../../../../../demo";
import { caption, heardBetween, humHz } from "./sound";

describe("what is heard", () => {
  const lane = new LaneDriver(findDemoExercise("focuser-plate-lower-left").exercise, "sound");
  const still = lane.seen;
  lane.do({ type: "home" });
  const home = lane.seen;
  lane.do({ type: "jog", axis: "x", direction: -1, clicks: 3, size: "rapid" });
  const moved = lane.seen;

  it("is a tick for a move, a knock for what is felt, a thud for what is struck, and nothing for nothing", () => {
    expect(heardBetween(still, still, false)).toBeNull();
    expect(heardBetween(home, moved, false)).toBe("tick");
    expect(heardBetween(home, moved, true)).toBe("touch");
    expect(heardBetween(home, { ...moved, incidents: ["noseStruck"] }, true)).toBe("crash");
  });
  it("tells what drags, flutters and cuts by sounds of their own, and only while something moves", () => {
    expect(heardBetween(home, moved, false, "rustle")).toBe("rustle");
    expect(heardBetween(home, moved, true, "cut")).toBe("touch");
    expect(heardBetween(home, home, false, "cut")).toBeNull();
  });
  it("stands in words", () => {
    expect(caption(moved, "tick")).toBe("tick");
    expect(caption({ ...moved, spindle: { isOn: true, rpm: 600, direction: "forward" } }, "touch")).toBe(
      "hum at 600, a soft knock",
    );
  });
  it("hums higher the faster it turns, between what a loudspeaker gives", () => {
    expect(humHz(600)).toBe(80);
    expect(humHz(100)).toBe(70);
    expect(humHz(20_000)).toBe(900);
  });
  it("hangs on what is seen and on nothing else: the same two looks sound the same", () => {
    const copy = (seen: typeof moved) => JSON.parse(JSON.stringify(seen)) as typeof moved;
    expect(heardBetween(copy(home), copy(moved), false)).toBe(heardBetween(home, moved, false));
  });
});
