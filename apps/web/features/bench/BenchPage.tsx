import { keyOf, reading } from "../../app/queries";
import type { LaneView } from "@probe-lane/contract";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useCallback, useMemo, useEffect } from "react";
import { useNavigate, useParams } from "react-router";
import { isStaff, useMe, useSessionLost } from "../../app/session";
import { Shell } from "../../app/Shell";
import { useLaneChanges } from "../../app/events";
import { Loading, PageError } from "../../ui";
import { stillView } from "./lane/laneLink";
import { useLane } from "./lane/useLane";
import { benchKitFor } from "./machines";
import { Bench } from "./Bench";

const TogetherBar = lazy(async () => ({ default: (await import("./together/TogetherBar")).TogetherBar }));
const ShowBar = lazy(async () => ({ default: (await import("./together/ShowBar")).ShowBar }));
const LiveBar = lazy(async () => ({ default: (await import("./together/LiveBar")).LiveBar }));

/** Fetches a lane and opens its bench: to work in for its student, to watch for an instructor. */
export function BenchPage() {
  const { id = "" } = useParams();
  const { me } = useMe();
  const isInstructor = isStaff(me);
  const { data, error } = useQuery({
    ...reading("/lanes/:id", { id }),
    staleTime: isInstructor ? 0 : Infinity,
    gcTime: 0,
    refetchOnWindowFocus: isInstructor,
  });
  if (error)
    return (
      <Shell title="Bench">
        <PageError error={error} />
      </Shell>
    );
  if (!data) return <Loading />;
  return isInstructor && !data.isMine ? (
    <WatchedBench first={data} />
  ) : (
    <WorkedBench key={id} first={data} isTrial={isInstructor} />
  );
}

function WorkedBench({ first, isTrial }: { first: LaneView; isTrial: boolean }) {
  const kit = benchKitFor(first.observation.kind);
  const { view, link } = useLane(first.lane.id, first, kit);
  useSessionLost(view.status === "signedOut");
  const navigate = useNavigate();
  const client = useQueryClient();
  const { isHandedIn } = view.observation;
  // an instructor who tries an exercise goes on while the class is held
  const hold = useCallback((words: string | null) => link.hold(isTrial ? null : words), [link, isTrial]);
  const { id } = first.lane;
  // the same element while nothing of it changes: a press of the bench does not draw it again
  const together = useMemo(
    () => (
      <Suspense fallback={null}>
        <TogetherBar laneId={id} onPaused={hold} />
        {isTrial && !isHandedIn ? <ShowBar laneId={id} /> : null}
      </Suspense>
    ),
    [id, hold, isTrial, isHandedIn],
  );
  useEffect(() => {
    if (!isHandedIn || first.observation.isHandedIn) return;
    void client.invalidateQueries({ queryKey: keyOf("/lanes", {}) });
    void navigate(`/lanes/${first.lane.id}/ruling`);
  }, [isHandedIn, first, navigate, client]);
  return (
    <Bench
      lane={first.lane}
      kit={kit}
      view={view}
      send={link.send}
      isReadOnly={isHandedIn}
      together={together}
      isFirst={first.turn <= FIRST_TURN && first.lane.attempt === 1}
    />
  );
}

/** Turn of a lane in which nothing was done yet: it was opened, and that is all. */
const FIRST_TURN = 1;

/** Who watches sends nothing. */
const nothing = (): void => undefined;

/** The same bench, read only, following the student's log. */
function WatchedBench({ first }: { first: LaneView }) {
  const client = useQueryClient();
  useLaneChanges((laneId) => {
    const { id } = first.lane;
    if (laneId === null || laneId === id) void client.invalidateQueries({ queryKey: keyOf("/lanes/:id", { id }) });
  });
  const { observation } = first;
  const seesTruth = useMe().me?.role === "instructor";
  return (
    <Bench
      lane={first.lane}
      kit={benchKitFor(observation.kind)}
      view={stillView(observation)}
      send={nothing}
      isReadOnly
      isWatching
      together={
        seesTruth && !observation.isHandedIn ? (
          <Suspense fallback={null}>
            <LiveBar laneId={first.lane.id} turn={first.turn} studentName={first.lane.studentName} />
          </Suspense>
        ) : null
      }
    />
  );
}
