/** How an edge in metal sounds and looks: barely, properly, singing, or heel first. */
export const cutLooks = ["scrapes", "cuts", "chatters", "rubs"] as const;
export type CutLook = (typeof cutLooks)[number];
