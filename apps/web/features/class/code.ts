import { keyOf } from "../../app/queries";

export const CLASS_KEY = keyOf("/class", {});

/** A code as it is read aloud, in two halves. */
export const spaced = (code: string): string => `${code.slice(0, 4)} ${code.slice(4)}`.trim();
