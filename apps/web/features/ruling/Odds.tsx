import type { CauseId } from "@probe-lane/core/diagnosis";
import { causeName } from "@probe-lane/core/words";

/** What else a figure may be, each as wide as it is likely. */
export function Odds({
  ranked,
}: {
  ranked: readonly { readonly ids: readonly string[]; readonly probability: number }[];
}) {
  if (ranked.length < 2) return null;
  return (
    <ul aria-label="What it may be" className="mt-2 max-w-prose">
      {ranked.map(({ ids, probability }, place) => {
        const of100 = Math.round(probability * 100);
        return (
          <li key={ids.join()} className="grid grid-cols-[7rem_2.5rem_1fr] items-center gap-2">
            <span aria-hidden className="h-2.5 bg-rule-soft">
              <span
                className={`block h-2.5 ${place === 0 ? "bg-contact" : "bg-ink3"}`}
                style={{ width: `${of100}%` }}
              />
            </span>
            <b className="figures text-right">{of100 < 1 ? "<1" : of100}</b>
            <span>{ids.length > 0 ? ids.map((id) => causeName(id as CauseId)).join(" with ") : "something else"}</span>
          </li>
        );
      })}
    </ul>
  );
}
