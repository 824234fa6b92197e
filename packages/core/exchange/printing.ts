import { lengthRows, millRegisterIds, readRegister, workOffsetNames, type Axis, type RegisterId, type Registers } from "../registers";
import { showCounts, type Scale } from "../units";

const AXES: readonly Axis[] = ["x", "y", "z"];
/** Programs have a plain minus. */
const plain = (text: string): string => text.replace("\u2212", "-");

/** Registers of a mill that hold anything, as "register,value" lines under a heading; values in the machine's unit. */
export function printTable(registers: Registers, scale: Scale): string {
  const rows = millRegisterIds.filter((id) => readRegister(registers, id) !== 0).map((id) => `${id},${plain(showCounts(readRegister(registers, id), scale))}`);
  return ["register,value", ...rows].join("\n") + "\n";
}

/** The same registers as a G10 program: L2 work (P0 common), L20 extended work, L10 to L13 rows; it begins with the unit it is in. */
export function printG10(registers: Registers, scale: Scale): string {
  const value = (id: RegisterId) => readRegister(registers, id);
  const isSet = (ids: readonly RegisterId[]) => ids.some((id) => value(id) !== 0);
  const words = (name: string) =>
    AXES.map((axis) => `${axis.toUpperCase()}${plain(showCounts(value(`${name}.${axis}` as RegisterId), scale))}`).join(" ");
  const offsets = ["common", ...workOffsetNames].flatMap((name) => {
    if (!isSet(AXES.map((axis) => `${name}.${axis}` as RegisterId))) return [];
    const [l, p] = name === "common" ? [2, 0] : name.startsWith("P") ? [20, Number(name.slice(1))] : [2, Number(name.slice(1)) - 53];
    return [`G10 L${l} P${p} ${words(name)}`];
  });
  const rows = lengthRows.flatMap((row) => ([["H", 10], ["HW", 11], ["D", 12], ["DW", 13]] as const).flatMap(([letters, l]) => {
    const id: RegisterId = `${letters}${row}`;
    return value(id) === 0 ? [] : [`G10 L${l} P${row} R${plain(showCounts(value(id), scale))}`];
  }));
  return ["%", scale.unit === "mm" ? "G21" : "G20", "G90", ...offsets, ...rows, "M30", "%"].join("\n") + "\n";
}
