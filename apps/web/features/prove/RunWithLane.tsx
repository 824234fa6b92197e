import { PROGRAM_LIMIT, type ProveReply } from "@probe-lane/contract";
import type { Dialect } from "@probe-lane/core/gcode";
import { proofWords } from "@probe-lane/core/words";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, type ApiError } from "../../app/api";
import { reading } from "../../app/queries";
import { Button, Notice, PageError, Panel, TextLink } from "../../ui";

/** How often it is asked how far a run is, ms. */
const LOOKS_EVERY_MS = 500;
const DIALECTS: Record<Dialect, string> = { mill: "mill", lathe: "turret lathe" };

function lineOf(proof: ProveReply["proof"]): number | null {
  if (proof.kind === "contact") return proof.contact.line;
  return "line" in proof ? proof.line : null;
}

const HEADLINES: Partial<Record<ProveReply["proof"]["kind"], string>> = {
  clear: "Nothing would have been struck.",
  contact: "It would have ended here.",
};

/** What came of it: the line that it is about can be gone to. */
function Outcome({ reply: { proof, unit }, onGo }: { reply: ProveReply; onGo(line: number): void }) {
  const line = lineOf(proof);
  const isClear = proof.kind === "clear";
  return (
    <div
      role="status"
      data-testid="proof"
      className={`border-l-[5px] px-3 py-2 ${isClear ? "border-expected bg-expected-soft" : "border-contact bg-contact-soft"}`}
    >
      <p className="text-base font-bold">{HEADLINES[proof.kind] ?? "It was not run to its end."}</p>
      <p>{proofWords(proof, unit)}</p>
      {line === null ? null : (
        <p className="mt-1">
          <button type="button" className="font-bold text-contact underline" onClick={() => onGo(line)}>
            Go to line {line}
          </button>
        </p>
      )}
    </div>
  );
}

/** The program run from home with the registers of a lane that was handed in, on its machine as it really was. */
export function RunWithLane({
  laneId,
  text,
  blockDelete,
  dialect,
  isReadable,
  isWrong,
  onGo,
}: {
  laneId: string;
  text: string;
  blockDelete: boolean;
  dialect: Dialect;
  isReadable: boolean;
  isWrong: boolean;
  onGo(line: number): void;
}) {
  const { data, error } = useQuery(reading("/lanes/:id/ruling", { id: laneId }));
  const asked = `${String(blockDelete)} ${text}`;
  const giveUp = useRef<AbortController | null>(null);
  const [isGivenUp, setGivenUp] = useState(false);
  const run = useMutation<{ reply: ProveReply; asked: string }, ApiError>({
    mutationFn: async () => {
      setGivenUp(false);
      giveUp.current = new AbortController();
      const body = { program: text, blockDelete };
      return { reply: await api.postUntil<ProveReply>(`/lanes/${laneId}/prove`, body, giveUp.current.signal), asked };
    },
  });
  const progress = useQuery({
    ...reading("/lanes/:id/prove", { id: laneId }),
    enabled: run.isPending,
    refetchInterval: LOOKS_EVERY_MS,
    gcTime: 0,
  });
  // nobody waits for it on another page
  useEffect(() => () => giveUp.current?.abort(), []);
  if (error) return <PageError error={error} />;
  if (!data) return <p className="text-ink2">Fetching the lane …</p>;
  const { lane } = data;
  const isTooLong = text.length > PROGRAM_LIMIT;
  // an answer is about what was run, and about nothing else
  const reply = run.data?.asked === asked ? run.data.reply : null;
  return (
    <Panel
      title="Run it with the registers of this lane"
      note={<TextLink to={`/lanes/${laneId}/ruling`}>{`${lane.title}, attempt ${lane.attempt}`}</TextLink>}
      bodyClassName="flex flex-col gap-2 p-3"
    >
      <p className="text-ink2">
        From home, in single straight ways, with jaws and tools as they really were at hand-in, and the blank or bar as
        it was before anything was cut. The first contact that must not be ends it. The text is sent to be run, and is
        not stored.
      </p>
      <p className="flex flex-wrap items-center gap-3">
        <Button
          look="act"
          disabled={!isReadable || text.trim() === "" || isTooLong || run.isPending || data.provableIn !== dialect}
          onClick={() => run.mutate()}
        >
          {run.isPending ? "It runs …" : "Run the program"}
        </Button>
        {run.isPending ? (
          <>
            <Button
              onClick={() => {
                setGivenUp(true);
                giveUp.current?.abort();
              }}
            >
              Give it up
            </Button>
            <span className="figures text-ink2" role="status">
              {progress.data?.moves ? `${progress.data.moves} moves followed` : "asked for, nothing followed yet"}
            </span>
          </>
        ) : null}
        {isGivenUp && !run.isPending ? <span>Given up: it says nothing.</span> : null}
        {!isWrong || text.trim() === "" ? null : <span>Mend what is wrong with it first.</span>}
        {isTooLong ? <span>It is longer than {PROGRAM_LIMIT} characters: run a part of it.</span> : null}
      </p>
      {data.provableIn === null ? (
        <Notice>Only a plain blank on a mill that lies along the axes, and a turret lathe, can be run so far.</Notice>
      ) : null}
      {data.provableIn !== null && data.provableIn !== dialect ? (
        <Notice>This lane is of another machine: read the program as one of a {DIALECTS[data.provableIn]}.</Notice>
      ) : null}
      {run.error && !isGivenUp ? (
        <Notice kind="stop" role="alert">
          {run.error.message}
        </Notice>
      ) : null}
      {reply ? <Outcome reply={reply} onGo={onGo} /> : null}
    </Panel>
  );
}
