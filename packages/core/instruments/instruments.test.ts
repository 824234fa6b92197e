import { describe, expect, it } from "vitest";
import {
  DIRT_MM,
  drawApproach,
  drawBeamApproach,
  drawBendMm,
  drawChip,
  drawOwnKickMm,
  drawPretravel,
  drawProbeApproach,
  drawSetterApproach,
  drawStylusRunout,
  drawTaperDirt,
  drawTasterApproach,
  drawTasterRunout,
  drawThicknessMm,
  drawTry,
  feelAt,
  gapKinds,
  goesUnder,
  hasKicked,
  heldAs,
  instrumentName,
  instrumentNames,
  isFelt,
  isThing,
  kickPastAt,
  lateOnEdgeBreakMm,
  neverTurns,
  overTravel,
  readByHand,
  readEnds,
  readPresetter,
  runoutAlong,
  setterMissMm,
  shapes,
  slowByMm,
  sweepReadings,
  tasterDial,
  toolName,
  toolNumber,
  wobbleAt,
} from ".";
import { drawLampApproach } from "./lampGauge";

const many = Array.from({ length: 3000 }, (_, i) => `seed ${i}`);

/** Mean, deviation, least and most of one draw over many seeds. */
function spread(draw: (seed: string) => number): { mean: number; deviation: number; least: number; most: number } {
  const values = many.map(draw);
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const deviation = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length);
  return { mean, deviation, least: Math.min(...values), most: Math.max(...values) };
}

describe("what an instrument brings with it, over three thousand lanes, mm", () => {
  it.each<[string, (seed: string) => number, number, number]>([
    ["plunger setter, an approach", (seed) => drawSetterApproach(seed, 3), 0, 0.001],
    ["beam setter, an approach", (seed) => drawBeamApproach(seed, 3), 0, 0.001],
    ["lamp gauge, an approach", (seed) => drawLampApproach(seed, 3), 0, 0.001],
    ["spindle probe, an approach", (seed) => drawProbeApproach(seed, 3), 0, 0.001],
    ["spindle probe, runout along X", (seed) => drawStylusRunout(seed, "x"), 0, 0.001],
    ["lever taster, an approach", (seed) => drawTasterApproach(seed, 3), 0, 0.002],
    ["gauge block, one try", (seed) => drawTry(seed, 3), 0, 0.001],
    ["paper of 0.1", (seed) => drawThicknessMm("paper", 0.1, seed, "a"), 0.1, 0.003],
    ["feeler of 0.05", (seed) => drawThicknessMm("feeler", 0.05, seed, "a"), 0.05, 0.003],
    ["gauge block of 50", (seed) => drawThicknessMm("block", 50, seed, "a"), 50, 0.0005],
    ["gauge pin of 8", (seed) => drawThicknessMm("pin", 8, seed, "a"), 8, 0.0005],
    ["caliper", (seed) => readByHand(25, "caliper", seed, "a"), 25, 0.0123],
    ["micrometer", (seed) => readByHand(25, "micrometer", seed, "a"), 25, 0.002],
    ["rule", (seed) => readByHand(25, "rule", seed, "a"), 25, 0.247],
    ["presetter", (seed) => readPresetter(120, seed, "a"), 120, 0.002],
    ["edge finder, its own kick", (seed) => drawOwnKickMm(seed, 1), 0.005, 0.00198],
    [
      "edge finder, an approach of one that kicks at 5",
      (seed) => drawApproach(seed, 1, 2, 0.005).kickPastMm,
      0.005,
      0.0007,
    ],
  ])("%s", (_, draw, mean, deviation) => {
    const seen = spread(draw);
    expect(Math.abs(seen.mean - mean)).toBeLessThan(0.07 * deviation);
    expect(seen.deviation / deviation).toBeGreaterThan(0.93);
    expect(seen.deviation / deviation).toBeLessThan(1.07);
  });

  it.each<[string, (seed: string) => number, number, number]>([
    ["a chip on a tip", (seed) => drawChip(seed, "tool1"), 0.03, 0.09],
    ["dirt in the taper", drawTaperDirt, 0.025, 0.06],
    ["a bent finder", (seed) => drawBendMm(seed, 1, 4), 0.03, 0.07],
    ["pre-travel of the probe", drawPretravel, 0.008, 0.016],
    ["runout of the taster", (seed) => drawTasterRunout(seed).runoutMm, 0.02, 0.06],
    ["where an approach is over", (seed) => drawApproach(seed, 1, 2, 0.005).overMm, 0.6, 1],
    ["the first step of a wobble", (seed) => drawApproach(seed, 1, 2, 0.005).thresholdsMm[0]!, 0.3375, 0.5625],
    ["the last step of a wobble", (seed) => drawApproach(seed, 1, 2, 0.005).thresholdsMm[5]!, 0.006, 0.01],
    ["a kick too fast, its size", (seed) => Math.abs(drawApproach(seed, 1, 2, 0.005).scatterMm!), 0.012, 0.045],
  ])("%s lies between two figures, evenly", (_, draw, low, high) => {
    const { mean, least, most } = spread(draw);
    const width = high - low;
    expect(least).toBeGreaterThanOrEqual(low - 1e-9);
    expect(most).toBeLessThanOrEqual(high + 1e-9);
    expect(least).toBeLessThan(low + 0.02 * width);
    expect(most).toBeGreaterThan(high - 0.02 * width);
    expect(Math.abs(mean - (low + high) / 2)).toBeLessThan(0.03 * width);
  });

  it("nothing averages out: an instrument reads one thing at one place the same, another place anew", () => {
    expect(readByHand(25, "caliper", "s", "bar")).toBe(readByHand(25, "caliper", "s", "bar"));
    expect(
      spread((seed) => Number(readByHand(25, "micrometer", seed, "a") === readByHand(25, "micrometer", seed, "b")))
        .mean,
    ).toBeLessThan(0.3);
    expect(spread((seed) => drawSetterApproach(seed, 1) - drawSetterApproach(seed, 2)).deviation).toBeGreaterThan(
      0.001,
    );
    expect(spread((seed) => drawOwnKickMm(seed, 1) - drawOwnKickMm(seed, 2)).deviation).toBeGreaterThan(0.002);
  });
  it("reads as fine as its scale: hundredths, thousandths, half millimetres", () => {
    for (const seed of many.slice(0, 200)) {
      expect(readByHand(25.123, "caliper", seed, "a") * 100).toBeCloseTo(
        Math.round(readByHand(25.123, "caliper", seed, "a") * 100),
        6,
      );
      expect(
        readByHand(25.123, "rule", seed, "a") * 2 - Math.round(readByHand(25.123, "rule", seed, "a") * 2),
      ).toBeCloseTo(0, 9);
      expect(readPresetter(25.1234, seed, "a") * 1000).toBeCloseTo(
        Math.round(readPresetter(25.1234, seed, "a") * 1000),
        6,
      );
    }
  });
  it("a kick comes on either side when it turns too fast, and paper is never less than half of what it is sold as", () => {
    const sides = many.map((seed) => Math.sign(drawApproach(seed, 1, 2, 0.005).scatterMm!));
    expect(Math.abs(sides.reduce((sum, side) => sum + side, 0))).toBeLessThan(200);
    expect(spread((seed) => drawThicknessMm("feeler", 0.01, seed, "a")).least).toBe(0.005);
    expect(spread((seed) => drawApproach(seed, 1, 2, 0.0001).kickPastMm).least).toBe(0);
  });
  it("a taster leans to each quarter as often", () => {
    for (const quarter of [0, 1, 2, 3])
      expect(Math.abs(many.filter((seed) => drawTasterRunout(seed).leansTo === quarter).length - 750)).toBeLessThan(
        100,
      );
  });
});

describe("edge finder", () => {
  const steps = [0.45, 0.2, 0.1, 0.05, 0.02, 0.008];
  it.each([
    [0.451, "wide"],
    [0.45, "large"],
    [0.2, "middling"],
    [0.101, "middling"],
    [0.1, "small"],
    [0.05, "slight"],
    [0.02, "shiver"],
    [0.0081, "shiver"],
    [0.008, "true"],
    [-0.004, "true"],
  ])("at a gap of %f it runs %s", (gap, runs) => {
    expect(wobbleAt(gap, steps)).toBe(runs);
  });
  it("kicks five micrometres past tangency, three times as late below its rating, never standing still", () => {
    expect(hasKicked(-0.0049, 0.005, 800)).toBe(false);
    expect(hasKicked(-0.005, 0.005, 800)).toBe(true);
    expect(hasKicked(-0.005, 0.005, 400)).toBe(true);
    expect(hasKicked(-0.0149, 0.005, 399)).toBe(false);
    expect(hasKicked(-0.015, 0.005, 399)).toBe(true);
    expect(hasKicked(-0.5, 0.005, 0)).toBe(false);
    expect(slowByMm(0.005, 399)).toBeCloseTo(0.01, 9);
    expect(slowByMm(0.005, 400)).toBe(0);
  });
  it("kicks off its place only above its rating", () => {
    const approach = { number: 1, kickPastMm: 0.005, overMm: 0.8, thresholdsMm: steps, scatterMm: -0.02 };
    expect(kickPastAt(approach, 1200)).toBe(0.005);
    expect(kickPastAt(approach, 1201)).toBeCloseTo(-0.015, 9);
    expect(kickPastAt({ ...approach, scatterMm: undefined }, 3000)).toBe(0.005);
  });
  it("bends past half its radius, and breaks past the whole of it", () => {
    expect(overTravel(-2.5, 5)).toBe("none");
    expect(overTravel(-2.51, 5)).toBe("bent");
    expect(overTravel(-5, 5)).toBe("bent");
    expect(overTravel(-5.01, 5)).toBe("broken");
    expect(overTravel(1, 5)).toBe("none");
  });
  it("is late on an edge break by what it does not reach below", () => {
    expect(lateOnEdgeBreakMm(0.2, 0.5)).toBeCloseTo(0.3, 9);
    expect(lateOnEdgeBreakMm(0.6, 0.5)).toBe(0);
  });
});

describe("what goes between", () => {
  it.each([
    [0.101, "slides"],
    [0.1, "drags"],
    [0.071, "drags"],
    [0.0699, "held"],
    [0.041, "held"],
    [0.0399, "pinched"],
    [0.001, "pinched"],
    [0, "torn"],
    [-0.02, "torn"],
  ])("paper of 0.1 in a gap of %f: %s", (gap, feel) => {
    expect(feelAt(gap, 0.1)).toBe(feel);
  });
  it("fingers feel paper and feelers; blocks and pins go or do not", () => {
    expect(gapKinds.map(isFelt)).toEqual([true, true, false, false]);
    expect(goesUnder(50, 50, 0, 0)).toBe(true);
    expect(goesUnder(49.9999, 50, 0, 0)).toBe(false);
    expect(goesUnder(50.015, 50, 0, DIRT_MM.low)).toBe(true);
    expect(goesUnder(50.015, 50, 0.006, DIRT_MM.low)).toBe(false);
    expect(goesUnder(50.015, 50, 0, DIRT_MM.high)).toBe(false);
  });
});

describe("plunger setter: what it misses for where the tool met it, mm", () => {
  it.each<[Parameters<typeof setterMissMm>, number | null]>([
    // a face mill of 50: its ring is 6 wide, the plunger 10 in radius, so 9 to 35 is where a tooth meets it
    [["faceMill", 50, 0, true], -3],
    [["faceMill", 50, 8.99, true], -3],
    [["faceMill", 50, 9, true], 0],
    [["faceMill", 50, -20, true], 0],
    [["faceMill", 50, 20, false], -0.012],
    [["faceMill", 50, 35, true], 0],
    [["faceMill", 50, 35.01, true], null],
    [["endMill", 10, 0, true], 0],
    [["endMill", 10, 0, false], -0.006],
    [["endMill", 10, -15, true], 0],
    [["endMill", 10, 15.01, true], null],
    [["drill", 8, 0.49, true], 0],
    [["drill", 8, 0.5, true], -0.3],
    [["drill", 8, 10, true], -2.4],
    [["drill", 8, 10.01, true], null],
    [["spotDrill", 10, -2, false], -2],
    [["spotDrill", 10, 9, false], -5],
  ])("%j: %s", (met, missed) => {
    if (missed === null) expect(setterMissMm(...met)).toBeNull();
    else expect(setterMissMm(...met)).toBeCloseTo(missed, 9);
  });
});

describe("lever taster and indicator", () => {
  it.each([
    [0, 0, 0, 0.04],
    [0, 0, 2, -0.04],
    [0, 0, 1, 0],
    [3, 0, 1, -0.04],
    [1, 1, 2, 0.04],
    [3, 1, 0, 0.04],
    [0, 0, 3, 0],
  ])("leaning to %d, turned by %d, along %d: %f", (leansTo, quarter, direction, along) => {
    expect(runoutAlong(0.04, leansTo, quarter, direction)).toBeCloseTo(along, 9);
  });
  it("rests two turns before its zero, and is read to a fifth of a division", () => {
    expect(tasterDial(-7)).toBe(-2);
    expect(tasterDial(-0.4711)).toBe(-0.472);
    expect(tasterDial(0.0009)).toBe(0);
    expect(tasterDial(0.0011)).toBe(0.002);
  });
  it("half the difference of opposite readings is how far the axis stands off, in a bore; the other way on a boss", () => {
    for (const seed of many.slice(0, 100)) {
      const bore = sweepReadings([0.3, -0.1], "bore", seed, 1)!;
      expect(Math.abs((bore[0] - bore[2]) / 2 - 0.3)).toBeLessThan(0.004);
      expect(Math.abs((bore[1] - bore[3]) / 2 + 0.1)).toBeLessThan(0.004);
      const boss = sweepReadings([0.3, -0.1], "boss", seed, 1)!;
      expect(Math.abs((boss[0] - boss[2]) / 2 + 0.3)).toBeLessThan(0.004);
      expect(Math.abs((boss[1] - boss[3]) / 2 - 0.1)).toBeLessThan(0.004);
    }
    expect(spread((seed) => sweepReadings([0, 0], "bore", seed, 1)![0])).toMatchObject({
      least: expect.closeTo(-0.35, 1) as number,
      most: expect.closeTo(0.35, 1) as number,
    });
  });
  it("reaches 0.8 and no more, in any direction", () => {
    expect(sweepReadings([0.8, 0], "bore", "s", 1)).not.toBeNull();
    expect(sweepReadings([0.6, 0.6], "bore", "s", 1)).toBeNull();
    expect(readEnds([0.8, -0.8], "s", 1)).not.toBeNull();
    expect(readEnds([0, -0.81], "s", 1)).toBeNull();
    for (const seed of many.slice(0, 100)) {
      const [one, other] = readEnds([0.12, -0.05], seed, 1)!;
      expect(Math.abs(one - other - 0.17)).toBeLessThan(0.006);
    }
  });
});

describe("things by their names", () => {
  it("tools are named by their number, one to eight; everything else by what it is", () => {
    expect([toolName(3), toolNumber("tool3"), toolNumber("probe"), toolNumber(null)]).toEqual(["tool3", 3, null, null]);
    expect(["tool1", "tool8", "probe", "edgeFinder"].every(isThing)).toBe(true);
    expect(["tool0", "tool9", "tool10", "a tool1", "paper", "", 3, null].some(isThing)).toBe(false);
    expect(new Set(instrumentNames.map(instrumentName)).size).toBe(instrumentNames.length);
    expect([instrumentName("probe"), instrumentName("block")]).toEqual(["spindle probe", "gauge block"]);
  });
  it("what must never turn, and as what it breaks", () => {
    expect((["taster", "probe", "indicator"] as const).every(neverTurns)).toBe(true);
    expect(([null, "edgeFinder", "pointedTool", "tool1"] as const).some(neverTurns)).toBe(false);
    expect([heldAs("probe")?.brokenAs, heldAs("pointedTool")?.brokenAs, heldAs("tool2")]).toEqual([
      "probeBroken",
      null,
      null,
    ]);
    expect([heldAs("edgeFinder")?.isSensing, heldAs("pointedTool")?.isSensing]).toEqual([true, false]);
  });
});

describe("the solid of a thing, from its tip upward", () => {
  it("a drill stands on its point, a cutter on its face, and both have 32 out of a holder of 40", () => {
    const drill = shapes.tool("drill", 100, 10);
    expect(drill.tipRadiusMm).toBe(0.4);
    expect(drill.rigid.map(({ radiusMm, fromMm, toMm }) => [radiusMm, fromMm, toMm])).toEqual([
      [0.4, 0, 3],
      [5, 3, 32],
      [20, 32, 100],
      [30, 100, 300],
    ]);
    expect(shapes.tool("spotDrill", 100, 10).rigid[0]).toEqual({ radiusMm: 0.4, fromMm: 0, toMm: 5 });
    const mill = shapes.tool("endMill", 80, 12);
    expect([mill.tipRadiusMm, mill.tip, mill.rigid.length, mill.rigid[0]?.fromMm]).toEqual([6, null, 3, 0]);
    expect(shapes.tool("faceMill", 80, 50).tipRadiusMm).toBe(25);
  });
  it.each([
    ["edge finder of 10", shapes.edgeFinder(90, 10), 5, 10, 0.01],
    ["taster", shapes.taster(110), 2, 30, 0.1],
    ["probe with a ball of 6", shapes.probe(150, 6), 3, 6, 0.1],
  ] as const)("%s gives way at its tip", (_, shape, radius, height, click) => {
    expect(shape.tip).toEqual({ radiusMm: radius, fromMm: 0, toMm: height });
    expect([shape.tipRadiusMm, shape.survivesClickMm]).toEqual([radius, click]);
    // what does not give way begins where the tip ends, and the holder above it goes up to the nose
    expect(shape.rigid[0]?.fromMm).toBe(height);
    expect(shape.rigid.at(-1)?.fromMm).toBe(shape.rigid.at(-2)?.toMm);
  });
  it("what has no tip that gives way stands on itself", () => {
    expect([shapes.pointedTool(90).tip, shapes.pointedTool(90).tipRadiusMm]).toEqual([null, 0.2]);
    expect([shapes.indicator(90).tip, shapes.indicator(90).tipRadiusMm]).toEqual([null, 1.5]);
    expect([shapes.nose().rigid[0]?.radiusMm, shapes.nose().tipRadiusMm]).toEqual([30, 30]);
  });
});
