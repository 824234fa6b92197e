import { describe, expect, it } from "vitest";
import { decide, evolve, foldFrom, observe, type Command, type Observation } from "@probe-lane/core/bench";
import { demoExercises } from "../../../../demo";
import { movedLanes } from "../../../../packages/core/test/secrets";
import { caption, heardBetween } from "./lane/sound";
import { benchKitFor } from "./machines";
import { turningDaylight, turningWindow } from "./machines/lathe/view";
import { nearestMm, ownZero, sceneWindows, towardPart } from "./machines/mill/view";

const WALK: readonly Command[] = [
  { type: "home" },
  { type: "jog", axis: "x", direction: -1, clicks: 30, size: "rapid" },
  { type: "jog", axis: "z", direction: -1, clicks: 7, size: "coarse" },
  { type: "startSpindle", direction: "forward", rpm: 600 },
  { type: "runBlock", text: "G53 G0 X-300 Y-150" },
  { type: "captureRegister", register: "G54.x", asText: "1.5" },
  { type: "stopSpindle" },
];

/** Everything that the picture makes of a look: camera, view in space, own zero, sound. */
function pictured(before: Observation, seen: Observation): unknown[] {
  const kit = benchKitFor(seen.kind);
  const noise = heardBetween(
    before,
    seen,
    JSON.stringify(kit.noticed(before)) !== JSON.stringify(kit.noticed(seen)),
    kit.sounds(seen),
  );
  const heard = [noise, caption(seen, noise)];
  const space = kit.picture.space(seen, seen.machine, null);
  if (seen.kind === "mill")
    return [
      ...heard,
      space,
      nearestMm(seen, seen.machine),
      towardPart(seen, seen.machine),
      ownZero(seen),
      ...(["contact", "near", "far"] as const).map((shown) => sceneWindows(seen, seen.machine, shown)),
    ];
  return [
    ...heard,
    space,
    turningDaylight(seen, seen.machine),
    ...(["contact", "near", "far"] as const).map((shown) => turningWindow(seen, seen.machine, shown)),
  ];
}

describe("what moves, sounds and stands in space", () => {
  it("is the same for two truths within one step of the eye, on every exercise", () => {
    let looks = 0;
    for (const { exercise } of demoExercises) {
      const [one, two] = movedLanes(exercise, "picture", 0.1).map((first) => {
        let state = evolve(null, first);
        let seen = observe(state, "student");
        const pictures = [pictured(seen, seen)];
        for (const command of WALK) {
          const decided = decide(state, command);
          if (decided.ok) state = foldFrom(state, decided.value);
          const next = observe(state, "student");
          pictures.push(pictured(seen, next));
          seen = next;
        }
        looks += pictures.length;
        return JSON.stringify(pictures);
      });
      expect(one, exercise.id).toBe(two);
    }
    expect(looks).toBeGreaterThan(500);
  });
});
