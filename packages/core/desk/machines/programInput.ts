import { z } from "zod";
import { MOST_MOVES, TooManyMoves, UnknownRegister, UnknownTool } from "../../proving";
import { tipCodes } from "../../registers/nose";
import { notNegative, number, place, Refused } from "../operation";

export const triple = z.tuple([number, number, number]);
export const above = z.number().positive("must be above zero");
export const tools = <T extends z.ZodType>(tool: T) => z.record(z.string().regex(/^\d+$/), tool);
export const tipCode = z.literal([...tipCodes], { error: "a tip code is one of 0 to 9" });
/** Whole angle of a drill's point, degrees. */
export const pointAngle = z.number().positive().max(179, "must be below 180").optional();

export const millRegisters = z.strictObject({
  common: triple.optional(),
  work: z.record(z.string(), triple),
  tools: tools(z.strictObject({ H: number, Hw: number.optional(), D: number.optional(), Dw: number.optional() })),
  mode: z.enum(["diameter", "radius"]),
});

export const latheRegisters = z.strictObject({
  common: place.optional(),
  work: z.record(z.string(), place),
  tools: tools(
    z.strictObject({
      x: number,
      z: number,
      xw: number.optional(),
      zw: number.optional(),
      noseRadius: notNegative.optional(),
      tipCode: tipCode.optional(),
    }),
  ),
});

export const byNumber = <A, B>(record: Record<string, A>, make: (value: A) => B): Map<number, B> =>
  new Map(Object.entries(record).map(([key, value]) => [Number(key), make(value)]));

/** Refuses a program that cannot be run, by its line. */
export const refuseWrong = ({ line, code }: { readonly line: number; readonly code: string }): never => {
  throw new Refused(`line ${line} of the program is wrong (${code}): mend it first`);
};

/** Runs a program, and refuses in one sentence what it calls and nobody gave. */
export function withKnown<T>(run: () => T): T {
  try {
    return run();
  } catch (error) {
    if (error instanceof UnknownTool)
      throw new Refused(`tool ${error.tool}, called in line ${error.line}, is not among the true tools: add it`);
    if (error instanceof TooManyMoves)
      throw new Refused(
        `up to line ${error.line} there are ${MOST_MOVES} moves, and no more are run: give a part of it`,
      );
    if (error instanceof UnknownRegister) throw new Refused(`${error.register} is not among the registers: add it`);
    throw error;
  }
}
