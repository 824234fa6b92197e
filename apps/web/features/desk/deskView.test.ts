import { describe, expect, it } from "vitest";
import { deskView, emptyForm, methodFigures, type DeskForm } from "./deskView";
import { figureWords, mistakeWords, causeName } from "@probe-lane/core/words";
import { mistakeIds } from "@probe-lane/core/diagnosis";

const form = (change: Partial<DeskForm>): DeskForm => ({ ...emptyForm, ...change });
const firstIds = (change: Partial<DeskForm>) =>
  deskView(form(change)).explained?.ranked[0]?.classes.map((members) => members[0]);

describe("a number and the mistake behind it", () => {
  it("says what it still needs", () => {
    expect(deskView(form({})).needs).toBe("held");
    expect(deskView(form({ held: "-334.672" })).needs).toBe("wanted");
    expect(deskView(form({ held: "-334.672", reading: "-334.666" })).needs).toBe("wanted");
  });
  it("from the reading: kick at −334.666, radius 5, moving plus, register −334.672", () => {
    expect(firstIds({ held: "-334.672", reading: "−334.666", approach: "plus", figures: { tipRadius: "5" } })).toEqual([
      "radiusForgotten",
    ]);
  });
  it("an error of one radius is known whatever half is empty", () => {
    // 5 too low with a tip of 10: left out if it moved plus, the diameter taken if it moved minus
    const open = deskView(form({ held: "-300", wanted: "-295", figures: { tipRadius: "5" } }));
    const named = open.either.map(({ approach, explained }) => [approach, explained.ranked[0]?.classes[0]?.[0]]);
    expect(named).toEqual([
      ["plus", "radiusForgotten"],
      ["minus", "diameterForRadius"],
    ]);
    // held is the reading: left out, whichever way the tip moved
    const same = deskView(form({ held: "-300", reading: "-300", figures: { tipRadius: "5" } }));
    expect(same.either.map(({ explained }) => explained.ranked[0]?.classes[0]?.[0])).toEqual([
      "radiusForgotten",
      "radiusForgotten",
    ]);
    expect(same.isReadingItself).toBe(true);
    // without the radius too
    expect(deskView(form({ held: "-300", reading: "-300" })).isReadingItself).toBe(true);
    expect(deskView(form({ held: "-295", reading: "-300" })).isReadingItself).toBe(false);
    // and nothing of it where the direction was said
    expect(
      deskView(form({ held: "-300", wanted: "-295", approach: "plus", figures: { tipRadius: "5" } })).either,
    ).toEqual([]);
  });
  it("two mistakes at once", () => {
    expect(
      firstIds({
        method: "mill-length",
        held: "-252.113",
        wanted: "-252.893",
        figures: { paper: ".08", facing: "0,7 mm" },
      }),
    ).toEqual(["paperForgotten", "facingForgotten"]);
  });
  it("the feeler counted once on a lathe, in inches too", () => {
    expect(firstIds({ method: "lathe-x", held: "-266.000", wanted: "-266.120", figures: { paper: "0.12" } })).toEqual([
      "feelerOnce",
    ]);
    expect(
      firstIds({
        method: "lathe-x",
        unit: "inch",
        held: "-10.4953",
        wanted: "-10.5",
        outside: "bore",
        figures: { paper: ".0047" },
      }),
    ).not.toEqual(["feelerOnce"]);
    expect(
      firstIds({
        method: "lathe-x",
        unit: "inch",
        held: "-10.5047",
        wanted: "-10.5",
        outside: "bore",
        figures: { paper: ".0047" },
      }),
    ).toEqual(["feelerOnce"]);
  });
  it("a library sign by the reading alone", () => {
    expect(firstIds({ method: "lathe-readout", held: "13.933", reading: "13.933" })?.[0]).toBe("librarySign");
  });
  it("equal signatures stand together, likeliest first", () => {
    const { explained } = deskView(
      form({ method: "lathe-x", held: "-266.077", wanted: "-266.177", figures: { paper: "0.1", oldWear: "0.1" } }),
    );
    expect(explained?.ranked[0]?.classes).toEqual([["feelerOnce", "oldWear"]]);
  });
  it("names the unreadable field, and works with the others", () => {
    const view = deskView(
      form({ held: "-5.0", wanted: "0", approach: "plus", figures: { tipRadius: "5", burr: "thick" } }),
    );
    expect(view.problems["burr"]).toContain("“thick” is not a length");
    expect(view.explained?.ranked[0]?.classes[0]?.[0]).toBe("radiusForgotten");
    expect(deskView(form({ held: "1/0" })).problems["held"]).toContain("divides by zero");
  });
  it("asks for the figure that would help most, and claims nothing of an odd number", () => {
    const { explained } = deskView(
      form({ method: "mill-length", held: "-250", wanted: "-251.37", figures: { paper: "0.08" } }),
    );
    expect(explained).toMatchObject({
      unexplained: true,
      wouldHelp: expect.stringMatching(/^(facing|leftoverWork|block)$/) as unknown,
    });
  });
  it("reads several neighbors", () => {
    expect(
      deskView(form({ method: "mill-length", held: "-237.63", wanted: "-252", figures: { neighbors: "14,37; -6.5" } }))
        .figures.neighbors,
    ).toEqual([14.37, -6.5]);
  });
  it("every figure and every mistake has its words", () => {
    for (const names of Object.values(methodFigures))
      for (const name of names) expect(figureWords[name].length).toBeGreaterThan(3);
    for (const id of mistakeIds) {
      expect(causeName(id).length).toBeGreaterThan(3);
      expect(mistakeWords[id].check).toMatch(/[.?]$/);
      expect(mistakeWords[id].equation({ approach: 1, outside: 1, neighbors: [1] }, String)).not.toMatch(
        /undefined|NaN/,
      );
    }
  });
});
