import { reading } from "../../app/queries";
import type { RulingView } from "@probe-lane/contract";
import {
  isValueRight,
  type Finding,
  type RegisterRuling,
  type Ruling,
  type StrandName,
} from "@probe-lane/core/grading";
import { schoolsOf } from "@probe-lane/core/exercises";
import { causeWords, choiceWords, findingWords, machineWords, schoolWords, targetWords } from "@probe-lane/core/words";
import { useQuery } from "@tanstack/react-query";
import { format } from "date-fns";
import { Link, useParams } from "react-router";
import { useMe } from "../../app/session";
import { PrintHead } from "../../app/PrintHead";
import { Shell } from "../../app/Shell";
import { Button, Loading, PageError, Panel, TextLink } from "../../ui";
import { AnotherLook } from "./AnotherLook";
import { Axes } from "./Axes";
import { byCause, Cause } from "./Cause";
import { FirstPart, Parts } from "./FirstPart";
import { ReplayLink } from "./ReplayLink";
import { marks, shown, STRANDS } from "./show";
import { Total } from "./Total";

/** Values that a school of lengths sets. */
const LENGTHS = new Set<RegisterRuling["target"]["kind"]>(["toolSum", "toolRow"]);

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
  const wrong = ruling.values.filter((value) => !isValueRight(value));
  // what follows from another value was charged there
  const costly = wrong.filter((value) => value.outOf - value.marks >= 0.05);
  const right = ruling.values.filter((value) => !wrong.includes(value));
  const hasLengths = ruling.values.some(({ target }) => LENGTHS.has(target.kind));
  const handover = ruling.findings.filter(({ code }) => HANDOVER.test(code));
  const others = ruling.findings.filter((finding) => !handover.includes(finding));
  const lost = others.filter((finding) => costOf(finding) > 0);
  const kept = others.filter((finding) => costOf(finding) <= 0);
  return (
    <Shell
      title="Ruling"
      detail={`${lane.title} · ${isStudent ? "" : `${lane.studentName} · `}${lane.isTrial ? "counts nowhere" : `attempt ${lane.attempt}`} · handed in ${lane.handedInAt ? format(new Date(lane.handedInAt), "d MMM, HH:mm") : ""}`}
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
      <PrintHead
        title="Ruling of a setup lane"
        facts={[
          ["Student", lane.studentName],
          ["Exercise", `${lane.title}, attempt ${lane.attempt}`],
          ["Machine", machineWords[ruling.sheet.kind]],
          ["Handed in", lane.handedInAt ? format(new Date(lane.handedInAt), "d MMMM yyyy, HH:mm") : ""],
          [
            "Marks",
            `${marks(ruling.total)} of ${marks(ruling.outOf)}${ruling.notPassed || ruling.failedBy ? ", not passed" : ""}`,
          ],
        ]}
      />
      <div className="grid gap-4 lg:grid-cols-[1fr_380px] print:block print:space-y-4">
        <div className="flex min-w-0 flex-col gap-4 print:mb-4">
          {handover.length > 0 ? <HandedOver laneId={lane.id} findings={handover} sheet={ruling.sheet} /> : null}
          {byCause(wrong).map((values) => (
            <Cause key={values[0]?.target.id} laneId={lane.id} values={values} sheet={ruling.sheet} />
          ))}
          {wrong.length > 0 ? <Axes values={wrong} sheet={ruling.sheet} /> : null}
          {right.length > 0 ? (
            <Panel title="What is right" bodyClassName="px-4 py-2">
              <RightTable values={right} sheet={ruling.sheet} />
              {hasLengths ? (
                <p className="py-1 text-ink2">
                  <TextLink to={`/schools?lane=${lane.id}`}>The same setup in another school</TextLink>.{" "}
                </p>
              ) : null}
              {hasLengths ? (
                <p className="py-1 text-ink2">
                  School of lengths
                  {schoolsOf(ruling.sheet).length === 1 || ruling.school === "unclear"
                    ? ""
                    : ruling.isSchoolNamed
                      ? ", as you named it at hand-in"
                      : ", read from your captures"}
                  : {schoolWords[ruling.school]}.
                </p>
              ) : null}
            </Panel>
          ) : null}
          {ruling.parts ? <Parts parts={ruling.parts} ruling={ruling} /> : null}
          {ruling.firstPart ? <FirstPart features={ruling.firstPart} ruling={ruling} /> : null}
          {view.provableIn ? (
            <Panel title="What these registers would do" bodyClassName="px-4 py-2">
              <TextLink to={`/prove?lane=${lane.id}`}>Run a program with them</TextLink>: what it would have struck
              first, and at which line.
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
          {lane.isTrial ? null : <AnotherLook view={view} isStudent={isStudent} />}
          <Panel title="What cost marks" bodyClassName="divide-y divide-rule-soft">
            {lost.length === 0 && costly.length === 0 ? (
              <p className="px-4 py-3">Nothing. Every value inside its tolerance, every step done, nothing struck.</p>
            ) : null}
            {costly.map((value) => (
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
          <p className="no-print text-right">
            <Button onClick={() => print()}>Print</Button>
          </p>
        </div>
      </div>
    </Shell>
  );
}

/** Values that are right, a line each; how much of what is left is the method's own stands beside it. */
function RightTable({ values, sheet }: { values: readonly RegisterRuling[]; sheet: Ruling["sheet"] }) {
  return (
    <div role="group" aria-label="What is right" tabIndex={0} className="relative overflow-x-auto">
      <table className="w-full min-w-[26rem]">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th className="text-left font-normal">register</th>
            <th className="font-normal">held</th>
            <th className="font-normal">should</th>
            <th className="pl-4 text-left font-normal">how near</th>
            <th className="font-normal">marks</th>
          </tr>
        </thead>
        <tbody>
          {values.map((value) => (
            <tr key={value.target.id} className="border-t border-rule-soft text-right">
              <th scope="row" className="py-1 text-left">
                {targetWords(value.target)}
              </th>
              <td className="figures">{shown(value, value.held, sheet)}</td>
              <td className="figures text-expected">{shown(value, value.wanted, sheet)}</td>
              <td className="pl-4 text-left text-xs text-ink2">{nearWords(value, sheet)}</td>
              <td className="figures">
                {marks(value.marks)} / {marks(value.outOf)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** How near a right value is, in words: the sentence of the ruling without its name. */
function nearWords(value: RegisterRuling, sheet: Ruling["sheet"]): string {
  const { name, headline, body } = causeWords(value, sheet);
  return `${headline.replace(`${name} is right`, "right").replace(/^./, (first) => first.toUpperCase())} ${body}`.trim();
}

/** Marks that a finding took; an incident is named even where the strand had nothing left to take. */
const costOf = (finding: Finding): number => {
  if (finding.code === "incident") return Math.max(finding.cost, Number.EPSILON);
  if (finding.code === "noIncident") return 0;
  // where it was struck or seen coming it costs nothing of its own: what was missed beside it does
  if (finding.code === "programStrikes") return Math.max(finding.cost, Number.EPSILON);
  // a fault of the working or of method is named even where its strand has no weight
  const isFault = finding.code === "stepMissed" || (finding.code === "working" && finding.fault !== null);
  return isFault ? Math.max(finding.outOf - finding.marks, Number.EPSILON) : finding.outOf - finding.marks;
};

/** The strand that a finding's marks count in. */
function strandOf(finding: Finding): StrandName {
  if (finding.code === "incident") return "safety";
  if (finding.code === "working") return "working";
  if (finding.code === "programStrikes") return finding.cost > 0 ? "safety" : "proving";
  return "strand" in finding && finding.strand === "proving" ? "proving" : "method";
}

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
      {costOf(finding) > Number.EPSILON ? <b className="figures">−{marks(costOf(finding))}</b> : null}{" "}
      <b>{STRANDS[strandOf(finding)]}</b> {findingWords(finding, unit)}
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
