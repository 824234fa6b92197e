import type { Candidate } from "./infer";

/**
 * The mistake catalog of this machine as data: what each predicts for the closure, in the lane's own context.
 * `isSeparable`: a signature that must lie 6u from the others when a variant is drawn (those of a fixed, known size).
 */
export const signatureIds = {
  radiusForgotten: { prior: 0.12, isSeparable: true },
  radiusSignTurned: { prior: 0.08, isSeparable: true },
  diameterForRadius: { prior: 0.05, isSeparable: true },
  edgeWorkForgotten: { prior: 0.06, isSeparable: true },
  edgeWorkSignTurned: { prior: 0.04, isSeparable: true },
  otherEdge: { prior: 0.02, isSeparable: true },
  paperForgotten: { prior: 0.14, isSeparable: true },
  paperWrongWay: { prior: 0.07, isSeparable: true },
  facingForgotten: { prior: 0.09, isSeparable: true },
  facingWrongWay: { prior: 0.04, isSeparable: true },
  leftoverWorkZ: { prior: 0.06, isSeparable: true },
} as const;
export type SignatureId = keyof typeof signatureIds;

export interface Signature { id: SignatureId; predictedMm: number }

interface EdgeContext {
  edges: Record<"x" | "y", { approach: 1 | -1; edgeWorkMm: number }>;
  tipDiameterMm: number;
  partSizeMm: readonly [number, number, number];
}

/** Closures in mm that each edge mistake would leave: with tip radius r, approach s, edge at work o, part size across it. */
export function edgeSignatures(context: EdgeContext, axis: "x" | "y"): Signature[] {
  const { approach: s, edgeWorkMm: o } = context.edges[axis];
  const r = context.tipDiameterMm / 2;
  const size = context.partSizeMm[axis === "x" ? 0 : 1];
  const list: Signature[] = [
    { id: "radiusForgotten", predictedMm: -s * r },
    { id: "radiusSignTurned", predictedMm: -2 * s * r },
    { id: "diameterForRadius", predictedMm: s * r },
    { id: "otherEdge", predictedMm: s * size },
  ];
  if (o !== 0) list.push({ id: "edgeWorkForgotten", predictedMm: o }, { id: "edgeWorkSignTurned", predictedMm: 2 * o });
  return list;
}

interface LengthContext { paperMm: number; facingAllowanceMm: number; leftoverWorkZMm: number }

/** Closures in mm that each mistake in Z would leave: paper t, facing allowance a, work Z left from the job before. */
export function lengthSignatures({ paperMm: t, facingAllowanceMm: a, leftoverWorkZMm: leftover }: LengthContext): Signature[] {
  const list: Signature[] = [
    { id: "paperForgotten", predictedMm: t },
    { id: "paperWrongWay", predictedMm: 2 * t },
  ];
  if (a !== 0) list.push({ id: "facingForgotten", predictedMm: a }, { id: "facingWrongWay", predictedMm: 2 * a });
  if (leftover !== 0) list.push({ id: "leftoverWorkZ", predictedMm: leftover });
  return list;
}

export const candidatesOf = (signatures: readonly Signature[]): Candidate[] =>
  signatures.map(({ id, predictedMm }) => ({ id, predicted: predictedMm, prior: signatureIds[id].prior }));
