import { z } from "zod";

/** Thrown inside an operation for an input that cannot be; `runOperation` turns it into a refusal. */
export class Refused extends Error {}

export function must<T>(value: T | null, message: string): T {
  if (value === null) throw new Refused(message);
  return value;
}

export const operation = <S extends z.ZodType>(schema: S, run: (input: z.output<S>) => unknown) => ({
  schema: schema as z.ZodType,
  run: run as (input: unknown) => unknown,
});

export const number = z.number();
export const notNegative = z.number().min(0, "must not be below zero");
export const place = z.tuple([number, number]);
