import { memo } from "react";
import type { Observation } from "@probe-lane/core/bench";
import { marksOf } from "@probe-lane/core/machines";
import { coachWords, markWords } from "@probe-lane/core/words";
import { Button } from "../../../ui";

/** A first sentence of so many letters says what to do by itself. */
const A_WHOLE = 30;

/**
 * The one thing to do next, where the eye begins; the control that it names is outlined in the same color. Below it
 * what this gate is made of, ticked when the log has it.
 */
export const Coach = memo(function Coach({
  seen,
  onWords,
  isShort = false,
}: {
  seen: Observation;
  onWords(): void;
  /** Only what is to be done, where room is wanted. */
  isShort?: boolean;
}) {
  if (!seen.coach) return null;
  const [first = "", ...why] = coachWords(seen.coach, seen).split(/(?<=[.?!])\s+/);
  const next = seen.gates.find(({ isPassed }) => !isPassed);
  const marks = next && !seen.isStopped ? marksOf(seen, next) : [];
  return (
    <aside
      aria-label="Coach"
      className="flex shrink-0 items-start gap-3 rounded-panel border border-l-4 border-expected bg-expected-soft px-3 py-2"
    >
      <div className="min-w-0 flex-1">
        <p aria-live="polite" data-testid="coach">
          <b className="block text-base leading-5">{first}</b>
          {why.length > 0 && !(isShort && first.length > A_WHOLE) ? (
            <span className="text-sm">{why.join(" ")}</span>
          ) : null}
        </p>
        {marks.length > 0 ? (
          <ul aria-label="Of this gate" className="mt-1 flex flex-wrap gap-x-3 text-xs">
            {marks.map((mark) => (
              <li key={markWords(mark)} className={mark.isDone ? "font-bold text-expected" : "text-ink2"}>
                <span aria-hidden>{mark.isDone ? "✓" : "○"}</span> {markWords(mark)}
                <span className="sr-only">{mark.isDone ? ", done" : ", still to do"}</span>
              </li>
            ))}
          </ul>
        ) : null}
      </div>
      <Button look="quiet" className="!py-0 text-xs" onClick={onWords}>
        Words
      </Button>
    </aside>
  );
});
