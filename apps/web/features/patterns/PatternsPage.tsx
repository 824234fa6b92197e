import type { ExercisePatternsView, PatternLane, PatternsView } from "@probe-lane/contract";
import { causeName, incidentWords, missedStepWords } from "@probe-lane/core/words";
import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { PrintHead } from "../../app/PrintHead";
import { reading } from "../../app/queries";
import { Button, Loading, Notice, PageError, Panel, Select, TextLink } from "../../ui";
import { CountedRow } from "./Counted";
import { Pace } from "./Pace";
import { ValueSpread } from "./ValueSpread";

/** Mistakes, incidents and steps, of a class or of one of its exercises. */
function Counts({ patterns, lanes }: { patterns: PatternsView["patterns"]; lanes: readonly PatternLane[] }) {
  const { mistakes, incidents, missed } = patterns;
  const atBenches = lanes.filter(({ isAtMachine }) => !isAtMachine);
  return (
    <>
      <Panel
        title="Mistakes behind wrong values"
        note="lanes in which the log shows it; paler, those in which it is only likely"
      >
        {mistakes.length === 0 ? (
          <p className="px-4 py-3">No wrong value has a cause that is known by name.</p>
        ) : (
          <ul>
            {mistakes.map(({ id, made, likely }) => (
              <CountedRow key={id} name={causeName(id)} sure={made} likely={likely} lanes={lanes} />
            ))}
          </ul>
        )}
      </Panel>
      <div className="grid items-start gap-4 lg:grid-cols-2">
        <Panel title="Incidents">
          {incidents.length === 0 ? (
            <p className="px-4 py-3">Nothing was struck, broken or held.</p>
          ) : (
            <ul>
              {incidents.map(({ code, lanes: own }) => (
                <CountedRow key={code} name={incidentWords[code]} sure={own} lanes={atBenches} />
              ))}
            </ul>
          )}
        </Panel>
        <Panel title="Steps that were left out, or came too late">
          {missed.length === 0 ? (
            <p className="px-4 py-3">Every step that was asked for was done.</p>
          ) : (
            <ul>
              {missed.map(({ step, lanes: own }) => (
                <CountedRow key={step} name={missedStepWords(step)} sure={own} lanes={atBenches} />
              ))}
            </ul>
          )}
        </Panel>
      </div>
    </>
  );
}

function ExercisePatterns({ id }: { id: string }) {
  const { data, error } = useQuery(reading("/patterns/:id", { id }));
  if (error) return <PageError error={error} />;
  if (!data) return <Loading />;
  return <OfExercise view={data} />;
}

function OfExercise({ view: { patterns, lanes, unit, pace } }: { view: ExercisePatternsView }) {
  if (lanes.length === 0) return <Notice>No lane of this exercise has been ruled yet.</Notice>;
  return (
    <>
      <Panel
        title="Each value over all lanes"
        note="filled: right; hollow: not; broken lines: where a mistake puts it, and how many made it. Even inside the tolerance, by tens outside"
      >
        {patterns.values.map((spread) => (
          <ValueSpread key={spread.target.id} spread={spread} lanes={lanes} unit={unit} />
        ))}
      </Panel>
      <Counts patterns={patterns} lanes={lanes} />
      <Panel
        title="Time at work for each gate"
        note="since the gate before; breaks of more than five minutes count as five"
      >
        <Pace pace={pace} />
      </Panel>
    </>
  );
}

/** What was chosen of it, or why there is nothing to see. */
function Chosen({ view: { exercises, lanes, patterns }, chosen }: { view: PatternsView; chosen: string }) {
  if (lanes.length === 0)
    return <Notice>No lane has been handed in yet. What goes wrong stands here once one is.</Notice>;
  if (chosen === "") return <Counts patterns={patterns} lanes={lanes} />;
  if (exercises.some(({ id }) => id === chosen)) return <ExercisePatterns id={chosen} />;
  return <Notice>This class has no ruled lane of that exercise. What it has stands in the list above.</Notice>;
}

/** What a class gets wrong: over everything, or in one exercise. */
export function PatternsPage() {
  const { data, error } = useQuery(reading("/patterns", {}));
  const [search, setSearch] = useSearchParams();
  if (error) return <PageError error={error} />;
  if (!data) return <Loading />;
  const { exercises, lanes, className } = data;
  const chosen = search.get("of") ?? "";
  const known = exercises.find(({ id }) => id === chosen);
  return (
    <div className="flex flex-col gap-4">
      <PrintHead
        title="What goes wrong"
        facts={[
          ["Class", className],
          ["Exercise", known?.title ?? "all of them"],
        ]}
      />
      <div className="no-print flex flex-wrap items-center gap-4">
        <TextLink to="/marks">Back to the marks</TextLink>
        <label className="flex min-w-0 flex-1 items-center gap-2">
          <span className="text-ink2">of</span>
          <Select
            aria-label="Exercise"
            value={known ? chosen : ""}
            onChange={({ target }) => setSearch(target.value === "" ? {} : { of: target.value })}
          >
            <option value="">everything that was handed in ({lanes.length})</option>
            {exercises.map(({ id, title, lanes: count }) => (
              <option key={id} value={id}>
                {title} ({count})
              </option>
            ))}
          </Select>
        </label>
        <Button onClick={() => print()}>Print</Button>
      </div>
      <Chosen view={data} chosen={chosen} />
    </div>
  );
}
