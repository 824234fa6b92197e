import { memo } from "react";
import type { ReactNode } from "react";

/** The lane as a steel rule: graduations, gates as marks, one pointer where the work stands. */
export const LaneRule = memo(function LaneRule({
  gates,
  isSmall = false,
  label,
}: {
  gates: readonly { name: string; label: ReactNode; isPassed: boolean }[];
  isSmall?: boolean;
  label: string;
}) {
  const at = gates.findIndex(({ isPassed }) => !isPassed);
  const here = at === -1 ? gates.length : at;
  const share = 100 / gates.length;
  const MINOR = 8;
  return (
    <div className={isSmall ? "" : "shrink-0 border-b border-rule bg-well px-2"}>
      <div aria-hidden className="relative h-3">
        <div className="absolute inset-x-0 top-0 h-[3px] bg-rule" />
        <div className="absolute top-0 left-0 h-[3px] bg-ink" style={{ width: `${here * share}%` }} />
        {Array.from({ length: gates.length * MINOR + 1 }, (_, tick) => (
          <div
            key={tick}
            className="absolute top-[3px] w-px bg-ink3"
            style={{
              left: `${(tick * share) / MINOR}%`,
              height: tick % MINOR === 0 ? 9 : tick % (MINOR / 2) === 0 ? 6 : 4,
              opacity: tick % MINOR === 0 ? 1 : 0.55,
            }}
          />
        ))}
        <div
          className="absolute top-[2px] -ml-[7px] h-0 w-0 border-x-[7px] border-b-[9px] border-x-transparent border-b-contact"
          style={{ left: `${Math.min(here * share + (here < gates.length && !isSmall ? share / 2 : 0), 100)}%` }}
        />
      </div>
      <ol aria-label={label} className="flex">
        {gates.map(({ name, label: words, isPassed }, index) => (
          <li
            key={name}
            aria-current={index === here ? "step" : undefined}
            style={{ width: `${share}%` }}
            className={`truncate text-center ${isSmall ? "sr-only" : "px-1 pb-1"} ${index === here ? "font-bold text-contact" : isPassed ? "text-ink" : "text-ink2"}`}
          >
            {isPassed ? <span aria-label="done">✓ </span> : null}
            {words}
          </li>
        ))}
      </ol>
    </div>
  );
});
