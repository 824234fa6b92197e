import { signatureWords } from "@probe-lane/core/words";
import type { Observation } from "@probe-lane/core/bench";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, type ApiError } from "../../../app/api";
import { Button, Notice } from "../../../ui";

/** For who signs: what is asked, and the two answers to it. Registers, program and answers stand on the page. */
export function SignBar({ laneId, seen }: { laneId: string; seen: Observation }) {
  const [word, setWord] = useState("");
  const answer = useMutation<unknown, ApiError, { isGiven: boolean; word: string }>({
    mutationFn: (body) => api.post(`/lanes/${laneId}/signature`, body),
    onSuccess: () => setWord(""),
  });
  const signature = seen.program?.signature;
  if (signature?.state !== "asked") return null;
  return (
    <section
      aria-label="Signature"
      className="flex flex-wrap items-center gap-2 rounded-panel border-2 border-contact bg-panel px-3 py-1.5"
    >
      <p className="min-w-48 flex-1">
        <b>Asked to sign for the first cut.</b> What you sign is what stands on this page: registers, program, answers.
      </p>
      <input
        aria-label="A word with it"
        value={word}
        onChange={(event) => setWord(event.target.value)}
        placeholder="why it goes back"
        maxLength={300}
        className="w-56 rounded-[3px] border border-ink3 bg-field px-1.5 py-0.5"
      />
      <Button disabled={word.trim() === "" || answer.isPending} onClick={() => answer.mutate({ isGiven: false, word })}>
        Send it back
      </Button>
      <Button look="act" disabled={answer.isPending} onClick={() => answer.mutate({ isGiven: true, word: "" })}>
        Sign
      </Button>
      {answer.error ? (
        <Notice kind="stop" role="alert">
          {answer.error.message}
        </Notice>
      ) : null}
    </section>
  );
}

/** For who asks: how the signature stands, and asking for it. */
export function SignatureLine({ seen, onAsk }: { seen: Observation; onAsk(): void }) {
  const signature = seen.program?.signature;
  if (seen.sheet.signsOff !== true || seen.isCoachOn || !signature) return null;
  const isOpen = signature.state !== "asked" && signature.state !== "given";
  return (
    <p className="flex items-center gap-2 border-t border-rule-soft px-2.5 py-1.5" data-testid="signature">
      <b>Signature</b>
      <span role="status" className={`min-w-0 flex-1 ${isOpen && signature.state !== "none" ? "text-contact" : ""}`}>
        {signatureWords(signature)}
      </span>
      {isOpen ? (
        <Button className="!px-2" onClick={onAsk}>
          Ask for it
        </Button>
      ) : null}
    </p>
  );
}
