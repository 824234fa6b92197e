import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { catalog, edgeSignatures, infer, lengthSignatures } from ".";

const context = {
  datum: {
    kind: "corner" as const,
    edges: { x: { approach: 1 as const, edgeWorkMm: 0 }, y: { approach: -1 as const, edgeWorkMm: 1.5 } },
  },
  tipDiameterMm: 10,
  partSizeMm: [110, 50, 20] as const,
  instruments: ["edgeFinder" as const],
  probe: null,
  isSkewed: false,
  facingAllowanceMm: 0,
  leftovers: [],
  gaps: [{ id: "paper", kind: "paper" as const, nominalMm: 0.08 }],
};

describe("signatures", () => {
  it("by hand: left edge, radius 5: forgotten −5, turned −10, diameter +5, other edge +110", () => {
    expect(Object.fromEntries(edgeSignatures(context, "x").map(({ id, predictedMm }) => [id, predictedMm]))).toEqual({
      radiusForgotten: -5,
      radiusSignTurned: -10,
      diameterForRadius: 5,
      otherEdge: 110,
    });
  });
  it("mirrored approach mirrors them, and an edge that is not zero adds its own", () => {
    expect(Object.fromEntries(edgeSignatures(context, "y").map(({ id, predictedMm }) => [id, predictedMm]))).toEqual({
      radiusForgotten: 5,
      radiusSignTurned: 10,
      diameterForRadius: -5,
      otherEdge: -50,
      edgeWorkForgotten: 1.5,
      edgeWorkSignTurned: 3,
    });
  });
  it("lengths: paper, facing and leftover only where they exist", () => {
    expect(lengthSignatures(context).map(({ id }) => id)).toEqual(["paperForgotten", "paperWrongWay"]);
    expect(
      lengthSignatures({ ...context, facingAllowanceMm: 0.9, leftovers: [{ register: "G54.z", mm: -12 }] }).map(
        ({ predictedMm }) => predictedMm,
      ),
    ).toEqual([0.08, 0.16, 0.9, 1.8, -12]);
  });
});

describe("signatures of other instruments", () => {
  it("a dial over the edge has no radius to forget, but a turn to lose", () => {
    expect(Object.fromEntries(edgeSignatures(context, "x", 0).map(({ id, predictedMm }) => [id, predictedMm]))).toEqual(
      { otherEdge: 110, dialTurnShort: -1 },
    );
  });
  it("on a middle only half of a radius can go wrong, to either side", () => {
    expect(
      edgeSignatures({ ...context, datum: { kind: "middle" } }, "x").map(({ predictedMm }) => predictedMm),
    ).toEqual([2.5, -2.5]);
  });
  it("a block in the gap counts as paper does, by its own height", () => {
    const withBlock = { ...context, gaps: [...context.gaps, { id: "b", kind: "block" as const, nominalMm: 25 }] };
    expect(
      lengthSignatures(withBlock)
        .filter(({ id }) => id.startsWith("block"))
        .map(({ predictedMm }) => predictedMm),
    ).toEqual([25, 50]);
  });
});

describe("inference", () => {
  const candidates = edgeSignatures(context, "y").map(({ id, predictedMm }) => ({
    id,
    predicted: predictedMm,
    prior: catalog[id].prior,
  }));
  const ask = (closure: number) =>
    infer({ closure, u: 0.003, none: 0.5, candidates, other: { prior: 0.05, span: 400 } });
  it("names the single, the pair, and nothing when it is right", () => {
    expect(ask(5.001).ranked[0]?.ids).toEqual(["radiusForgotten"]);
    expect(ask(6.5).ranked[0]?.ids).toEqual(["radiusForgotten", "edgeWorkForgotten"]);
    expect(ask(0.002).ranked[0]?.ids).toEqual([]);
  });
  it("is unexplained rather than a guess", () => {
    expect(ask(2.2)).toEqual({ ranked: [], unexplained: true });
    expect(ask(1e9)).toEqual({ ranked: [], unexplained: true });
  });
  it("probabilities lie in (0.05, 1], fall in order, and sum to no more than 1", () => {
    fc.assert(
      fc.property(fc.double({ min: -20, max: 20, noNaN: true }), (closure) => {
        const { ranked } = ask(closure);
        const sum = ranked.reduce((total, { probability }) => total + probability, 0);
        return (
          sum <= 1 + 1e-9 &&
          ranked.every(
            ({ probability }, i) => probability > 0.05 && (i === 0 || probability <= (ranked[i - 1]?.probability ?? 1)),
          )
        );
      }),
    );
  });
  it("of arbitrary closures within ±2 mm it explains few", () => {
    let explained = 0;
    for (let i = 0; i < 2000; i++) if (!ask(-2 + (4 * (i + 0.5)) / 2000).unexplained) explained += 1;
    expect(explained / 2000).toBeLessThan(0.2);
  });
});
