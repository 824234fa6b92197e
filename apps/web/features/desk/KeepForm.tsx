import { reading } from "../../app/queries";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { v4 } from "uuid";
import { api, type ApiError } from "../../app/api";
import { useMe } from "../../app/session";
import { Button, Notice } from "../../ui";

/** Writes an answer into one of the student's own open floor lanes; otherwise nothing of this page is stored. */
export function KeepForm({ text }: { text: string }) {
  const { me } = useMe();
  const [chosen, setChosen] = useState("");
  const { data } = useQuery({ ...reading("/floor", {}), enabled: me?.role === "student" });
  const open = (data?.exercises ?? []).flatMap(({ exercise, lanes }) =>
    lanes.filter(({ isMine, total }) => isMine && total === null).map(({ id }) => ({ id, title: exercise.title })),
  );
  const lane = chosen || (open[0]?.id ?? "");
  const keep = useMutation<unknown, ApiError>({
    mutationFn: () =>
      api.post(`/floor/lanes/${lane}/entries`, {
        entries: [{ id: v4(), atMs: Date.now(), entry: { type: "note", text: text.slice(0, 400) } }],
      }),
  });
  if (open.length === 0) return null;
  return (
    <div className="flex flex-wrap items-end gap-2 border-t border-rule-soft pt-3">
      <label className="text-xs text-ink2">
        floor lane
        <select
          value={lane}
          onChange={(event) => {
            setChosen(event.target.value);
            keep.reset();
          }}
          className="block min-h-11 rounded-[3px] border border-ink3 bg-field px-2 text-base text-ink sm:min-h-10"
        >
          {open.map(({ id, title }) => (
            <option key={id} value={id}>
              {title}
            </option>
          ))}
        </select>
      </label>
      <Button
        className="min-h-11 sm:min-h-10"
        disabled={keep.isPending || keep.isSuccess}
        onClick={() => keep.mutate()}
      >
        {keep.isSuccess ? "Kept in the lane" : "Keep this in the lane"}
      </Button>
      {keep.error ? (
        <Notice kind="stop" role="alert">
          {keep.error.message}
        </Notice>
      ) : null}
    </div>
  );
}
