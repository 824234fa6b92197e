import type { MachineSigned, SkillStanding, StandingsView } from "@probe-lane/contract";
import { initialsOf } from "@probe-lane/core/floor";
import { skillWords, standWords } from "@probe-lane/core/words";
import { useQuery } from "@tanstack/react-query";
import { format } from "date-fns";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { PrintHead } from "../../app/PrintHead";
import { reading } from "../../app/queries";
import { Button, Loading, Notice, PageError, Panel, TextLink } from "../../ui";

type Student = StandingsView["students"][number];

const STAND_LOOK = {
  mastered: { mark: "✓", look: "border-ink bg-ink text-panel" },
  shaky: { mark: "✓", look: "border-ink text-ink" },
  notYet: { mark: "×", look: "border-contact text-contact" },
  untried: { mark: "", look: "border-transparent" },
} as const;
const LAPSED_LOOK = { mark: "↻", look: "border-dashed border-contact text-contact" } as const;

const day = (at: string): string => format(new Date(at), "d MMM yyyy");

function Mark({ look }: { look: { mark: string; look: string } }) {
  return (
    <span
      aria-hidden
      className={`inline-block size-6 rounded-[3px] border-2 text-center leading-5 font-bold ${look.look}`}
    >
      {look.mark}
    </span>
  );
}

function SkillCell({ standing }: { standing: SkillStanding | undefined }) {
  if (!standing)
    return (
      <span className="text-ink3">
        <span aria-hidden>·</span>
        <span className="sr-only">not tried</span>
      </span>
    );
  const { stand, isLapsed, at } = standing;
  const words = `${isLapsed ? "lapsed, was " : ""}${standWords[stand]}, ${day(at)}`;
  return (
    <span title={words}>
      <Mark look={isLapsed ? LAPSED_LOOK : STAND_LOOK[stand]} />
      <span className="sr-only">{words}</span>
    </span>
  );
}

function MachineCell({ signed }: { signed: MachineSigned | undefined }) {
  if (!signed)
    return (
      <span className="text-ink3">
        <span aria-hidden>–</span>
        <span className="sr-only">nothing signed</span>
      </span>
    );
  const { href, title, by, at, isPassed, isLapsed } = signed;
  return (
    <span className="whitespace-nowrap">
      <TextLink to={href}>
        <span title={`${title}, signed by ${by}`}>{day(at)}</span>
      </TextLink>{" "}
      <abbr title={by} className="text-ink2 no-underline">
        {initialsOf(by)}
      </abbr>
      {isLapsed ? <b className="block text-xs text-contact">lapsed</b> : null}
      {isPassed ? null : <b className="block text-xs text-contact">not passed</b>}
    </span>
  );
}

/** Students × whatever the columns are; the names stay where they are while the rest is scrolled. */
function Matrix<C extends string>({
  caption,
  columns,
  students,
  head,
  cell,
  isUpright,
}: {
  caption: string;
  columns: readonly C[];
  students: readonly Student[];
  head(column: C): ReactNode;
  cell(student: Student, column: C): ReactNode;
  /** Headings stand on their ends, where there are many narrow columns. */
  isUpright: boolean;
}) {
  const align = isUpright ? "text-center" : "text-left";
  return (
    <div className="overflow-x-auto">
      <table className="w-full">
        <caption className="sr-only">{caption}</caption>
        <thead>
          <tr className="align-bottom">
            <th className="sticky left-0 w-px bg-panel px-4 py-2 text-left text-xs font-bold text-ink2">Student</th>
            {columns.map((column) => (
              <th key={column} className={`px-1.5 py-2 text-xs font-bold text-ink2 ${align}`}>
                {isUpright ? (
                  <span className="inline-block max-h-44 rotate-180 leading-tight [text-orientation:sideways] [writing-mode:vertical-rl]">
                    {head(column)}
                  </span>
                ) : (
                  head(column)
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {students.map((student) => (
            <tr key={student.id} className="border-t border-rule-soft">
              <th scope="row" className="sticky left-0 bg-panel px-4 py-1 text-left font-bold whitespace-nowrap">
                <Link
                  to={`/students/${student.id}/skills`}
                  title="Skills of this student"
                  className="underline decoration-ink3 underline-offset-2"
                >
                  {student.name}
                </Link>
                {student.number === "" ? null : (
                  <span className="ml-2 text-xs font-normal text-ink2">{student.number}</span>
                )}
              </th>
              {columns.map((column) => (
                <td key={column} className={`px-1.5 py-1 ${align}`}>
                  {cell(student, column)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const KEY = [
  [STAND_LOOK.mastered, "mastered: right in the last two lanes that asked for it"],
  [STAND_LOOK.shaky, "right in the last one only"],
  [STAND_LOOK.notYet, "not yet"],
  [LAPSED_LOOK, "lapsed: to be shown again"],
] as const;

/** Who of the class can do what: signed at which machine, by whom, when; and every skill, with what has lapsed. */
export function StandingsPage() {
  const { data, error } = useQuery(reading("/standings", {}));
  if (error) return <PageError error={error} />;
  if (!data) return <Loading />;
  const { students, machines, skills, lapseMonths } = data;
  if (students.length === 0) return <Notice>There are no students in this class yet.</Notice>;
  return (
    <div className="flex flex-col gap-4">
      <PrintHead title="Who can do what" facts={[["Class", data.className]]} />
      <p className="no-print flex flex-wrap items-baseline gap-4">
        <TextLink to="/marks">Back to the marks</TextLink>
        <span className="flex-1 text-ink2">
          {lapseMonths === 0
            ? "Nothing lapses in this class."
            : `What was signed or shown lapses after ${lapseMonths} ${lapseMonths === 1 ? "month" : "months"}.`}{" "}
          <TextLink to="/class">Change that</TextLink>
        </span>
        <Button onClick={() => print()}>Print</Button>
      </p>
      <Panel title="Signed at the machines" note="the newest setup of each student that was checked and signed there">
        {machines.length === 0 ? (
          <p className="px-4 py-3">
            No setup at a real machine has been handed in yet. Exercises for the shop are made on the{" "}
            <TextLink to="/floor">floor page</TextLink>.
          </p>
        ) : (
          <Matrix
            caption="Setups signed at real machines, by student and machine"
            columns={machines}
            students={students}
            head={(machine) => <span className="text-sm text-ink first-letter:uppercase">{machine}</span>}
            cell={({ machines: signed }, machine) => <MachineCell signed={signed[machine]} />}
            isUpright={false}
          />
        )}
      </Panel>
      <Panel title="Skills" note="from the rulings of bench lanes and of setups at real machines">
        {skills.length === 0 ? (
          <p className="px-4 py-3">No lane has been handed in yet.</p>
        ) : (
          <>
            <ul className="flex flex-wrap gap-x-5 gap-y-1 px-4 pt-2 text-xs text-ink2">
              {KEY.map(([look, words]) => (
                <li key={words} className="flex items-center gap-2">
                  <Mark look={look} /> {words}
                </li>
              ))}
            </ul>
            <Matrix
              caption="How each skill of each student stands"
              columns={skills}
              students={students}
              head={(skill) => skillWords[skill]}
              cell={({ skills: own }, skill) => <SkillCell standing={own[skill]} />}
              isUpright
            />
          </>
        )}
      </Panel>
    </div>
  );
}
