import { Link } from "react-router";

/** To the moment of the log that a sentence speaks of. */
export function ReplayLink({ laneId, seq }: { laneId: string; seq: number }) {
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
