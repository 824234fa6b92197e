import { scales, showLength } from "@probe-lane/core/units";
import { useState, type FormEvent } from "react";
import { Button, FigureInput } from "../../../../../ui";
import type { LatheDialogProps } from "../view";

const SETS = {
  "metric-88": "1.0005 · 1.001 to 1.009 by 0.001 · 1.01 to 1.49 by 0.01 · 0.5 to 9.5 by 0.5 · 10 to 100 by 10",
  "inch-81": ".1001 to .1009 by .0001 · .101 to .149 by .001 · .050 to .950 by .050 · 1, 2, 3, 4",
} as const;

/** Ground pin, stack of blocks and slide, in section: where the axis lies over what is measured. */
function Section({ isTail }: { isTail: boolean }) {
  return (
    <svg
      viewBox="0 0 250 176"
      className="w-60 shrink-0"
      role="img"
      aria-label={`Section: blocks on the slide under the ground pin in the ${isTail ? "tailstock" : "spindle"}`}
    >
      <rect x="0" y="152" width="250" height="24" fill="var(--steel)" stroke="var(--steel-dark)" />
      <text x="8" y="169" fontSize="12" fill="var(--ink)">
        slide
      </text>
      <rect x={isTail ? 178 : 0} y="16" width="72" height="62" fill="var(--steel-dark)" />
      <text x={isTail ? 184 : 8} y="34" fontSize="12" fill="var(--panel)">
        {isTail ? "tailstock" : "spindle"}
      </text>
      <rect x={isTail ? 70 : 72} y="34" width="108" height="26" fill="var(--stock)" stroke="var(--stock-edge)" />
      <path d="M0 47H250" stroke="var(--expected)" strokeDasharray="14 4 3 4" />
      {[
        [60, 40],
        [100, 26],
        [126, 16],
        [142, 10],
      ].map(([y, h]) => (
        <rect key={y} x="104" y={y} width="44" height={h} fill="var(--expected-soft)" stroke="var(--expected)" />
      ))}
      <path d="M60 47V152M54 52l6-5 6 5M54 147l6 5 6-5" stroke="var(--contact)" fill="none" />
      <text x="54" y="104" textAnchor="end" fontSize="12" fill="var(--contact)">
        axis?
      </text>
    </svg>
  );
}

/** The stack under the pin, the setting gauge at its crest, and what is said of both. Nothing is added up here. */
export function AxisHeight({ seen, send }: LatheDialogProps) {
  const { lathe, sheet } = seen;
  const [stack, setStack] = useState("");
  const [under, setUnder] = useState<"spindle" | "tailstock">("spindle");
  const [axisText, setAxisText] = useState("");
  const [gaugeText, setGaugeText] = useState("");
  const axis = sheet.lathe.axis;
  if (!lathe || !axis) return null;
  const scale = scales[sheet.unit];
  const show = (mm: number) => showLength(mm, scale, sheet.unit === "mm" ? 4 : 5);
  const attempt = (event: FormEvent) => {
    event.preventDefault();
    send({ type: "tryStack", text: stack, under });
  };
  const state = (what: "axisHeight" | "gaugeError", text: string) => (event: FormEvent) => {
    event.preventDefault();
    send({ type: "stateHeight", what, text });
  };
  const unit = sheet.unit === "mm" ? "mm" : "in";
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap gap-4">
        <Section isTail={under === "tailstock"} />
        <form onSubmit={attempt} className="flex min-w-72 flex-1 flex-col gap-2">
          <p className="text-ink2">
            Spindle still, guard open. Ground pin <b className="figures text-ink">⌀ {showLength(axis.pinMm, scale)}</b>;
            by rule the axis stands about {showLength(axis.aboutMm, scale, 0)} over the slide.
          </p>
          <p className="text-xs text-ink2">The set: {SETS[axis.set]}. Each block is there once.</p>
          <label className="font-bold">
            Stack, its blocks with + between{" "}
            <FigureInput
              autoFocus
              aria-label="Stack of blocks"
              className="mt-1 w-full text-left"
              placeholder="100 + 9.5 + 1.25"
              value={stack}
              onChange={(event) => setStack(event.target.value)}
            />
          </label>
          <p className="flex flex-wrap items-center gap-3">
            <span>under the pin in the</span>
            {(["spindle", "tailstock"] as const).map((where) => (
              <label key={where} className="flex items-center gap-1">
                <input type="radio" name="pin-where" checked={under === where} onChange={() => setUnder(where)} />
                {where}
              </label>
            ))}
            <Button type="submit" look="act" disabled={stack.trim() === ""}>
              Try the stack
            </Button>
          </p>
          <ol
            aria-label="Stacks tried"
            className="max-h-32 overflow-y-auto border-t border-rule-soft"
            aria-live="polite"
          >
            {lathe.stacks.toReversed().map(({ blocks, under: where, goes }, place) => (
              <li
                key={lathe.stacks.length - place}
                className="flex justify-between gap-3 border-b border-rule-soft py-0.5"
              >
                <span className="figures">{blocks.map(show).join(" + ")}</span>
                <b className={goes ? "" : "text-contact"}>
                  {goes ? "goes" : "does not go"}
                  {where === "tailstock" ? ", tailstock" : ""}
                </b>
              </li>
            ))}
          </ol>
        </form>
      </div>
      <p className="flex flex-wrap items-center gap-2 border-t border-rule-soft pt-2">
        <b>Setting gauge</b> <Button onClick={() => send({ type: "zeroGauge" })}>Zero it on the slide</Button>
        <Button onClick={() => send({ type: "readGauge", from: "below" })}>Past the crest, raise to the mark</Button>
        <Button onClick={() => send({ type: "readGauge", from: "above" })}>Bring it down onto the crest</Button>
        <span className="text-xs text-ink2">
          {lathe.isGaugeZeroed ? "stands zeroed on the slide" : "not zeroed since it was read"} · what it reads stands
          in the list of readings
        </span>
      </p>
      <div className="grid gap-2 border-t border-rule-soft pt-2 sm:grid-cols-2">
        <form onSubmit={state("axisHeight", axisText)}>
          <label className="font-bold">
            The axis stands over the slide by{" "}
            <FigureInput
              aria-label="Height of the axis"
              className="mx-1 w-28"
              value={axisText}
              onChange={(event) => setAxisText(event.target.value)}
            />{" "}
            {unit}
          </label>{" "}
          <Button type="submit" disabled={axisText.trim() === ""}>
            Say it
          </Button>{" "}
          <span className="figures text-ink2">
            {lathe.stated.axisHeight === undefined ? "" : `said ${showLength(lathe.stated.axisHeight, scale)}`}
          </span>
        </form>
        <form onSubmit={state("gaugeError", gaugeText)}>
          <label className="font-bold">
            The setting gauge reads too high by{" "}
            <FigureInput
              aria-label="Error of the setting gauge"
              className="mx-1 w-28"
              value={gaugeText}
              onChange={(event) => setGaugeText(event.target.value)}
            />{" "}
            {unit}
          </label>{" "}
          <Button type="submit" disabled={gaugeText.trim() === ""}>
            Say it
          </Button>{" "}
          <span className="figures text-ink2">
            {lathe.stated.gaugeError === undefined ? "" : `said ${showLength(lathe.stated.gaugeError, scale)}`}
          </span>
        </form>
      </div>
      {seen.readings.length > 0 ? (
        <p className="text-ink2">
          Last reading:{" "}
          <b className="figures text-ink">
            {Object.values(seen.readings.at(-1)?.values ?? {})
              .map((mm) => showLength(mm, scale))
              .join(", ")}
          </b>
        </p>
      ) : null}
    </div>
  );
}
