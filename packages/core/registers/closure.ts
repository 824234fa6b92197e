type Triple = readonly [number, number, number];

export interface MillClosure {
  xy: [number, number];
  z: Record<string, number>;
}

/**
 * What the registers add up to, less what they should; zero is right. Any length unit.
 * cx = Cx + Wx − Dx; cz_i = Cz + Wz + Hg_i + Hw_i − (Dz + L_i): > 0 the tip stands high, < 0 it cuts deep.
 */
export function closureMill(
  datum: Triple,
  common: Triple,
  work: Triple,
  tools: readonly { id: string; length: number; geometry: number; wear?: number }[],
): MillClosure {
  const sum = (axis: 0 | 1 | 2) => common[axis] + work[axis] - datum[axis];
  return {
    xy: [sum(0), sum(1)],
    z: Object.fromEntries(tools.map((tool) => [tool.id, sum(2) + tool.geometry + (tool.wear ?? 0) - tool.length])),
  };
}
