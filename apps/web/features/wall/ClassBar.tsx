import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type ApiError } from "../../app/api";
import { keyOf } from "../../app/queries";
import { Button, Notice } from "../../ui";
import { SayForm } from "../../app/SayForm";

/** Words to the whole class, and everybody held at once. */
export function ClassBar({ pausedBy, mayPause }: { pausedBy: string | null; mayPause: boolean }) {
  const client = useQueryClient();
  const pause = useMutation<unknown, ApiError, boolean>({
    mutationFn: (isPaused) => api.put("/wall/pause", { isPaused }),
    onSettled: () => client.invalidateQueries({ queryKey: keyOf("/wall", {}) }),
  });
  return (
    <div className="flex flex-wrap items-center gap-3">
      <SayForm laneId={null} to="everybody" />
      {mayPause ? (
        <Button disabled={pause.isPending} onClick={() => pause.mutate(pausedBy === null)}>
          {pausedBy === null ? "Hold everybody" : "Let everybody go on"}
        </Button>
      ) : null}
      {pausedBy === null ? null : (
        <Notice kind="stop" role="status">
          Held by {pausedBy}: every machine of the class stands still.
        </Notice>
      )}
      {pause.error ? (
        <Notice kind="stop" role="alert">
          {pause.error.message}
        </Notice>
      ) : null}
    </div>
  );
}
