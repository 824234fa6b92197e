/** What caliper, micrometer and rule can be put to. */
export const measurable = ["toolDiameter", "toolReach", "gapThing", "stockX", "stockY", "stockZ", "feature"] as const;
