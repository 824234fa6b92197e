import type { BoxMm } from "../geometry";
import type { Setup, Truth } from "./variant";

export type Surface = "stock" | "frontJaw" | "backJaw" | "table";

/** The vise of the bench, mm: jaws wider than the part, its bed over the table. */
const JAW_WIDTH_MM = 150;
const JAW_DEPTH_MM = 24;
const JAW_TOP_OVER_TABLE_MM = 78;
const TABLE_MM = { low: { x: -900, y: -700 }, high: { x: 300, y: 300 }, thick: 50 };

/** Height of the blank's skin, mm: the facing allowance above the datum plane. */
export const skinZMm = (setup: Setup, datumZMm: number): number => datumZMm + setup.facingAllowanceMm;

/** Height of the table, mm, by the nominal heights of vise and blank. */
export const tableZMm = (setup: Setup, datumZMm: number): number =>
  skinZMm(setup, datumZMm) - setup.vise.proudMm - JAW_TOP_OVER_TABLE_MM;

/**
 * Everything solid round the part for a given place of the datum: the true one for contact, or the place that an eye sees
 * for the drawing. Machine frame (gauge point), mm.
 */
export function sceneBoxes(
  setup: Setup, datumMm: Truth["datumMm"], stockSizeMm: readonly [number, number, number],
): Record<Surface, BoxMm> {
  const side = (axis: "x" | "y", size: number): [number, number] => {
    const { approach, edgeWorkMm } = setup.edges[axis];
    const face = datumMm[axis] + edgeWorkMm;
    return approach === 1 ? [face, face + size] : [face - size, face];
  };
  const [left, right] = side("x", stockSizeMm[0]);
  const [front, back] = side("y", stockSizeMm[1]);
  const skin = skinZMm(setup, datumMm.z);
  const table = tableZMm(setup, datumMm.z);
  const jawTop = skin - setup.vise.proudMm;
  const middle = (left + right) / 2;
  const jaw = (low: number, high: number): BoxMm => ({
    low: { x: middle - JAW_WIDTH_MM / 2, y: low, z: table }, high: { x: middle + JAW_WIDTH_MM / 2, y: high, z: jawTop },
  });
  return {
    stock: { low: { x: left, y: front, z: skin - stockSizeMm[2] }, high: { x: right, y: back, z: skin } },
    frontJaw: jaw(front - JAW_DEPTH_MM, front),
    backJaw: jaw(back, back + JAW_DEPTH_MM),
    table: { low: { ...TABLE_MM.low, z: table - TABLE_MM.thick }, high: { ...TABLE_MM.high, z: table } },
  };
}
