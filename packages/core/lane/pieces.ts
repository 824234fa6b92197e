import { z } from "zod";
import { surfaces } from "../exercises/scene";
import { isThing, type Thing } from "../instruments";
import { isRegisterId, type RegisterId } from "../registers";

/** Pieces that the commands and events of every act are made of. */

export const axis = z.enum(["x", "y", "z"]);
export const flatAxis = z.enum(["x", "y"]);
export const turnedAxis = z.enum(["x", "z"]);
export const direction = z.union([z.literal(1), z.literal(-1)]);
export const turnedFace = z.enum(["face", "diameter", "bore"]);
export const register = z.custom<RegisterId>(
  (value) => typeof value === "string" && isRegisterId(value),
  "not a register of this machine",
);
export const thing = z.custom<Thing>(isThing, "not a thing of this bench");
export const surface = z.enum(surfaces);
/** A figure as it was typed; read where its unit and its register are known. */
export const typed = z.string().max(200);
export const id = z.string().min(1).max(40);
export const tool = z.number().int().min(1).max(8);
/** Whole least increments of the machine. */
export const counts = z.number().int();
export const mm = z.number();
/** A machine position, counts. */
export const place = z.strictObject({ x: counts, y: counts, z: counts });
