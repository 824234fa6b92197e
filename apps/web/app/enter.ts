import type { Me } from "@probe-lane/contract";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type ApiError } from "./api";
import { SESSION_KEY } from "./session";

/** Opens another class of one's own: everything that was read of the other one is let go. */
export function useEnter() {
  const client = useQueryClient();
  return useMutation<Me, ApiError, string>({
    mutationFn: (classId) => api.post<Me>("/session/class", { classId }),
    onSuccess: async (me) => {
      client.setQueryData(SESSION_KEY, me);
      await client.resetQueries({ predicate: ({ queryKey }) => queryKey[0] !== SESSION_KEY[0] });
    },
  });
}
