import type { MillSeen } from "@probe-lane/core/bench";
import { surfaceWords, taskWords } from "@probe-lane/core/words";
import { useElementSize } from "../../../../app/useElementSize";
import { KeyCap } from "../../../../ui";
import type { PictureProps } from "../../lane/kit";
import { Loupe } from "./Loupe";
import { Elevation, Plan, sideWords } from "./Scene";
import { sheetLine } from "./view";

/** What of the setting up is done. */
function readyWords({ sheet, tasksDone, isBurrDressed }: MillSeen): string {
  // of a setup that was handed over nobody knows what was done
  if (sheet.handover) return "";
  const open = sheet.tasks.filter((task) => !tasksDone.includes(task) && !(task === "dressBurr" && isBurrDressed));
  if (open.length === 1 && open[0] === "dressBurr") return "burr on the edges";
  if (open.length > 0) return `still to do: ${open.length} of ${sheet.tasks.length}`;
  if (sheet.tasks.length === 0) return "machine and blank are ready";
  return sheet.tasks
    .map((task) => taskWords[task].done)
    .slice(-2)
    .join(", ");
}

/** How machine and blank stand, in a few words. */
export const standingWords = (seen: MillSeen): string =>
  [
    readyWords(seen),
    seen.lamp ? `height gauge on the ${surfaceWords(seen.lamp.on)}` : "",
    seen.tip?.kind === "dial"
      ? `taster ${seen.tip.isTrued ? "trued" : "not trued"}, spindle turned to ${seen.quarter * 90}°`
      : "",
  ]
    .filter(Boolean)
    .join(" · ");

const PLAN_SHARE = 0.54;
const AROUND = ["front", "right", "back", "left"] as const;

/** Plan over elevation, drawn in projection; beside them the loupe, so that nothing lies over the drawing. */
export function MillPicture({ send, isReadOnly, ...view }: PictureProps<MillSeen>) {
  const { seen, machine } = view;
  const { ref, width, height } = useElementSize();
  const planHeight = Math.floor(height * PLAN_SHARE);
  return (
    <>
      <div ref={ref} className="min-w-0 flex-1 overflow-hidden">
        {width > 0 ? (
          <>
            <Plan {...view} width={width} height={planHeight} />
            <div className="border-t border-rule" />
            <Elevation {...view} width={width} height={height - planHeight - 1} />
          </>
        ) : null}
      </div>
      <div className="flex w-[168px] shrink-0 xl:w-[212px] flex-col gap-2 border-l border-rule-soft p-2">
        <Loupe seen={seen} machine={machine} />
        <div>
          <p className="mb-1 text-xs text-ink2">
            {isReadOnly ? (
              "Looking from the"
            ) : (
              <>
                You look from the <KeyCap>V</KeyCap>
              </>
            )}
          </p>
          <div role="group" aria-label="Line of sight" className="grid grid-cols-2 gap-1">
            {AROUND.map((side) => (
              <button
                key={side}
                type="button"
                aria-label={sideWords[side]}
                aria-pressed={seen.sight === side}
                disabled={isReadOnly}
                onClick={() => send({ type: "lookFrom", side })}
                className={`rounded-[3px] border px-1.5 py-0.5 text-xs ${seen.sight === side ? "border-ink bg-ink font-bold text-panel" : "border-ink3 bg-field"}`}
              >
                {side}
              </button>
            ))}
          </div>
        </div>
        <ul className="mt-auto text-xs leading-5 text-ink2">
          {sheetLine(seen).map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      </div>
    </>
  );
}
