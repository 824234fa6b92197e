import type { Command } from "@probe-lane/core/bench";
import { handMeasures, toolName, type HandMeasure } from "@probe-lane/core/instruments";
import { instrumentWords } from "@probe-lane/core/words";
import { useState } from "react";
import { Button } from "../../../../../ui";
import { gapLabel } from "../../../lane/things";
import { thingLabel } from "../view";
import type { MillDialogProps } from "../view";

/** What each hand instrument here can be put to. */
function measurable({ sheet, holds }: MillDialogProps["seen"], by: HandMeasure): { label: string; command: Command }[] {
  const tools =
    by === "rule"
      ? []
      : sheet.tools.map(({ number }) => ({
          label: `diameter of ${thingLabel({ sheet }, toolName(number))}`,
          command: { type: "measure", what: "toolDiameter", by, tool: number } as const,
        }));
  const gaps =
    by === "rule"
      ? []
      : sheet.gaps
          .filter(({ kind }) => sheet.instruments.includes(kind))
          .map(({ id }) => ({
            label: gapLabel({ sheet }, id),
            command: { type: "measure", what: "gapThing", by, id } as const,
          }));
  const reach =
    by !== "micrometer" && holds?.startsWith("tool")
      ? [
          {
            label: "from the nose to the tip of what hangs there",
            command: { type: "measure", what: "toolReach", by } as const,
          },
        ]
      : [];
  const blank =
    by === "micrometer"
      ? []
      : (
          [
            ["stockX", "blank along X"],
            ["stockY", "blank along Y"],
            ["stockZ", "height of the blank"],
          ] as const
        ).map(([what, label]) => ({ label, command: { type: "measure", what, by } as const }));
  const feature =
    by !== "micrometer" && sheet.feature
      ? [{ label: `across the ${sheet.feature.kind}`, command: { type: "measure", what: "feature", by } as const }]
      : [];
  return [...reach, ...tools, ...gaps, ...blank, ...feature];
}

/** Caliper, micrometer, rule and presetter; what they show goes into the readings. */
export function Measure({ seen, send, onClose }: MillDialogProps) {
  const { sheet } = seen;
  const hand = handMeasures.filter((name) => sheet.instruments.includes(name));
  const hasPresetter = sheet.instruments.includes("presetter");
  const [by, setBy] = useState<HandMeasure | "presetter">(hand[0] ?? "presetter");
  const rows = by === "presetter" ? [] : measurable(seen, by);
  const act = (command: Command) => {
    send(command);
    onClose();
  };
  return (
    <div className="flex flex-col gap-2">
      <div role="group" aria-label="Instrument" className="flex flex-wrap gap-1.5">
        {[...hand, ...(hasPresetter ? (["presetter"] as const) : [])].map((name) => (
          <button
            key={name}
            type="button"
            aria-pressed={by === name}
            onClick={() => setBy(name)}
            className={`rounded-[3px] border px-2 py-0.5 ${by === name ? "border-ink bg-ink font-bold text-panel" : "border-ink3 bg-field"}`}
          >
            {instrumentWords(name)}
          </button>
        ))}
      </div>
      <p className="text-ink2">
        {by === "presetter"
          ? "Length from the gauge line and diameter of a tool that does not hang in the spindle."
          : "Spindle still, door open. Caliper to a hundredth or two, micrometer to two thousandths, rule to half a millimetre."}
      </p>
      {rows.map(({ label, command }) => (
        <Button key={label} className="justify-start py-1" onClick={() => act(command)}>
          {label}
        </Button>
      ))}
      {by === "presetter"
        ? sheet.tools.map(({ number }) => (
            <Button
              key={number}
              className="justify-start py-1"
              onClick={() => act({ type: "askPresetter", tool: number })}
            >
              {thingLabel(seen, toolName(number))}
            </Button>
          ))
        : null}
      {rows.length === 0 && by !== "presetter" ? <p>Nothing within reach for that now.</p> : null}
    </div>
  );
}
