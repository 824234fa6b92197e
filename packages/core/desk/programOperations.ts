import { z } from "zod";
import { dialects, listMoves, programReaches, toolEnvelopes } from "../gcode";
import { operation, Refused } from "./operation";

const program = z.string();
const machine = z.enum(["mill", "lathe"]);
const startUnits = z.enum(["mm", "inch"]);

/** What is asked of a program's text alone: shapes as in the reference cases. */
export const programOperations = {
  moves: operation(
    z.strictObject({
      machine,
      program,
      startUnits,
      blockDelete: z.boolean().optional(),
      subprograms: z.record(z.string().regex(/^\d+$/), z.string()).optional(),
    }),
    ({ machine: dialect, program: text, startUnits: units, blockDelete, subprograms = {} }) => {
      const programs = new Map(Object.entries(subprograms).map(([number, body]) => [Number(number), body]));
      return listMoves(text, dialect, {
        startUnits: units,
        blockDelete,
        programs: (number) => programs.get(number) ?? null,
      });
    },
  ),
  envelope: operation(
    z.strictObject({ machine, program, startUnits }),
    ({ machine: dialect, program: text, startUnits: units }) => {
      if (text.trim() === "") throw new Refused("the program is empty: give its text");
      const { reaches, wrong } = programReaches(text, dialect, { startUnits: units });
      const [first] = wrong;
      if (first) throw new Refused(`line ${first.line} of the program is wrong (${first.code}): mend it first`);
      const hasY = dialects[dialect].axes.includes("Y");
      const tools = Object.entries(toolEnvelopes(reaches)).map(([tool, { x, y, z: all, cutZ }]) => [
        tool,
        { deepestZ: all?.[0] ?? null, deepestCutZ: cutZ?.[0] ?? null, x, ...(hasY && { y }) },
      ]);
      return { tools: Object.fromEntries(tools) as Record<string, unknown> };
    },
  ),
};
