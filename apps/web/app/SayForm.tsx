import { useMutation } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { api, type ApiError } from "./api";
import { Button, Notice } from "../ui";

/** Words to every bench of the class, or to who works one lane. */
export function SayForm({ laneId, to }: { laneId: string | null; to: string }) {
  const [text, setText] = useState("");
  const say = useMutation<unknown, ApiError>({
    mutationFn: () => api.post("/wall/messages", { text, laneId }),
    onSuccess: () => setText(""),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim() !== "") say.mutate();
  };
  return (
    <form aria-label={`Say to ${to}`} className="flex flex-wrap items-center gap-2" onSubmit={submit}>
      <input
        aria-label={`Words to ${to}`}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          say.reset();
        }}
        maxLength={300}
        placeholder={`say to ${to}`}
        className="w-64 rounded-[3px] border border-ink3 bg-field px-2 py-1 placeholder:text-ink2"
      />
      <Button type="submit" disabled={text.trim() === "" || say.isPending}>
        Say it
      </Button>
      {say.isSuccess ? (
        <span role="status" className="text-ink2">
          Said.
        </span>
      ) : null}
      {say.error ? (
        <Notice kind="stop" role="alert">
          {say.error.message}
        </Notice>
      ) : null}
    </form>
  );
}
