import type { Command, PartPicture } from "@probe-lane/core/bench";
import type { Axis } from "@probe-lane/core/registers";
import { inShopWords } from "@probe-lane/core/words";
import { lazy, Suspense } from "react";
import { storedTheme } from "../../../app/theme";
import { Button, Panel } from "../../../ui";
import { framingWords, type Framing } from "./camera";
import type { Jog } from "./drawing";
import type { BenchKit, Control } from "./kit";
import type { LinkView } from "./laneLink";
import { partAlone } from "./space/bodies";
import { useWays } from "./ways";

/** Fetched when somebody looks at it. */
const SpaceView = lazy(() => import("./space/SpaceView"));

const PartDrawing = lazy(async () => ({ default: (await import("../program/PartDrawing")).PartDrawing }));

/** The view in space, with the ways of the program that is held. */
function InSpace({ view, kit, part }: { view: LinkView; kit: BenchKit; part: PartPicture | null }) {
  const seen = view.observation;
  const { space, called, wayInSpace } = kit.picture;
  const strokes = useWays(seen, kit.registers.exchange.dialect);
  const ways = strokes.flatMap((stroke) => {
    const points = stroke.points.flatMap((place) => {
      const at = wayInSpace(seen, place, stroke.frame);
      return at ? [at] : [];
    });
    const isWhole = points.length === stroke.points.length;
    return isWhole ? [{ points, isRapid: stroke.isRapid, isCalled: stroke.tool === called(seen) }] : [];
  });
  return <SpaceView space={space(seen, view.shown.machine, part)} ways={ways} theme={storedTheme()} />;
}

/** The machine's picture, with what the bench answered last below it. */
export function ScenePanel({
  view,
  kit,
  framing,
  onFraming,
  isInSpace,
  onSpace,
  incident,
  part,
  isPart,
  ...rest
}: {
  view: LinkView;
  kit: BenchKit;
  framing: Framing;
  lastAxis: Axis;
  send(command: Command): void;
  onFraming(): void;
  isInSpace: boolean;
  onSpace(): void;
  incident: string | null;
  /** The part that was cut, as an eye sees it; null before that. */
  part: PartPicture | null;
  /** It is the part that is looked at. */
  isPart: boolean;
  isReadOnly: boolean;
  onJog: Jog | null;
  pointed: ReadonlySet<Control>;
  stopsAt: string;
}) {
  const seen = view.observation;
  const { title, Picture, space, standing } = kit.picture;
  const isPartDrawn = isPart && part !== null && !isInSpace;
  const home = seen.isHomed && "sample" in kit.block(seen) ? "reference return done" : "";
  const words = [home, standing(seen), incident ? `last incident: ${incident}` : ""].filter(Boolean).join(" · ");
  return (
    <Panel
      title={isPart && part ? "The part as it was cut, by eye" : title(seen)}
      note={
        <span className="flex gap-1">
          {isInSpace || isPartDrawn ? null : (
            <Button look="quiet" className="!py-0 text-xs" keyCap="F" onClick={onFraming}>
              view: {framingWords[framing]}
            </Button>
          )}
          <Button look="quiet" className="!py-0 text-xs" keyCap="3" aria-pressed={isInSpace} onClick={onSpace}>
            {isInSpace ? "back to the drawing" : "in space"}
          </Button>
        </span>
      }
      className="flex-1"
      bodyClassName="relative flex flex-col"
    >
      <div className="flex min-h-0 flex-1">
        {isInSpace ? (
          <Suspense fallback={<p className="p-4 text-ink2">Fetching the view in space …</p>}>
            {isPart && part ? (
              <SpaceView space={partAlone(space(seen, view.shown.machine, part))} ways={[]} theme={storedTheme()} />
            ) : (
              <InSpace view={view} kit={kit} part={part} />
            )}
          </Suspense>
        ) : null}
        {isPartDrawn ? (
          <Suspense fallback={<p className="p-4 text-ink2">Fetching the part …</p>}>
            <PartDrawing part={part} unit={seen.sheet.unit} theme={storedTheme()} />
          </Suspense>
        ) : null}
        {isInSpace || isPartDrawn ? null : (
          <Picture seen={seen} machine={view.shown.machine} framing={framing} {...rest} />
        )}
      </div>
      {seen.isStopped ? (
        <div
          role="alert"
          className="absolute inset-x-[14%] top-16 border-2 border-contact bg-contact-soft p-3 text-center"
        >
          <p className="font-bold">{incident ?? "The machine has stopped itself."}</p>
          <p className="my-1 text-xs">
            Raise your hand and tell your instructor. Nothing is trusted until it is checked.
          </p>
          {rest.isReadOnly ? null : (
            <Button look="act" onClick={() => rest.send({ type: "reset" })}>
              Reset the machine
            </Button>
          )}
        </div>
      ) : null}
      <Message view={view} words={words} />
    </Panel>
  );
}

/** What the bench answered last, or how door and machine stand. */
function Message({ view: { observation: seen, message, status }, words }: { view: LinkView; words: string }) {
  const isAnswer = message !== null && status === "linked";
  const door = seen.isDoorOpen ? `Door open: at most ${seen.doorLimitRpm} rev/min, no rapid` : "Door shut";
  return (
    <p
      role="status"
      data-testid="message"
      className={`min-h-7 border-t border-rule-soft px-2.5 py-1 ${isAnswer ? "bg-contact-soft font-bold" : "text-ink2"}`}
    >
      {inShopWords(isAnswer ? message : [door, words].filter(Boolean).join(" · "), seen.kind)}
    </p>
  );
}
