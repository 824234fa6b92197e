import { toolNumber } from "@probe-lane/core/instruments";
import { toolKindWords } from "@probe-lane/core/words";
import { useState, type FormEvent } from "react";
import { Button, FigureInput, Select } from "../../../../../ui";
import type { MillDialogProps } from "../view";

const heldTool = ({ sheet, holds }: MillDialogProps["seen"]) =>
  sheet.tools.find(({ number }) => number === toolNumber(holds));

/**
 * The plunger setter: length on top, diameter from its sides; still or turning against the cut, on center or over the
 * teeth.
 */
export function Setter({ seen, send, onClose }: MillDialogProps) {
  const [what, setWhat] = useState<"length" | "diameterBoth" | "diameterOne">("length");
  const [isTurning, setTurning] = useState(false);
  const [offset, setOffset] = useState("0");
  const [about, setAbout] = useState("");
  const unit = seen.sheet.unit === "mm" ? "mm" : "in";
  const tool = heldTool(seen);
  const ask = (event: FormEvent) => {
    event.preventDefault();
    send({ type: "askSetter", what, isTurning, offset, about });
    onClose();
  };
  return (
    <form onSubmit={ask} className="flex flex-col gap-3">
      <p className="text-ink2">
        The cycle goes up, over the plunger and down. It looks for the tip within 8 mm of the length you state: too
        short and it finds nothing, too long and it is driven in. A rule beside the tool tells it.
      </p>
      <label className="font-bold">
        Measure{" "}
        <Select
          autoFocus
          aria-label="What to measure"
          value={what}
          onChange={(event) => setWhat(event.target.value as typeof what)}
        >
          <option value="length">length, on top</option>
          <option value="diameterBoth">diameter, from both sides</option>
          <option value="diameterOne">diameter, from one side</option>
        </Select>
      </label>
      <label className="font-bold">
        Length, about{" "}
        <FigureInput
          aria-label="Length, about"
          className="mx-1 w-24"
          value={about}
          onChange={(event) => setAbout(event.target.value)}
        />{" "}
        {unit}
      </label>
      {what === "length" ? (
        <label className="font-bold">
          Off the middle by{" "}
          <FigureInput
            aria-label="Off the middle by"
            className="mx-1 w-24"
            value={offset}
            onChange={(event) => setOffset(event.target.value)}
          />{" "}
          {unit}
        </label>
      ) : null}
      <label className="flex items-center gap-2 font-bold">
        <input type="checkbox" checked={isTurning} onChange={(event) => setTurning(event.target.checked)} /> turning
        slowly against the cut
      </label>
      {tool ? (
        <p className="text-xs text-ink2">
          In the spindle: {toolKindWords[tool.kind]}. Drills still and on center; cutters turning; what is wider than
          the plunger with its teeth over it.
        </p>
      ) : null}
      <p className="flex gap-2">
        <Button look="act" type="submit" disabled={about.trim() === ""}>
          Ask
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </p>
    </form>
  );
}

/** The beam setter: no length needed, any speed, on center or stepped over the edge. */
export function Beam({ seen, send, onClose }: MillDialogProps) {
  const [what, setWhat] = useState<"length" | "diameter">("length");
  const [rpm, setRpm] = useState("");
  const [isAtEdge, setAtEdge] = useState(false);
  const isReadable = /^\d{1,5}$/.test(rpm.trim());
  const tool = heldTool(seen);
  const ask = (event: FormEvent) => {
    event.preventDefault();
    if (!isReadable) return;
    send({ type: "askBeam", what, rpm: Number(rpm), isAtEdge });
    onClose();
  };
  return (
    <form onSubmit={ask} className="flex flex-col gap-3">
      <p className="text-ink2">
        The beam searches from above and measures at the speed you state; 0 is standing still. It measures whatever
        hangs on the tip with it.
      </p>
      <label className="font-bold">
        Measure{" "}
        <Select
          autoFocus
          aria-label="What to measure"
          value={what}
          onChange={(event) => setWhat(event.target.value as typeof what)}
        >
          <option value="length">length</option>
          <option value="diameter">diameter</option>
        </Select>
      </label>
      <label className="font-bold">
        At{" "}
        <FigureInput
          aria-label="Speed of the measurement"
          className="mx-1 w-24"
          inputMode="numeric"
          value={rpm}
          onChange={(event) => setRpm(event.target.value)}
        />{" "}
        rev/min
      </label>
      <label className="flex items-center gap-2 font-bold">
        <input type="checkbox" checked={isAtEdge} onChange={(event) => setAtEdge(event.target.checked)} /> stepped over
        the edge, for flat ends; points stay on center
      </label>
      {tool ? (
        <p className="text-xs text-ink2">
          Working speed of this {toolKindWords[tool.kind]} on the sheet: {tool.workingRpm} rev/min. Tip{" "}
          {seen.isTipBlown ? "blown clean" : "not blown clean"}.
        </p>
      ) : null}
      <p className="flex gap-2">
        <Button look="act" type="submit" disabled={!isReadable}>
          Ask
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </p>
    </form>
  );
}
