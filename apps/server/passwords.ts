import { hash, verify } from "@node-rs/argon2";
import pLimit from "p-limit";

/**
 * Hashing is costly by nature. It has its own small pool, so that a class that signs in at once waits for itself and
 * nobody else does: the threads that answer everything besides stay free.
 */
const atOnce = pLimit(2);

export const hashPassword = (password: string): Promise<string> => atOnce(() => hash(password));
export const isPassword = (hashed: string, password: string): Promise<boolean> =>
  atOnce(() => verify(hashed, password));
