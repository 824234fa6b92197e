import { basename } from "node:path";
import { runOperation } from "@probe-lane/core/desk";
import { interpret, listMove, readProgram, type Dialect } from "@probe-lane/core/gcode";
import { programWords } from "@probe-lane/core/words";
import type { Console } from "./console";

const has = (args: readonly string[], word: string): boolean => args.includes(word);

/**
 * Every move of a program, a line of JSON each, as it is run; what is wrong goes to the other stream with its line and
 * column. `--lathe` reads a lathe's program, `--inch` begins in inches, `--skip` passes over blocks after a slash.
 */
export function printProgram(path: string, text: string, args: readonly string[], console: Console): number {
  const dialect: Dialect = has(args, "--lathe") ? "lathe" : "mill";
  const program = readProgram(text, dialect);
  const name = basename(path);
  for (const { line, column, code, said } of program.diagnostics)
    console.complain(`${name}:${line}:${column}: ${programWords({ code, said })}`);
  if (program.diagnostics.length > 0) return 1;
  const startUnits = has(args, "--inch") ? "inch" : "mm";
  for (const step of interpret(program, { startUnits, blockDelete: has(args, "--skip") })) {
    if (step.type === "wrong") {
      console.complain(`${name}:${step.line}: ${programWords(step)}`);
      return 1;
    }
    console.print(JSON.stringify(step.type === "move" ? listMove(step) : step));
  }
  return 0;
}

/** The first forbidden contact of a case {machine, program, registers, truth, …}: as `calc prove`, from a file. */
export function proveCase(text: string, console: Console): number {
  let input: unknown;
  try {
    input = JSON.parse(text);
  } catch {
    console.complain("prove: the file is not JSON");
    return 2;
  }
  const answer = runOperation("prove", input);
  if (!answer.ok) {
    console.complain(`prove: ${answer.error.code === "badInput" ? answer.error.message : answer.error.op}`);
    return 2;
  }
  console.print(JSON.stringify(answer.value));
  return 0;
}
