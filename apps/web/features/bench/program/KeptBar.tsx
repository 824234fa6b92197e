import type { Command, Observation } from "@probe-lane/core/bench";
import type { KeptSetup } from "@probe-lane/core/exercises";
import type { RegisterId } from "@probe-lane/core/registers";
import { scales, showLength } from "@probe-lane/core/units";
import { keptRowWords, partsSinceWords, registerName } from "@probe-lane/core/words";
import { memo, useState, type FormEvent } from "react";
import { Button, SideSheet } from "../../../ui";
import { outlined, type Control } from "../lane/kit";

const head = "px-2 py-1 text-left text-xs font-normal text-ink2";

const SAYS = ["Say: nothing is touched again", "Say: this one is touched again"];

/** The card as it was kept, and the same things today; which of them differ is for the reader to see. */
function Card({ kept }: { kept: KeptSetup }) {
  return (
    <table className="w-full" aria-label="The card, and today">
      <thead>
        <tr className="border-b border-rule">
          <th className={head} />
          <th className={head}>on the card</th>
          <th className={head}>today</th>
        </tr>
      </thead>
      <tbody>
        {kept.rows.map((row) => {
          const { what, then, today } = keptRowWords(row, kept.initials);
          return (
            <tr key={what} className="border-t border-rule-soft align-top">
              <th scope="row" className="px-2 py-1 text-left whitespace-nowrap">
                {what}
              </th>
              <td className="px-2 py-1">{then}</td>
              <td className="px-2 py-1">{today}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** The values that were kept, each to be called one that is touched again, or one that stands. */
function Stale({ seen, kept, send }: { seen: Observation; kept: KeptSetup; send(command: Command): void }) {
  const named = seen.program?.kept.named ?? null;
  const [chosen, setChosen] = useState<readonly RegisterId[]>(named ?? []);
  const name = (event: FormEvent) => {
    event.preventDefault();
    send({ type: "nameStale", registers: [...chosen] });
  };
  const isSaid = named !== null && named.length === chosen.length && chosen.every((one) => named.includes(one));
  return (
    <form onSubmit={name} aria-label="Touched again" className="flex flex-col gap-2">
      <table className="w-full">
        <thead>
          <tr className="border-b border-rule">
            <th className={head}>register</th>
            <th className={`${head} !text-right`}>kept</th>
            <th className={head}>touch again</th>
          </tr>
        </thead>
        <tbody>
          {kept.registers.map(({ register, mm }) => {
            const words = registerName(register, seen.kind);
            const isChosen = chosen.includes(register);
            return (
              <tr key={register} className="border-t border-rule-soft">
                <th scope="row" className="px-2 py-0.5 text-left font-bold">
                  {words}
                </th>
                <td className="figures px-2 py-0.5 text-right">{showLength(mm, scales[seen.sheet.unit])}</td>
                <td className="px-2 py-0.5">
                  <label className="flex min-h-6 items-center gap-1.5">
                    <input
                      type="checkbox"
                      checked={isChosen}
                      onChange={() =>
                        setChosen(isChosen ? chosen.filter((one) => one !== register) : [...chosen, register])
                      }
                    />
                    <span className="sr-only">{words} is </span>touch again
                  </label>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className="flex flex-wrap items-center gap-2">
        <Button type="submit" look={isSaid ? "plain" : "act"}>
          {SAYS[chosen.length] ?? `Say: these ${chosen.length} are touched again`}
        </Button>
        {isSaid ? <span role="status">Said.</span> : null}
      </div>
    </form>
  );
}

/** A setup of this part that was proven and kept: compared with today, then taken back. */
export const KeptBar = memo(function KeptBar({
  seen,
  send,
  isReadOnly,
  pointed,
}: {
  seen: Observation;
  send(command: Command): void;
  isReadOnly: boolean;
  pointed: ReadonlySet<Control>;
}) {
  const [isOpen, setOpen] = useState(false);
  const { kept } = seen.sheet;
  const desk = seen.program?.kept;
  if (!kept || !desk) return null;
  const names = (registers: readonly RegisterId[]) => registers.map((one) => registerName(one, seen.kind)).join(", ");
  const left = (desk.named ?? []).filter((register) => !desk.changed.includes(register));
  const said = desk.named?.length === 0 ? "nothing" : names(desk.named ?? []);
  const takeBack = () => {
    send({ type: "takeSetupBack" });
    setOpen(false);
  };
  const take = (
    <Button look="act" className={outlined(pointed, "takeBack")} onClick={takeBack}>
      Take it back
    </Button>
  );
  return (
    <section
      aria-label="Setup that was kept"
      className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-1 rounded-panel border border-l-[5px] border-rule border-l-expected bg-panel px-3 py-1.5"
    >
      <p className="min-w-64 flex-1">
        <b>A proven setup of this part is kept:</b> by {kept.initials}, {kept.daysAgo} days ago, program{" "}
        <b className="figures">{kept.program}</b>.{" "}
        {kept.partsSince && !desk.isTaken ? `${partsSinceWords(kept.partsSince)} ` : null}
        {desk.isTaken ? (
          <span>
            Taken back.{" "}
            {left.length > 0 ? (
              <b>Still to be touched again: {names(left)}.</b>
            ) : (
              <span className="text-ink2">To be touched again: {said}.</span>
            )}
          </span>
        ) : (
          <span className="text-ink2">
            {desk.named === null
              ? "Compare its card with today before anything moves."
              : `To be touched again: ${said}.`}
          </span>
        )}
      </p>
      {isReadOnly ? null : (
        <p className="flex items-center gap-2">
          <Button className={outlined(pointed, "compare")} onClick={() => setOpen(true)}>
            {desk.isTaken ? "Look at its card" : "Compare with today …"}
          </Button>
          {desk.isTaken || desk.named === null ? null : take}
        </p>
      )}
      <SideSheet
        isWide
        title={`Setup kept by ${kept.initials}, ${kept.daysAgo} days ago`}
        isOpen={isOpen}
        onClose={() => setOpen(false)}
      >
        <div className="flex flex-col gap-4">
          <Card kept={kept} />
          {kept.partsSince ? <p>{partsSinceWords(kept.partsSince)}</p> : null}
          {desk.isTaken ? (
            <p>Taken back. To be touched again you said: {said}.</p>
          ) : (
            <>
              <Stale seen={seen} kept={kept} send={send} />
              {desk.named === null ? null : <p>{take}</p>}
            </>
          )}
        </div>
      </SideSheet>
    </section>
  );
});
