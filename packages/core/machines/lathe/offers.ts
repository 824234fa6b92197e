import type { LatheKind } from "../../exercises/schools";
import type { TurningSetup } from "../../exercises/setup";
import type { CheckName, TermName } from "../../lane/names";
import { registerAxis, turretPlace, turretSum, type RegisterId, type TurretColumn } from "../../registers";
import { accept, refuse } from "../../result";
import type { Offers } from "../offers";

/** Columns of the tool table that a machine has: a library is a readout's, a height register a gang slide's. */
const COLUMNS: Record<LatheKind, readonly TurretColumn[]> = {
  turret: ["x", "z", "xw", "zw", "r", "q"],
  readout: ["lx", "lz"],
  gang: ["x", "z", "xw", "zw", "r", "q", "y"],
};
const OFFSETS: Record<LatheKind, RegExp> = {
  turret: /^(common|G5[4-9])\.[xz]$/,
  // its zero, and nothing else
  readout: /^G54\.[xz]$/,
  gang: /^(common|G5[4-9])\.[xz]$/,
};

/** Whether a lathe of this kind has a register. */
function isOnLathe(kind: LatheKind, register: RegisterId): boolean {
  const place = turretPlace(register);
  return place ? COLUMNS[kind].includes(place.column) : OFFSETS[kind].test(register);
}

type Letter = "X" | "Z" | "XW" | "ZW" | "R" | "Q" | "LX" | "LZ" | "Y";
const of = ({ lathe }: TurningSetup, ...letters: Letter[]): RegisterId[] =>
  lathe.tools.flatMap(({ number }) => letters.map((letter): RegisterId => `${letter}${number}`));

const TERMS: readonly TermName[] = ["diameter", "paper", "block", "bladeWidth", "armPlane", "moved", "other"];

/** Geometry and wear of one axis: what stands in the other of the two stays. */
const BESIDE: Partial<Record<TurretColumn, TurretColumn>> = { x: "xw", xw: "x", z: "zw", zw: "z" };

const captured: Offers["captured"] = ({ registers, position, workOffset, row }, register, as) => {
  const axis = registerAxis(register) === "x" ? "x" : "z";
  const place = turretPlace(register);
  const work = registers.work[workOffset][axis];
  const common = registers.common[axis];
  if (!place) {
    const other = register.startsWith("common") ? work : common;
    return accept(position[axis] - other - turretSum(registers.turret, axis, row) - as);
  }
  if (place.column === "lx" || place.column === "lz") return refuse({ code: "libraryIsTyped" });
  const beside = BESIDE[place.column];
  if (!beside) return refuse({ code: "diameterIsTyped", register });
  return accept(position[axis] - common - work - (registers.turret?.[beside][place.row] ?? 0) - as);
};

/** Schools that leave work Z as the face sets it. */
const FACE_SCHOOLS = new Set(["part-face", "preset"]);

/** A turret's workings: where the power was lost, the first tool finds the common offset again. */
function turretWorked({ lathe }: TurningSetup): RegisterId[] {
  const { targets, tools, schools, start } = lathe;
  const declaring = start ? targets.z[0] : undefined;
  return [
    ...(declaring === undefined ? [] : (["common.x", "common.z"] as const)),
    ...tools
      .filter(({ number }) => number !== declaring)
      .flatMap(({ number }): RegisterId[] => [
        ...(targets.x.includes(number) ? [`X${number}` as const] : []),
        ...(targets.z.includes(number) ? [`Z${number}` as const] : []),
      ]),
    ...(schools.every((school) => FACE_SCHOOLS.has(school)) ? [] : (["G54.z"] as const)),
  ];
}

/** The library rows of a readout; its first tool is the one that they are counted from. */
const libraryWorked = ({ lathe: { tools, targets } }: TurningSetup): RegisterId[] =>
  tools
    .filter(({ number }) => number !== targets.x[0] && targets.x.includes(number))
    .flatMap(({ number }): RegisterId[] => [`LX${number}`, `LZ${number}`]);

/** Registers, workings and checks of each lathe. */
export const latheOffers: Record<LatheKind, Offers<TurningSetup>> = {
  turret: {
    has: (register) => isOnLathe("turret", register),
    registers: (setup) => [
      { name: "tools", ids: of(setup, "X", "Z") },
      { name: "work offset", ids: ["G54.x", "G54.z"] },
      { name: "nose radius, tip code", ids: of(setup, "R", "Q") },
      { name: "wear", ids: of(setup, "XW", "ZW") },
      { name: "other work offsets", ids: ["G55.x", "G55.z", "G56.x", "G56.z"] },
      { name: "common", ids: ["common.x", "common.z"] },
    ],
    worked: turretWorked,
    terms: TERMS,
    checks: ({ lathe }): readonly CheckName[] =>
      lathe.schools.includes("setter-arm")
        ? ["sumByHand", "knownHeight", "atDiameter", "skimmed"]
        : ["knownHeight", "atDiameter", "skimmed"],
    captured,
  },
  readout: {
    has: (register) => isOnLathe("readout", register),
    registers: (setup) => [
      { name: "zero of the readout", ids: ["G54.x", "G54.z"] },
      { name: "library", ids: of(setup, "LX", "LZ") },
    ],
    worked: libraryWorked,
    terms: TERMS,
    checks: () => ["recalled", "knownHeight"],
    captured,
  },
  gang: {
    has: (register) => isOnLathe("gang", register),
    registers: (setup) => [
      { name: "tools", ids: of(setup, "X", "Y") },
      { name: "work offset", ids: ["G54.x", "G54.z"] },
      { name: "wear", ids: of(setup, "XW") },
    ],
    worked: ({ lathe }) => lathe.targets.x.map((number): RegisterId => `X${number}`),
    terms: TERMS,
    checks: () => ["clearance", "knownHeight"],
    captured,
  },
};
