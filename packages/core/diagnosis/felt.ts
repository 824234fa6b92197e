/** The finest click of a bench, mm, with room for its inch one: what was felt by it was felt as well as it can be. */
export const FINEST_CLICK_MM = 0.003;

/** What hands do wrong at a contact: they press what is between, or come in too coarsely. */
export type FeltFault = "paperPinched" | "edgePressed" | "coarseClick";

/** A contact as it was felt; `by` is "cut" where the edge took metal, "straightEdge" where a blade stood between. */
export interface Felt {
  readonly feel: string;
  readonly clickMm: number;
  readonly by: string;
}

/** Something between tip and part was pressed: a paper pinched or torn, a straight edge pushed off its face. */
export function pressedBetween({ feel, by }: Felt): FeltFault | null {
  if (feel !== "pinched" && feel !== "torn") return null;
  return by === "straightEdge" ? "edgePressed" : "paperPinched";
}

/** The last click was coarser than the finest; a cut is not found by clicks. */
export const cameCoarsely = ({ clickMm, by }: Omit<Felt, "feel">): FeltFault | null =>
  clickMm > FINEST_CLICK_MM && by !== "cut" ? "coarseClick" : null;
