import { probeNeeds } from "@probe-lane/core/machines";
import { probeQuestions, type ProbeQuestion } from "@probe-lane/core/instruments";
import { workOffsetNames, type WorkOffsetName } from "@probe-lane/core/registers";
import { scales, showLength } from "@probe-lane/core/units";
import { questionWords } from "@probe-lane/core/words";
import { useState, type FormEvent } from "react";
import { Button, FigureInput, Notice, Select } from "../../../../../ui";
import type { MillDialogProps } from "../view";

type Direction = 1 | -1;

/** Which way a side lies, in words, for the axis it is asked about. */
const sideNames = (axis: "x" | "y"): [string, string] => (axis === "x" ? ["right", "left"] : ["back", "front"]);

function DirectionChoice({
  label,
  axis,
  value,
  onChange,
}: {
  label: string;
  axis: "x" | "y";
  value: Direction;
  onChange(value: Direction): void;
}) {
  const [plus, minus] = sideNames(axis);
  return (
    <label className="font-bold">
      {label}{" "}
      <Select aria-label={label} value={value} onChange={(event) => onChange(event.target.value === "1" ? 1 : -1)}>
        <option value="1">{plus}</option>
        <option value="-1">{minus}</option>
      </Select>
    </label>
  );
}

/** One question at a time, in words; the probe believes every figure it is given. */
export function Probe({ seen, send, onClose }: MillDialogProps) {
  const [question, setQuestion] = useState<ProbeQuestion>("face");
  const [axis, setAxis] = useState<"x" | "y">("x");
  const [x, setX] = useState<Direction>(1);
  const [y, setY] = useState<Direction>(1);
  const [size, setSize] = useState("");
  const [depth, setDepth] = useState("");
  const [into, setInto] = useState<WorkOffsetName | "">("");
  const needs = probeNeeds[question];
  const { stand, size: sizeLabel } = questionWords[question];
  const across = axis === "x" ? "y" : "x";
  const unit = seen.sheet.unit === "mm" ? "mm" : "in";
  const ask = (event: FormEvent) => {
    event.preventDefault();
    send({
      type: "askProbe",
      question,
      ...(needs.axis ? { axis } : {}),
      ...(needs.direction ? { direction: x } : {}),
      ...(needs.directionY ? { directionY: y } : {}),
      ...(needs.size ? { size } : {}),
      ...(needs.depth ? { depth } : {}),
      ...(into === "" ? {} : { into }),
    });
    onClose();
  };
  return (
    <form onSubmit={ask} className="flex flex-col gap-3">
      <label className="font-bold">
        Question{" "}
        <Select
          autoFocus
          aria-label="Question"
          value={question}
          onChange={(event) => setQuestion(event.target.value as ProbeQuestion)}
        >
          {probeQuestions.map((one) => (
            <option key={one} value={one}>
              {questionWords[one].name}
            </option>
          ))}
        </Select>
      </label>
      <p className="text-ink2">
        {stand} {needs.depth ? "It goes out, down and in from there." : "It moves from where it stands."}
      </p>
      {needs.axis ? (
        <label className="font-bold">
          {question === "angle" ? "The face runs along" : "Along"}{" "}
          <Select
            aria-label={question === "angle" ? "The face runs along" : "Along"}
            value={axis}
            onChange={(event) => setAxis(event.target.value as "x" | "y")}
          >
            <option value="x">X</option>
            <option value="y">Y</option>
          </Select>
        </label>
      ) : null}
      {needs.direction && question === "face" ? (
        <DirectionChoice label="Toward the" axis={axis} value={x} onChange={setX} />
      ) : null}
      {question === "angle" ? (
        <DirectionChoice label="The face lies to the" axis={across} value={x} onChange={setX} />
      ) : null}
      {needs.directionY ? (
        <>
          <DirectionChoice
            label={question === "cornerOutside" ? "Which corner of the part:" : "Which corner of the opening:"}
            axis="x"
            value={x}
            onChange={setX}
          />
          <DirectionChoice label="and of these" axis="y" value={y} onChange={setY} />
        </>
      ) : null}
      {needs.size ? (
        <label className="font-bold">
          {sizeLabel[0]?.toUpperCase()}
          {sizeLabel.slice(1)}{" "}
          <FigureInput
            aria-label="Size"
            className="mx-1 w-24"
            value={size}
            onChange={(event) => setSize(event.target.value)}
          />{" "}
          {unit}
        </label>
      ) : null}
      {needs.depth ? (
        <label className="font-bold">
          Go down by{" "}
          <FigureInput
            aria-label="Depth"
            className="mx-1 w-24"
            value={depth}
            onChange={(event) => setDepth(event.target.value)}
          />{" "}
          {unit}
        </label>
      ) : null}
      {seen.sheet.settings.probeWrites ? (
        <label className="font-bold">
          and write it into{" "}
          <Select
            aria-label="Write it into"
            value={into}
            onChange={(event) => setInto(event.target.value as WorkOffsetName | "")}
          >
            <option value="">no offset: I do it</option>
            {workOffsetNames.map((name) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </Select>
        </label>
      ) : null}
      {seen.sheet.probe ? (
        <p className="text-xs text-ink2">
          Counted with: effective radius{" "}
          {showLength(seen.cards.probeRadius ?? seen.sheet.probe.effectiveRadiusMm, scales[seen.sheet.unit])}, length{" "}
          {showLength(seen.cards.probeLength ?? seen.sheet.probe.lengthMm, scales[seen.sheet.unit])}.
        </p>
      ) : null}
      <Notice>A size that is grossly wrong drives the ball into the part. Ask twice: one answer can deceive.</Notice>
      <p className="flex gap-2">
        <Button look="act" type="submit">
          Ask
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </p>
    </form>
  );
}
