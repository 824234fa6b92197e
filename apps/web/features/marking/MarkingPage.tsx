import { keyOf, reading } from "../../app/queries";
import type { MarkingDraft, MarkingView, RegradePreview, RegradeProgress, TrialView } from "@probe-lane/contract";
import { mustHaveNames, strandNames } from "@probe-lane/core/grading";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { format } from "date-fns";
import { useState, type FormEvent } from "react";
import { Link, useParams } from "react-router";
import { api, type ApiError } from "../../app/api";
import { Button, FigureInput, Loading, Notice, PageError, Panel, Select, TextLink } from "../../ui";
import { MustHaveFields } from "../../ui/MustHaveFields";
import { changesOf, isChanged, readMarking, textsOf, toleranceNames, type MarkingTexts } from "./markingView";

const TOLERANCES = {
  x: "X",
  y: "Y",
  z: "Z and lengths",
  d: "diameters",
  rotation: "turn, at the part’s far end",
} as const;
const STRANDS = {
  values: "Values",
  working: "Working",
  method: "Method",
  safety: "Safety",
  proving: "Proving",
} as const;
const INCIDENTS = { grave: "to people, spindle, machine", tool: "to tool or stock" } as const;
const SEVERITIES = {
  costs: "costs its share",
  failsSafety: "takes all of safety",
  failsLane: "fails the lane",
} as const;
const LOOKS_EVERY_MS = 600;

/** Tolerances and weights of one exercise; whom others would change; and marking every lane again by them. */
export function MarkingPage() {
  const { id = "" } = useParams();
  const { data, error } = useQuery({
    ...reading("/assignments/:id/marking", { id }),
    refetchInterval: ({ state }) =>
      state.data?.regrade && state.data.regrade.finishedAt === null ? LOOKS_EVERY_MS : false,
  });
  if (error) return <PageError error={error} />;
  const [newest] = data?.revisions ?? [];
  return data && newest ? (
    <MarkingForm key={newest.revision} id={id} view={data} texts={textsOf(newest)} />
  ) : (
    <Loading />
  );
}

function MarkingForm({ id, view, texts: first }: { id: string; view: MarkingView; texts: MarkingTexts }) {
  const [texts, setTexts] = useState(first);
  const client = useQueryClient();
  const [trialId, setTrialId] = useState<string | null>(null);
  const trials = `/assignments/${id}/marking/trials`;
  const beginTrial = useMutation<TrialView, ApiError, MarkingDraft>({
    mutationFn: (draft) => api.post(trials, draft),
    onSuccess: (trial) => setTrialId(trial.id),
  });
  const trial = useQuery({
    ...reading("/assignments/:id/marking/trials/:trial", { id, trial: trialId ?? "" }),
    enabled: trialId !== null,
    staleTime: Infinity,
    refetchInterval: ({ state }) => (state.data?.preview || state.error ? false : LOOKS_EVERY_MS),
  });
  const isTrying = beginTrial.isPending || (trialId !== null && !trial.data?.preview && !trial.error);
  const preview = trialId === null ? null : (trial.data?.preview ?? null);
  /** Gives up what is under way; a trial that is through is only put away. */
  const putAway = () => {
    if (trialId !== null && !preview) void api.delete(`${trials}/${trialId}`).catch(() => undefined);
    setTrialId(null);
    beginTrial.reset();
  };
  const begin = useMutation<RegradeProgress, ApiError, MarkingDraft>({
    mutationFn: (draft) => api.post(`/assignments/${id}/marking`, draft),
    onSuccess: () => client.invalidateQueries({ queryKey: keyOf("/assignments/:id/marking", { id }) }),
  });
  const trouble = beginTrial.error ?? trial.error ?? begin.error;
  const read = readMarking(texts);
  const isRunning = view.regrade !== null && view.regrade.finishedAt === null;
  const isSame = JSON.stringify(texts) === JSON.stringify(first);
  const change = (next: MarkingTexts) => {
    setTexts(next);
    putAway();
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if ("draft" in read) beginTrial.mutate(read.draft);
  };
  const field = "flex items-center justify-between gap-3 border-t border-rule-soft px-4 py-1.5";
  return (
    <div className="grid gap-4 lg:grid-cols-[380px_1fr]">
      <form onSubmit={submit} aria-label="Tolerances and weights">
        <Panel title={view.title} note={`marking revision ${view.revisions[0]?.revision ?? 1}`} bodyClassName="pb-3">
          <h3 className="px-4 pb-1 pt-3 text-xs font-bold text-ink2">Tolerances, ± mm</h3>
          {toleranceNames.map((name) => (
            <label key={name} className={field}>
              {TOLERANCES[name]}
              <FigureInput
                className="w-24"
                value={texts.tolerances[name]}
                onChange={(event) =>
                  change({ ...texts, tolerances: { ...texts.tolerances, [name]: event.target.value } })
                }
              />
            </label>
          ))}
          <label className={field}>
            full inside, zero at so many tolerances
            <FigureInput
              className="w-24"
              value={texts.zeroAt}
              onChange={(event) => change({ ...texts, zeroAt: event.target.value })}
            />
          </label>
          <h3 className="border-t border-rule px-4 pb-1 pt-3 text-xs font-bold text-ink2">
            Weights{"outOf" in read ? `, together ${read.outOf}` : ""}
          </h3>
          {strandNames.map((name) => (
            <label key={name} className={field}>
              {STRANDS[name]}
              <FigureInput
                className="w-24"
                value={texts.weights[name]}
                onChange={(event) => change({ ...texts, weights: { ...texts.weights, [name]: event.target.value } })}
              />
            </label>
          ))}
          <h3 className="border-t border-rule px-4 pb-1 pt-3 text-xs font-bold text-ink2">What an incident does</h3>
          {(["grave", "tool"] as const).map((name) => (
            <label key={name} className={field}>
              {INCIDENTS[name]}
              <Select
                value={texts.severity[name]}
                onChange={(event) =>
                  change({
                    ...texts,
                    severity: { ...texts.severity, [name]: event.target.value as keyof typeof SEVERITIES },
                  })
                }
              >
                {Object.entries(SEVERITIES).map(([severity, words]) => (
                  <option key={severity} value={severity}>
                    {words}
                  </option>
                ))}
              </Select>
            </label>
          ))}
          <h3 className="border-t border-rule px-4 pb-1 pt-3 text-xs font-bold text-ink2">What stands over points</h3>
          <MustHaveFields
            offered={mustHaveNames}
            texts={texts.mustHaves}
            onChange={(mustHaves) => change({ ...texts, mustHaves })}
            className={field}
          />
          <div className="flex flex-col gap-2 border-t border-rule px-4 pt-3">
            {"problem" in read ? <p className="font-bold text-contact">{read.problem}</p> : null}
            {isSame ? (
              <p className="text-ink2">Change a tolerance or a weight; nothing is stored before you say so.</p>
            ) : null}
            <p className="flex gap-2">
              <Button
                type="submit"
                look={preview ? "plain" : "act"}
                disabled={isSame || "problem" in read || isRunning || isTrying}
              >
                {isTrying ? "Marking a trial …" : "Preview who changes"}
              </Button>
              {isSame ? null : <Button onClick={() => change(first)}>Back to what counts</Button>}
            </p>
          </div>
        </Panel>
      </form>
      <div className="flex min-w-0 flex-col gap-4">
        {trouble ? (
          <Notice kind="stop" role="alert">
            {trouble.message}
          </Notice>
        ) : null}
        {view.regrade ? <Progress regrade={view.regrade} /> : null}
        {isTrying && trial.data ? <Trying trial={trial.data} onCancel={putAway} /> : null}
        {preview && "draft" in read ? (
          <Preview preview={preview} onBegin={() => begin.mutate(read.draft)} isBusy={begin.isPending || isRunning} />
        ) : (
          <Panel title="What counts now" bodyClassName="p-4">
            <p>
              {view.lanes === 0
                ? "No lane of this exercise is handed in yet: a new marking counts from the first one on."
                : `${view.lanes === 1 ? "1 lane is" : `${view.lanes} lanes are`} handed in and marked.`}{" "}
              A new marking is a revision of its own: every earlier ruling is kept beside the new one, and marks that
              you gave yourself stay as you gave them.
            </p>
            <p className="mt-2">
              <TextLink to="/marks">Back to the marks</TextLink>
            </p>
          </Panel>
        )}
        {view.revisions.length > 1 ? (
          <Panel title="Earlier markings" bodyClassName="divide-y divide-rule-soft">
            {view.revisions.slice(1).map(({ revision, tolerancesMm, zeroAtMultiple, weights }) => (
              <p key={revision} className="px-4 py-1.5">
                <b>Revision {revision}</b>{" "}
                <span className="text-ink2">
                  ±{tolerancesMm.x} / {tolerancesMm.y} / {tolerancesMm.z} mm in X / Y / Z, zero at {zeroAtMultiple};{" "}
                  {strandNames.map((name) => `${STRANDS[name].toLowerCase()} ${weights[name]}`).join(", ")}
                </span>
              </p>
            ))}
          </Panel>
        ) : null}
      </div>
    </div>
  );
}

function Progress({ regrade }: { regrade: RegradeProgress }) {
  const { done, lanes, finishedAt, revision, by, startedAt } = regrade;
  return (
    <Panel
      title={finishedAt ? `Marked again by revision ${revision}` : `Marking again by revision ${revision}`}
      note={`${by}, ${format(new Date(startedAt), "d MMM, HH:mm")}`}
      bodyClassName="p-4"
    >
      <Bar label="Lanes marked again" done={done} of={lanes} />
      <p className="mt-2" role="status">
        <b className="figures">{done}</b> of <b className="figures">{lanes}</b> lanes
        {finishedAt ? ", finished." : ". You may leave this page; it goes on by itself."}
      </p>
    </Panel>
  );
}

/** How far something has come. */
function Bar({ label, done, of }: { label: string; done: number; of: number }) {
  return (
    <div
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={of}
      aria-valuenow={done}
      className="h-3 border border-rule bg-well"
    >
      <div className="h-full bg-expected" style={{ width: `${of > 0 ? (done / of) * 100 : 100}%` }} />
    </div>
  );
}

/** A trial under way; nothing is stored by it, and it can be given up. */
function Trying({ trial: { done, lanes }, onCancel }: { trial: TrialView; onCancel(): void }) {
  return (
    <Panel title="Trying this marking" note="nothing is stored" bodyClassName="p-4">
      <Bar label="Lanes tried" done={done} of={lanes} />
      <p className="mt-2 flex items-center justify-between gap-3">
        <span role="status">
          <b className="figures">{done}</b> of <b className="figures">{lanes}</b> lanes
        </span>
        <Button onClick={onCancel}>Give it up</Button>
      </p>
    </Panel>
  );
}

function Preview({ preview, onBegin, isBusy }: { preview: RegradePreview; onBegin(): void; isBusy: boolean }) {
  const changes = changesOf(preview);
  const changed = changes.filter(isChanged);
  const show = (marks: number | null) => (marks === null ? "–" : marks.toFixed(1));
  return (
    <Panel
      title="Who would change"
      note="in a hundred, without marks that you gave yourself"
      bodyClassName="flex flex-col"
    >
      <p className="px-4 py-3">
        {changed.length === 0
          ? "Nobody: every lane keeps its marks."
          : `${changed.length} of ${changes.length} lanes change: ${changed.filter(({ by }) => by > 0).length} up, ${changed.filter(({ by }) => by < 0).length} down.`}
      </p>
      <div className="max-h-[26rem] overflow-y-auto">
        <table className="w-full">
          <caption className="sr-only">Marks of each lane before and after</caption>
          <thead>
            <tr className="text-left text-xs text-ink2">
              <th className="px-4 py-1 font-normal">Lane</th>
              <th className="px-2 text-right font-normal">now</th>
              <th className="px-2 text-right font-normal">then</th>
              <th className="px-4 text-right font-normal">change</th>
            </tr>
          </thead>
          <tbody>
            {changes.map((change) => (
              <tr key={change.laneId} className="border-t border-rule-soft">
                <td className="px-4 py-1">
                  <Link className="underline decoration-ink3 underline-offset-2" to={`/lanes/${change.laneId}/ruling`}>
                    {change.who}
                  </Link>
                </td>
                <td className="figures px-2 text-right text-ink2">{show(change.before)}</td>
                <td className="figures px-2 text-right">{show(change.after)}</td>
                <td className={`figures px-4 text-right font-bold ${isChanged(change) ? "" : "text-ink2"}`}>
                  {isChanged(change) ? `${change.by > 0 ? "▲ +" : "▼ −"}${Math.abs(change.by).toFixed(1)}` : "same"}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="flex items-center gap-3 border-t border-rule px-4 py-3">
        <Button look="act" disabled={isBusy} onClick={onBegin}>
          {preview.lanes.length === 0
            ? "Let this marking count"
            : `Mark ${preview.lanes.length === 1 ? "the lane" : `all ${preview.lanes.length} lanes`} again by this`}
        </Button>
        <span className="text-ink2">The old rulings stay beside the new ones.</span>
      </p>
    </Panel>
  );
}
