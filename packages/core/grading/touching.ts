import type { LaneTrace, LoggedEvent, Provenance, Term } from "../diagnosis";
import type { MethodBias } from "../exercises";
import type { JogSize } from "../lane";

/** What the shop of an exercise allows at a touch, and what it leaves in a value, mm. */
export interface Allowed {
  readonly id: "clickBack" | "paperIgnored";
  readonly mm: number;
  readonly seq: number;
}

/** Paper left out of a figure, whatever it was touched with. */
const PAPER = new Set<Term["id"]>(["paperForgotten", "feelerForgotten", "gapForgotten"]);

/**
 * Whether all that was moved between a contact and its capture is one click back: the other way than the click that
 * made it, and no larger than that one. The log shows it; a move of the same size that was made otherwise is a move.
 */
function isOneClickBack(log: readonly LoggedEvent[], from: number, to: number): boolean {
  const moves = (first: number, end: number) =>
    log.flatMap(({ seq, event }) =>
      seq > first && seq < end && (event.type === "jogged" || event.type === "moved") ? [event] : [],
    );
  const came = moves(0, from + 1).at(-1);
  const [back, ...more] = moves(from, to);
  return (
    came?.type === "jogged" &&
    back?.type === "jogged" &&
    more.length === 0 &&
    back.axis === came.axis &&
    back.clicks === 1 &&
    back.direction !== came.direction &&
    BACK_CLICKS.has(back.size)
  );
}

/** Clicks that a hand takes back: a hundredth, or the finest. */
const BACK_CLICKS = new Set<JogSize>(["middle", "fine"]);

/** What of a closure is this shop's way of touching, and no fault. */
export function allowedIn({ log, final }: LaneTrace, { terms, contact }: Provenance): Allowed[] {
  const { touching } = final.setup;
  if (!touching) return [];
  return terms.flatMap(({ id, mm, seq }): Allowed[] => {
    if (id === "capturedAfterLeaving")
      return touching.clickBack !== "never" && contact && isOneClickBack(log, contact.seq, seq)
        ? [{ id: "clickBack", mm, seq }]
        : [];
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
