import type { Response } from "express";
import type { ReadPath, Replies } from "@probe-lane/contract";

/** Answers an address that is read with what the contract's table says of it. */
export const reply = <P extends ReadPath>(res: Response, _path: P, body: Replies[P]): Response => res.json(body);
