import type { BatchReply, LaneView } from "@probe-lane/contract";
import { useEffect, useMemo, useSyncExternalStore } from "react";
import { api, ApiError } from "../../app/api";
import { LaneLink, type LinkPorts, type LinkView } from "./laneLink";

const portsFor = (laneId: string): LinkPorts => ({
  send: (batch) => api.post<BatchReply>(`/lanes/${laneId}/commands`, batch),
  failure: (error) => {
    if (!(error instanceof ApiError)) return { status: "broken", message: "Something went wrong in this page. Reload it; the lane is kept." };
    if (error.isPassing) return { status: "lost", message: error.message };
    if (error.code === "laneMoved") return { status: "moved", message: error.message };
    if (error.code === "notSignedIn") return { status: "signedOut", message: error.message };
    return { status: "broken", message: error.requestId ? `${error.message} (${error.requestId})` : error.message };
  },
  later: (work, ms) => {
    const timer = setTimeout(work, ms);
    return () => clearTimeout(timer);
  },
});

/** The lane's link for as long as the page shows it. */
export function useLane(laneId: string, first: LaneView): { link: LaneLink; view: LinkView } {
  // the first view only starts the link; later fetches of it must not restart it
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const link = useMemo(() => new LaneLink(portsFor(laneId), crypto.randomUUID(), first), [laneId]);
  useEffect(() => () => link.close(), [link]);
  const view = useSyncExternalStore(link.subscribe, link.snapshot);
  return { link, view };
}
