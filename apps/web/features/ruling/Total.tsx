import { keyOf } from "../../app/queries";
import type { RulingView, StartedLane } from "@probe-lane/contract";
import type { StrandMarks } from "@probe-lane/core/grading";
import { incidentWords, missedWords, skillWords, whyWords } from "@probe-lane/core/words";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { format } from "date-fns";
import { Pencil } from "lucide-react";
import { useState, type FormEvent } from "react";
import { Link, useNavigate } from "react-router";
import { api, type ApiError } from "../../app/api";
import { Button, Dialog, FigureInput, Notice } from "../../ui";
import { marks, STRANDS } from "./show";

/** What of these marks counts. */
function countsWords({ ruling, bestTotal, lane }: RulingView): string {
  if (lane.isTrial) return "Tried out: this lane counts nowhere.";
  return ruling.total >= bestTotal - 1e-9
    ? "Your best attempt counts, and this is it."
    : `Your best attempt counts: ${marks(bestTotal)}.`;
}

/** The marks by strand, what an instructor may change of them, and what to do next. */
export function Total({ view, isStudent }: { view: RulingView; isStudent: boolean }) {
  const { ruling, attemptsLeft, assignmentId, practice } = view;
  const others = view.ruled.filter(({ id }) => id !== view.lane.id);
  const isElsewhere = practice !== null && practice.assignmentId !== assignmentId;
  const [giving, setGiving] = useState<StrandMarks | null>(null);
  const navigate = useNavigate();
  const client = useQueryClient();
  const again = useMutation<StartedLane, ApiError, string>({
    mutationFn: (id) => api.post<StartedLane>(`/assignments/${id}/lanes`),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: keyOf("/lanes", {}) });
      void navigate(`/lanes/${id}`);
    },
  });
  return (
    <section aria-label="Marks" className="rounded-panel border border-rule bg-panel">
      <div className="px-5 py-4">
        <p>
          <b data-testid="total" className="figures text-5xl">
            {marks(ruling.total)}
          </b>{" "}
          <span className="figures ml-1 text-lg text-ink2">of {ruling.outOf}</span>
        </p>
        {ruling.notPassed ? (
          <Notice kind="stop">
            <b>Not passed:</b> {missedWords(ruling.notPassed, ruling.sheet.unit)}. Whatever the points, at most{" "}
            {ruling.notPassed.capPercent} of a hundred count.
          </Notice>
        ) : null}
        {ruling.failedBy ? (
          <Notice kind="stop">
            <b>Not passed:</b> {incidentWords[ruling.failedBy]}. That endangers people or the machine, whatever the
            points.
          </Notice>
        ) : null}
        <p className="mt-1 text-ink2">{countsWords(view)}</p>
        {view.earlier.length > 0 ? (
          <p className="mt-1 text-[13px] text-ink2">
            Marked again by revision {ruling.markingRevision}. Before:{" "}
            {view.earlier
              .map(
                ({ revision, total, at }) =>
                  `${marks(total)} by revision ${revision} (${format(new Date(at), "d MMM, HH:mm")})`,
              )
              .join("; ")}
            .
          </p>
        ) : null}
      </div>
      {ruling.strands.map((strand) => (
        <div key={strand.name} className="border-t border-rule-soft px-5 py-2">
          <div className="grid grid-cols-[4.5rem_1fr_auto] items-center gap-3">
            <b>{STRANDS[strand.name]}</b>
            <div className="h-2 bg-rule-soft">
              <div
                className="h-2 bg-ink"
                style={{ width: `${strand.outOf > 0 ? (strand.marks / strand.outOf) * 100 : 0}%` }}
              />
            </div>
            <span className="figures whitespace-nowrap text-right">
              {marks(strand.marks)} / {strand.outOf}
              {isStudent ? null : (
                <Button
                  look="quiet"
                  className="!py-0 pl-2 text-xs"
                  aria-label={`Give other marks for ${STRANDS[strand.name]}`}
                  title="Give other marks"
                  onClick={() => setGiving(strand)}
                >
                  <Pencil size={14} aria-hidden />
                </Button>
              )}
            </span>
          </div>
          {strand.given ? (
            <p className="mt-1 border-l-4 border-l-expected bg-expected-soft px-2 py-1 text-[13px]">
              <b>{strand.given.by}</b> gave these marks; the log earned {marks(strand.given.earned)}.{" "}
              {strand.given.reason}
            </p>
          ) : null}
        </div>
      ))}
      {giving ? <GiveMarks laneId={view.lane.id} strand={giving} onClose={() => setGiving(null)} /> : null}
      {others.length > 0 ? (
        <p className="border-t border-rule-soft px-5 py-2 text-ink2">
          Beside{" "}
          {others.map(({ id, attempt, total }) => (
            <Link
              key={id}
              className="mr-2 font-bold text-expected underline"
              to={`/lanes/${view.lane.id}/compare/${id}`}
            >
              attempt {attempt} ({marks(total)})
            </Link>
          ))}
        </p>
      ) : null}
      {isStudent ? (
        <div className="border-t border-rule-soft px-5 py-3">
          {attemptsLeft > 0 ? (
            <Button
              look={isElsewhere ? "plain" : "act"}
              disabled={again.isPending}
              onClick={() => again.mutate(assignmentId)}
            >
              Try again with a new part
            </Button>
          ) : (
            <p className="text-ink2">All attempts of this exercise are used.</p>
          )}
          {practice ? (
            <div className="mt-3">
              <p>
                <b>One thing to practice:</b> {skillWords[practice.skill]}, because {whyWords(practice.why)}.
              </p>
              {isElsewhere ? (
                <Button
                  look="act"
                  className="mt-1.5 !whitespace-normal text-left"
                  disabled={again.isPending}
                  onClick={() => again.mutate(practice.assignmentId)}
                >
                  Practice: {practice.title}
                </Button>
              ) : null}
            </div>
          ) : null}
          {again.error ? (
            <div className="mt-2">
              <Notice kind="stop" role="alert">
                {again.error.message}
              </Notice>
            </div>
          ) : null}
        </div>
      ) : null}
    </section>
  );
}

/** Why the marks cannot be given like this, or null. */
function problemWith(given: number | null, outOf: number, reason: string): string | null {
  if (given === null) return "Marks are a figure such as 12 or 12.5.";
  if (given > outOf) return `This strand is out of ${outOf}: give no more than that.`;
  return reason.trim().length < 3 ? "Say why; the student reads it." : null;
}

/** Other marks for one strand, with the reason that the student reads. */
function GiveMarks({ laneId, strand, onClose }: { laneId: string; strand: StrandMarks; onClose(): void }) {
  const earned = strand.given?.earned ?? strand.marks;
  const [text, setText] = useState(marks(strand.marks));
  const [reason, setReason] = useState("");
  const client = useQueryClient();
  const give = useMutation<unknown, ApiError, number | null>({
    mutationFn: (given) => api.post(`/lanes/${laneId}/overrides`, { strand: strand.name, marks: given, reason }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: keyOf("/lanes/:id/ruling", { id: laneId }) });
      onClose();
    },
  });
  const given = /^\d+([.,]\d+)?$/.test(text.trim()) ? Number(text.trim().replace(",", ".")) : null;
  const problem = problemWith(given, strand.outOf, reason);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (problem === null) give.mutate(given);
  };
  return (
    <Dialog title={`Other marks for ${STRANDS[strand.name]}`} isOpen onClose={onClose}>
      <form onSubmit={submit} className="flex flex-col gap-3">
        <p>
          The log earned <b className="figures">{marks(earned)}</b> of {strand.outOf}. What you give counts instead;
          both stay on the ruling.
        </p>
        <label className="flex items-center gap-2">
          <b>Marks</b>
          <FigureInput className="w-24" value={text} onChange={(event) => setText(event.target.value)} /> of{" "}
          {strand.outOf}
        </label>
        <label className="block">
          <b>Why</b>
          <textarea
            value={reason}
            maxLength={500}
            rows={3}
            onChange={(event) => setReason(event.target.value)}
            className="mt-1 block w-full rounded-[3px] border border-ink3 bg-field p-1.5"
          />
        </label>
        <p role="status" className="min-h-5 text-ink2">
          {problem}
        </p>
        <div className="flex flex-wrap gap-2">
          <Button look="act" type="submit" disabled={problem !== null || give.isPending}>
            Give these marks
          </Button>
          {strand.given ? (
            <Button disabled={reason.trim().length < 3 || give.isPending} onClick={() => give.mutate(null)}>
              Back to what the log earned
            </Button>
          ) : null}
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
        </div>
        {give.error ? (
          <Notice kind="stop" role="alert">
            {give.error.message}
          </Notice>
        ) : null}
      </form>
    </Dialog>
  );
}
