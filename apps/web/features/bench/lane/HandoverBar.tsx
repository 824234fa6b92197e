import { memo } from "react";
import type { Command, Observation } from "@probe-lane/core/bench";
import { SLOW_BELOW_MM } from "@probe-lane/core/exercises";
import { scales, showLength } from "@probe-lane/core/units";
import { Button } from "../../../ui";

export const JUDGE_ID = "judge-setup";

/**
 * Someone else's setup: what was said of it, what must not happen before it is proven, and what the student says of it.
 */
export const HandoverBar = memo(function HandoverBar({
  seen,
  send,
  isReadOnly,
}: {
  seen: Observation;
  send(command: Command): void;
  isReadOnly: boolean;
}) {
  const {
    sheet: { handover, unit },
    verdict,
  } = seen;
  if (!handover) return null;
  const choice = (isSound: boolean, words: string) => {
    const isSaid = verdict === (isSound ? "sound" : "faulty");
    return (
      <Button
        id={isSound ? JUDGE_ID : undefined}
        aria-pressed={isSaid}
        keyCap={isSound ? "Z" : undefined}
        disabled={isReadOnly}
        className={isSaid ? "!border-ink !bg-ink !text-panel" : ""}
        onClick={() => send({ type: "judgeSetup", isSound })}
      >
        {isSaid ? "✓ " : ""}
        {words}
      </Button>
    );
  };
  return (
    <section
      aria-label="Handed over to you"
      className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-1 rounded-panel border border-l-[5px] border-rule border-l-contact bg-panel px-3 py-1.5"
    >
      <p className="min-w-64 flex-1">
        <b>{handover.from}:</b> “{handover.account}”{" "}
        <span className="text-ink2">
          Until you have proven it, nothing moves at rapid lower than{" "}
          {showLength(SLOW_BELOW_MM, scales[unit], unit === "mm" ? 0 : 1)} {unit === "mm" ? "mm" : "in"} over the part.
        </span>
      </p>
      <p role="group" aria-label="What you say of the setup" className="flex items-center gap-2">
        <span className="text-ink2">As it was handed over it</span>
        {choice(true, "was sound")}
        {choice(false, "was faulty")}
      </p>
    </section>
  );
});
