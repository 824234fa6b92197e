import type { Joined, JoinReply, JoinRequest, Me, SignInRequest } from "@probe-lane/contract";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, ApiError } from "./api";
import { forgetKept } from "./kept";

/** Where the query cache keeps who is signed in. */
export const SESSION_KEY = ["session"];

/** Whether somebody teaches or helps in the open class. */
export const isStaff = (me: Me | null | undefined): boolean => me != null && me.role !== "student";

/** Who is signed in: undefined while asking, null for nobody. */
export function useMe(): { me: Me | null | undefined; error: Error | null } {
  const { data, error } = useQuery<Me | null>({
    queryKey: SESSION_KEY,
    staleTime: 60_000,
    queryFn: async () => {
      try {
        return await api.get<Me>("/session");
      } catch (failure) {
        if (failure instanceof ApiError && failure.code === "notSignedIn") return null;
        throw failure;
      }
    },
  });
  return { me: data, error };
}

export function useSignIn() {
  const client = useQueryClient();
  return useMutation<Me, ApiError, SignInRequest>({
    mutationFn: (request) => api.post<Me>("/session", request),
    onSuccess: (me) => {
      forgetKept();
      client.clear();
      client.setQueryData(SESSION_KEY, me);
    },
  });
}

/** Where the query cache keeps what a join just did. */
const JOINED_KEY = ["joined"];

/** Joins a class with its code, and is signed in by it. */
export function useJoin() {
  const client = useQueryClient();
  return useMutation<JoinReply, ApiError, JoinRequest>({
    mutationFn: (request) => api.post<JoinReply>("/session/join", request),
    onSuccess: async ({ did }) => {
      forgetKept();
      client.clear();
      const me = await api.get<Me>("/session");
      client.setQueryData(JOINED_KEY, did);
      client.setQueryData(SESSION_KEY, me);
    },
  });
}

/** What the join did by which somebody has just come; undefined for everybody else. */
export const useJoined = (): Joined | undefined => useQueryClient().getQueryData<Joined>(JOINED_KEY);

/** Once a reply says that nobody is signed in any more, so does the page: it goes to sign in, and comes back after. */
export function useSessionLost(isLost: boolean): void {
  const client = useQueryClient();
  useEffect(() => {
    if (!isLost) return;
    forgetKept();
    client.setQueryData(SESSION_KEY, null);
  }, [isLost, client]);
}

export function useSignOut() {
  const client = useQueryClient();
  return useMutation<void, ApiError>({
    mutationFn: () => api.delete("/session"),
    onSuccess: () => {
      forgetKept();
      client.clear();
      client.setQueryData(SESSION_KEY, null);
    },
  });
}
