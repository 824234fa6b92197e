/** +1: moving plus, onto the low side of the part; −1: moving minus, onto the high side. */
export type Approach = 1 | -1;

export interface EdgeAnswer {
  edge: number;
  captureAs: number;
  work: number;
}

/**
 * Where an edge lies and what its work offset must hold, from one contact. Any length unit, machine frame.
 * edge = contact + s·r; capture as o − s·r; W = edge − o − C. With r = 0 (dial over the edge) the edge is the contact.
 */
export function edgeFromContact(
  contact: number,
  approach: Approach,
  tipRadius: number,
  edgeWork = 0,
  common = 0,
): EdgeAnswer {
  const edge = contact + approach * tipRadius;
  return { edge, captureAs: edgeWork - approach * tipRadius, work: edge - edgeWork - common };
}
