import type { Counts } from "../units";

/**
 * Columns of a lathe's tool table: geometry and wear as X (a diameter) and Z, nose radius, the tip code, which is no
 * length; a readout's library in X and Z, which is added to what it shows; a gang slide's center height.
 */
export const turretColumns = ["x", "z", "xw", "zw", "r", "q", "lx", "lz", "y"] as const;
export type TurretColumn = (typeof turretColumns)[number];
export const turretRows = [1, 2, 3, 4, 5, 6, 7, 8] as const;

/**
 * The tool table of a lathe, counts; Xg, Zg, Xw, Zw of a row less its library add up to what the display takes off. A
 * row never written holds 0.
 */
export type TurretTable = Readonly<Record<TurretColumn, Readonly<Record<number, Counts>>>>;
export const emptyTurret: TurretTable = { x: {}, z: {}, xw: {}, zw: {}, r: {}, q: {}, lx: {}, lz: {}, y: {} };

const LETTERS = { X: "x", Z: "z", XW: "xw", ZW: "zw", R: "r", Q: "q", LX: "lx", LZ: "lz", Y: "y" } as const;
/**
 * "X1" and "Z1" geometry, "XW1" and "ZW1" wear, "R1" nose radius, "Q1" tip code, "LX1" and "LZ1" a readout's library,
 * "Y1" center height.
 */
export type TurretRegisterId = `${keyof typeof LETTERS}${number}`;
export const turretRegisterIds: readonly TurretRegisterId[] = turretRows.flatMap((row) =>
  (Object.keys(LETTERS) as (keyof typeof LETTERS)[]).map((letters): TurretRegisterId => `${letters}${row}`),
);

/** Column and row of a register of the tool table; null for any other. */
export function turretPlace(id: string): { column: TurretColumn; row: number } | null {
  const [, letters, row] = /^(X|Z|XW|ZW|R|Q|LX|LZ|Y)(\d)$/.exec(id) ?? [];
  return letters === undefined ? null : { column: LETTERS[letters as keyof typeof LETTERS], row: Number(row) };
}

/** What a row takes off the display, counts; nothing while no row is in use. */
export function turretSum(turret: TurretTable | undefined, axis: "x" | "z", row: number | null): Counts {
  if (row === null || !turret) return 0;
  const [wear, library] = axis === "x" ? (["xw", "lx"] as const) : (["zw", "lz"] as const);
  return (turret[axis][row] ?? 0) + (turret[wear][row] ?? 0) - (turret[library][row] ?? 0);
}
