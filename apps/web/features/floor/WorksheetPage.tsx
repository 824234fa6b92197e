import { reading } from "../../app/queries";
import { floorGateNames } from "@probe-lane/core/floor";
import { floorCautions, floorGateWords, floorSchoolWords } from "@probe-lane/core/words";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { Shell } from "../../app/Shell";
import { Button, Loading, PageError } from "../../ui";
import { LaneCode } from "./LaneCode";
import { drawingOf, machineOf } from "./show";
import { givenWords } from "./Working";

const LINE = "border-b border-ink";

/**
 * The exercise on paper: cautions, sketch, and a line for every figure, for where no screen may stand beside the
 * machine.
 */
export function WorksheetPage() {
  const { id = "" } = useParams();
  const { data, error } = useQuery(reading("/floor", {}));
  const exercise = data?.exercises.find((row) => row.id === id)?.exercise;
  if (error)
    return (
      <Shell title="Worksheet">
        <PageError error={error} />
      </Shell>
    );
  if (!data) return <Loading />;
  if (!exercise)
    return (
      <Shell title="Worksheet">
        <PageError error={new Error("That floor exercise is not here. Go back and choose one.")} />
      </Shell>
    );
  return (
    <Shell
      title="Worksheet"
      detail={exercise.title}
      aside={
        <Button look="act" onClick={() => print()}>
          Print
        </Button>
      }
    >
      <article className="mx-auto flex max-w-3xl flex-col gap-4 bg-panel p-6 text-[13px] print:max-w-none print:bg-white print:p-0 print:text-black">
        <header className="flex items-end justify-between gap-6 border-b-2 border-ink pb-2">
          <div>
            <h2 className="text-xl font-bold">{exercise.title}</h2>
            <p>
              At the {machineOf(exercise)}, {[drawingOf(exercise), exercise.datum].filter(Boolean).join(", ")};{" "}
              {floorSchoolWords[exercise.school]}. All lengths in {exercise.unit}.
            </p>
          </div>
          <div className="flex items-end gap-4">
            <p className="w-60">
              Name <span className={`inline-block w-44 ${LINE}`}>&nbsp;</span>
              <span className="mt-3 block">
                Date <span className={`inline-block w-44 ${LINE}`}>&nbsp;</span>
              </span>
            </p>
            <LaneCode exerciseId={id} />
          </div>
        </header>
        <div className="grid grid-cols-[1fr_220px] gap-4">
          <ol className="list-decimal pl-5">
            {floorCautions.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ol>
          <Sketch machine={exercise.machine} datum={exercise.datum} />
        </div>
        <p className="flex flex-wrap gap-x-6 gap-y-1">
          {floorGateNames.map((name) => (
            <span key={name}>
              <span aria-hidden className="mr-1.5 inline-block h-3 w-3 border border-ink align-[-1px]" />
              {floorGateWords[name]}
            </span>
          ))}
        </p>
        <table className="w-full table-fixed border-collapse">
          <thead>
            <tr className="text-left align-bottom [&>th+th]:pl-1">
              <th className="w-52 py-1">Register, with what is given</th>
              <th>{exercise.readingsNeeded === 1 ? "Reading" : `Readings, ${exercise.readingsNeeded} of each`}</th>
              <th>Terms, with sign</th>
              <th>Sum</th>
              <th>In the control</th>
              <th>Check</th>
            </tr>
          </thead>
          <tbody>
            {exercise.registers.map((register) => (
              <tr key={register.id} className="h-16 break-inside-avoid border-t border-ink align-top">
                <th scope="row" className="py-1 text-left">
                  {register.label}
                  <span className="block text-[11px] leading-[13px] font-normal">
                    {register.method === "lathe-tip" ? "0 to 9" : givenWords(exercise, register).join(" · ")}
                  </span>
                </th>
                {[0, 1, 2, 3, 4].map((cell) => (
                  <td key={cell} className="border-l border-ink3 p-1">
                    &nbsp;
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <p className="mt-2 flex gap-8 break-inside-avoid border-2 border-ink p-3">
          <b>Before cycle start: checked and signed</b>
          <span>
            name and title <span className={`inline-block w-44 ${LINE}`}>&nbsp;</span>
          </span>
          <span>
            date, time <span className={`inline-block w-24 ${LINE}`}>&nbsp;</span>
          </span>
        </p>
      </article>
    </Shell>
  );
}

/** Which way a middle is touched, by what it is the middle of. */
const TOUCHES = [
  ["bore", "M116 70h16m-6-5l6 5-6 5M104 70h-16m6-5l-6 5 6 5M110 64v-16m-5 6l5-6 5 6M110 76v16m-5-6l5 6 5-6"],
  ["boss", "M62 70h22m-6-5l6 5-6 5M158 70h-22m6-5l-6 5 6 5M110 34v10m-5-5l5 6 5-6M110 106v-10m-5 5l5-6 5 6"],
  ["part", "M10 70h28m-7-5l7 5-7 5M210 70h-28m7-5l-7 5 7 5M110 4v24m-5-7l5 7 5-7M110 136v-24m-5 7l5-7 5 7"],
] as const;

/** Where zero is, and which way each touch goes. */
function Sketch({ machine, datum }: { machine: "mill" | "lathe"; datum: string }) {
  if (machine === "lathe") {
    return (
      <svg
        viewBox="0 0 220 140"
        role="img"
        aria-label="Turned part in the chuck; zero is where the axis meets the front face."
      >
        <rect x="5" y="20" width="40" height="100" fill="none" stroke="currentColor" strokeWidth="2" />
        <rect x="45" y="45" width="110" height="50" fill="none" stroke="currentColor" strokeWidth="1.5" />
        <path d="M0 70H215" stroke="currentColor" strokeDasharray="10 3 2 3" />
        <circle cx="155" cy="70" r="5" fill="none" stroke="currentColor" strokeWidth="2" />
        <text x="150" y="112" fontSize="12" fill="currentColor">
          X0 Z0
        </text>
        <path d="M120 15v24m-5-6l5 6 5-6M200 60h-36m6-5l-6 5 6 5" fill="none" stroke="currentColor" />
        <text x="128" y="26" fontSize="12" fill="currentColor">
          X touch
        </text>
        <text x="166" y="52" fontSize="12" fill="currentColor">
          Z touch
        </text>
      </svg>
    );
  }
  const touches = TOUCHES.find(([of]) => datum.includes(of))?.[1] ?? "";
  if (datum.startsWith("middle"))
    return (
      <svg viewBox="0 0 220 140" role="img" aria-label={`Part from above; zero in the ${datum}.`}>
        <rect x="40" y="30" width="140" height="80" fill="none" stroke="currentColor" strokeWidth="2" />
        {datum.includes("bore") || datum.includes("boss") ? (
          <circle cx="110" cy="70" r="24" fill="none" stroke="currentColor" strokeWidth="1.5" />
        ) : null}
        <path d="M104 70h12M110 64v12" stroke="currentColor" strokeWidth="2" />
        {datum.includes("swept") ? null : <path d={touches} fill="none" stroke="currentColor" />}
        <text x="128" y="100" fontSize="12" fill="currentColor">
          X0 Y0
        </text>
      </svg>
    );
  const x = datum.includes("left") ? 40 : 180;
  const y = datum.startsWith("front") ? 110 : 30;
  const [sx, sy] = [datum.includes("left") ? 1 : -1, datum.startsWith("front") ? -1 : 1];
  return (
    <svg
      viewBox="0 0 220 140"
      role="img"
      aria-label={`Part from above; zero at the ${datum}, touched toward the part on both faces.`}
    >
      <rect x="40" y="30" width="140" height="80" fill="none" stroke="currentColor" strokeWidth="2" />
      <circle cx={x} cy={y} r="5" fill="none" stroke="currentColor" strokeWidth="2" />
      <path
        d={`M${x - sx * 34} 70h${sx * 28}m${-sx * 7}-5l${sx * 7} 5 ${-sx * 7} 5M110 ${y - sy * 26}v${sy * 20}m-5 ${-sy * 7}l5 ${sy * 7} 5 ${-sy * 7}`}
        fill="none"
        stroke="currentColor"
      />
      <text x={x + sx * 10} y={y + sy * 16} textAnchor={sx === 1 ? "start" : "end"} fontSize="12" fill="currentColor">
        X0 Y0
      </text>
    </svg>
  );
}
