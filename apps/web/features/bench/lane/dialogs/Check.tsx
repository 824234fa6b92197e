import { isReadOff, type CheckName } from "@probe-lane/core/lane";
import { offersOf } from "@probe-lane/core/machines";
import { scales, showLength } from "@probe-lane/core/units";
import { checkWords } from "@probe-lane/core/words";
import { useState, type FormEvent } from "react";
import { Button, FigureInput, Notice, Select } from "../../../../ui";
import type { DialogProps } from "../kit";

/** What a figure that is read off, and not judged by eye, is a reading of. */
const READS: Readonly<Partial<Record<CheckName, string>>> = {
  recalled: "The readout shows, less what lies in between:",
  atDiameter: "The display shows, less what lies in between:",
  skimmed: "The micrometer read",
  sameEdge: "At the contact the machine stands at",
  liftedMove: "The move ended at machine Z",
  sumByHand: "Where it touches, the machine’s Z less the gap is",
};

/** A check in three steps: say what you expect, look, say whether it is so. */
export function Check({ seen, kit, send, onClose }: DialogProps) {
  const { check, sheet } = seen;
  const names = offersOf(seen.kind).checks(sheet);
  const [name, setName] = useState<CheckName>(kit.firstCheck(seen) ?? names[0] ?? "knownHeight");
  const [text, setText] = useState("");
  const [isAnew, setIsAnew] = useState(false);
  const unit = sheet.unit === "mm" ? "mm" : "in";
  const show = (mm: number) => showLength(mm, scales[sheet.unit], sheet.unit === "mm" ? 1 : 2);
  const expectIt = (event: FormEvent) => {
    event.preventDefault();
    send({ type: "expectCheck", check: name, text });
    setText("");
    setIsAnew(false);
  };
  if (!check || isAnew) {
    return (
      <form onSubmit={expectIt} className="flex flex-col gap-3">
        <p className="text-ink2">
          Say what you expect before you look. Being surprised and stopping earns; going on does not.
        </p>
        <label className="font-bold">
          Check{" "}
          <Select
            autoFocus
            aria-label="Which check"
            value={name}
            onChange={(event) => setName(event.target.value as CheckName)}
          >
            {names.map((one) => (
              <option key={one} value={one}>
                {checkWords[one].name}
              </option>
            ))}
          </Select>
        </label>
        <label className="font-bold">
          {kit.asksOf[name] ?? checkWords[name].asks}{" "}
          <FigureInput
            aria-label="Expected"
            className="mx-1 w-28"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />{" "}
          {unit}
        </label>
        <p className="flex gap-2">
          <Button look="act" type="submit" disabled={text.trim() === ""}>
            I expect that
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </p>
      </form>
    );
  }
  return (
    <div className="flex flex-col gap-3">
      <p>
        <b>{checkWords[check.check].name}.</b> You expect{" "}
        <b className="figures">{showLength(check.expectedMm, scales[sheet.unit])}</b> {unit}.
      </p>
      {check.looked ? (
        <>
          <Notice>
            {isReadOff(check.check) ? READS[check.check] : "By eye and rule: about"}{" "}
            <b className="figures">
              {isReadOff(check.check) ? showLength(check.seenMm ?? 0, scales[sheet.unit]) : show(check.seenMm ?? 0)}
            </b>{" "}
            {unit}.
          </Notice>
          <p className="flex gap-2">
            <Button
              look="act"
              autoFocus
              onClick={() => {
                send({ type: "judgeCheck", isAsExpected: true });
                onClose();
              }}
            >
              As I expected
            </Button>
            <Button
              onClick={() => {
                send({ type: "judgeCheck", isAsExpected: false });
                onClose();
              }}
            >
              Not as I expected: I stop
            </Button>
          </p>
        </>
      ) : (
        <p className="flex gap-2">
          <Button look="act" autoFocus onClick={() => send({ type: "lookCheck" })}>
            Look
          </Button>
          <Button onClick={onClose}>First bring it there</Button>
          <Button look="quiet" onClick={() => setIsAnew(true)}>
            Another check
          </Button>
        </p>
      )}
    </div>
  );
}
