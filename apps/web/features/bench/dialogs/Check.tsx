import { checkNames, type CheckName } from "@probe-lane/core/bench";
import { scales, showLength } from "@probe-lane/core/units";
import { checkWords } from "@probe-lane/core/words";
import { useState, type FormEvent } from "react";
import { Button, FigureInput, Notice } from "../../../ui";
import type { DialogProps } from "./props";

/** Checks whose figure is read off a display and not judged by eye. */
const READ = new Set<CheckName>(["recalled", "sumByHand"]);

/** Checks that this machine can be put to, the one that its school is proven by first. */
function checksOf({ sheet: { lathe } }: DialogProps["seen"]): readonly CheckName[] {
  if (!lathe) return checkNames.filter((name) => name !== "recalled" && name !== "clearance");
  if (lathe.control === "readout") return ["recalled", "knownHeight"];
  if (lathe.control === "gang") return ["clearance", "knownHeight"];
  return lathe.schools.includes("setter-arm") ? ["sumByHand", "knownHeight"] : ["knownHeight"];
}

/** A check in three steps: say what you expect, look, say whether it is so. */
export function Check({ seen, send, onClose }: DialogProps) {
  const { check, sheet } = seen;
  const names = checksOf(seen);
  const [name, setName] = useState<CheckName>(
    seen.lathe ? (names[0] ?? "knownHeight") : sheet.targets.xy ? "overZero" : "ruleBeside",
  );
  const [text, setText] = useState("");
  const unit = sheet.unit === "mm" ? "mm" : "in";
  const show = (mm: number) => showLength(mm, scales[sheet.unit], sheet.unit === "mm" ? 1 : 2);
  const expectIt = (event: FormEvent) => {
    event.preventDefault();
    send({ type: "expectCheck", check: name, text });
    setText("");
  };
  if (!check) {
    return (
      <form onSubmit={expectIt} className="flex flex-col gap-3">
        <p className="text-ink2">
          Say what you expect before you look. Being surprised and stopping earns; going on does not.
        </p>
        <label className="font-bold">
          Check{" "}
          <select
            autoFocus
            aria-label="Which check"
            value={name}
            onChange={(event) => setName(event.target.value as CheckName)}
            className="rounded-[3px] border border-ink3 bg-field px-1 py-0.5 font-normal"
          >
            {names.map((one) => (
              <option key={one} value={one}>
                {checkWords[one].name}
              </option>
            ))}
          </select>
        </label>
        <label className="font-bold">
          {seen.lathe && name === "knownHeight"
            ? "How far before the face do you expect the tip to stand?"
            : checkWords[name].asks}{" "}
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
            {check.seenMm !== null && READ.has(check.check) ? (
              <>
                {check.check === "recalled"
                  ? "The readout shows, less what lies in between:"
                  : "At the face the machine’s Z, less the gap, is"}{" "}
                <b className="figures">{showLength(check.seenMm, scales[sheet.unit])}</b> {unit}.
              </>
            ) : check.seenMm === null ? (
              "The figure stands in the position display or in your ledger: compare it yourself."
            ) : (
              <>
                By eye and rule: about <b className="figures">{show(check.seenMm)}</b> {unit}.
              </>
            )}
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
        </p>
      )}
    </div>
  );
}
