/** How a point looks against an edge that it is held over. */
export const sightings = ["before", "over", "behind"] as const;
