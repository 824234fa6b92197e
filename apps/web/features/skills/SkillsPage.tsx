import { keyOf, reading } from "../../app/queries";
import type { SkillRow, SkillsView, StartedLane } from "@probe-lane/contract";
import { skillWords, standWords, whyWords } from "@probe-lane/core/words";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { format } from "date-fns";
import { Link, useNavigate, useParams } from "react-router";
import { api, type ApiError } from "../../app/api";
import { PrintHead } from "../../app/PrintHead";
import { useMe } from "../../app/session";
import { Button, Loading, Notice, PageError, Panel } from "../../ui";

const STAND_LOOK = {
  mastered: "border-ink bg-ink text-panel",
  shaky: "border-ink text-ink",
  notYet: "border-contact text-contact",
  untried: "border-rule text-ink2",
} as const;

/** Where a student stands in each skill, from which rulings, and what to practice next. Students see their own. */
export function SkillsPage() {
  const { id } = useParams();
  const { me } = useMe();
  const isStudent = me?.role === "student";
  const own = useQuery({ ...reading("/skills", {}), enabled: id === undefined });
  const theirs = useQuery({ ...reading("/students/:id/skills", { id: id ?? "" }), enabled: id !== undefined });
  const { data, error } = id === undefined ? own : theirs;
  if (error) return <PageError error={error} />;
  if (!data) return <Loading />;
  const tried = data.skills.filter(({ stand }) => stand !== "untried");
  const untried = data.skills.filter(({ stand }) => stand === "untried");
  return (
    <div className="mx-auto flex max-w-5xl flex-col gap-4">
      <PrintHead title="Skills" facts={[["Student", data.studentName]]} />
      <p className="no-print text-right">
        <Button onClick={() => print()}>Print</Button>
      </p>
      {isStudent ? null : (
        <p className="no-print text-lg font-bold">
          {data.studentName}{" "}
          <Link to="/marks" className="ml-2 text-base font-bold text-expected underline">
            Back to the marks
          </Link>
          <Link to="/standings" className="ml-4 text-base font-bold text-expected underline">
            The whole class
          </Link>
        </p>
      )}
      {data.practice ? <PracticePanel practice={data.practice} isStudent={isStudent} /> : null}
      <Panel
        title="Skills, from the rulings of bench lanes and of setups at real machines"
        note="mastered: right in the last two lanes that asked for it · shaky: right in the last one only"
      >
        {tried.length === 0 ? (
          <p className="px-4 py-3">
            No lane has been handed in yet. After the first ruling the skills that it asked for stand here.
          </p>
        ) : null}
        <ul className="divide-y divide-rule-soft">
          {tried.map((row) => (
            <Skill key={row.skill} row={row} />
          ))}
        </ul>
      </Panel>
      {untried.length > 0 ? (
        <p className="text-ink2">
          <b>Not tried yet:</b> {untried.map(({ skill }) => skillWords[skill]).join(" · ")}.
        </p>
      ) : null}
    </div>
  );
}

/** One mark for each lane that asked for the skill, oldest first; each leads to its ruling. */
function Skill({ row }: { row: SkillRow }) {
  return (
    <li className="grid grid-cols-[6.5rem_minmax(0,1fr)_auto] items-center gap-4 px-4 py-2">
      <span className={`rounded-[3px] border-2 px-2 py-0.5 text-center font-bold ${STAND_LOOK[row.stand]}`}>
        {standWords[row.stand]}
      </span>
      <span className="text-[16px] first-letter:uppercase">
        {skillWords[row.skill]}
        {row.isLapsed ? <b className="ml-2 text-sm text-contact">lapsed: to be shown again</b> : null}
      </span>
      <span className="flex flex-wrap gap-1" role="list" aria-label="Lanes, oldest first">
        {row.shown.map(({ href, title, machine, at, isGood }) => {
          const where = `${title}${machine === null ? "" : `, at ${machine}`}, ${format(new Date(at), "d MMM, HH:mm")}`;
          return (
            <span role="listitem" key={href}>
              <Link
                to={href}
                title={where}
                aria-label={`${isGood ? "right" : "wrong"} in ${where}`}
                className={`inline-block h-6 min-w-6 rounded-[3px] border-2 px-0.5 text-center leading-5 font-bold ${isGood ? "border-ink text-ink" : "border-contact bg-contact-soft text-contact"}`}
              >
                {isGood ? "✓" : "×"}
                {machine === null ? null : <span className="text-xs font-normal"> {machine}</span>}
              </Link>
            </span>
          );
        })}
      </span>
    </li>
  );
}

function PracticePanel({ practice, isStudent }: { practice: NonNullable<SkillsView["practice"]>; isStudent: boolean }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const start = useMutation<StartedLane, ApiError>({
    mutationFn: () => api.post<StartedLane>(`/assignments/${practice.assignmentId}/lanes`),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: keyOf("/lanes", {}) });
      void navigate(`/lanes/${id}`);
    },
  });
  return (
    <section
      aria-label="Practice next"
      className="flex flex-wrap items-center gap-4 rounded-panel border border-l-[5px] border-rule border-l-expected bg-panel px-5 py-4"
    >
      <p className="min-w-64 flex-1 text-[16px]">
        <b>Practice next:</b> {skillWords[practice.skill]}: {whyWords(practice.why)}.{" "}
        <span className="text-ink2">{practice.title}</span>
      </p>
      {isStudent ? (
        <Button look="act" className="px-4 py-2" disabled={start.isPending} onClick={() => start.mutate()}>
          Draw this lane
        </Button>
      ) : null}
      {start.error ? (
        <Notice kind="stop" role="alert">
          {start.error.message}
        </Notice>
      ) : null}
    </section>
  );
}
