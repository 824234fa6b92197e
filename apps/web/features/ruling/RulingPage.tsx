import { keyOf, reading } from "../../app/queries";
import type { RulingView, StartedLane } from "@probe-lane/contract";
import type { Finding, RegisterRuling, Ruling, StrandMarks } from "@probe-lane/core/grading";
import { schoolsOf } from "@probe-lane/core/exercises";
import { causeWords, choiceWords, findingWords, schoolWords, skillWords, targetWords } from "@probe-lane/core/words";
import { scales, showLength } from "@probe-lane/core/units";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { format } from "date-fns";
import { Pencil } from "lucide-react";
import { useState, type FormEvent } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { api, type ApiError } from "../../app/api";
import { useMe } from "../../app/session";
import { Shell } from "../../app/Shell";
import { useElementSize } from "../../app/useElementSize";
import { Button, Dialog, FigureInput, Loading, Notice, PageError, Panel, TextLink } from "../../ui";
import { marks, shown, STRANDS } from "./show";
import { ValueAxis } from "./ValueAxis";

/** Values that a school of lengths sets. */
const LENGTHS = new Set<RegisterRuling["target"]["kind"]>(["toolSum", "toolRow"]);

/** Values that went wrong for the same cause: one habit on five tools is one cause. */
function byCause(values: readonly RegisterRuling[]): RegisterRuling[][] {
  const groups = new Map<string, RegisterRuling[]>();
  for (const value of values) {
    const { cause } = value;
    const key =
      cause.kind === "proven"
        ? cause.terms.map(({ id }) => id).join()
        : cause.kind === "inferred"
          ? (cause.ranked[0]?.ids.join() ?? "")
          : value.target.id;
    groups.set(key, [...(groups.get(key) ?? []), value]);
  }
  return [...groups.values()];
}

export function RulingPage() {
  const { id = "" } = useParams();
  const { data, error } = useQuery(reading("/lanes/:id/ruling", { id }));
  if (error) {
    return (
      <Shell title="Ruling">
        <PageError error={error} />
        {error.code === "notHandedIn" ? (
          <p className="mx-auto max-w-xl px-8">
            <Link className="font-bold text-contact underline" to={`/lanes/${id}`}>
              Go to the bench
            </Link>
          </p>
        ) : null}
      </Shell>
    );
  }
  return data ? <RulingSheet view={data} /> : <Loading />;
}

function RulingSheet({ view }: { view: RulingView }) {
  const { lane, ruling } = view;
  const { me } = useMe();
  const isStudent = me?.role === "student";
  const wrong = ruling.values
    .filter(({ closureMm, toleranceMm }) => Math.abs(closureMm) > toleranceMm)
    .sort((a, b) => a.marks - b.marks);
  const right = ruling.values.filter((value) => !wrong.includes(value));
  const hasLengths = ruling.values.some(({ target }) => LENGTHS.has(target.kind));
  const handover = ruling.findings.filter(({ code }) => HANDOVER.test(code));
  const others = ruling.findings.filter((finding) => !handover.includes(finding));
  const lost = others.filter((finding) => costOf(finding) > 0);
  const kept = others.filter((finding) => costOf(finding) <= 0);
  return (
    <Shell
      title="Ruling"
      detail={`${lane.title} · ${isStudent ? "" : `${lane.studentName} · `}attempt ${lane.attempt} · handed in ${lane.handedInAt ? format(new Date(lane.handedInAt), "d MMM, HH:mm") : ""}`}
      aside={
        <>
          <TextLink to={`/lanes/${lane.id}/review`}>Replay</TextLink>
          {isStudent ? (
            <TextLink to="/">My lanes</TextLink>
          ) : (
            <TextLink to={`/lanes/${lane.id}`}>See the bench</TextLink>
          )}
        </>
      }
    >
      <div className="grid gap-4 lg:grid-cols-[1fr_380px]">
        <div className="flex min-w-0 flex-col gap-4">
          {handover.length > 0 ? <HandedOver laneId={lane.id} findings={handover} sheet={ruling.sheet} /> : null}
          <Axes ruling={ruling} />
          {byCause(wrong).map((values) => (
            <Cause key={values[0]?.target.id} laneId={lane.id} values={values} sheet={ruling.sheet} />
          ))}
          {right.length > 0 ? (
            <Panel title="What is right" bodyClassName="px-4 py-2">
              {right.map((value) => {
                const { headline, body } = causeWords(value, ruling.sheet);
                return (
                  <p key={value.target.id} className="py-1">
                    <b>{headline}</b> <span className="text-ink2">{body}</span>
                  </p>
                );
              })}
              {hasLengths ? (
                <p className="py-1 text-ink2">
                  <TextLink to={`/schools?lane=${lane.id}`}>The same setup in another school</TextLink>.{" "}
                </p>
              ) : null}
              {hasLengths ? (
                <p className="py-1 text-ink2">
                  School of lengths
                  {schoolsOf(ruling.sheet).length === 1
                    ? ""
                    : ruling.isSchoolNamed
                      ? ", as you named it at hand-in"
                      : ", read from your captures"}
                  : {schoolWords[ruling.school]}.
                </p>
              ) : null}
            </Panel>
          ) : null}
        </div>
        <div className="flex flex-col gap-4">
          <Total view={view} isStudent={isStudent} />
          {view.notes.length > 0 ? (
            <Panel title="From your instructor" bodyClassName="divide-y divide-rule-soft">
              {view.notes.map((note) => (
                <p key={note.id} className="px-4 py-2">
                  {note.text} <span className="text-xs text-ink2">{note.by}.</span>{" "}
                  <ReplayLink laneId={lane.id} seq={note.seq} />
                </p>
              ))}
            </Panel>
          ) : null}
          <Panel title="What cost marks" bodyClassName="divide-y divide-rule-soft">
            {lost.length === 0 && wrong.length === 0 ? (
              <p className="px-4 py-3">Nothing. Every value inside its tolerance, every step done, nothing struck.</p>
            ) : null}
            {wrong.map((value) => (
              <p key={value.target.id} className="px-4 py-2">
                <b className="figures">−{marks(value.outOf - value.marks)}</b> <b>Values</b> {targetWords(value.target)}
                {choiceWords(value, value.held) === null
                  ? ` outside ±${(value.toleranceMm * 1000).toFixed(0)} µm.`
                  : ": not right."}
              </p>
            ))}
            {lost.map((finding, index) => (
              <Lost key={index} laneId={lane.id} finding={finding} unit={ruling.sheet.unit} />
            ))}
          </Panel>
          <Panel title="What was done well" bodyClassName="px-4 py-2">
            {kept.length === 0 ? <p>No required step was found in the log.</p> : null}
            <ul className="text-ink2">
              {kept.map((finding, index) => (
                <li key={index} className="py-0.5">
                  <span className="text-ink">✓</span> {findingWords(finding, ruling.sheet.unit)}
                </li>
              ))}
            </ul>
          </Panel>
        </div>
      </div>
    </Shell>
  );
}

function Axes({ ruling }: { ruling: Ruling }) {
  const { ref, width } = useElementSize();
  const lengths = ruling.values.filter((value) => choiceWords(value, value.held) === null);
  const choices = ruling.values.filter((value) => choiceWords(value, value.held) !== null);
  return (
    <Panel
      title="Where your registers put the tool"
      note="mm off · band: tolerance · ticks: what the method holds · logarithmic beyond the band"
    >
      {choices.length > 0 ? <Choices values={choices} sheet={ruling.sheet} /> : null}
      <div ref={ref} className="divide-y divide-rule-soft">
        {width === 0
          ? null
          : lengths.map((value) => (
              <div key={value.target.id} className="flex items-center gap-3 px-4 py-2">
                <div className="w-36 shrink-0">
                  <b>{targetWords(value.target)}</b>
                  <dl className="figures mt-1 grid grid-cols-[auto_1fr] gap-x-2 text-[15px] leading-5">
                    <dt className="font-sans text-xs text-ink2">held</dt>
                    <dd className="text-right">{shown(value, value.held, ruling.sheet)}</dd>
                    <dt className="font-sans text-xs text-expected">should</dt>
                    <dd className="text-right text-expected">{shown(value, value.wanted, ruling.sheet)}</dd>
                  </dl>
                </div>
                <div className="min-w-0 flex-1">
                  <ValueAxis value={value} width={Math.max(280, width - 144 - 112 - 56)} />
                </div>
                <span className="figures w-28 shrink-0 whitespace-nowrap text-right font-bold">
                  {marks(value.marks)} / {marks(value.outOf)}
                </span>
              </div>
            ))}
      </div>
    </Panel>
  );
}

/** What was chosen and said: right or not, and no length. */
function Choices({ values, sheet }: { values: readonly RegisterRuling[]; sheet: Ruling["sheet"] }) {
  return (
    <ul aria-label="What was chosen and said" className="grid gap-x-8 border-b border-rule px-4 py-2 sm:grid-cols-2">
      {values.map((value) => (
        <li key={value.target.id} className="flex items-baseline gap-2 border-b border-rule-soft py-1">
          <b className="flex-1">{targetWords(value.target)}</b>
          {value.marks < value.outOf ? (
            <span>
              <span className="text-contact">✗ {shown(value, value.held, sheet)}</span>,{" "}
              <span className="text-expected">should: {shown(value, value.wanted, sheet)}</span>
            </span>
          ) : (
            <span>✓ {shown(value, value.held, sheet)}</span>
          )}
          <span className="figures w-24 whitespace-nowrap text-right font-bold">
            {marks(value.marks)} / {marks(value.outOf)}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** To the moment of the log that a sentence speaks of. */
function ReplayLink({ laneId, seq }: { laneId: string; seq: number }) {
  return (
    <Link
      className="whitespace-nowrap font-bold text-expected underline"
      to={`/lanes/${laneId}/review?seq=${Math.ceil(seq)}`}
      aria-label={`Replay entry ${Math.ceil(seq)} of the log`}
    >
      Replay this moment
    </Link>
  );
}

function Cause({
  laneId,
  values,
  sheet,
}: {
  laneId: string;
  values: readonly RegisterRuling[];
  sheet: Ruling["sheet"];
}) {
  const [value, ...others] = values;
  if (!value) return null;
  const { headline, body, proof } = causeWords(value, sheet);
  return (
    <section className="rounded-panel border border-l-[5px] border-rule border-l-contact bg-panel px-5 py-4">
      <h2 className="text-lg font-bold">{headline}</h2>
      <p className="mt-1 max-w-prose text-[15px]">{body}</p>
      {others.length > 0 ? (
        <p className="mt-1 max-w-prose text-[15px]">
          <b>The same cause:</b>{" "}
          {others
            .map(
              ({ target, closureMm }) =>
                `${targetWords(target)} (${closureMm > 0 ? "+" : "−"}${showLength(Math.abs(closureMm), scales[sheet.unit])})`,
            )
            .join(", ")}
          .
        </p>
      ) : null}
      <p className="mt-2 text-ink2">
        <b className="text-ink">
          {value.cause.kind === "proven" ? "Proven" : value.cause.kind === "inferred" ? "Inferred" : "Open"}.
        </b>{" "}
        {proof}
        {value.contact && value.cause.kind === "proven" ? (
          <>
            {" "}
            The contact is entry {value.contact.seq} of the log, at {format(new Date(value.contact.atMs), "HH:mm:ss")}.
          </>
        ) : null}
        {value.contact ? (
          <>
            {" "}
            <ReplayLink laneId={laneId} seq={value.contact.seq} />
          </>
        ) : null}
      </p>
    </section>
  );
}

/** Marks that a finding took; an incident is named even where the strand had nothing left to take. */
const costOf = (finding: Finding): number => {
  if (finding.code === "incident") return Math.max(finding.cost, Number.EPSILON);
  if (finding.code === "noIncident") return 0;
  // a fault of the working or of method is named even where its strand has no weight
  const isFault = finding.code === "stepMissed" || (finding.code === "working" && finding.fault !== null);
  return isFault ? Math.max(finding.outOf - finding.marks, Number.EPSILON) : finding.outOf - finding.marks;
};

/** Findings about a setup that was handed over; they have a panel of their own. */
const HANDOVER = /^(fault|sound|verdict)/;

/** What was wrong with someone else's setup, what of it was found, and what was said of the whole. */
function HandedOver({
  laneId,
  findings,
  sheet,
}: {
  laneId: string;
  findings: readonly Finding[];
  sheet: Ruling["sheet"];
}) {
  const isFaulty = findings.some(({ code }) => code.startsWith("fault"));
  return (
    <Panel
      title={isFaulty ? "What was wrong with the setup" : "The setup was sound"}
      note={`as ${sheet.handover?.from ?? "it"} handed it over`}
      bodyClassName="divide-y divide-rule-soft"
    >
      {findings.map((finding, index) => {
        const cost = costOf(finding);
        return (
          <p key={index} className="flex gap-3 px-4 py-2">
            <b className={`figures w-14 shrink-0 text-right ${cost > 0 ? "text-contact" : ""}`}>
              {cost > 0 ? `−${marks(cost)}` : "✓"}
            </b>
            <span>
              {findingWords(finding, sheet.unit)}
              {"seq" in finding && finding.seq !== null ? (
                <>
                  {" "}
                  <ReplayLink laneId={laneId} seq={finding.seq} />
                </>
              ) : null}
            </span>
          </p>
        );
      })}
    </Panel>
  );
}

function Lost({ laneId, finding, unit }: { laneId: string; finding: Finding; unit: Ruling["sheet"]["unit"] }) {
  return (
    <p className="px-4 py-2">
      <b className="figures">−{marks(costOf(finding))}</b>{" "}
      <b>{finding.code === "incident" ? "Safety" : finding.code === "working" ? "Working" : "Method"}</b>{" "}
      {findingWords(finding, unit)}
      {finding.code === "incident" ? (
        <span className="text-xs text-ink2"> {format(new Date(finding.atMs), "HH:mm:ss")}</span>
      ) : null}
      {"seq" in finding && finding.seq !== null ? (
        <>
          {" "}
          <ReplayLink laneId={laneId} seq={finding.seq} />
        </>
      ) : null}
    </p>
  );
}

function Total({ view, isStudent }: { view: RulingView; isStudent: boolean }) {
  const { ruling, attemptsLeft, bestTotal, assignmentId, practice } = view;
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
  const isBest = ruling.total >= bestTotal - 1e-9;
  return (
    <section aria-label="Marks" className="rounded-panel border border-rule bg-panel">
      <div className="px-5 py-4">
        <p>
          <b data-testid="total" className="figures text-5xl">
            {marks(ruling.total)}
          </b>{" "}
          <span className="figures ml-1 text-lg text-ink2">of {ruling.outOf}</span>
        </p>
        <p className="mt-1 text-ink2">
          {isBest ? "Your best attempt counts, and this is it." : `Your best attempt counts: ${marks(bestTotal)}.`}
        </p>
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
                <b>One thing to practice:</b> {skillWords[practice.skill]}.
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
  const problem =
    given === null
      ? "Marks are a figure such as 12 or 12.5."
      : given > strand.outOf
        ? `This strand is out of ${strand.outOf}: give no more than that.`
        : reason.trim().length < 3
          ? "Say why; the student reads it."
          : null;
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
