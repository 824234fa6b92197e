import { useEffect, useRef } from "react";

const LEAST_GAP_MS = 300;

/**
 * Listens to a stream of events until the page goes away. `open` comes first of all: what happened between the page's
 * own question and this moment, or while the stream was away, was told to nobody, so the page asks once more.
 */
export function useEvents(url: string, on: Readonly<Record<string, (data: string) => void>>): void {
  const latest = useRef(on);
  useEffect(() => {
    latest.current = on;
  });
  const names = Object.keys(on).join(" ");
  useEffect(() => {
    const stream = new EventSource(url);
    for (const name of names.split(" ")) {
      stream.addEventListener(name, ({ data }: MessageEvent<string>) => latest.current[name]?.(data));
    }
    return () => stream.close();
  }, [url, names]);
}

/**
 * Calls back when a lane of the class changed; without a lane when the class did, or when anything may have been
 * missed. One event stream a page, at most a few calls a second for each lane.
 */
export function useLaneChanges(onChange: (laneId: string | null) => void): void {
  const latest = useRef(onChange);
  const timers = useRef(new Map<string, ReturnType<typeof setTimeout>>());
  useEffect(() => {
    latest.current = onChange;
  });
  useEffect(() => {
    const waiting = timers.current;
    return () => {
      for (const timer of waiting.values()) clearTimeout(timer);
      waiting.clear();
    };
  }, []);
  const any = () => onChange(null);
  useEvents("/api/wall/stream", {
    open: any,
    class: any,
    lane: (laneId) => {
      if (timers.current.has(laneId)) return;
      timers.current.set(
        laneId,
        setTimeout(() => {
          timers.current.delete(laneId);
          latest.current(laneId);
        }, LEAST_GAP_MS),
      );
    },
  });
}
