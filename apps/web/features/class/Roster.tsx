import type { RosterLine, RosterPreview } from "@probe-lane/contract";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type ApiError } from "../../app/api";
import { Button, Notice, Panel } from "../../ui";
import { CLASS_KEY } from "./code";

const STATUS: Record<RosterLine["status"], string> = {
  new: "will be added",
  already: "already there, left alone",
  bad: "cannot be read",
};

/** A list of students, looked at before anybody is added. */
export function Roster() {
  const client = useQueryClient();
  const [csv, setCsv] = useState("");
  const preview = useMutation<RosterPreview, ApiError, string>({
    mutationFn: (text) => api.post("/class/roster/preview", { csv: text }),
  });
  const add = useMutation<{ added: number }, ApiError>({
    mutationFn: () => api.post("/class/roster", { csv }),
    onSuccess: async () => {
      setCsv("");
      preview.reset();
      await client.invalidateQueries({ queryKey: CLASS_KEY });
    },
  });
  const change = (text: string) => {
    setCsv(text);
    preview.reset();
    add.reset();
  };
  const lines = preview.data?.lines ?? [];
  const fresh = lines.filter(({ status }) => status === "new").length;
  const bad = lines.filter(({ status }) => status === "bad").length;
  return (
    <Panel title="Add a roster" note="CSV" bodyClassName="flex flex-col gap-3 p-4">
      <p className="text-ink2">
        First line: <b className="figures text-ink">login,name</b> (or username, givenName, familyName). One student a
        line. Preview it first: nothing is added before you say so.
      </p>
      <label className="font-bold">
        From a file{" "}
        <input
          type="file"
          accept=".csv,text/csv,text/plain"
          className="mt-1 block w-full text-sm font-normal file:mr-3 file:rounded-[4px] file:border file:border-ink3 file:bg-field file:px-3 file:py-1 file:font-bold file:text-ink"
          onChange={(event) => void event.target.files?.[0]?.text().then(change)}
        />
      </label>
      <label className="font-bold">
        or typed
        <textarea
          value={csv}
          onChange={(event) => change(event.target.value)}
          rows={5}
          spellCheck={false}
          placeholder={"login,name\nlarkin,Maud Larkinfield"}
          className="figures mt-1 w-full rounded-[3px] border border-ink3 bg-field p-2 font-normal placeholder:text-ink3"
        />
      </label>
      <p className="flex flex-wrap gap-2">
        <Button disabled={csv.trim() === "" || preview.isPending} onClick={() => preview.mutate(csv)}>
          Preview the roster
        </Button>
        {fresh > 0 && bad === 0 ? (
          <Button look="act" disabled={add.isPending} onClick={() => add.mutate()}>
            Add {fresh === 1 ? "1 student" : `${fresh} students`}
          </Button>
        ) : null}
      </p>
      {(preview.error ?? add.error) ? (
        <Notice kind="stop" role="alert">
          {(preview.error ?? add.error)?.message}
        </Notice>
      ) : null}
      {add.data ? (
        <Notice>
          {add.data.added === 1 ? "1 student was added." : `${add.data.added} students were added.`} Each joins with the
          code beside their name, once.
        </Notice>
      ) : null}
      {bad > 0 ? (
        <Notice kind="stop" role="alert">
          {bad === 1 ? "1 line cannot be read" : `${bad} lines cannot be read`}, so nobody is added. Mend it and preview
          again.
        </Notice>
      ) : null}
      {lines.length > 0 && bad === 0 && fresh === 0 ? <Notice>Everybody on this list is in already.</Notice> : null}
      {lines.length > 0 ? (
        <table className="w-full">
          <caption className="sr-only">What the roster would change</caption>
          <thead>
            <tr className="text-left text-xs text-ink2">
              <th className="py-1 pr-2 font-normal">Line</th>
              <th className="pr-2 font-normal">Sign-in name</th>
              <th className="pr-2 font-normal">Name</th>
              <th className="font-normal">What happens</th>
            </tr>
          </thead>
          <tbody>
            {lines.map(({ line, login, name, status, problem }) => (
              <tr
                key={line}
                className={`border-t border-rule-soft align-top ${status === "bad" ? "bg-contact-soft" : ""}`}
              >
                <td className="figures px-1 py-1">{line}</td>
                <td className="figures max-w-32 truncate py-1 pr-2">{login}</td>
                <td className="max-w-40 truncate py-1 pr-2">{name}</td>
                <td className="py-1">{problem ?? STATUS[status]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </Panel>
  );
}
