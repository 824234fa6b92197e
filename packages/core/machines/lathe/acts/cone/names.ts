/** What a pass along a cone does. */
export const conePasses = ["cuts", "skims", "air"] as const;
