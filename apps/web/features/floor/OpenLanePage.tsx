import type { StartedLane } from "@probe-lane/contract";
import { useQuery } from "@tanstack/react-query";
import { Navigate, useParams } from "react-router";
import { api, type ApiError } from "../../app/api";
import { isStaff, useMe } from "../../app/session";
import { Loading, PageError } from "../../ui";

/** From a sheet of paper to the lane that it is of: a student's own is opened, begun if it was not. */
export function OpenLanePage() {
  const { id = "" } = useParams();
  const { me } = useMe();
  const isTheirs = me?.role === "student";
  const { data, error } = useQuery<StartedLane, ApiError>({
    queryKey: ["floor lane of", id],
    queryFn: () => api.post<StartedLane>(`/floor/exercises/${id}/lanes`),
    enabled: isTheirs,
    staleTime: Infinity,
  });
  if (isStaff(me)) return <Navigate to="/floor" replace />;
  if (error) return <PageError error={error} />;
  return data ? <Navigate to={`/floor/${data.id}`} replace /> : <Loading />;
}
