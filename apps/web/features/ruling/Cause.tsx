import type { CauseId } from "@probe-lane/core/diagnosis";
import type { RegisterRuling, Ruling } from "@probe-lane/core/grading";
import { causeWords, targetWords } from "@probe-lane/core/words";
import { scales, showLength } from "@probe-lane/core/units";
import { format } from "date-fns";
import { Chain } from "./Chain";
import { Odds } from "./Odds";
import { ReplayLink } from "./ReplayLink";
import { marks } from "./show";

/**
 * What a value's cause is told apart by: what was done, or the value itself where nothing is known of it, and where
 * fingers slipped: two wrong figures are two slips and no habit.
 */
function habitOf({ cause, target }: RegisterRuling): string {
  const proven = cause.kind === "proven" ? cause.terms.map(({ id }) => id) : [];
  const ids = cause.kind === "inferred" ? (cause.ranked[0]?.ids ?? []) : proven;
  return ids.length > 0 && !ids.some((id) => SLIPS.has(id)) ? ids.join() : target.id;
}

const SLIPS: ReadonlySet<string> = new Set([
  "otherFigure",
  "digitMistyped",
  "digitsSwapped",
  "decimalShifted",
  "otherReading",
  "wrongSum",
] satisfies CauseId[]);

/** Values that went wrong for the same cause: one habit on five tools is one cause; what cost most comes first. */
export function byCause(values: readonly RegisterRuling[]): RegisterRuling[][] {
  const groups = new Map<string, RegisterRuling[]>();
  for (const value of values) {
    const key = habitOf(value);
    groups.set(key, [...(groups.get(key) ?? []), value]);
  }
  const lost = (group: readonly RegisterRuling[]) => group.reduce((sum, one) => sum + one.outOf - one.marks, 0);
  return [...groups.values()].sort((a, b) => lost(b) - lost(a));
}

const STANDING = { proven: "■ proven", inferred: "◇ inferred", none: "", unexplained: "open" } as const;

/** The moment that a cause is about: the step itself where the log has it, else the contact; 0 where it has neither. */
function seqOf({ cause, contact }: RegisterRuling): number {
  const terms = cause.kind === "proven" || cause.kind === "inferred" ? cause.terms : [];
  return terms.find(({ seq }) => seq > 0)?.seq ?? contact?.seq ?? 0;
}

/** One cause: what it is, the way from the contact to where the tool landed, and how it is known. */
export function Cause({
  laneId,
  values,
  sheet,
}: {
  laneId: string;
  values: readonly RegisterRuling[];
  sheet: Ruling["sheet"];
}) {
  const [value, ...others] = values;
  if (!value) return null;
  const { headline, body, proof } = causeWords(value, sheet);
  const seq = seqOf(value);
  const isOfKept = value.cause.kind === "proven" && value.cause.terms.some(({ id }) => id === "keptChanged");
  const lost = values.reduce((sum, one) => sum + one.outOf - one.marks, 0);
  return (
    <section
      data-testid="cause"
      className="rounded-panel border border-l-[5px] border-rule border-l-contact bg-panel px-5 py-4"
    >
      <div className="flex items-baseline gap-4">
        <h2 className="flex-1 text-lg font-bold">{headline}</h2>
        <span className="whitespace-nowrap font-bold text-ink2">{STANDING[value.cause.kind]}</span>
        <b className="figures whitespace-nowrap text-lg">{lost > 0.05 ? `−${marks(lost)}` : ""}</b>
      </div>
      <Chain values={values} sheet={sheet} />
      <p className="mt-2 max-w-prose text-[15px]">{body}</p>
      {others.length > 0 ? (
        <p className="mt-1 max-w-prose text-[15px]">
          <b>The same on</b>{" "}
          {others
            .map(
              ({ target, closureMm }) =>
                `${targetWords(target)} (${closureMm > 0 ? "+" : ""}${showLength(closureMm, scales[sheet.unit])})`,
            )
            .join(", ")}
          {isOfKept ? ": taken back with it." : ": one habit, one cause."}
        </p>
      ) : null}
      {value.cause.kind === "inferred" ? <Odds ranked={value.cause.ranked} /> : null}
      <p className="mt-2 text-ink2">
        {proof}
        {value.contact && value.cause.kind === "proven" ? (
          <>
            {" "}
            The contact is entry {value.contact.seq} of the log, at {format(new Date(value.contact.atMs), "HH:mm:ss")}.
          </>
        ) : null}
        {seq > 0 ? (
          <>
            {" "}
            <ReplayLink laneId={laneId} seq={seq} />
          </>
        ) : null}
      </p>
    </section>
  );
}
