import type { FloorRuling, FloorState } from "@probe-lane/core/floor";
import { floorValueWords, floorWorkingWords, mistakeWords, causeName } from "@probe-lane/core/words";
import { Panel } from "../../ui";
import { exerciseFor, lengthsOf } from "./show";

const STRANDS = { values: "Values", working: "Working", method: "Method", safety: "Safety" } as const;
const marksText = (value: number): string =>
  Math.abs(value - Math.round(value)) < 0.05 ? String(Math.round(value)) : value.toFixed(1);

const EDGES: Record<FloorRuling["values"][number]["verdict"], string> = {
  right: "border-rule",
  within: "border-rule",
  tooClose: "border-expected",
  wrong: "border-contact",
  missing: "border-contact",
  checksDisagree: "border-contact",
  checkTooCoarse: "border-contact",
};

/** Whether a value was set after what comes before it; nothing is said of one that was not set. */
function orderWords({ heldMm, isInOrder }: FloorRuling["values"][number]): string {
  if (heldMm === null) return "";
  return isInOrder ? "Read before it was set." : "It was set before the cautions were read and the readings written.";
}

/**
 * The ruling of a floor lane: by inference, since no log proves anything here, and never more than the check can say.
 */
export function FloorRulingView({ ruling, state }: { ruling: FloorRuling; state: FloorState }) {
  return (
    <Panel title={state.handedIn ? "Ruling" : "Ruling, as it would be now"} bodyClassName="flex flex-col gap-3 p-3">
      <p>
        <b data-testid="floor-total" className="figures text-4xl">
          {marksText(ruling.total)}
        </b>{" "}
        <span className="figures text-ink2">of {ruling.outOf}</span>
        {state.override ? <span className="ml-2">set by your instructor: {state.override.reason}</span> : null}
      </p>
      <p className="figures text-ink2">
        {ruling.strands.map(({ name, marks, outOf }) => `${STRANDS[name]} ${marksText(marks)}/${outOf}`).join(" · ")}
      </p>
      {ruling.habits.map(({ id, registers }) => (
        <p key={id} className="border-l-[5px] border-contact pl-3">
          <b className="first-letter:uppercase">
            One habit: {causeName(id)}, on {registers.join(", ")}.
          </b>{" "}
          {mistakeWords[id].check}
        </p>
      ))}
      {ruling.values.map((value) => {
        const { headline, body } = floorValueWords(value, lengthsOf(exerciseFor(state.exercise, value.register)).show);
        return (
          <div key={value.register.id} className={`border-l-[5px] pl-3 ${EDGES[value.verdict]}`}>
            <p className="font-bold">{headline}</p>
            <p className="text-ink2">
              {body} {floorWorkingWords(value)} {orderWords(value)}
            </p>
          </div>
        );
      })}
    </Panel>
  );
}
