/** Where a tool meets the part. */
export type TurnedFace = "face" | "diameter" | "bore" | "cone";

/** Faces that something can be held at. */
export type HeldFace = Exclude<TurnedFace, "cone">;
