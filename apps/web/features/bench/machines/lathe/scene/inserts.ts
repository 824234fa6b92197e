import type { TurretTool } from "@probe-lane/core/exercises";

export type Point = readonly [number, number];

const EDGE_MM = 11;

const along = (deg: number, length: number): Point => [
  length * Math.cos((deg * Math.PI) / 180),
  length * Math.sin((deg * Math.PI) / 180),
];

const ARC_STEPS = 8;

/**
 * An insert with its nose round: the circle touches the level and the upright through the imaginary tip at (0, 0), and
 * both edges. `leadDeg` is the direction of its leading edge from Z plus, `noseDeg` the angle between the edges.
 */
function roundedInsert(leadDeg: number, noseDeg: number, radius: number): Point[] {
  const [lead, trail] = [leadDeg, leadDeg - noseDeg];
  // where an edge leaves the circle: a quarter turn off its direction, on the outside
  const on = (deg: number): Point => [radius + along(deg, radius)[0], radius + along(deg, radius)[1]];
  const [from, to] = [lead + 90, trail + 270];
  const arc = Array.from({ length: ARC_STEPS + 1 }, (_, n) => on(to - ((to - from) * (ARC_STEPS - n)) / ARC_STEPS));
  const [first, last] = [arc[0] ?? [0, 0], arc.at(-1) ?? [0, 0]];
  const [a, b] = [along(lead, EDGE_MM), along(trail, EDGE_MM)];
  return [
    ...arc,
    [last[0] + b[0], last[1] + b[1]],
    [first[0] + a[0] + b[0], first[1] + a[1] + b[1]],
    [first[0] + a[0], first[1] + a[1]],
  ];
}

/**
 * A neutral insert: both edges lean away from the nose, so that one of them stands out toward the chuck. The tip is
 * level with the nose's lowest point, in its middle.
 */
const leaningInsert = (radius: number): Point[] => {
  const half = 17.5;
  const [right, left] = [90 - half, 90 + half];
  const on = (deg: number): Point => [along(deg, radius)[0], radius + along(deg, radius)[1]];
  const arc = Array.from({ length: ARC_STEPS + 1 }, (_, n) =>
    on(left + 90 + ((right + 270 - (left + 90)) * n) / ARC_STEPS),
  );
  const [first, last] = [arc[0] ?? [0, 0], arc.at(-1) ?? [0, 0]];
  const [a, b] = [along(left, 15), along(right, 15)];
  return [...arc, [last[0] + b[0], last[1] + b[1]], [first[0] + a[0], first[1] + a[1]]];
};

const inward = (list: readonly Point[]): Point[] => list.map(([z, r]) => [z, -r]);

/** Outlines of insert and holder from the tip, (Z, X as a radius) mm; X grows away from the axis. */
/** A point of 60° whose Z is sighted, and one whose Z is set by its side: the point trails that side. */
const bluntPoint: Point[] = [
  [0, 0],
  [5.2, 9],
  [-5.2, 9],
];

const sidedPoint = (sideMm: number): Point[] => {
  const shoulder = sideMm * Math.tan(Math.PI / 3);
  return [
    [sideMm, 0],
    [2 * sideMm, shoulder],
    [2 * sideMm, 9],
    [0, 9],
    [0, shoulder],
  ];
};

export function outlineOf(tool: TurretTool): { insert: Point[]; holder: Point[] } {
  switch (tool.kind) {
    case "turning":
      return {
        insert: roundedInsert(95, 80, tool.noseRadiusMm),
        holder: [
          [1, 9],
          [1, 60],
          [22, 60],
          [22, 6],
          [12, 5],
        ],
      };
    case "profiling":
      return {
        insert: roundedInsert(93, 35, tool.noseRadiusMm),
        holder: [
          [0, 9],
          [0, 60],
          [20, 60],
          [20, 17],
          [9, 10],
        ],
      };
    case "grooving":
    case "parting": {
      const w = tool.bladeMm ?? 3;
      return {
        insert: [
          [0, 0],
          [w, 0],
          [w, 4],
          [0, 4],
        ],
        holder: [
          [0.3, 4],
          [w - 0.3, 4],
          [w - 0.3, 26],
          [w + 8, 30],
          [w + 8, 60],
          [-6, 60],
          [-6, 30],
          [0.3, 26],
        ],
      };
    }
    case "threading":
      return {
        insert: tool.sideMm === undefined ? bluntPoint : sidedPoint(tool.sideMm),
        holder: [
          [-6, 9],
          [6, 9],
          [12, 16],
          [12, 60],
          [-8, 60],
          [-8, 16],
        ],
      };
    case "boring":
      return {
        insert: inward(roundedInsert(95, 80, tool.noseRadiusMm)),
        holder: [
          [0.6, -1.5],
          [70, -1.5],
          [70, -12],
          [-0.4, -12],
        ],
      };
    case "endMill": {
      const r = (tool.bladeMm ?? 4) / 2;
      return {
        insert: [
          [-r, 0],
          [r, 0],
          [r, 9],
          [-r, 9],
        ],
        holder: [
          [-r - 2, 9],
          [r + 2, 9],
          [r + 4, 14],
          [r + 4, 60],
          [-r - 4, 60],
          [-r - 4, 14],
        ],
      };
    }
    case "neutral":
      return {
        insert: leaningInsert(tool.noseRadiusMm),
        holder: [
          [-9, 16],
          [-9, 60],
          [11, 60],
          [11, 18],
          [5, 12],
          [-5, 12],
        ],
      };
    case "drill":
      return {
        insert: [
          [0, 0],
          [3.6, 6],
          [3.6, -6],
        ],
        holder: [
          [3.6, 6],
          [70, 6],
          [70, -6],
          [3.6, -6],
        ],
      };
  }
}
