import { signaturesFor, type Signature } from "./catalog";

interface EdgeContext {
  edges: Record<"x" | "y", { approach: 1 | -1; edgeWorkMm: number }>;
  tipDiameterMm: number;
  partSizeMm: readonly [number, number, number];
}

/** Closures in mm that each edge mistake would leave on the bench, from the lane's own sheet. */
export function edgeSignatures({ edges, tipDiameterMm, partSizeMm }: EdgeContext, axis: "x" | "y"): Signature[] {
  const { approach, edgeWorkMm } = edges[axis];
  return signaturesFor("mill-edge", { approach, tipRadius: tipDiameterMm / 2, edgeWork: edgeWorkMm, partSize: partSizeMm[axis === "x" ? 0 : 1] });
}

interface LengthContext { paperMm: number; facingAllowanceMm: number; leftoverWorkZMm: number }

/** Closures in mm that each mistake in Z would leave on the bench: paper, facing allowance, work Z left from the job before. */
export function lengthSignatures({ paperMm, facingAllowanceMm, leftoverWorkZMm }: LengthContext): Signature[] {
  return signaturesFor("mill-length", { paper: paperMm, facing: facingAllowanceMm, leftoverWork: leftoverWorkZMm });
}
