import type { Command, Observation } from "@probe-lane/core/bench";
import type { LaneView } from "@probe-lane/contract";
import { useMutation } from "@tanstack/react-query";
import { Volume2, VolumeX } from "lucide-react";
import { memo } from "react";
import { api, type ApiError } from "../../../app/api";
import { Button, TextLink } from "../../../ui";
import type { OpenDialog } from "./act";
import { outlined, type Control } from "./kit";
import type { LinkView } from "./laneLink";

const STATUS_WORDS: Record<LinkView["status"], string> = {
  linked: "linked",
  lost: "link lost, machine holds",
  paused: "held for everybody",
  moved: "open elsewhere",
  signedOut: "signed out",
  broken: "held",
};

/** What a watching instructor can do from the head of the bench. */
function Watching({ laneId, seen }: { laneId: string; seen: Observation }) {
  const answer = useMutation<unknown, ApiError>({ mutationFn: () => api.post(`/lanes/${laneId}/hand`) });
  return (
    <>
      {seen.isHandUp ? (
        <Button look="act" disabled={answer.isPending} onClick={() => answer.mutate()}>
          Answer the raised hand
        </Button>
      ) : null}
      <TextLink to={`/lanes/${laneId}/review`}>Replay</TextLink>
      {seen.isHandedIn ? <TextLink to={`/lanes/${laneId}/ruling`}>Ruling</TextLink> : null}
      <a className="font-bold text-expected underline" href={`/api/lanes/${laneId}/record`} download>
        Record
      </a>
      <TextLink to="/wall">Back to the wall</TextLink>
    </>
  );
}

/** What belongs to the whole lane, at the head of its page: sheet, desks, keys, sound, hand, the way out. */
export const Aside = memo(function Aside({
  lane,
  seen,
  send,
  open,
  desk,
  isAtProgram,
  onDesk,
  isLoud,
  setLoud,
  heard,
  status,
  isReadOnly,
  isWatching,
  pointed,
}: {
  lane: LaneView["lane"];
  seen: Observation;
  send(command: Command): void;
  open(dialog: OpenDialog): void;
  /** The desk that the key goes to; null where there is the ledger alone. */
  desk: string | null;
  isAtProgram: boolean;
  onDesk(): void;
  isLoud: boolean;
  setLoud(isLoud: boolean): void;
  /** What is heard, in words. */
  heard: string;
  status: LinkView["status"];
  isReadOnly: boolean;
  isWatching: boolean;
  pointed: ReadonlySet<Control>;
}) {
  const switchWords = isLoud ? "Switch the sound off" : "Switch the sound on";
  return (
    <div className="flex items-center gap-3 text-xs text-ink2">
      <Button look="quiet" keyCap="I" onClick={() => open("sheet")}>
        Sheet
      </Button>
      {desk === null ? null : (
        <Button look="quiet" keyCap="A" aria-pressed={isAtProgram} onClick={onDesk}>
          {desk}
        </Button>
      )}
      <Button look="quiet" keyCap="?" onClick={() => open("keys")}>
        Keys
      </Button>
      <Button
        look="quiet"
        aria-label={switchWords}
        title={switchWords}
        aria-pressed={isLoud}
        onClick={() => setLoud(!isLoud)}
      >
        {isLoud ? <Volume2 size={16} aria-hidden /> : <VolumeX size={16} aria-hidden />}
        {isLoud ? <span className="max-w-28 truncate">{heard}</span> : null}
      </Button>
      {isWatching ? (
        <Watching laneId={lane.id} seen={seen} />
      ) : isReadOnly ? (
        <TextLink to={`/lanes/${lane.id}/ruling`}>Read the ruling</TextLink>
      ) : (
        <>
          <Button
            look="quiet"
            keyCap="R"
            className={outlined(pointed, "hand")}
            aria-pressed={seen.isHandUp}
            onClick={() => send({ type: seen.isHandUp ? "lowerHand" : "raiseHand" })}
          >
            {seen.isHandUp ? <b className="text-contact">Hand is up</b> : "Raise hand"}
          </Button>
          <Button keyCap="K" className={outlined(pointed, "handIn")} onClick={() => open("handIn")}>
            Hand in
          </Button>
          <span data-testid="link" className={status === "linked" ? "" : "font-bold text-contact"}>
            {status === "linked" ? "● " : "○ "}
            {STATUS_WORDS[status]}
          </span>
        </>
      )}
    </div>
  );
});
