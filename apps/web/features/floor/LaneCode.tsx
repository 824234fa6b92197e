import { useQuery } from "@tanstack/react-query";
import { toString as scanned } from "qrcode";

/** Names by which a machine finds only itself. */
const OWN_NAMES = new Set(["localhost", "127.0.0.1", "[::1]"]);

/** Where a student's lane of an exercise is opened, begun if it was not. */
const laneAddress = (exerciseId: string): string => `/floor/exercises/${exerciseId}/lane`;

/** A code to scan that opens the lane which a sheet of paper is of; none where no other device reaches this address. */
export function LaneCode({ exerciseId }: { exerciseId: string }) {
  const { host, hostname, origin } = location;
  const url = `${origin}${laneAddress(exerciseId)}`;
  const { data } = useQuery({
    queryKey: ["code", url],
    queryFn: () => scanned(url, { type: "svg", margin: 1 }),
    staleTime: Infinity,
  });
  if (OWN_NAMES.has(hostname))
    return (
      <p className="no-print w-36 text-xs text-ink2">
        Opened by an address that other devices reach, a code stands here that opens this lane on a phone.
      </p>
    );
  return data === undefined ? null : (
    <figure className="shrink-0 text-center text-[10px] leading-3">
      <img
        src={`data:image/svg+xml,${encodeURIComponent(data)}`}
        alt={`Code to scan: opens this lane at ${host}`}
        className="size-24 bg-white"
      />
      <figcaption>opens this lane</figcaption>
    </figure>
  );
}
