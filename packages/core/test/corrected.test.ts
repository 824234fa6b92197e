import { describe, expect, it } from "vitest";
import { demoExercises, findDemoExercise } from "../../../demo";
import { correctedParts } from "../bench";
import { exerciseSchema, type Exercise } from "../exercises";

const seeds = (count: number) => Array.from({ length: count }, (_, at) => `seed ${at}`);
const knob = findDemoExercise("knob-first-part").exercise;

/** The knob with other springs, wear and warmth. */
function knobThat(cutting: NonNullable<NonNullable<Exercise["program"]>["cutting"]>): Exercise {
  return exerciseSchema.parse({ ...knob, program: { ...knob.program, cutting } });
}

describe("a first part that is put right", () => {
  it("makes a good second one on every exercise of the demo that measures parts", () => {
    const measured = demoExercises.filter(({ exercise }) => exercise.program?.blanks !== undefined);
    expect(measured.length).toBeGreaterThan(4);
    for (const { exercise } of measured)
      expect(correctedParts(exercise, seeds(6)), exercise.id).toMatchObject({ lanes: 6, good: 6, worst: null });
  });

  it("was off before on the knob, whatever its seed: there is something to measure on every lane", () => {
    expect(correctedParts(knob, seeds(40))).toMatchObject({ goodAtOnce: 0, good: 40 });
  });

  it("is good at once where nothing gives way, wears or grows warm", () => {
    const still = knobThat({ springPerMm: [0, 0], springCapMm: 0, wearMm: [0, 0], warmMm: [0, 0] });
    expect(correctedParts(still, seeds(3))).toEqual({ lanes: 3, goodAtOnce: 3, good: 3, worst: null });
  });

  it("cannot be put right where an edge wears more in one part than its tolerance is wide, and that feature is told", () => {
    // 0.1 of the radius a part: a diameter grows by 0.2 from one part to the next, and may be 0.06 off in all
    const worn = knobThat({ springPerMm: [0, 0], springCapMm: 0, wearMm: [0.1, 0.1], warmMm: [0, 0] });
    expect(correctedParts(worn, seeds(3))).toMatchObject({
      good: 0,
      worst: expect.stringMatching(/diameter|shoulder/) as unknown,
    });
  });

  it("is nothing where no part is measured", () => {
    expect(correctedParts(findDemoExercise("knob-program-first").exercise, seeds(1))).toBeNull();
    expect(correctedParts(findDemoExercise("focuser-plate-lower-left").exercise, seeds(1))).toBeNull();
  });
});
