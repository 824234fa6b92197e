import type { WorkOffsetName } from "../../registers";
import type { MillSetup } from "../setup";
import type { Target } from "../target";

/** The work offset that a tool works in: one for all, but in `offset-per-tool` tool n has its own. */
export function workOffsetOf({ isSchoolPrescribed, lengthSchools, tools }: MillSetup, tool: number): WorkOffsetName {
  if (!isSchoolPrescribed || lengthSchools[0] !== "offset-per-tool") return "G54";
  const place = Math.max(
    0,
    tools.findIndex(({ number }) => number === tool),
  );
  return (["G54", "G55", "G56", "G57", "G58", "G59"] as const)[place] ?? "G54";
}

const place = (axis: "x" | "y"): Target => ({
  id: axis,
  kind: "place",
  tool: null,
  axis,
  registers: [`common.${axis}`, `G54.${axis}`],
  unit: "mm",
});
const TURN: Target = { id: "rotation", kind: "turn", tool: null, axis: null, registers: [], unit: "degree" };
const WORK_Z: Target = {
  id: "workZ",
  kind: "workZ",
  tool: null,
  axis: "z",
  registers: ["common.z", "G54.z"],
  unit: "mm",
};
const sumOf = (setup: MillSetup, tool: number): Target => ({
  id: `z${tool}`,
  kind: "toolSum",
  tool,
  axis: "z",
  registers: ["common.z", `${workOffsetOf(setup, tool)}.z`, `H${tool}`, `HW${tool}`],
  unit: "mm",
});
const rowOf = (tool: number): Target => ({
  id: `H${tool}`,
  kind: "toolRow",
  tool,
  axis: "z",
  registers: [`H${tool}`, `HW${tool}`],
  unit: "mm",
});
const diameterOf = (tool: number): Target => ({
  id: `d${tool}`,
  kind: "diameter",
  tool,
  axis: null,
  registers: [`D${tool}`, `DW${tool}`],
  unit: "mm",
});

/** Sums where the school is free, registers where it is prescribed. */
export function millTargets(setup: MillSetup): Target[] {
  const { targets, isSchoolPrescribed, lengthSchools } = setup;
  const isPerRegister = isSchoolPrescribed && lengthSchools[0] !== "offset-per-tool";
  return [
    ...(targets.xy ? [place("x"), place("y")] : []),
    ...(targets.rotation ? [TURN] : []),
    ...targets.lengths.map((tool) => (isPerRegister ? rowOf(tool) : sumOf(setup, tool))),
    ...(isPerRegister && targets.lengths.length > 0 ? [WORK_Z] : []),
    ...targets.diameters.map(diameterOf),
  ];
}
