import type { DemonstrationView, StartedLane } from "@probe-lane/contract";
import type { Axis } from "@probe-lane/core/registers";
import { scales, showCounts } from "@probe-lane/core/units";
import { incidentWords } from "@probe-lane/core/words";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { api, type ApiError } from "../../../app/api";
import { useEvents } from "../../../app/events";
import { keyOf, reading } from "../../../app/queries";
import { useMe } from "../../../app/session";
import { Shell } from "../../../app/Shell";
import { Button, Loading, Notice, PageError, Panel, TextLink } from "../../../ui";
import { nextFraming, type Framing } from "../lane/camera";
import type { BenchKit } from "../lane/kit";
import { stillView, type LinkView } from "../lane/laneLink";
import { ScenePanel } from "../lane/ScenePanel";
import { benchKitFor } from "../machines";

type Shown = NonNullable<DemonstrationView["shown"]>;

/** What an instructor does in a lane of their own, large enough to be read from the last row; nothing is done here. */
export function DemonstrationPage() {
  const client = useQueryClient();
  const { data, error } = useQuery({ ...reading("/demonstration", {}), staleTime: 0 });
  const again = () => void client.invalidateQueries({ queryKey: keyOf("/demonstration", {}) });
  useEvents("/api/demonstration/stream", { open: again, class: again, lane: again });
  if (error && !data)
    return (
      <Shell title="Demonstration">
        <PageError error={error} />
      </Shell>
    );
  if (!data) return <Loading />;
  if (!data.shown)
    return (
      <Shell title="Demonstration">
        <Notice role="status">
          Nothing is shown to the class now. As soon as your instructor shows a lane, it stands here by itself.
        </Notice>
      </Shell>
    );
  return <Demonstration key={data.shown.laneId} shown={data.shown} />;
}

function Demonstration({ shown: { title, by, turn, observation: seen } }: { shown: Shown }) {
  const kit = benchKitFor(seen.kind);
  const [framing, setFraming] = useState<Framing>("auto");
  const [isInSpace, setInSpace] = useState(false);
  const [moved, setMoved] = useState<{ turn: number; machine: Shown["observation"]["machine"]; axis: Axis }>({
    turn,
    machine: seen.machine,
    axis: "x",
  });
  if (moved.turn !== turn) {
    const axis = (["x", "y", "z"] as const).find((one) => seen.machine[one] !== moved.machine[one]) ?? moved.axis;
    setMoved({ turn, machine: seen.machine, axis });
  }
  useEffect(() => {
    const onKey = ({ key, target, ctrlKey, metaKey, altKey }: KeyboardEvent) => {
      // the browser's own keys stay its own
      if (ctrlKey || metaKey || altKey || target instanceof HTMLInputElement) return;
      if (key === "f") setFraming(nextFraming);
      if (key === "3") setInSpace((now) => !now);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  const view = stillView(seen);
  const isStudent = useMe().me?.role === "student";
  const navigate = useNavigate();
  const client = useQueryClient();
  const goOn = useMutation<StartedLane, ApiError>({
    mutationFn: () => api.post<StartedLane>("/demonstration/lanes"),
    onSuccess: async ({ id }) => {
      await client.invalidateQueries({ queryKey: keyOf("/lanes", {}) });
      void navigate(`/lanes/${id}`);
    },
  });
  const incident = seen.incidents.at(-1);
  const { Table } = kit.registers;
  return (
    <Shell
      isFull
      title={title}
      detail={`shown by ${by}`}
      aside={
        <span className="flex items-center gap-4 text-sm">
          {goOn.error ? (
            <b role="alert" className="text-contact">
              {goOn.error.message}
            </b>
          ) : null}
          {isStudent ? (
            <Button disabled={goOn.isPending} onClick={() => goOn.mutate()}>
              Go on from here yourself
            </Button>
          ) : null}
          <TextLink to="/">Back to your own</TextLink>
        </span>
      }
    >
      <div className="grid min-h-0 flex-1 gap-2 overflow-auto p-2 md:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]">
        <div className="flex h-[30rem] flex-col md:h-auto md:min-h-0">
          <ScenePanel
            view={view}
            kit={kit}
            framing={framing}
            lastAxis={moved.axis}
            send={() => undefined}
            isReadOnly
            onFraming={() => setFraming(nextFraming)}
            isInSpace={isInSpace}
            part={null}
            isPart={false}
            onSpace={() => setInSpace(!isInSpace)}
            onJog={null}
            incident={incident ? incidentWords[incident] : null}
            pointed={NOTHING}
            stopsAt=""
          />
        </div>
        <div className="flex min-h-0 flex-col gap-2">
          <Figures view={view} kit={kit} lastAxis={moved.axis} />
          <Panel title="Registers" className="flex-1" bodyClassName="overflow-auto text-xl">
            <Table seen={seen} />
          </Panel>
        </div>
      </div>
    </Shell>
  );
}
const NOTHING: ReadonlySet<never> = new Set();

/** Where it stands, to be read across a room; the axis that moved last stands out. */
function Figures({ view: { observation: seen }, kit, lastAxis }: { view: LinkView; kit: BenchKit; lastAxis: Axis }) {
  const { axes, workHead, showsMachine, marks } = kit.position;
  const show = (counts: number) => (seen.isHomed ? showCounts(counts, scales[seen.sheet.unit]) : "–");
  return (
    <Panel
      title={`${workHead}, ${seen.sheet.unit === "mm" ? "mm" : "inch"}`}
      note={showsMachine ? "small: machine" : ""}
    >
      <table className="w-full">
        <caption className="sr-only">Where the machine stands</caption>
        <tbody>
          {axes.map((axis) => (
            <tr key={axis} className={`border-t border-rule-soft ${axis === lastAxis ? "text-contact" : ""}`}>
              <th scope="row" className="w-14 pl-3 text-left text-4xl xl:text-5xl">
                {axis.toUpperCase()}
                {marks[axis] ? <span className="text-2xl font-normal">{marks[axis].mark}</span> : null}
                <span className="sr-only">{axis === lastAxis ? ", moved last" : ""}</span>
              </th>
              <td className="figures py-1 text-right text-5xl font-semibold xl:text-6xl">{show(seen.work[axis])}</td>
              {showsMachine ? (
                <td className="figures w-36 pr-3 text-right text-xl text-ink2">{show(seen.machine[axis])}</td>
              ) : null}
            </tr>
          ))}
        </tbody>
      </table>
    </Panel>
  );
}
