import { useQuery } from "@tanstack/react-query";
import { format } from "date-fns";
import { useEffect, useState } from "react";
import { useEvents } from "../../../app/events";
import { reading } from "../../../app/queries";
import { useMe } from "../../../app/session";
import { Button, TextLink } from "../../../ui";

const READ_KEY = "probe-lane-read";
const MOST_KEPT = 100;
/** More words at once than this would push the bench off the screen. */
const MOST_SHOWN = 3;

function readBefore(): readonly string[] {
  try {
    return JSON.parse(localStorage.getItem(READ_KEY) ?? "[]") as string[];
  } catch {
    return [];
  }
}

/** What comes to a bench from others: words that stand until they are read, and the class held. */
export function TogetherBar({ laneId, onPaused }: { laneId: string; onPaused(words: string | null): void }) {
  const { me } = useMe();
  const { data, refetch } = useQuery({ ...reading("/lanes/:id/together", { id: laneId }), staleTime: 0 });
  const [read, setRead] = useState(readBefore);
  const again = () => void refetch();
  useEvents(`/api/lanes/${laneId}/together/stream`, { open: again, class: again });
  const pausedBy = data?.pausedBy ?? null;
  useEffect(() => {
    if (data) onPaused(pausedBy === null ? null : `Held by ${pausedBy} for everybody: the machine stands still.`);
  }, [data, pausedBy, onPaused]);
  const words = [
    ...(data?.messages ?? []).map(({ isToAll, ...one }) => ({ ...one, to: isToAll ? "to all" : "to you" })),
    ...(data?.notes ?? []).map((note) => ({ ...note, to: "a note on your lane" })),
  ]
    .filter(({ id }) => !read.includes(id))
    .sort((a, b) => a.at.localeCompare(b.at))
    .slice(-MOST_SHOWN);
  const close = (id: string) => {
    const kept = [...read, id].slice(-MOST_KEPT);
    localStorage.setItem(READ_KEY, JSON.stringify(kept));
    setRead(kept);
  };
  const isShowing = data?.isShowing === true && me?.role === "student";
  if (words.length === 0 && !isShowing) return null;
  return (
    <>
      {isShowing ? (
        <p role="status" className="shrink-0">
          Your instructor shows an exercise to the class. <TextLink to="/demonstration">Look at it</TextLink>
        </p>
      ) : null}
      <ul aria-label="Said to you" role="list" aria-live="polite" className="flex shrink-0 flex-col gap-1">
        {words.map(({ id, text, by, at, to }) => (
          <li
            key={id}
            className="flex items-center gap-3 rounded-panel border border-l-[5px] border-rule border-l-contact bg-panel px-3 py-1.5"
          >
            <p className="min-w-0 flex-1">
              <b>{text}</b>{" "}
              <span className="text-xs whitespace-nowrap text-ink2">
                {by}, {to}, {format(new Date(at), "HH:mm")}
              </span>
            </p>
            <Button className="!py-0.5" aria-label={`Read: ${text}`} onClick={() => close(id)}>
              Read
            </Button>
          </li>
        ))}
      </ul>
    </>
  );
}
