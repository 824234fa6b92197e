import {
  lengthRows,
  millRegisterIds,
  readRegister,
  turretRegisterIds,
  turretRows,
  workOffsetNames,
  type Axis,
  type RegisterId,
  type Registers,
} from "../registers";
import { showCounts, type Scale } from "../units";

const AXES: readonly Axis[] = ["x", "y", "z"];
/** Programs have a plain minus. */
const plain = (text: string): string => text.replace("\u2212", "-");

const LATHE_IDS: readonly RegisterId[] = [
  ...["common", "G54", "G55", "G56", "G57", "G58", "G59"].flatMap((name): RegisterId[] => [
    `${name}.x` as RegisterId,
    `${name}.z` as RegisterId,
  ]),
  ...turretRegisterIds,
];

/** The registers that a machine has: a lathe's, where it has a tool table, else a mill's. */
export const exchangeIds = ({ turret }: Pick<Registers, "turret">): readonly RegisterId[] =>
  turret ? LATHE_IDS : millRegisterIds;

/**
 * Registers of a machine that hold anything, as "register,value" lines under a heading; values in the machine's unit.
 */
export function printTable(registers: Registers, scale: Scale): string {
  const rows = exchangeIds(registers)
    .filter((id) => readRegister(registers, id) !== 0)
    .map((id) => `${id},${plain(showCounts(readRegister(registers, id), scale))}`);
  return ["register,value", ...rows].join("\n") + "\n";
}

/**
 * A lathe's rows: geometry, center height, nose radius and tip code under P10000 and the row, wear under the row by
 * L11. A readout's library is in no program.
 */
function turretLines(registers: Registers, scale: Scale): string[] {
  const value = (id: RegisterId) => readRegister(registers, id);
  const words = (pairs: readonly (readonly [string, RegisterId])[]) =>
    pairs
      .filter(([, id]) => value(id) !== 0)
      .map(
        ([letter, id]) =>
          letter +
          (letter === "Q" ? String(Math.round(value(id) / scale.countsPerUnit)) : plain(showCounts(value(id), scale))),
      );
  return turretRows.flatMap((row) => {
    const geometry = words([
      ["X", `X${row}`],
      ["Y", `Y${row}`],
      ["Z", `Z${row}`],
      ["R", `R${row}`],
      ["Q", `Q${row}`],
    ]);
    const wear = words([
      ["X", `XW${row}`],
      ["Z", `ZW${row}`],
    ]);
    return [
      ...(geometry.length > 0 ? [`G10 L10 P${10_000 + row} ${geometry.join(" ")}`] : []),
      ...(wear.length > 0 ? [`G10 L11 P${row} ${wear.join(" ")}`] : []),
    ];
  });
}

/**
 * The same registers as a G10 program: L2 work (P0 common), L20 extended work, L10 to L13 rows; it begins with the unit
 * it is in.
 */
export function printG10(registers: Registers, scale: Scale): string {
  const value = (id: RegisterId) => readRegister(registers, id);
  const isSet = (ids: readonly RegisterId[]) => ids.some((id) => value(id) !== 0);
  const axes = registers.turret ? AXES.filter((axis) => axis !== "y") : AXES;
  const words = (name: string) =>
    axes
      .map((axis) => `${axis.toUpperCase()}${plain(showCounts(value(`${name}.${axis}` as RegisterId), scale))}`)
      .join(" ");
  const offsets = ["common", ...workOffsetNames].flatMap((name) => {
    if (!isSet(AXES.map((axis) => `${name}.${axis}` as RegisterId))) return [];
    const [l, p] =
      name === "common" ? [2, 0] : name.startsWith("P") ? [20, Number(name.slice(1))] : [2, Number(name.slice(1)) - 53];
    return [`G10 L${l} P${p} ${words(name)}`];
  });
  const rows = lengthRows.flatMap((row) =>
    (
      [
        ["H", 10],
        ["HW", 11],
        ["D", 12],
        ["DW", 13],
      ] as const
    ).flatMap(([letters, l]) => {
      const id: RegisterId = `${letters}${row}`;
      return value(id) === 0 ? [] : [`G10 L${l} P${row} R${plain(showCounts(value(id), scale))}`];
    }),
  );
  return (
    [
      "%",
      scale.unit === "mm" ? "G21" : "G20",
      "G90",
      ...offsets,
      ...(registers.turret ? turretLines(registers, scale) : rows),
      "M30",
      "%",
    ].join("\n") + "\n"
  );
}
