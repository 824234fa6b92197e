import type { BatchReply, LaneView } from "@probe-lane/contract";
import { v4 } from "uuid";
import { useEffect, useMemo, useSyncExternalStore } from "react";
import { api, ApiError } from "../../../app/api";
import type { BenchKit } from "./kit";
import { LaneLink, type LinkPorts, type LinkView } from "./laneLink";

const HAND_POLL_MS = 4000;

/** A name for this tab among the lane's writers; also where the page came over plain http from another machine. */
const newWriter = (): string => v4();

const portsFor = (laneId: string, kit: BenchKit): LinkPorts => ({
  send: (batch) => api.post<BatchReply>(`/lanes/${laneId}/commands`, batch),
  failure: (error) => {
    if (!(error instanceof ApiError))
      return { status: "broken", message: "Something went wrong in this page. Reload it; the lane is kept." };
    if (error.code === "classPaused") return { status: "paused", message: error.message };
    if (error.isPassing) return { status: "lost", message: error.message };
    if (error.code === "laneMoved") return { status: "moved", message: error.message };
    if (error.code === "notSignedIn") return { status: "signedOut", message: error.message };
    return { status: "broken", message: error.requestId ? `${error.message} (${error.requestId})` : error.message };
  },
  noticed: (observation) => kit.noticed(observation),
  later: (work, ms) => {
    const timer = setTimeout(work, ms);
    return () => clearTimeout(timer);
  },
});

/** The lane's link for as long as the page shows it. */
export function useLane(laneId: string, first: LaneView, kit: BenchKit): { link: LaneLink; view: LinkView } {
  // the first view only starts the link; later fetches of it must not restart it
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const link = useMemo(() => new LaneLink(portsFor(laneId, kit), newWriter(), first), [laneId]);
  useEffect(() => () => link.close(), [link]);
  const view = useSyncExternalStore(link.subscribe, link.snapshot);
  const { isHandUp } = view.observation;
  useEffect(() => {
    if (!isHandUp) return undefined;
    // only an instructor changes a lane from outside, by answering a raised hand: ask while it is up
    const timer = setInterval(
      () =>
        void api
          .get<LaneView>(`/lanes/${laneId}`)
          .then((now) => link.refresh(now))
          .catch(() => undefined),
      HAND_POLL_MS,
    );
    return () => clearInterval(timer);
  }, [isHandUp, laneId, link]);
  return { link, view };
}
