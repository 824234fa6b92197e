import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Presentation } from "lucide-react";
import { api, type ApiError } from "../../../app/api";
import { keyOf, reading } from "../../../app/queries";
import { Button, Notice, TextLink } from "../../../ui";

/** On a lane that an instructor tries: shown to the class while they work, or for their eyes alone. */
export function ShowBar({ laneId }: { laneId: string }) {
  const client = useQueryClient();
  const { data } = useQuery({ ...reading("/demonstration", {}), staleTime: 0 });
  const isShown = data?.shown?.laneId === laneId;
  const show = useMutation<unknown, ApiError, string | null>({
    mutationFn: (shown) => api.put("/wall/demonstration", { laneId: shown }),
    onSettled: () => client.invalidateQueries({ queryKey: keyOf("/demonstration", {}) }),
  });
  if (!data) return null;
  return (
    <div className="flex shrink-0 flex-wrap items-center gap-3">
      <Button disabled={show.isPending} aria-pressed={isShown} onClick={() => show.mutate(isShown ? null : laneId)}>
        <Presentation size={16} aria-hidden /> {isShown ? "Stop showing this" : "Show this to the class"}
      </Button>
      <span className="text-ink2" role="status">
        {isShown ? (
          <>
            The class sees what you do. For the projector: <TextLink to="/demonstration">the large picture</TextLink>
          </>
        ) : (
          "For your eyes alone."
        )}
      </span>
      {show.error ? (
        <Notice kind="stop" role="alert">
          {show.error.message}
        </Notice>
      ) : null}
    </div>
  );
}
