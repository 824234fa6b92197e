import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { interpret, type Move, readProgram } from ".";
import { courses, type Flat } from "./compensation";

const flat = (place: readonly number[]): Flat => [place[0] ?? 0, place[1] ?? 0];
function followed(text: string, radius: number) {
  const moves = [...interpret(readProgram(text, "mill"), { startUnits: "mm" })].filter(
    (step): step is Move => step.type === "move",
  );
  return courses(
    moves,
    (move) => ({ from: flat(move.from), to: flat(move.to), center: move.center, isClockwise: move.kind === "cw" }),
    () => radius,
  );
}
const ends = (text: string, radius: number) =>
  followed(text, radius).courses.map(({ own }) => own.to.map((value) => Math.round(value * 1e6) / 1e6));

const square = (side: 41 | 42) => `T1 M6\nG0 X-20 Y-20 Z0\nG1 G${side} D1 X0 Y0 F100\nY40\nX60\nY0\nX0\nG40 X-20 Y-20`;

describe("compensation", () => {
  it("begins square to the next piece, and rolls round outside corners: 5 to the left of a square gone clockwise", () => {
    // up the left side at X -5; at the corner (0, 40) from (-5, 40) to (0, 45)
    const { courses: all } = followed(square(41), 5);
    expect(all[1]?.own.to).toEqual([-5, 0]);
    expect(all[2]?.own.to).toEqual([-5, 40]);
    expect(all[3]?.roll).toMatchObject({ from: [-5, 40], to: [0, 45], center: [0, 40], isClockwise: true });
    expect(all.at(-1)?.own.from).toEqual([0, -5]);
  });
  it("meets inside corners: 5 to the right of the same way is a square of 50 by 30 within", () => {
    expect(ends(square(42), 5).slice(2, 5)).toEqual([
      [5, 35],
      [55, 35],
      [55, 5],
    ]);
  });
  it("makes an arc smaller inside and larger outside, about the same center", () => {
    const text = (side: number) => `T1 M6\nG0 X0 Y0 Z0\nG1 G${side} D1 X20 Y0 F100\nG3 X20 Y0 I-20 J0\nG1 G40 X0 Y0`;
    expect(ends(text(41), 5).slice(1, 3)).toEqual([
      [15, 0],
      [15, 0],
    ]);
    expect(ends(text(42), 5)[1]).toEqual([25, 0]);
  });
  it("tells an arc that is too small for the tool, and a step that it cannot get into", () => {
    const arc = "T1 M6\nG0 X0 Y0 Z0\nG1 G41 D1 X4 F100\nG3 X4 Y0 I-4 J0\nG1 G40 X0 Y0";
    expect(followed(arc, 5).problems).toEqual([{ line: 4, code: "arc-too-small" }]);
    const step = "T1 M6\nG0 X0 Y0 Z0\nG1 G41 D1 X0 Y10 F100\nX20\nY4\nX23\nY10\nX50\nG40 Y30";
    expect(followed(step, 5).problems.map(({ code }) => code)).toContain("gouge");
  });
  it("keeps every place of a closed contour at the radius from it", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 20, max: 60 }), (radius, size) => {
        const text = `T1 M6\nG0 X-30 Y-30 Z0\nG1 G41 D1 X0 Y0 F100\nY${size}\nX${size}\nY0\nX0\nG40 X-30`;
        const inner = followed(text, radius).courses.slice(2, 6);
        for (const { own } of inner) {
          const middle = [(own.from[0] + own.to[0]) / 2, (own.from[1] + own.to[1]) / 2] as const;
          const out = Math.max(-middle[0], -middle[1], middle[0] - size, middle[1] - size);
          expect(out).toBeCloseTo(radius, 9);
        }
      }),
    );
  });
});
