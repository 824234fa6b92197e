import type { Command } from "@probe-lane/core/bench";
import type { Axis, AxisCounts } from "@probe-lane/core/registers";
import { inShopWords, surfaceWords, taskWords } from "@probe-lane/core/words";
import { useElementSize } from "../../app/useElementSize";
import { Button, KeyCap, Panel } from "../../ui";
import { sheetLine } from "./benchView";
import { turningFacts, turningSensation } from "./turningView";
import { TurningLoupe, TurningScene } from "./TurningScene";
import type { LinkView } from "./laneLink";
import { Loupe } from "./Loupe";
import { Elevation, Plan, sideWords } from "./Scene";

/** What of the setting up is done, in a few words. */
function readyWords({ sheet, tasksDone, isBurrDressed, lamp, tip, quarter }: LinkView["observation"]): string {
  const open = sheet.tasks.filter((task) => !tasksDone.includes(task) && !(task === "dressBurr" && isBurrDressed));
  // of a setup that was handed over nobody knows what was done
  const ready = sheet.handover
    ? ""
    : open.length === 0
      ? sheet.tasks.length === 0
        ? "machine and blank are ready"
        : sheet.tasks
            .map((task) => taskWords[task].done)
            .slice(-2)
            .join(", ")
      : open.length === 1 && open[0] === "dressBurr"
        ? "burr on the edges"
        : `still to do: ${open.length} of ${sheet.tasks.length}`;
  return [
    ready,
    lamp ? `height gauge on the ${surfaceWords(lamp.on)}` : "",
    tip?.kind === "dial" ? `taster ${tip.isTrued ? "trued" : "not trued"}, spindle turned to ${quarter * 90}°` : "",
  ]
    .filter(Boolean)
    .join(" · ");
}

/** Plan over elevation, drawn in projection; beside them the loupe, so that nothing lies over the drawing. */
export function ScenePanel({
  view,
  fit,
  lastAxis,
  send,
  onJog,
  onFit,
  incident,
  isReadOnly,
}: {
  view: LinkView;
  fit: "near" | "whole";
  lastAxis: Axis;
  send(command: Command): void;
  onFit(): void;
  incident: string | null;
  isReadOnly: boolean;
  onJog: ((axis: Axis, direction: 1 | -1, isTen: boolean) => void) | null;
}) {
  const seen = view.observation;
  const { machine } = view.shown;
  const { ref, width, height } = useElementSize();
  const planHeight = Math.floor(height * 0.54);
  if (seen.lathe) {
    return (
      <Panel
        title={
          seen.sheet.lathe?.control === "readout"
            ? "Half section from above, the tool’s side up"
            : "Half section from the front"
        }
        note={
          <Button look="quiet" className="!py-0 text-xs" keyCap="F" onClick={onFit}>
            {fit === "near" ? "whole travel" : "near view"}
          </Button>
        }
        bodyClassName="flex flex-col"
      >
        <div className="flex min-h-0 flex-1">
          <div ref={ref} className="min-w-0 flex-1 overflow-hidden">
            {width > 0 ? (
              <TurningScene
                seen={seen}
                machine={machine}
                fit={fit}
                lastAxis={lastAxis}
                onJog={onJog}
                width={width}
                height={height}
              />
            ) : null}
          </div>
          <div className="flex w-[168px] shrink-0 xl:w-[212px] flex-col gap-2 border-l border-rule-soft p-2">
            <TurningSide seen={seen} machine={machine} />
          </div>
        </div>
        <Message view={view} words={incident ? `last incident: ${incident}` : ""} />
      </Panel>
    );
  }
  return (
    <Panel
      title={`Plan from above, elevation ${sideWords[seen.sight]}`}
      note={
        <Button look="quiet" className="!py-0 text-xs" keyCap="F" onClick={onFit}>
          {fit === "near" ? "whole table" : "near view"}
        </Button>
      }
      bodyClassName="flex flex-col"
    >
      <div className="flex min-h-0 flex-1">
        <div ref={ref} className="min-w-0 flex-1 overflow-hidden">
          {width > 0 ? (
            <>
              <Plan
                seen={seen}
                machine={machine}
                fit={fit}
                lastAxis={lastAxis}
                onJog={onJog}
                width={width}
                height={planHeight}
              />
              <div className="border-t border-rule" />
              <Elevation
                seen={seen}
                machine={machine}
                fit={fit}
                lastAxis={lastAxis}
                onJog={onJog}
                width={width}
                height={height - planHeight - 1}
              />
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
              {(["front", "right", "back", "left"] as const).map((side) => (
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
      </div>
      <Message
        view={view}
        words={[readyWords(seen), incident ? `last incident: ${incident}` : ""].filter(Boolean).join(" · ")}
      />
    </Panel>
  );
}

/** What the bench answered last, or how door and machine stand. */
function Message({ view, words }: { view: LinkView; words: string }) {
  const seen = view.observation;
  const control = seen.sheet.lathe?.control;
  const isAnswer = view.message !== null && view.status === "linked";
  return (
    <p
      role="status"
      data-testid="message"
      className={`min-h-8 border-t border-rule-soft px-2.5 py-1.5 ${isAnswer ? "bg-contact-soft font-bold" : "text-ink2"}`}
    >
      {isAnswer
        ? inShopWords(view.message ?? "", control)
        : inShopWords(
            [seen.isDoorOpen ? `Door open: at most ${seen.doorLimitRpm} rev/min, no rapid` : "Door shut", words]
              .filter(Boolean)
              .join(" · "),
            control,
          )}
    </p>
  );
}

/** Beside the half section: the tip under a glass, what it feels like, and the sheet in a few lines. */
function TurningSide({ seen, machine }: { seen: LinkView["observation"]; machine: AxisCounts }) {
  const { strong, soft, isContact } = turningSensation(seen, machine);
  return (
    <>
      <TurningLoupe seen={seen} machine={machine} />
      <p className="text-center" aria-live="polite">
        <b data-testid="sensation" className={`block text-base leading-5 ${isContact ? "text-contact" : ""}`}>
          {strong}
        </b>
        <span className="text-xs text-ink2">{soft}</span>
      </p>
      <ul className="mt-auto text-xs leading-5 text-ink2">
        {turningFacts(seen).map(([name, size]) => (
          <li key={name}>
            {name} <span className="figures">{size}</span>
          </li>
        ))}
      </ul>
    </>
  );
}
