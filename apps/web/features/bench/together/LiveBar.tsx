import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { reading } from "../../../app/queries";
import { SayForm } from "../../../app/SayForm";

const many = (count: number, words: string): string[] => (count === 0 ? [] : [`${count} ${words}`]);

/**
 * For the instructor's eyes while a student works: what is off in the registers as they stand, with the likely cause,
 * and words to that bench. `turn` is how far the lane has come.
 */
export function LiveBar({ laneId, turn, studentName }: { laneId: string; turn: number; studentName: string }) {
  const { data, refetch, error } = useQuery({ ...reading("/lanes/:id/live", { id: laneId }), staleTime: Infinity });
  useEffect(() => {
    void refetch();
  }, [turn, refetch]);
  const values = data?.values ?? [];
  const off = values.filter(({ state }) => state === "off");
  const others = [
    ...many(values.filter(({ state }) => state === "right").length, "right"),
    ...many(values.filter(({ state }) => state === "notYet").length, "not set yet"),
  ].join(", ");
  return (
    <section
      aria-label="As it stands now"
      className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-1 rounded-panel border border-l-[5px] border-rule border-l-expected bg-panel px-3 py-1.5"
    >
      <div className="min-w-64 flex-1">
        <b>As it stands now</b> <span className="text-xs text-ink2">for your eyes alone</span>
        {error ? <p>{error.message}</p> : null}
        {data ? (
          <ul>
            {off.map(({ name, words }) => (
              <li key={name} className="font-bold text-contact">
                {words}
              </li>
            ))}
            <li className="text-ink2">{off.length === 0 ? `Nothing is off. ${others}.` : `${others}.`}</li>
          </ul>
        ) : (
          <p className="text-ink2">Looking …</p>
        )}
      </div>
      <SayForm laneId={laneId} to={studentName} />
    </section>
  );
}
