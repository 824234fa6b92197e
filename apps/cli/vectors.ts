import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { runOperation } from "@probe-lane/core/desk";

interface Case {
  name: string;
  input: unknown;
  expect: unknown;
  tolerance: number;
}

/** The first place where an answer leaves the expectation, or null. Keys that are not expected are not looked at. */
export function firstDifference(expected: unknown, actual: unknown, tolerance: number, path = ""): string | null {
  if (typeof expected === "number") {
    const isNear = typeof actual === "number" && Math.abs(actual - expected) <= tolerance;
    return isNear ? null : `${path || "answer"}: expected ${expected}, got ${JSON.stringify(actual)}`;
  }
  if (expected === null || typeof expected !== "object") {
    return expected === actual
      ? null
      : `${path || "answer"}: expected ${JSON.stringify(expected)}, got ${JSON.stringify(actual)}`;
  }
  if (Array.isArray(expected) && (!Array.isArray(actual) || actual.length !== expected.length)) {
    return `${path}: expected ${expected.length} entries, got ${JSON.stringify(actual)}`;
  }
  if (actual === null || typeof actual !== "object")
    return `${path}: expected an object, got ${JSON.stringify(actual)}`;
  for (const [key, value] of Object.entries(expected)) {
    const difference = firstDifference(
      value,
      (actual as Record<string, unknown>)[key],
      tolerance,
      path ? `${path}.${key}` : key,
    );
    if (difference) return difference;
  }
  return null;
}

const isRefusalExpected = (expect: unknown): boolean =>
  typeof expect === "object" && expect !== null && (expect as { error?: unknown }).error === true;

/** "passed", "skipped", or what is wrong. */
function judge(op: string, { input, expect, tolerance }: Case): string {
  const answer = runOperation(op, input);
  if (!answer.ok && answer.error.code === "unknownOperation") return "skipped";
  if (isRefusalExpected(expect))
    return answer.ok ? `expected a refusal, got ${JSON.stringify(answer.value)}` : "passed";
  if (!answer.ok) return `refused: ${answer.error.code === "badInput" ? answer.error.message : answer.error.op}`;
  return firstDifference(expect, answer.value, tolerance) ?? "passed";
}

/** Runs every file of reference cases in a folder; the last line is the count. 0 when none failed, else 1. */
export function runVectors(folder: string, print: (line: string) => void): number {
  let passed = 0;
  let failed = 0;
  const skippedOps: string[] = [];
  for (const file of readdirSync(folder)
    .filter((name) => name.endsWith(".json"))
    .sort()) {
    const { op, cases } = JSON.parse(readFileSync(join(folder, file), "utf8")) as { op: string; cases: Case[] };
    let skipped = 0;
    for (const one of cases) {
      const verdict = judge(op, one);
      if (verdict === "passed") passed += 1;
      else if (verdict === "skipped") skipped += 1;
      else {
        failed += 1;
        print(`FAILED ${op}: ${one.name}: ${verdict}`);
      }
    }
    if (skipped > 0) skippedOps.push(`${op} (${skipped})`);
  }
  if (skippedOps.length > 0) print(`skipped, not built yet: ${skippedOps.join(", ")}`);
  print(`${passed} passed, ${failed} failed`);
  return failed === 0 ? 0 : 1;
}
