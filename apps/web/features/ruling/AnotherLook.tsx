import type { RulingView } from "@probe-lane/contract";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { format } from "date-fns";
import { useState, type FormEvent } from "react";
import { api, type ApiError } from "../../app/api";
import { keyOf } from "../../app/queries";
import { Button, Notice, Panel } from "../../ui";

const LEAST = 3;
const day = (at: string): string => format(new Date(at), "d MMM, HH:mm");

/** A student asks for another look at the ruling, with a word, and gets an answer; both stand here. */
export function AnotherLook({ view, isStudent }: { view: RulingView; isStudent: boolean }) {
  const { looks, lane } = view;
  const open = looks.find(({ answer }) => answer === null);
  if (looks.length === 0 && !isStudent) return null;
  return (
    <Panel title="Another look" bodyClassName="flex flex-col divide-y divide-rule-soft">
      {looks.map(({ id, asked, at, answer, by, answeredAt }) => (
        <div key={id} className="px-4 py-2">
          <p>
            <b>{isStudent ? "You asked" : `${lane.studentName} asked`}:</b> {asked}{" "}
            <span className="text-xs text-ink2">{day(at)}</span>
          </p>
          {answer === null ? (
            <p className="text-ink2">{isStudent ? "Not answered yet." : ""}</p>
          ) : (
            <p>
              <b>{by}:</b> {answer} <span className="text-xs text-ink2">{answeredAt ? day(answeredAt) : ""}</span>
            </p>
          )}
        </div>
      ))}
      {isStudent && !open ? (
        <Words
          laneId={lane.id}
          path="look"
          label="What should be looked at again, and why"
          button="Ask for another look"
        />
      ) : null}
      {!isStudent && open ? <Words laneId={lane.id} path="look/answer" label="Your answer" button="Answer" /> : null}
    </Panel>
  );
}

function Words({
  laneId,
  path,
  label,
  button,
}: {
  laneId: string;
  path: "look" | "look/answer";
  label: string;
  button: string;
}) {
  const client = useQueryClient();
  const [text, setText] = useState("");
  const send = useMutation<unknown, ApiError>({
    mutationFn: () => api.post(`/lanes/${laneId}/${path}`, { text }),
    onSuccess: () => client.invalidateQueries({ queryKey: keyOf("/lanes/:id/ruling", { id: laneId }) }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim().length >= LEAST) send.mutate();
  };
  return (
    <form className="flex flex-col gap-2 px-4 py-2" onSubmit={submit}>
      <label className="font-bold">
        {label}
        <textarea
          rows={2}
          maxLength={500}
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="mt-1 w-full rounded-[3px] border border-ink3 bg-field p-2 font-normal"
        />
      </label>
      <p>
        <Button type="submit" disabled={text.trim().length < LEAST || send.isPending}>
          {button}
        </Button>
      </p>
      {send.error ? (
        <Notice kind="stop" role="alert">
          {send.error.message}
        </Notice>
      ) : null}
    </form>
  );
}
