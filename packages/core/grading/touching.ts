import type { Provenance, Term } from "../diagnosis";
import type { MethodBias, Setup } from "../exercises";

/** What the shop of an exercise allows at a touch, and what it leaves in a value, mm. */
export interface Allowed {
  readonly id: "clickBack" | "paperIgnored";
  readonly mm: number;
  readonly seq: number;
}

/** A click taken back is no more than the largest with which a contact is made, 0.001 in, mm. */
const CLICK_MM = 0.0255;
/** Paper left out of a figure, whatever it was touched with. */
const PAPER = new Set<Term["id"]>(["paperForgotten", "feelerForgotten", "gapForgotten"]);

/** What of a closure is this shop's way of touching, and no fault. */
export function allowedIn({ touching }: Pick<Setup, "touching">, { terms }: Provenance): Allowed[] {
  if (!touching) return [];
  return terms.flatMap(({ id, mm, seq }): Allowed[] => {
    if (touching.clickBack !== "never" && id === "capturedAfterLeaving" && Math.abs(mm) <= CLICK_MM)
      return [{ id: "clickBack", mm, seq }];
    return touching.paper !== "counted" && PAPER.has(id) ? [{ id: "paperIgnored", mm, seq }] : [];
  });
}

export const allowedMm = (allowed: readonly Allowed[]): number => allowed.reduce((sum, { mm }) => sum + mm, 0);

/** A provenance without what is allowed: what is left has to be accounted for. */
export const beyond = (provenance: Provenance, allowed: readonly Allowed[]): Provenance =>
  allowed.length === 0
    ? provenance
    : {
        ...provenance,
        terms: provenance.terms.filter(({ seq, mm }) => !allowed.some((one) => one.seq === seq && one.mm === mm)),
      };

/** A click taken back belongs to the way of touching: it moves its mean. */
export const withClickBack = <B extends MethodBias>(bias: B, allowed: readonly Allowed[]): B => ({
  ...bias,
  biasMm: bias.biasMm + allowedMm(allowed.filter(({ id }) => id === "clickBack")),
});
