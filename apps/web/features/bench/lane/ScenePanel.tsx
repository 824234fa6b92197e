import type { Command } from "@probe-lane/core/bench";
import type { Axis } from "@probe-lane/core/registers";
import { inShopWords } from "@probe-lane/core/words";
import { Button, Panel } from "../../../ui";
import type { Jog } from "./drawing";
import type { BenchKit } from "./kit";
import type { LinkView } from "./laneLink";

/** The machine's picture, with what the bench answered last below it. */
export function ScenePanel({
  view,
  kit,
  fit,
  onFit,
  incident,
  ...rest
}: {
  view: LinkView;
  kit: BenchKit;
  fit: "near" | "whole";
  lastAxis: Axis;
  send(command: Command): void;
  onFit(): void;
  incident: string | null;
  isReadOnly: boolean;
  onJog: Jog | null;
}) {
  const seen = view.observation;
  const { title, whole, Picture, standing } = kit.picture;
  const words = [standing(seen), incident ? `last incident: ${incident}` : ""].filter(Boolean).join(" · ");
  return (
    <Panel
      title={title(seen)}
      note={
        <Button look="quiet" className="!py-0 text-xs" keyCap="F" onClick={onFit}>
          {fit === "near" ? whole : "near view"}
        </Button>
      }
      bodyClassName="flex flex-col"
    >
      <div className="flex min-h-0 flex-1">
        <Picture seen={seen} machine={view.shown.machine} fit={fit} {...rest} />
      </div>
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
      className={`min-h-8 border-t border-rule-soft px-2.5 py-1.5 ${isAnswer ? "bg-contact-soft font-bold" : "text-ink2"}`}
    >
      {inShopWords(isAnswer ? message : [door, words].filter(Boolean).join(" · "), seen.kind)}
    </p>
  );
}
