import { keyOf, reading } from "../../app/queries";
import type { AssignmentRow, AttemptRow, Joined, MarksPolicy, PartDrawing, StartedLane } from "@probe-lane/contract";
import { machines } from "@probe-lane/core/exercises";
import { machineWords, mustHaveWords, skillWords } from "@probe-lane/core/words";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { format, formatDistanceToNow } from "date-fns";
import { useNavigate } from "react-router";
import { api, type ApiError } from "../../app/api";
import { useJoined, useMe } from "../../app/session";
import { Button, Loading, Notice, PageError, TextLink } from "../../ui";

/** Features on a plate, by what the drawing counts from. */
const PLATE: Partial<Record<PartDrawing, React.ReactNode>> = {
  bore: <circle cx="30" cy="20" r="9" fill="var(--well)" stroke="var(--stock-edge)" />,
  boss: <circle cx="30" cy="20" r="9" fill="var(--panel)" stroke="var(--stock-edge)" />,
  pocket: <rect x="19" y="13" width="22" height="14" fill="var(--well)" stroke="var(--stock-edge)" />,
};
const ZERO: Record<PartDrawing, readonly [number, number]> = {
  frontLeft: [8, 34],
  frontRight: [52, 34],
  backLeft: [8, 6],
  backRight: [52, 6],
  middle: [30, 20],
  bore: [30, 20],
  boss: [30, 20],
  pocket: [30, 20],
  turned: [52, 20],
  bored: [52, 20],
};

/** The part, small, with its zero: enough to tell a corner from a bore and a plate from a bar. */
function Thumb({ drawing }: { drawing: PartDrawing }) {
  const isTurned = drawing === "turned" || drawing === "bored";
  const [x, y] = ZERO[drawing];
  return (
    <svg viewBox="0 0 64 42" className="h-11 w-16 shrink-0" aria-hidden>
      {isTurned ? (
        <>
          <path d="M2 8h10v24H2z" fill="var(--steel)" stroke="var(--ink3)" />
          <path d="M12 10h22v4h18v12H34v4H12z" fill="var(--stock)" stroke="var(--stock-edge)" />
          {drawing === "bored" ? <path d="M30 17h22v6H30z" fill="var(--well)" stroke="var(--stock-edge)" /> : null}
          <path d="M2 20h60" stroke="var(--ink3)" strokeDasharray="7 2 1 2" />
        </>
      ) : (
        <>
          <rect x="8" y="6" width="44" height="28" fill="var(--stock)" stroke="var(--stock-edge)" />
          {PLATE[drawing]}
        </>
      )}
      <path d={`M${x - 6} ${y}h12M${x} ${y - 6}v12`} stroke="var(--expected)" strokeWidth="2" />
    </svg>
  );
}

function AttemptLine({ attempt }: { attempt: AttemptRow }) {
  const isOpen = attempt.handedInAt === null;
  return (
    <li className="grid grid-cols-[5.5rem_5.5rem_1fr_auto] items-center gap-3 border-t border-rule-soft px-4 py-2">
      <span className="text-ink2">attempt {attempt.number}</span>
      <span className="figures text-lg">
        {attempt.total === null ? "–" : `${Math.round(attempt.total)}/${attempt.outOf}`}
      </span>
      <span className="min-w-0">
        {isOpen ? (
          <>
            <b className="text-contact">Open</b> at “{attempt.nextGate}”, {attempt.gatesPassed} of {attempt.gateCount}{" "}
            gates
          </>
        ) : (
          <>
            {attempt.headline}
            {attempt.before === null ? null : (
              <span className="block text-xs text-ink2">marked again; it was {Math.round(attempt.before)} before</span>
            )}
            {attempt.isAnswered ? (
              <b className="block text-xs text-expected">your question about it is answered</b>
            ) : null}
          </>
        )}
      </span>
      {isOpen ? null : (
        <TextLink to={`/lanes/${attempt.id}/ruling`}>
          Read the ruling<span className="sr-only"> of attempt {attempt.number}</span>
        </TextLink>
      )}
    </li>
  );
}

/** What stands over points, said before anybody begins. */
function PassedOnlyWith({ row: { mustHaves } }: { row: AssignmentRow }) {
  return mustHaves.length === 0 ? null : (
    <p className="mt-1 max-w-prose text-xs text-ink2">
      <b className="text-ink">Passed only with:</b> {mustHaves.map((name) => mustHaveWords[name].asks).join("; ")}
    </p>
  );
}

/** Starts an attempt and goes to its bench. */
function useStart(assignmentId: string) {
  const navigate = useNavigate();
  const client = useQueryClient();
  return useMutation<StartedLane, ApiError>({
    mutationFn: () => api.post<StartedLane>(`/assignments/${assignmentId}/lanes`),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: keyOf("/lanes", {}) });
      void navigate(`/lanes/${id}`);
    },
  });
}

/** Exercises without a date, to practice whenever one likes: a line each, by the machine. */
function Shelf({ rows }: { rows: readonly AssignmentRow[] }) {
  const groups = machines
    .map((machine) => ({ machine, of: rows.filter((row) => row.machine === machine) }))
    .filter(({ of }) => of.length > 0);
  return (
    <section aria-labelledby="shelf" className="rounded-panel border border-rule bg-panel">
      <h2 id="shelf" className="px-4 py-3 text-lg font-bold">
        Practice shelf <span className="text-xs font-normal text-ink2">no date; take what you are shaky on</span>
        {groups.length > 1 ? (
          <span className="ml-4 text-[13px] font-normal">
            {groups.map(({ machine }) => (
              <a key={machine} className="mr-3 text-expected underline" href={`#shelf-${machine}`}>
                {machineWords[machine]}
              </a>
            ))}
          </span>
        ) : null}
      </h2>
      {groups.map(({ machine, of }) => (
        <section key={machine} aria-labelledby={`shelf-${machine}`}>
          <h3 id={`shelf-${machine}`} className="border-t border-rule bg-well px-4 py-1.5 font-bold">
            {machineWords[machine]}{" "}
            <span className="text-xs font-normal text-ink2">
              {of.length === 1 ? "one exercise" : `${of.length} exercises`}
            </span>
          </h3>
          <ul>
            {of.map((row) => (
              <ShelfLine key={row.id} row={row} />
            ))}
          </ul>
        </section>
      ))}
    </section>
  );
}

function ShelfLine({ row }: { row: AssignmentRow }) {
  const start = useStart(row.id);
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule-soft px-4 py-2">
      <Thumb drawing={row.drawing} />
      <div className="min-w-56 flex-1">
        <b>{row.title}</b> <span className="text-xs text-ink2">about {row.minutes} min</span>
        <p className="max-w-prose text-xs text-ink2">{row.story}</p>
        <PassedOnlyWith row={row} />
      </div>
      {row.closed ? null : (
        <Button disabled={start.isPending} onClick={() => start.mutate()} aria-label={`Start ${row.title}`}>
          Start
        </Button>
      )}
      {start.error ? (
        <Notice kind="stop" role="alert">
          {start.error.message}
        </Notice>
      ) : null}
    </li>
  );
}

const dayOf = (at: string): string => format(new Date(at), "EEEE d MMMM, HH:mm");

/** By which what is due first stands first; what is never due stands behind. */
const untilDue = ({ dueAt }: AssignmentRow): number => (dueAt === null ? Number.MAX_VALUE : Date.parse(dueAt));

const CLOSED: Record<NonNullable<AssignmentRow["closed"]>, string> = {
  windowOver: "Its time is over",
  notGiven: "No longer given to your class",
  archived: "The class is archived",
};

/** Why nothing is begun here now; null where it may be. */
function closedWords({ opensAt, closed, attempts, attemptsAllowed }: AssignmentRow): string | null {
  if (closed) return CLOSED[closed];
  if (opensAt) return `Opens ${dayOf(opensAt)}`;
  return attempts.length >= attemptsAllowed ? "All attempts used" : null;
}

function Assignment({ row }: { row: AssignmentRow }) {
  const navigate = useNavigate();
  const open = row.attempts.find(({ handedInAt }) => handedInAt === null);
  const left = row.attemptsAllowed - row.attempts.length;
  const closed = closedWords(row);
  const start = useStart(row.id);
  return (
    <section aria-label={row.title} className="rounded-panel border border-rule bg-panel">
      <div className="flex flex-wrap items-start gap-4 p-4">
        <Thumb drawing={row.drawing} />
        <div className="min-w-64 flex-1">
          <h2 className="text-lg font-bold">{row.title}</h2>
          <p className="mt-1 max-w-prose text-ink2">{row.story}</p>
          <p className="mt-2 text-xs text-ink2">
            {row.dueAt ? (
              <>
                {row.week === null ? "" : `Week ${row.week} · `}Due {dayOf(row.dueAt)} (
                {formatDistanceToNow(new Date(row.dueAt), { addSuffix: true })}) ·{" "}
              </>
            ) : null}
            about {row.minutes} min · coach {row.isCoachOn ? "on" : "off"} ·{" "}
            {left === 1 ? "1 attempt" : `${left} attempts`} left
          </p>
          <PassedOnlyWith row={row} />
        </div>
        {open ? (
          <Button look="act" className="px-4 py-2" onClick={() => void navigate(`/lanes/${open.id}`)}>
            Go on with attempt {open.number}
          </Button>
        ) : closed === null ? (
          <Button look="act" className="px-4 py-2" disabled={start.isPending} onClick={() => start.mutate()}>
            {row.attempts.length === 0 ? "Start this lane" : "Try again with a new part"}
          </Button>
        ) : (
          <span className="text-ink2">{closed}</span>
        )}
      </div>
      {start.error ? (
        <div className="px-4 pb-3">
          <Notice kind="stop" role="alert">
            {start.error.message}
          </Notice>
        </div>
      ) : null}
      {row.attempts.length > 0 ? (
        <ul>
          {row.attempts.map((attempt) => (
            <AttemptLine key={attempt.id} attempt={attempt} />
          ))}
        </ul>
      ) : null}
    </section>
  );
}

const STAND_MARKS = { mastered: "■ done", shaky: "◧ shaky", notYet: "□ not yet", untried: "□ open" } as const;

/** Where somebody stands in every skill, and the one to take next: the way up, at one look. */
function Ladder() {
  const { data } = useQuery(reading("/skills", {}));
  const start = useStart(data?.practice?.assignmentId ?? "");
  if (!data)
    return <p className="rounded-panel border border-rule bg-panel px-4 py-5 text-ink2">Looking where you stand …</p>;
  const { practice } = data;
  const isBegun = data.skills.some(({ stand }) => stand !== "untried");
  return (
    <section
      aria-label="Begin here"
      className="rounded-panel border border-l-[5px] border-rule border-l-expected bg-panel"
    >
      <div className="flex flex-wrap items-center gap-4 px-4 py-3">
        <p className="min-w-64 flex-1">
          <b className="text-lg">{isBegun ? "Go on here" : "Begin here"}</b>
          <span className="block text-ink2">
            {practice
              ? `Next: ${skillWords[practice.skill]}. ${practice.title}.`
              : "Take what is due first; after its ruling the next step stands here."}
          </span>
        </p>
        {practice ? (
          <Button disabled={start.isPending} onClick={() => start.mutate()}>
            Practice that now
          </Button>
        ) : null}
      </div>
      {isBegun ? (
        <ol className="flex flex-wrap gap-1.5 border-t border-rule-soft px-4 py-2 text-xs">
          {data.skills
            .filter(({ stand }) => stand !== "untried")
            .map(({ skill, stand }) => (
              <li
                key={skill}
                className={`rounded-[3px] border px-2 py-0.5 ${stand === "mastered" ? "border-ink" : "border-ink3 text-ink2"} ${skill === practice?.skill ? "border-2 !border-expected font-bold text-expected" : ""}`}
              >
                {skillWords[skill]}: {skill === practice?.skill ? "▷ next" : STAND_MARKS[stand]}
              </li>
            ))}
        </ol>
      ) : null}
      {start.error ? (
        <Notice kind="stop" role="alert">
          {start.error.message}
        </Notice>
      ) : null}
    </section>
  );
}

/** The rules of the class for its marks, where it has some. */
function PolicyWords({ policy: { passPercent, latePercent } }: { policy: MarksPolicy }) {
  const words = [
    ...(passPercent > 0 ? [`A lane passes from ${passPercent} of 100 marks.`] : []),
    ...(latePercent < 100 ? [`Handed in late, ${latePercent} % of its marks count.`] : []),
  ];
  return words.length === 0 ? null : <p className="text-ink2">{words.join(" ")}</p>;
}

const JOINED: Record<Joined, string> = {
  madeNew: "You have a new account",
  tookPlace: "You have taken the place that your instructor kept for you",
  letIn: "You have come into this class with the account that you had already",
  cameBack: "You are back in this class, and what you did in it is still there",
};

/** What is due, what is open, and the last rulings in one line each. */
export function MyLanesPage() {
  const { me } = useMe();
  const joined = useJoined();
  const { data, error } = useQuery(reading("/lanes", {}));
  // what stands at the top is waited for: nothing moves under a finger once the page is there
  const { isPending: isLooking } = useQuery(reading("/skills", {}));
  if (error) return <PageError error={error} />;
  if (!data || isLooking) return <Loading />;
  const isOnShelf = (row: AssignmentRow) =>
    row.dueAt === null && row.opensAt === null && row.week === null && row.attempts.length === 0;
  // what is to come stands behind what may be begun
  const due = data.assignments
    .filter((row) => !isOnShelf(row))
    .sort((a, b) => Number(a.opensAt !== null) - Number(b.opensAt !== null) || untilDue(a) - untilDue(b));
  const shelf = data.assignments.filter(isOnShelf);
  return (
    <div className="mx-auto flex max-w-5xl flex-col gap-4">
      <p className="text-ink2">
        {me?.schoolName} · {me?.className}
      </p>
      {joined && me ? (
        <Notice>
          {JOINED[joined]}: {me.name}, in {me.className}. Next time you sign in as <b className="figures">{me.login}</b>
          .
        </Notice>
      ) : null}
      {data.isShowing ? (
        <Notice role="status">
          Your instructor shows an exercise to the class now. <TextLink to="/demonstration">Look at it</TextLink>
        </Notice>
      ) : null}
      {data.goneOn.length > 0 ? (
        <section
          aria-label="Gone on from what was shown"
          className="rounded-panel border border-l-[5px] border-rule border-l-expected bg-panel px-5 py-3"
        >
          <b>Gone on from what was shown</b> <span className="text-ink2">counts nowhere</span>
          <ul>
            {data.goneOn.map(({ id, title, openedAt }) => (
              <li key={id}>
                <TextLink to={`/lanes/${id}`}>{title}</TextLink>, {format(new Date(openedAt), "d MMM, HH:mm")}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {data.assignments.length === 0 ? (
        <Notice>Nothing is set for your class yet. When your instructor sets an exercise, it stands here.</Notice>
      ) : null}
      <Ladder />
      {due.map((row) => (
        <Assignment key={row.id} row={row} />
      ))}
      {shelf.length > 0 ? <Shelf rows={shelf} /> : null}
      <PolicyWords policy={data.policy} />
      <p className="max-w-prose text-xs text-ink2">
        At a real machine: eye protection, no gloves or loose clothes near a spindle, spindle stopped and all motion
        ended before you reach in or measure. The machine’s manual, the shop’s rules, local law and the person in charge
        come first.
      </p>
    </div>
  );
}
