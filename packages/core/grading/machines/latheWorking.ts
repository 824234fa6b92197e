import type { TurningTrace } from "../../diagnosis";
import { type Target } from "../../exercises";
import { isByMaster } from "../../exercises/schools";
import { readRegister, turretPlace, type RegisterId } from "../../registers";
import type { WorkingRules } from "../kit";
import { AGREE_COUNTS } from "../working";

const isLibrary = (register: RegisterId): boolean => turretPlace(register)?.column.startsWith("l") === true;

/** A row that was kept as it is wants no working. */
const isKept = (alreadySet: readonly number[] | undefined, tool: number | null): boolean =>
  tool !== null && alreadySet?.includes(tool) === true;

/** The register in whose line a value is worked out; null where it is said, chosen or measured and not worked out. */
function registerOf(
  { final: { setup, registers, kind: machine } }: TurningTrace,
  { kind, tool, axis, id }: Target,
): RegisterId | null {
  if (kind !== "toolOffset") return null;
  const along = axis === "x" ? "x" : "z";
  const { start, targets, schools, alreadySet } = setup.lathe;
  // what the declaring tool comes to stands in the declared position, its own row is zero
  if (start && tool === targets[along][0]) return `common.${along}`;
  // the row of a library; the reference's own is the zero and wants no working
  if (machine === "readout") return tool === targets.x[0] || isKept(alreadySet, tool) ? null : (`L${id}` as RegisterId);
  const own = id as RegisterId;
  const isMaster = schools.some(isByMaster) && along === "z" && readRegister(registers, own) === 0;
  return isMaster ? null : own;
}

export const latheWorking: WorkingRules<TurningTrace> = {
  registerOf,
  isTaken: ({ turret }, { from, counts }) =>
    from !== undefined || turret.some(({ shown, axis }) => Math.abs(shown[axis] - counts) <= AGREE_COUNTS),
  // a library is added to what is read: it takes the reading with its sign turned
  expected: (_trace, register, readings, terms) =>
    ((readings.at(-1)?.counts ?? 0) + terms) * (isLibrary(register) ? -1 : 1),
  // a tool that was put where its register says has no sum to be worked out
  without: ({ turret }, register) => {
    const place = turretPlace(register);
    if (place?.column !== "x") return null;
    return turret.findLast(({ tool, axis }) => tool === place.row && axis === "x")?.by === "slid" ? "slid" : null;
  },
  rows: (_trace, register) => ({ register, standsIn: [register], endsIn: register }),
};
