import { spindleInstruments, toolName, type Thing } from "@probe-lane/core/instruments";
import { scales, showLength } from "@probe-lane/core/units";
import { gapKindWords, instrumentWords, thingWords, toolKindWords } from "@probe-lane/core/words";
import { Button } from "../../../../../ui";
import type { MillDialogProps } from "../view";
import { Silhouette } from "./Silhouette";

/** What hangs in the spindle, what can be loaded by hand, and what else lies beside the machine. */
export function Drawer({ seen, send, onClose }: MillDialogProps) {
  const { sheet, holds } = seen;
  const show = (mm: number) => showLength(mm, scales[sheet.unit]);
  const act = (...commands: Parameters<typeof send>[0][]) => {
    commands.forEach(send);
    onClose();
  };
  const notes: Record<(typeof spindleInstruments)[number], string> = {
    edgeFinder: `tip ⌀ ${show(sheet.tipDiameterMm)}, rated 400 to 1200 rev/min`,
    pointedTool: "shows by eye where the axis stands",
    taster: "dial with two hands, 1 mm a turn; never under power",
    probe: sheet.probe ? `ball ⌀ ${show(sheet.probe.ballDiameterMm)}; never under power` : "",
    indicator: "carried round by hand; never under power",
  };
  const things: { thing: Thing; note: string }[] = [
    ...spindleInstruments
      .filter((name) => sheet.instruments.includes(name))
      .map((thing) => ({ thing, note: notes[thing] })),
    ...sheet.tools.map(({ number, kind, diameterMm }) => ({
      thing: toolName(number),
      note: `${toolKindWords[kind]} ⌀ ${show(diameterMm)}, in its holder`,
    })),
  ];
  const beside = [
    ...sheet.gaps
      .filter(({ kind }) => sheet.instruments.includes(kind))
      .map(({ kind, nominalMm }) => `${gapKindWords[kind]} ${show(nominalMm)}`),
    ...sheet.instruments
      .filter(
        (name) =>
          !spindleInstruments.some((one) => one === name) && !["paper", "feeler", "block", "pin"].includes(name),
      )
      .map(instrumentWords),
  ];
  const pockets = Object.entries(sheet.pockets);
  return (
    <div className="flex flex-col gap-2">
      <p className="text-ink2">
        In the spindle: <b className="text-ink">{holds ? thingWords(holds) : "nothing"}</b>. Spindle still and door open
        before your hands go in.
      </p>
      {things.map(({ thing, note }) => (
        <Button
          key={thing}
          disabled={holds !== null}
          className="!whitespace-normal py-1 text-left"
          onClick={() => act({ type: "load", thing })}
        >
          <Silhouette sheet={sheet} thing={thing} />
          <span className="flex-1">Load the {thingWords(thing)}</span>
          <span className="max-w-44 text-right text-xs font-normal text-ink2">{note}</span>
        </Button>
      ))}
      <Button
        autoFocus={holds !== null}
        disabled={holds === null}
        className="py-1.5"
        onClick={() => act({ type: "unload" })}
      >
        {holds ? `Take the ${thingWords(holds)} out` : "Nothing to take out"}
      </Button>
      {beside.length > 0 ? (
        <p className="border-t border-rule-soft pt-2 text-ink2">Beside the machine: {beside.join(", ")}.</p>
      ) : null}
      {pockets.length > 1 ? (
        <div className="border-t border-rule-soft pt-2">
          <p className="text-ink2">
            The list on the changer says:{" "}
            {pockets.map(([pocket, tool]) => `pocket ${pocket} holds tool ${tool}`).join(", ")}. A typed T and M6 brings
            what stands there.
          </p>
          <p className="mt-1 flex flex-wrap gap-1.5">
            {pockets.slice(1).map(([pocket]) => (
              <Button
                key={pocket}
                className="!py-0.5 text-xs"
                onClick={() => act({ type: "swapPockets", a: Number(pockets[0]?.[0] ?? 1), b: Number(pocket) })}
              >
                Change pockets {pockets[0]?.[0]} and {pocket} round
              </Button>
            ))}
          </p>
        </div>
      ) : null}
    </div>
  );
}
