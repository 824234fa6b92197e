import { parseStringSync } from "gcode-parser";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { listMoves } from ".";

/** Plain moves by the words that a library of the registry reads: modes of motion and distance, feeds, ends. */
function byLibrary(text: string): { kind: string; to: (number | null)[]; feed: number | null }[] {
  let [motion, isStep, feed] = [0, false, NaN];
  const at: (number | null)[] = [null, null, null];
  return parseStringSync(text).flatMap(({ words }) => {
    const axes = new Map<number, number>();
    for (const [letter, value] of words) {
      if (letter === "G" && value <= 1) motion = value;
      if (letter === "G" && value >= 90) isStep = value === 91;
      if (letter === "F") feed = value;
      if ("XYZ".includes(letter)) axes.set("XYZ".indexOf(letter), value);
    }
    if (axes.size === 0) return [];
    const stepped = (from: number | null | undefined, by: number) => (typeof from === "number" ? from + by : null);
    for (const [axis, value] of axes) at[axis] = isStep ? stepped(at[axis], value) : value;
    return [{ kind: motion === 0 ? "rapid" : "feed", to: [...at], feed: motion === 0 ? null : feed }];
  });
}

const figure = fc.integer({ min: -99_999, max: 99_999 }).map((n) => n / 1000);
const spelled = fc.tuple(figure, fc.boolean()).map(([n, isPlain]) => (isPlain ? String(n) : n.toFixed(3)));
const block = fc
  .record({
    g: fc.constantFrom("G0", "G1", "G01", "g1", "", ""),
    distance: fc.constantFrom("G90", "G91", "", "", ""),
    x: fc.option(spelled, { nil: null }),
    y: fc.option(spelled, { nil: null }),
    z: fc.option(spelled, { nil: null }),
    f: fc.option(fc.integer({ min: 1, max: 3000 }), { nil: null }),
    note: fc.constantFrom("", "(a note)", "; to the end", "(G1 X9)"),
    number: fc.option(fc.integer({ min: 1, max: 9999 }), { nil: null }),
  })
  .map(({ g, distance, x, y, z, f, note, number }) =>
    [number && `N${number}`, distance, g, x && `X${x}`, y && `Y${y}`, z && `Z${z}`, f && `F${f}`, note]
      .filter(Boolean)
      .join(" "),
  );

describe("plain moves", () => {
  it("are the same as a general-purpose parser's words make them, in 500 programs", () => {
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 40 }), (blocks) => {
        const text = ["F100", "T1 M6", ...blocks].join("\n");
        const listing = listMoves(text, "mill", { startUnits: "mm" });
        if (!("moves" in listing)) throw new Error(JSON.stringify(listing));
        const ours = listing.moves.map(({ kind, to, feed }) => ({ kind, to: [...to], feed: feed?.value ?? null }));
        const theirs = byLibrary(text);
        expect(ours.length).toBe(theirs.length);
        ours.forEach((move, i) => {
          expect([move.kind, move.feed]).toEqual([theirs[i]?.kind, theirs[i]?.feed]);
          move.to.forEach((value, axis) => {
            const other = theirs[i]?.to[axis];
            if (value === null || other === null || other === undefined) expect(value).toBe(other);
            else expect(value).toBeCloseTo(other, 9);
          });
        });
      }),
      { numRuns: 500 },
    );
  });
});
