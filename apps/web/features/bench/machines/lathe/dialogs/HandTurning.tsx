import { scales, showLength } from "@probe-lane/core/units";
import { useState, type FormEvent } from "react";
import { Button, FigureInput } from "../../../../../ui";
import { turretLabel } from "../view";
import type { LatheDialogProps } from "../view";

/** Rows of a readout's library: the one that is recalled is added to what the readout shows. */
export function Recall({ seen, send, onClose }: LatheDialogProps) {
  const row = seen.lathe.row ?? null;
  const act = (next: number | null) => {
    send({ type: "recall", row: next });
    onClose();
  };
  return (
    <div className="flex flex-col gap-2">
      <p className="text-ink2">
        A row is added to what the readout shows. While a corner is read for the library no row may be recalled.
      </p>
      <Button autoFocus disabled={row === null} onClick={() => act(null)}>
        Recall no row
      </Button>
      {(seen.sheet.lathe.tools ?? []).map((tool) => (
        <Button
          key={tool.number}
          disabled={row === tool.number}
          className="justify-between"
          onClick={() => act(tool.number)}
        >
          <span>Recall row {tool.number}</span>
          <span className="text-xs font-normal text-ink2">{turretLabel(tool)}</span>
        </Button>
      ))}
    </div>
  );
}

/** A worn tool out and a new one in, its overhang set by rule. */
export function ChangeTool({ seen, send, onClose }: LatheDialogProps) {
  const [text, setText] = useState("");
  const { lathe, sheet } = seen;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (lathe) send({ type: "changeTool", tool: lathe.station, overhang: text });
    onClose();
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-3">
      <p className="text-ink2">
        Spindle still, door open, the slide backed off. Its neighbors stand out{" "}
        {showLength(sheet.lathe.gang?.overhangMm ?? 0, scales[sheet.unit], 1)}; what stands out further by the clearance
        of an approach strikes the bar when the slide moves across.
      </p>
      <label className="font-bold">
        The new tool {lathe?.station} stands out by rule{" "}
        <FigureInput
          autoFocus
          aria-label="Overhang by rule"
          className="mx-1 w-24"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />{" "}
        {sheet.unit === "mm" ? "mm" : "in"}
      </label>
      <p className="flex gap-2">
        <Button look="act" type="submit" disabled={text.trim() === ""}>
          Change it
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </p>
    </form>
  );
}

/** How the screws of a clamp are tightened: in turn, or one right down first. */
export function Tighten({ send, onClose }: LatheDialogProps) {
  const act = (how: "inTurn" | "oneRightDown") => {
    send({ type: "tightenTool", how });
    onClose();
  };
  return (
    <div className="flex flex-col gap-2">
      <p className="text-ink2">Back the slide off the bar first. How do you tighten the two screws?</p>
      <Button autoFocus onClick={() => act("inTurn")}>
        A little each, in turn
      </Button>
      <Button onClick={() => act("oneRightDown")}>One right down, then the other</Button>
    </div>
  );
}
