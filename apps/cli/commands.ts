import { existsSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { createInterface } from "node:readline";
import { runOperation, type OperationRefusal } from "@probe-lane/core/desk";
import type { Console } from "./console";
import { expectBench } from "./expect";
import { expectFloor, gradeFloor } from "./floor";
import { printProgram, proveCase } from "./program";
import { replayLane } from "./replay";
import { runVectors } from "./vectors";

const USAGE = [
  "usage: cli calc OP            one input as JSON on standard input, the answer as JSON",
  '       cli calc --batch       lines of {"op","input"}, one line of answer each',
  "       cli vectors FOLDER     run a folder of reference cases",
  "       cli replay LANE.json   fold an exported lane, print its state and ruling",
  "       cli expect EXERCISE.json --seed N [--school S]   what every register of a bench lane should hold",
  "       cli expect FLOOR.json  what each register of a floor lane follows to from its readings",
  "       cli gcode PROGRAM.nc [--lathe] [--inch] [--skip]   its moves, a line of JSON each, and what is wrong with it",
  "       cli prove CASE.json    the first forbidden contact of a program with its registers on a true machine",
  "       cli grade FLOOR.json   the ruling of a floor lane: {exercise, entries}",
].join("\n");

const FILE_COMMANDS = new Set(["vectors", "replay", "grade", "expect", "gcode", "prove"]);

function say(refusal: OperationRefusal): string {
  return refusal.code === "unknownOperation"
    ? `operation "${refusal.op}" is not built; see the list in docs/architecture.md`
    : refusal.message;
}

function readJson(text: string): { value: unknown } | null {
  try {
    return { value: JSON.parse(text) };
  } catch {
    return null;
  }
}

async function readAll(stream: NodeJS.ReadableStream): Promise<string> {
  let text = "";
  for await (const chunk of stream) text += String(chunk);
  return text;
}

async function calc(op: string, { input, print, complain }: Console): Promise<number> {
  const json = readJson(await readAll(input));
  if (!json) {
    complain(`${op}: standard input is not JSON`);
    return 2;
  }
  const answer = runOperation(op, json.value);
  if (!answer.ok) {
    complain(`${op}: ${say(answer.error)}`);
    return 2;
  }
  print(JSON.stringify(answer.value));
  return 0;
}

function answerLine(line: string): string {
  const json = readJson(line);
  const row = json?.value as { op?: unknown; input?: unknown } | null | undefined;
  if (!row || typeof row !== "object" || typeof row.op !== "string") {
    return JSON.stringify({ error: 'a line must be JSON of the form {"op": "edge", "input": {…}}' });
  }
  const answer = runOperation(row.op, row.input);
  return JSON.stringify(answer.ok ? answer.value : { error: say(answer.error) });
}

/** Runs one call of the command line and returns its exit code: 0 done, 1 a check failed, 2 not understood. */
export async function runCommand(args: readonly string[], console: Console): Promise<number> {
  const [command, argument] = args;
  if (command === "calc" && argument === "--batch") {
    for await (const line of createInterface({ input: console.input }))
      if (line.trim() !== "") console.print(answerLine(line));
    return 0;
  }
  if (command === "calc" && argument) return calc(argument, console);
  if (command !== undefined && FILE_COMMANDS.has(command) && argument && !existsSync(argument)) {
    console.complain(`${command}: ${argument} does not exist: check the path`);
    return 2;
  }
  if (command === "vectors" && argument) return runVectors(argument, console.print);
  if (command === "replay" && argument) return replayLane(readFileSync(argument, "utf8"), console);
  if (command === "gcode" && argument)
    return printProgram(argument, readFileSync(argument, "utf8"), args.slice(2), console);
  if (command === "prove" && argument) return proveCase(readFileSync(argument, "utf8"), console);
  if (command === "grade" && argument) return gradeFloor(readFileSync(argument, "utf8"), console);
  if (command === "expect" && argument && args.length > 2)
    return expectBench(
      { text: readFileSync(argument, "utf8"), beside: (file) => readFileSync(join(dirname(argument), file), "utf8") },
      args.slice(2),
      console,
    );
  if (command === "expect" && argument) return expectFloor(readFileSync(argument, "utf8"), console);
  console.complain(USAGE);
  return 2;
}
