import type { MillSeen, PartPicture } from "@probe-lane/core/bench";
import { surfaces, type Surface } from "@probe-lane/core/exercises";
import { turned, type Solid } from "@probe-lane/core/geometry";
import type { AxisCounts } from "@probe-lane/core/registers";
import { box, type Body, type Flat, type SpaceScene, type Tone } from "../../lane/space/bodies";
import { placeOf } from "./view";

const TONES: Record<string, Tone> = {
  table: "table",
  stock: "stock",
  boss: "stock",
  frontJaw: "jaw",
  backJaw: "jaw",
  stop: "dark",
  plate: "jaw",
  setter: "steel",
};

const cornersOf = (x: number, y: number, halfX: number, halfY: number, angleDeg: number): Flat[] =>
  box([-halfX, halfX], [-halfY, halfY]).map(([u, v]) => {
    const at = turned(u, v, angleDeg);
    return [x + at.x, y + at.y];
  });

function bodyOf(name: Surface, { plan, hole, lowZ, highZ }: Solid): Body {
  // what is stood on the others by hand
  const tone = TONES[name] ?? "gauge";
  if (plan.kind === "disc")
    return { kind: "cylinder", tone, along: "w", at: [plan.x, plan.y], radius: plan.radiusMm, from: lowZ, to: highZ };
  const opening =
    hole?.kind === "round"
      ? { at: [hole.x, hole.y] as const, radius: hole.radiusMm }
      : hole && cornersOf(hole.x, hole.y, hole.halfX, hole.halfY, plan.angleDeg);
  return {
    kind: "prism",
    tone,
    outline: cornersOf(plan.x, plan.y, plan.halfX, plan.halfY, plan.angleDeg),
    hole: opening,
    low: lowZ,
    high: highZ,
  };
}

const PER_MM = 100;
/** The blank as it was cut. */
const reliefOf = ({ low, highMm, cellMm, columns, depths }: Extract<PartPicture, { kind: "relief" }>): Body => ({
  kind: "relief",
  tone: "stock",
  at: [low[0], low[1]],
  cell: cellMm,
  columns,
  heights: depths.map((depth) => highMm - depth / PER_MM),
  low: low[2],
});

/** A mill in space, from the same solids and the same tip as its drawing. */
export function millSpace(seen: MillSeen, machine: AxisCounts, part: PartPicture | null): SpaceScene {
  const { x, y, tipZ } = placeOf(seen, machine);
  const { stock, table, frontJaw } = seen.boxes;
  const { rigid, tip } = seen.heldShape;
  const carried = [
    ...rigid.map((part, place): Body => ({
      kind: "cylinder",
      tone: place >= rigid.length - 1 ? "dark" : "steel",
      along: "w",
      at: [0, 0],
      radius: part.radiusMm,
      from: part.fromMm,
      to: part.toMm,
    })),
    ...(tip
      ? [
          {
            kind: "cylinder",
            tone: "tip",
            along: "w",
            at: [0, 0],
            radius: tip.radiusMm,
            from: tip.fromMm,
            to: tip.toMm,
          } as const,
        ]
      : []),
  ];
  const middle = [(stock.low.x + stock.high.x) / 2, (stock.low.y + stock.high.y) / 2, stock.high.z] as const;
  const beside = Math.max(stock.high.x, frontJaw?.high.x ?? -Infinity) + 16;
  return {
    standing: surfaces.flatMap((name) => {
      const solid = seen.solids[name];
      if (name === "stock" && part?.kind === "relief") return [reliefOf(part)];
      return solid ? [bodyOf(name, solid)] : [];
    }),
    carried,
    tip: [x, y, tipZ],
    turns: "carried",
    isTurning: seen.spindle.isOn,
    // the table carries the part: for a plus of X and Y it goes the other way
    arrows: [
      { label: "X+ table", at: [beside + 80, middle[1], table.high.z + 6], to: [beside, middle[1], table.high.z + 6] },
      {
        label: "Y+ table",
        at: [beside + 50, stock.high.y, table.high.z + 6],
        to: [beside + 50, stock.low.y - 20, table.high.z + 6],
      },
      { label: "Z+ spindle", at: [x + 46, y, tipZ - 10], to: [x + 46, y, tipZ + 44] },
    ],
    looksAt: [(middle[0] * 2 + x) / 3, (middle[1] * 2 + y) / 3, (middle[2] + tipZ) / 2],
    reach: Math.max(260, Math.hypot(x - middle[0], y - middle[1], tipZ - middle[2]) * 0.9 + 190),
  };
}
