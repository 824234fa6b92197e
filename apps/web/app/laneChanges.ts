import { useEffect, useRef } from "react";

const LEAST_GAP_MS = 300;

/**
 * Calls back when a lane of the class changed, or the class itself (then without a lane); one event stream a page, at
 * most a few calls a second for each lane.
 */
export function useLaneChanges(onChange: (laneId: string | null) => void): void {
  const latest = useRef(onChange);
  useEffect(() => {
    latest.current = onChange;
  });
  useEffect(() => {
    const stream = new EventSource("/api/wall/stream");
    const timers = new Map<string, ReturnType<typeof setTimeout>>();
    stream.addEventListener("lane", ({ data }: MessageEvent<string>) => {
      if (timers.has(data)) return;
      timers.set(
        data,
        setTimeout(() => {
          timers.delete(data);
          latest.current(data);
        }, LEAST_GAP_MS),
      );
    });
    stream.addEventListener("class", () => latest.current(null));
    return () => {
      stream.close();
      for (const timer of timers.values()) clearTimeout(timer);
    };
  }, []);
}
