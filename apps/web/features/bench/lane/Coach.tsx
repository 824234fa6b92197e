import type { Observation } from "@probe-lane/core/bench";
import { coachWords } from "@probe-lane/core/words";
import { Button } from "../../../ui";

/** The one thing to do next, where the eye begins; the control that it names is outlined in the same color. */
export function Coach({ seen, onWords }: { seen: Observation; onWords(): void }) {
  if (!seen.coach) return null;
  const [first = "", ...why] = coachWords(seen.coach, seen).split(/(?<=[.?!])\s+/);
  return (
    <aside
      aria-label="Coach"
      aria-live="polite"
      data-testid="coach"
      className="flex shrink-0 items-start gap-3 rounded-panel border border-l-4 border-expected bg-expected-soft px-3 py-2"
    >
      <p className="min-w-0 flex-1">
        <b className="block text-base leading-5">{first}</b>
        {why.length > 0 ? <span className="text-sm">{why.join(" ")}</span> : null}
      </p>
      <Button look="quiet" className="!py-0 text-xs" onClick={onWords}>
        Words
      </Button>
    </aside>
  );
}
