import type { Dialect } from "@probe-lane/core/gcode";
import { useEffect, useRef, useState } from "react";
import type { ReadReply, ReadRequest } from "./reader.worker";

/** Longer texts are not read here: no control of a school's shop would take them. */
export const LONGEST_TEXT = 8_000_000;
const WAIT_MS = 150;

/** What a program says, read beside the page; null while it is being read for the first time. */
export function useProgram(
  text: string,
  dialect: Dialect,
  startUnits: "mm" | "inch",
  blockDelete: boolean,
): { readonly read: ReadReply | null; readonly isReading: boolean } {
  const [reply, setReply] = useState<ReadReply | null>(null);
  const [asked, setAsked] = useState(0);
  const worker = useRef<Worker | null>(null);
  const last = useRef(0);
  useEffect(() => {
    const reader = new Worker(new URL("./reader.worker.ts", import.meta.url), { type: "module" });
    reader.onmessage = ({ data }: MessageEvent<ReadReply>) => setReply(data);
    worker.current = reader;
    return () => {
      worker.current = null;
      reader.terminate();
    };
  }, []);
  useEffect(() => {
    const wait = setTimeout(() => {
      last.current += 1;
      setAsked(last.current);
      worker.current?.postMessage({ id: last.current, text, dialect, startUnits, blockDelete } satisfies ReadRequest);
    }, WAIT_MS);
    return () => clearTimeout(wait);
  }, [text, dialect, startUnits, blockDelete]);
  return { read: reply, isReading: reply === null || reply.id !== asked };
}
