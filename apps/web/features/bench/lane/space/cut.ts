import { BufferGeometry, Float32BufferAttribute, LatheGeometry, Vector2 } from "three";
import type { Relief, Turned } from "./bodies";

/** Neighbors that differ by more than this have an edge that is drawn, mm. */
const EDGE_MM = 0.25;

/** Faces of a relief, cells alike in a row as one, walls where neighbors differ; and the lines of its edges. */
export function reliefGeometry({ at, cell, columns, heights, low }: Relief): {
  readonly faces: BufferGeometry;
  readonly edges: BufferGeometry;
} {
  const rows = Math.round(heights.length / columns);
  const heightOf = (column: number, row: number): number =>
    column < 0 || row < 0 || column >= columns || row >= rows ? low : (heights[row * columns + column] ?? low);
  const [faces, edges]: [number[], number[]] = [[], []];
  // u right, v back, w up; the picture has y up and z to the viewer
  const corner = (column: number, row: number, w: number): readonly number[] => [
    at[0] + column * cell,
    w,
    -(at[1] + row * cell),
  ];
  const quad = (a: readonly number[], b: readonly number[], c: readonly number[], d: readonly number[]): void => {
    faces.push(...a, ...b, ...c, ...a, ...c, ...d);
  };
  for (let row = 0; row < rows; row++)
    for (let first = 0; first < columns;) {
      const w = heightOf(first, row);
      let after = first + 1;
      while (after < columns && heightOf(after, row) === w) after++;
      quad(corner(first, row, w), corner(after, row, w), corner(after, row + 1, w), corner(first, row + 1, w));
      first = after;
    }
  const wall = (from: readonly [number, number], to: readonly [number, number], one: number, other: number): void => {
    if (one === other) return;
    const [high, deep] = [Math.max(one, other), Math.min(one, other)];
    const [top, end] = [corner(...from, high), corner(...to, high)];
    const foot = [corner(...from, deep), corner(...to, deep)] as const;
    // seen from the lower side
    if (one > other) quad(foot[1], foot[0], top, end);
    else quad(foot[0], foot[1], end, top);
    if (high - deep > EDGE_MM) edges.push(...top, ...end, ...foot[0], ...foot[1]);
  };
  for (let row = 0; row <= rows; row++)
    for (let column = 0; column <= columns; column++) {
      if (row < rows) wall([column, row], [column, row + 1], heightOf(column - 1, row), heightOf(column, row));
      if (column < columns) wall([column + 1, row], [column, row], heightOf(column, row - 1), heightOf(column, row));
    }
  const geometry = (values: readonly number[]): BufferGeometry =>
    new BufferGeometry().setAttribute("position", new Float32BufferAttribute(values, 3));
  const solid = geometry(faces);
  solid.computeVertexNormals();
  return { faces: solid, edges: geometry(edges) };
}

/** A turned part, lying along u. */
export function turnedGeometry({ from, step, outer, bore }: Turned): BufferGeometry {
  const end = from + outer.length * step;
  const steps = outer.flatMap((radius, at) => [
    new Vector2(radius, from + at * step),
    new Vector2(radius, from + (at + 1) * step),
  ]);
  const inside = bore
    .flatMap((radius, at) => [new Vector2(radius, from + at * step), new Vector2(radius, from + (at + 1) * step)])
    .reverse();
  const outline = [new Vector2(0, from), ...steps, ...(bore.length > 0 ? inside : [new Vector2(0, end)])];
  const geometry = new LatheGeometry(outline, 64);
  geometry.rotateZ(-Math.PI / 2);
  return geometry.toNonIndexed();
}
