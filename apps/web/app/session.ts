import type { JoinRequest, Me, SignInRequest } from "@probe-lane/contract";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, ApiError } from "./api";

const KEY = ["session"];

/** Who is signed in: undefined while asking, null for nobody. */
export function useMe(): { me: Me | null | undefined; error: Error | null } {
  const { data, error } = useQuery<Me | null>({
    queryKey: KEY, staleTime: 60_000,
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
      client.clear();
      client.setQueryData(KEY, me);
    },
  });
}

/** Joins a class with its code, and is signed in by it. */
export function useJoin() {
  const client = useQueryClient();
  return useMutation<unknown, ApiError, JoinRequest>({
    mutationFn: (request) => api.post("/session/join", request),
    onSuccess: async () => {
      client.clear();
      client.setQueryData(KEY, await api.get<Me>("/session"));
    },
  });
}

export function useSignOut() {
  const client = useQueryClient();
  return useMutation<void, ApiError>({
    mutationFn: () => api.delete("/session"),
    onSuccess: () => {
      client.clear();
      client.setQueryData(KEY, null);
    },
  });
}
