import { keyOf, reading } from "../../app/queries";
import type { FloorLaneView } from "@probe-lane/contract";
import { foldFloor, type FloorEntry, type FloorState } from "@probe-lane/core/floor";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { v4 } from "uuid";
import { api, ApiError } from "../../app/api";
import { useEvents } from "../../app/events";
import { FloorQueue, merged, shelfOf, type PendingEntry } from "./floorQueue";

const RETRY_MS = 4000;
/** Where the stream does not come through: a page that listens is told at once. */
const REFRESH_MS = 30_000;

const isRefusal = (error: unknown): error is ApiError =>
  error instanceof ApiError && !error.isPassing && error.code !== "notSignedIn" && error.status < 500;

/** A floor lane as this device knows it: the server's entries and its own that are still on the way. */
export function useFloorLane(id: string): {
  view: FloorLaneView | undefined;
  state: FloorState | null;
  error: ApiError | null;
  waiting: number;
  refused: string | null;
  write(...entries: FloorEntry[]): void;
  /** Of an instructor: what stands on the student's worksheet. */
  writeFromPaper(...entries: FloorEntry[]): void;
} {
  const client = useQueryClient();
  const key = useMemo(() => keyOf("/floor/lanes/:id", { id }), [id]);
  const { data, error } = useQuery({ ...reading("/floor/lanes/:id", { id }), refetchInterval: REFRESH_MS });
  const reread = () => void client.invalidateQueries({ queryKey: key });
  useEvents(`/api/floor/lanes/${id}/stream`, { open: reread, lane: reread });
  const shelf = useMemo(() => shelfOf(id), [id]);
  const [pending, setPending] = useState<PendingEntry[]>(() => shelf.read());
  const [refused, setRefused] = useState<string | null>(null);
  const queue = useMemo(
    () =>
      new FloorQueue(
        shelf,
        async (entries) => {
          await api.post<null>(`/floor/lanes/${id}/entries`, { entries });
          // what was sent stays in view: a reply that was asked for earlier may not know it yet
          await client.cancelQueries({ queryKey: key });
          client.setQueryData<FloorLaneView>(
            key,
            (held) => held && { ...held, entries: merged(held.entries, entries) },
          );
        },
        () => setPending(shelf.read()),
        isRefusal,
      ),
    [id, shelf, client, key],
  );
  const flush = useCallback(async () => {
    if (queue.pending().length === 0) return;
    try {
      await queue.flush();
      setRefused(null);
    } catch (failure) {
      if (!isRefusal(failure)) return;
      setRefused(failure.message);
    }
    await client.invalidateQueries({ queryKey: key });
  }, [queue, client, key]);
  useEffect(() => {
    const again = () => void flush();
    const first = setTimeout(again);
    window.addEventListener("online", again);
    const timer = setInterval(again, RETRY_MS);
    return () => {
      clearTimeout(first);
      window.removeEventListener("online", again);
      clearInterval(timer);
    };
  }, [flush]);
  const add = (entries: readonly FloorEntry[], more?: Pick<PendingEntry, "isFromPaper">): void => {
    queue.add(entries, Date.now(), v4, more);
    void flush();
  };
  const write = (...entries: FloorEntry[]) => add(entries);
  const writeFromPaper = (...entries: FloorEntry[]) => add(entries, { isFromPaper: true });
  const state = data ? foldFloor(data.exercise, merged(data.entries, pending)) : null;
  return { view: data, state, error, waiting: pending.length, refused, write, writeFromPaper };
}
