import type { MillSetup } from "../../exercises/setup";
import { checkNames, termNames, type CheckName, type TermName } from "../../lane/names";
import {
  captureLength,
  captureOffset,
  lengthRows,
  registerAxis,
  registerKind,
  turretPlace,
  workOffsetNames,
  type RegisterId,
} from "../../registers";
import { accept, refuse } from "../../result";
import type { Offers } from "../offers";

const AXES = ["x", "y", "z"] as const;
const OF_A_LATHE = new Set<TermName>(["diameter", "bladeWidth", "armPlane"]);
const LATHE_CHECKS = new Set<CheckName>(["recalled", "atDiameter", "skimmed", "clearance"]);

const offsets = (names: readonly string[]): RegisterId[] =>
  names.flatMap((name) => AXES.map((axis) => `${name}.${axis}` as RegisterId));
const rows = (numbers: readonly number[], ...letters: ("H" | "HW" | "D" | "DW")[]): RegisterId[] =>
  numbers.flatMap((number) => letters.map((letter): RegisterId => `${letter}${number}`));

function worked({ targets, lengthSchools, tools, partBefore }: MillSetup): RegisterId[] {
  const hasLengths = targets.lengths.length > 0;
  const each: RegisterId[] = lengthSchools.includes("offset-per-tool")
    ? (["G55.z", "G56.z", "G57.z", "G58.z"] as const).slice(0, Math.max(0, tools.length - 1))
    : [];
  return [
    ...(targets.xy || partBefore ? (["G54.x", "G54.y"] as const) : []),
    ...rows(targets.lengths, "H"),
    ...(lengthSchools.includes("block-in-wear") ? rows(targets.lengths, "HW") : []),
    ...(hasLengths ? (["G54.z"] as const) : []),
    ...each,
    ...rows(targets.diameters, "D", "DW"),
  ];
}

/** A mill's registers, workings and checks; length rows are captured by the machine's rule. */
export const millOffers: Offers<MillSetup> = {
  // a tool table of a lathe is on no mill
  has: (register) => turretPlace(register) === null,
  registers: ({ tools }) => {
    const numbers = tools.map(({ number }) => number);
    return [
      { name: "work offset", ids: offsets(["G54"]) },
      { name: "lengths", ids: rows(numbers, "H", "HW") },
      { name: "diameters", ids: rows(numbers, "D", "DW") },
      { name: "other work offsets", ids: offsets(workOffsetNames.slice(1)) },
      { name: "common", ids: offsets(["common"]) },
      {
        name: "other rows",
        ids: rows(
          lengthRows.filter((row) => !numbers.includes(row)),
          "H",
          "HW",
          "D",
          "DW",
        ),
      },
    ];
  },
  worked,
  terms: termNames.filter((name) => !OF_A_LATHE.has(name)),
  checks: () => checkNames.filter((name) => !LATHE_CHECKS.has(name)),
  captured: ({ registers, position, counterZ, workOffset, lengthCounts, lengthCapture }, register, as) => {
    if (registerKind(register) === "diameter") return refuse({ code: "diameterIsTyped", register });
    if (register.startsWith("HW")) return accept(position.z - as);
    if (registerKind(register) === "length") {
      const stands = { machineZ: position.z, counterZ, work: workOffset, as };
      return accept(captureLength(registers, Number(register.slice(1)), lengthCapture, stands));
    }
    return accept(captureOffset(registers, register, position[registerAxis(register)], as, workOffset, lengthCounts));
  },
};
