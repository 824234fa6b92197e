import type { RegisterId } from "../../registers";
import type { TurningSetup } from "../setup";
import type { Target, TargetKind } from "../target";

/** The registers whose sum is what a tool's X or Z comes to; a readout's library is counted the other way round. */
const offsetRegisters = (kind: TurningSetup["kind"], tool: number, axis: "x" | "z"): RegisterId[] => {
  const letter = axis === "x" ? "X" : "Z";
  const own: RegisterId[] = kind === "readout" ? [`L${letter}${tool}`] : [`${letter}${tool}`, `${letter}W${tool}`];
  return [`common.${axis}`, `G54.${axis}`, ...own];
};

/** What is said of the machine, then each tool's values in the order of the turret. */
export function latheTargets({ kind, lathe }: TurningSetup): Target[] {
  const { axis, tools, targets: wanted } = lathe;
  const said = (id: "axisHeight" | "gaugeError"): Target => ({
    id,
    kind: id,
    tool: null,
    axis: null,
    registers: [],
    unit: "mm",
  });
  const offset = (tool: number, of: "x" | "z"): Target => ({
    id: of === "x" ? `X${tool}` : `Z${tool}`,
    kind: "toolOffset",
    tool,
    axis: of,
    registers: offsetRegisters(kind, tool, of),
    unit: "mm",
  });
  const own = (kindOf: TargetKind, letter: "R" | "Q" | "C" | "F", tool: number, registers: RegisterId[]): Target => ({
    id: `${letter}${tool}`,
    kind: kindOf,
    tool,
    axis: null,
    registers,
    unit: kindOf === "tipCode" || kindOf === "fit" ? "choice" : "mm",
  });
  const one = (tool: number): Target[] => [
    ...(wanted.x.includes(tool) ? [offset(tool, "x")] : []),
    ...(wanted.z.includes(tool) ? [offset(tool, "z")] : []),
    ...(wanted.nose.includes(tool)
      ? [own("nose", "R", tool, [`R${tool}`]), own("tipCode", "Q", tool, [`Q${tool}`])]
      : []),
    // shims have no register; a gang slide has one
    ...(wanted.height.includes(tool) ? [own("height", "C", tool, kind === "gang" ? [`Y${tool}`] : [])] : []),
    ...((wanted.fit ?? []).includes(tool) ? [own("fit", "F", tool, [])] : []),
  ];
  return [...(axis ? [said("axisHeight"), said("gaugeError")] : []), ...tools.flatMap(({ number }) => one(number))];
}
