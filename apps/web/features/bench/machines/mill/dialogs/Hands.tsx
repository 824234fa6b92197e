import { scales, showLength } from "@probe-lane/core/units";
import { taskWords } from "@probe-lane/core/words";
import { Button } from "../../../../../ui";
import { gapLabel } from "../../../lane/things";
import type { MillDialogProps } from "../view";

/** Papers, feelers, blocks and pins to choose from. */
export function Gap({ seen, send, onClose }: MillDialogProps) {
  const { sheet } = seen;
  const there = sheet.gaps.filter(({ kind }) => sheet.instruments.includes(kind));
  return (
    <div className="flex flex-col gap-2">
      <p className="text-ink2">
        Spindle still, door open. Paper and feelers are felt; a block or pin goes or does not go, for the gap as it is
        now.
      </p>
      {there.map(({ id, kind }, place) => {
        const isFelt = kind === "paper" || kind === "feeler";
        return (
          <Button
            key={id}
            autoFocus={place === 0}
            className="justify-between py-1.5"
            onClick={() => {
              send(isFelt ? { type: "placePaper", id } : { type: "tryBlock", id });
              onClose();
            }}
          >
            <span>
              {isFelt ? "Place" : "Try"} the {gapLabel(seen, id)}
            </span>
          </Button>
        );
      })}
    </div>
  );
}

/** What machine, vise and blank still want, in the order of the work; taps for a blank that is screwed down. */
export function Ready({ seen, send, onClose }: MillDialogProps) {
  const { sheet, tasksDone, isBurrDressed } = seen;
  const isDone = (task: (typeof sheet.tasks)[number]) =>
    tasksDone.includes(task) || (task === "dressBurr" && isBurrDressed);
  const next = sheet.tasks.find((task) => !isDone(task));
  const scale = scales[sheet.unit];
  const jaw = seen.readings.findLast(({ what }) => what === "jaw")?.values;
  return (
    <div className="flex flex-col gap-2">
      {sheet.tasks.length > 0 ? (
        <p className="text-ink2">
          Nobody minds the order but the numbers. What needs your hands wants the door open and the spindle still.
        </p>
      ) : null}
      {sheet.tasks.map((task) =>
        isDone(task) && task !== "sweepJaw" ? (
          <p key={task} className="px-3 py-1 text-ink2">
            ✓ {taskWords[task].done}
          </p>
        ) : (
          <Button
            key={task}
            autoFocus={task === next}
            className="py-1.5"
            onClick={() => {
              send(task === "dressBurr" ? { type: "dressBurr" } : { type: "doTask", task });
              onClose();
            }}
          >
            {isDone(task) ? `${taskWords[task].act} once more` : taskWords[task].act}
          </Button>
        ),
      )}
      {jaw ? (
        <p className="px-3 text-ink2">
          Last along the jaw: left end <b className="figures">{showLength(jaw.left ?? 0, scale)}</b>, right end{" "}
          <b className="figures">{showLength(jaw.right ?? 0, scale)}</b>, {showLength(jaw.apart ?? 0, scale)} apart.
        </p>
      ) : null}
      {sheet.fixture.kind === "plate" || sheet.tasks.includes("sweepJaw") ? (
        <div className="flex flex-col gap-2 border-t border-rule-soft pt-2">
          <p className="text-ink2">
            {sheet.fixture.kind === "plate" ? "Screws" : "Bolts of the vise"} a little loose, a tap turns the part, and
            moves it: what was found before no longer holds.
          </p>
          {(
            [
              ["hard", 1, "Tap hard, counter-clockwise"],
              ["hard", -1, "Tap hard, clockwise"],
              ["light", 1, "Tap lightly, counter-clockwise"],
              ["light", -1, "Tap lightly, clockwise"],
            ] as const
          ).map(([strength, direction, label]) => (
            <Button
              key={label}
              className="py-1"
              onClick={() => {
                send({ type: "tapPart", direction, strength });
                onClose();
              }}
            >
              {label}
            </Button>
          ))}
        </div>
      ) : null}
      {sheet.fixture.kind === "vise" && sheet.programs ? (
        <div className="flex flex-col gap-2 border-t border-rule-soft pt-2">
          <p className="text-ink2">
            Other parallels lift or lower the part in the jaws: whatever was touched on it in Z no longer holds, and
            what was seen beside it and signed is taken back.
          </p>
          {([2, -2] as const).map((byMm) => (
            <Button
              key={byMm}
              className="py-1"
              onClick={() => {
                send({ type: "changeParallels", byMm });
                onClose();
              }}
            >
              Parallels {showLength(2, scale, 1)} {sheet.unit === "mm" ? "mm" : "in"} {byMm > 0 ? "higher" : "lower"}
            </Button>
          ))}
        </div>
      ) : null}
    </div>
  );
}
