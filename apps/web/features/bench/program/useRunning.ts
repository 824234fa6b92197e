import type { Command } from "@probe-lane/core/bench";
import type { ProgramSeen } from "@probe-lane/core/machines/program";
import { useCallback, useEffect, useRef, useState } from "react";

/** The form that starts or resumes a run: its key does what its button says. */
export const RUN_FORM = "run-form";

/** How often a run is taken on, ms. */
const SLICE_MS = 250;
/** How many machine seconds go by in one of the clock's. */
export const clockFactors = [1, 4, 20] as const;
export type ClockFactor = (typeof clockFactors)[number];

/**
 * Takes a run on while this page keeps it going: it asks for the next slice when the one before was answered. A run
 * that was left under way is held when the bench is opened again: a machine does not go on by itself.
 */
export function useRunning({
  program,
  isWaiting,
  isReadOnly,
  send,
}: {
  program: ProgramSeen | undefined;
  isWaiting: boolean;
  isReadOnly: boolean;
  send(command: Command): void;
}) {
  const [factor, setFactor] = useState<ClockFactor>(1);
  const isUnderWay = program?.run != null && program.run.held === null;
  const wasLeft = useRef(isUnderWay && !isReadOnly);
  const latest = useRef({ isWaiting, factor, send });
  useEffect(() => {
    latest.current = { isWaiting, factor, send };
  });
  useEffect(() => {
    if (!isUnderWay || isReadOnly) return undefined;
    if (wasLeft.current) {
      wasLeft.current = false;
      latest.current.send({ type: "holdCycle" });
      return undefined;
    }
    const timer = setInterval(() => {
      const now = latest.current;
      if (!now.isWaiting) now.send({ type: "runOn", ms: SLICE_MS * now.factor });
    }, SLICE_MS);
    return () => clearInterval(timer);
  }, [isUnderWay, isReadOnly]);
  return { factor, setFactor: useCallback((next: ClockFactor) => setFactor(next), []) };
}
