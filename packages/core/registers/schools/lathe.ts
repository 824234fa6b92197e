import { byTool } from "./types";

interface AtFace {
  id: string;
  machineZ: number;
  gap?: number;
}
export type LatheSchoolInput =
  | { school: "part-face"; tools: AtFace[] }
  | { school: "master-shift"; tools: AtFace[]; master: string }
  | { school: "setter-arm"; plane: number; tools: { id: string; trigger: number }[]; active: AtFace };
export interface LatheSchoolAnswer {
  geometryZ: Record<string, number>;
  workZ: number;
  sumCheck?: number;
}

/** Machine Z at which the tool lies on the face: Kz = M − gap. */
const onFace = ({ machineZ, gap = 0 }: AtFace): number => machineZ - gap;

/**
 * Schools for Z on a lathe. `part-face`: Wz 0, Zg = Kz. `master-shift`: master 0, others Kz − Kz of the master, shift
 * Wz = Kz of the master. `setter-arm`: Zg = trigger − plane, then work Z with the tool active; sumCheck = Wz + Zg = M −
 * gap there. Null when the named tool is not in the list.
 */
export function latheSchool(input: LatheSchoolInput): LatheSchoolAnswer | null {
  switch (input.school) {
    case "part-face":
      return { geometryZ: byTool(input.tools, onFace), workZ: 0 };
    case "master-shift": {
      const master = input.tools.find(({ id }) => id === input.master);
      if (!master) return null;
      return {
        geometryZ: byTool(input.tools, (tool) => (tool === master ? 0 : onFace(tool) - onFace(master))),
        workZ: onFace(master),
      };
    }
    case "setter-arm": {
      const geometryZ = byTool(input.tools, ({ trigger }) => trigger - input.plane);
      const active = geometryZ[input.active.id];
      if (active === undefined) return null;
      const workZ = onFace(input.active) - active;
      return { geometryZ, workZ, sumCheck: workZ + active };
    }
  }
}

/**
 * Readout library: the offset of a tool is its sign-reversed reading at the reference's corner; recall is raw + offset.
 */
export function readoutLibrary(
  reference: string,
  readings: readonly { tool: string; x: number; z: number }[],
): Record<string, [number, number]> {
  const reversed = (value: number): number => (value === 0 ? 0 : -value);
  return {
    [reference]: [0, 0],
    ...Object.fromEntries(readings.map(({ tool, x, z }) => [tool, [reversed(x), reversed(z)] as [number, number]])),
  };
}
