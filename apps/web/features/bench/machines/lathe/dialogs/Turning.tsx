import type { Command } from "@probe-lane/core/bench";
import { inShopWords, instrumentWords, turnedFaceWords } from "@probe-lane/core/words";
import { useState, type FormEvent } from "react";
import { Button, FigureInput } from "../../../../../ui";
import { gapLabel } from "../../../lane/things";
import { turretLabel, toolOf } from "../view";
import type { LatheDialogProps } from "../view";

const FACES = ["face", "diameter", "bore"] as const;

/** What has to be so before another tool comes in. */
const CARRIES = {
  turret: "The turret swings: send the tool well clear of part and chuck first.",
  readout: "By hand: spindle still, guard open, the slide wound well clear of the part.",
  gang: "The slide moves across at the height where it stands: every tip that passes must clear the bar.",
} as const;

/** The turret's stations: another tool into the working position, with its offset row called or without. */
export function Turret({ seen, send, onClose }: LatheDialogProps) {
  const control = seen.kind;
  const act = (station: number, withOffset: boolean) => {
    send({ type: "index", station, withOffset });
    onClose();
  };
  return (
    <div className="flex flex-col gap-1">
      <p className="pb-1 text-ink2">{CARRIES[control]}</p>
      {seen.sheet.lathe.tools.map((tool) => {
        const isHere = tool.number === seen.lathe.station;
        return (
          <p
            key={tool.number}
            className={`flex flex-wrap items-center gap-2 border-t border-rule-soft py-1.5 ${isHere ? "font-bold" : ""}`}
          >
            <span className="min-w-52 flex-1">
              {turretLabel(tool)}
              {isHere ? (
                <span className="text-xs font-normal text-ink2">
                  {" "}
                  {control === "readout"
                    ? "on the post"
                    : control === "gang"
                      ? "over the bar"
                      : "in the working position"}
                </span>
              ) : null}
            </span>
            {control === "readout" ? (
              <Button
                className="text-xs"
                disabled={isHere}
                aria-label={`Put tool ${tool.number} on the post`}
                onClick={() => act(tool.number, false)}
              >
                put it on the post
              </Button>
            ) : (
              <>
                <Button
                  className="text-xs"
                  aria-label={`Tool ${tool.number} without offset`}
                  onClick={() => act(tool.number, false)}
                >
                  no offset
                </Button>
                <Button
                  className="text-xs"
                  aria-label={`Tool ${tool.number} with its offset`}
                  onClick={() => act(tool.number, true)}
                >
                  with offset {tool.number}
                </Button>
              </>
            )}
          </p>
        );
      })}
    </div>
  );
}

/** Paper, feelers, straight edge, blocks and pins, each at a face of the part. */
export function TurningGap({ seen, send, onClose }: LatheDialogProps) {
  const { sheet } = seen;
  const isByHand = sheet.kind === "readout";
  const [hand, setHand] = useState<"clear" | "post">("clear");
  const faces = FACES.filter((on) => on !== "bore" || sheet.lathe.stock.boreMm !== null);
  const rows: { label: string; command: Command }[] = [
    ...(sheet.instruments.includes("straightEdge")
      ? [
          {
            label: `${instrumentWords("straightEdge")} on the face`,
            command: { type: "placeGap", id: "straightEdge", on: "face" } as const,
          },
          ...(toolOf(seen)?.bladeMm === undefined
            ? []
            : [
                {
                  label: `${instrumentWords("straightEdge")} on the face, the blade behind it`,
                  command: { type: "placeGap", id: "straightEdge", on: "face", side: "behind" } as const,
                },
              ]),
        ]
      : []),
    ...sheet.gaps
      .filter(({ kind }) => sheet.instruments.includes(kind))
      .flatMap(({ id, kind }) =>
        (kind === "paper" || kind === "feeler" ? faces : (["face"] as const)).map((on) => ({
          label: `${gapLabel(seen, id)} at the ${turnedFaceWords[on]}`,
          command:
            kind === "paper" || kind === "feeler"
              ? ({ type: "placeGap", id, on, ...(isByHand ? { hand } : {}) } as const)
              : ({ type: "tryGap", id, on } as const),
        })),
      ),
  ];
  return (
    <div className="flex flex-col gap-2">
      <p className="text-ink2">
        {inShopWords(
          "Spindle still, door open. Nothing hard in the gap while the gap is closed: open it, try, next click.",
          sheet.kind,
        )}
      </p>
      {isByHand ? (
        <fieldset className="flex gap-4 border-t border-rule-soft pt-2">
          <legend className="font-bold">The other hand rests</legend>
          {(["clear", "post"] as const).map((where) => (
            <label key={where} className="flex items-center gap-1.5">
              <input type="radio" name="other-hand" checked={hand === where} onChange={() => setHand(where)} />
              {where === "clear" ? "clear of the machine" : "on the tool post, to be steady"}
            </label>
          ))}
        </fieldset>
      ) : null}
      {rows.map(({ label, command }) => (
        <Button
          key={label}
          className="justify-start py-1"
          onClick={() => {
            send(command);
            onClose();
          }}
        >
          {label}
        </Button>
      ))}
    </div>
  );
}

/** Micrometer, caliper and bore gauge on what was turned last. */
export function MeasureTurned({ seen, send, onClose }: LatheDialogProps) {
  const { instruments, lathe } = seen.sheet;
  const rows: { label: string; command: Command }[] = [
    ...(["micrometer", "caliper"] as const)
      .filter((by) => instruments.includes(by))
      .map((by) => ({
        label: `${instrumentWords(by)} over ${seen.kind === "gang" ? "the bar" : "the band turned last"}`,
        command: { type: "measureTurned", what: "turned", by } as const,
      })),
    ...(instruments.includes("caliper") && seen.lathe && seen.lathe.pip !== null && seen.lathe.pip !== "none"
      ? [
          {
            label: "caliper over the pip in the middle of the face",
            command: { type: "measureTurned", what: "pip", by: "caliper" } as const,
          },
        ]
      : []),
    ...(instruments.includes("boreGauge") && lathe?.stock.boreMm !== null
      ? [
          {
            label: "bore gauge in the bore",
            command: { type: "measureTurned", what: "bored", by: "boreGauge" } as const,
          },
        ]
      : []),
  ];
  return (
    <div className="flex flex-col gap-2">
      <p className="text-ink2">
        Spindle stopped and all motion ended before your hand goes in. Two points see a quarter turn on what they do not
        see here: turn the chuck by hand and measure again.
      </p>
      {rows.map(({ label, command }) => (
        <Button
          key={label}
          className="justify-start py-1"
          onClick={() => {
            send(command);
            onClose();
          }}
        >
          {label}
        </Button>
      ))}
    </div>
  );
}

/** Shims under the holder in the working position: up by the amount, down with a minus. */
export function Shims({ seen, send, onClose }: LatheDialogProps) {
  const [text, setText] = useState("");
  const submit = (event: FormEvent) => {
    event.preventDefault();
    send({ type: "shimTool", text });
    onClose();
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-3">
      <p className="text-ink2">
        Spindle still, door open. Afterwards X has to be touched again: height moves the diameter.
      </p>
      <label className="font-bold">
        Raise the tool by{" "}
        <FigureInput
          autoFocus
          aria-label="Raise the tool by"
          className="mx-1 w-28"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />{" "}
        {seen.sheet.unit === "mm" ? "mm" : "in"}, with a minus to lower it
      </label>
      <p className="flex gap-2">
        <Button look="act" type="submit" disabled={text.trim() === ""}>
          Shim it
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </p>
    </form>
  );
}
