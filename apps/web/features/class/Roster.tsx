import {
  rosterFields,
  type RosterColumns,
  type RosterField,
  type RosterLine,
  type RosterPreview,
  type RosterRequest,
} from "@probe-lane/contract";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type ApiError } from "../../app/api";
import { Button, Notice, Panel, Select } from "../../ui";
import { CLASS_KEY } from "./code";

const STATUS: Record<RosterLine["status"], string> = {
  new: "will be added",
  already: "already there, left alone",
  numbered: "already there, gets this student number",
  left: "left out",
  bad: "cannot be read",
};
const FIELD_WORDS: Record<RosterField, string> = {
  login: "Sign-in name",
  name: "Whole name",
  given: "Given name",
  family: "Family name",
  number: "Student number",
  role: "Role",
  status: "Status",
};
/** What stands in the place of a column that the list does not have. */
const WITHOUT: Partial<Record<RosterField, string>> = { login: "made from the name" };

const CHUNK = 8192;
/** A file's bytes in base64. */
async function packed(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = "";
  for (let at = 0; at < bytes.length; at += CHUNK) text += String.fromCharCode(...bytes.subarray(at, at + CHUNK));
  return btoa(text);
}

const count = (many: number, one: string): string => (many === 1 ? `1 ${one}` : `${many} ${one}s`);
const numbersGiven = (many: number): string => (many === 1 ? "1 student number" : `${many} student numbers`);

/** A list of students: chosen, its columns looked at, and previewed line by line before anybody is added. */
export function Roster() {
  const client = useQueryClient();
  const [text, setText] = useState("");
  const [file, setFile] = useState<{ readonly name: string; readonly base64: string } | null>(null);
  // what was said of its columns by hand; nothing yet for a list that was just chosen
  const [said, setSaid] = useState<Pick<RosterRequest, "columns" | "hasHeadings">>({});
  const [lists, setLists] = useState(0);
  const list: RosterRequest["list"] = file ? { kind: "file", base64: file.base64 } : { kind: "typed", text };
  const preview = useMutation<RosterPreview, ApiError, RosterRequest>({
    mutationFn: (request) => api.post("/class/roster/preview", request),
  });
  const read = preview.data;
  const add = useMutation<{ added: number; numbered: number }, ApiError>({
    mutationFn: () =>
      api.post("/class/roster", {
        list,
        columns: read?.columns,
        hasHeadings: read?.hasHeadings,
      } satisfies RosterRequest),
    onSuccess: async () => {
      setText("");
      setFile(null);
      setSaid({});
      setLists(lists + 1);
      preview.reset();
      await client.invalidateQueries({ queryKey: CLASS_KEY });
    },
  });
  const startOver = () => {
    preview.reset();
    add.reset();
    setSaid({});
  };
  const take = async (chosen: File | undefined) => {
    startOver();
    if (!chosen) return setFile(null);
    const base64 = await packed(chosen);
    setFile({ name: chosen.name, base64 });
    preview.mutate({ list: { kind: "file", base64 } });
  };
  const choose = (change: typeof said) => {
    const all = { ...said, ...change };
    setSaid(all);
    preview.mutate({ list, ...all });
  };
  const lines = read?.lines ?? [];
  const many = (status: RosterLine["status"]) => lines.filter((line) => line.status === status).length;
  const [fresh, bad, numbered] = [many("new"), many("bad"), many("numbered")];
  return (
    <Panel title="Add a roster" note="spreadsheet or CSV" bodyClassName="flex flex-col gap-3 p-4">
      <p className="text-ink2">
        A list as your school gives it: .xlsx, CSV or a OneRoster package (.zip), with any headings. You say what its
        columns hold and see every line before anybody is added.
      </p>
      <label className="font-bold">
        From a file{" "}
        <input
          // what was added is chosen no longer
          key={lists}
          type="file"
          accept=".xlsx,.csv,.txt,.tsv,.zip,text/csv,text/plain"
          className="mt-1 block w-full text-sm font-normal file:mr-3 file:rounded-[4px] file:border file:border-ink3 file:bg-field file:px-3 file:py-1 file:font-bold file:text-ink"
          // the same file again, once it is mended, is chosen anew
          onClick={(event) => (event.currentTarget.value = "")}
          onChange={(event) => void take(event.target.files?.[0])}
        />
      </label>
      <label className="font-bold">
        or typed
        <textarea
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            setFile(null);
            startOver();
          }}
          rows={4}
          spellCheck={false}
          placeholder={"login,name\nlarkin,Maud Larkinfield"}
          className="figures mt-1 w-full rounded-[3px] border border-ink3 bg-field p-2 font-normal placeholder:text-ink3"
        />
      </label>
      <p className="flex flex-wrap gap-2">
        <Button disabled={(!file && text.trim() === "") || preview.isPending} onClick={() => choose({})}>
          Preview the roster
        </Button>
        {fresh + numbered > 0 && bad === 0 ? (
          <Button look="act" disabled={add.isPending || preview.isPending} onClick={() => add.mutate()}>
            {fresh > 0 ? `Add ${count(fresh, "student")}` : `Give ${numbersGiven(numbered)}`}
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
          {add.data.added === 1 ? "1 student was added." : `${add.data.added} students were added.`}{" "}
          {add.data.numbered > 0 ? `${numbersGiven(add.data.numbered)} given. ` : ""}
          Each new one joins with the code beside their name, once.
        </Notice>
      ) : null}
      {read && read.headings.length > 0 ? (
        <Columns
          read={read}
          onChoose={(columns) => choose({ columns })}
          onHeaded={(hasHeadings) => choose({ hasHeadings })}
        />
      ) : null}
      {read?.problem ? (
        <Notice kind="stop" role="alert">
          {read.problem}
        </Notice>
      ) : null}
      {bad > 0 ? (
        <Notice kind="stop" role="alert">
          {bad === 1 ? "1 line cannot be read" : `${bad} lines cannot be read`}, so nobody is added. Mend it and preview
          again.
        </Notice>
      ) : null}
      {lines.length > 0 && bad + fresh + numbered === 0 ? (
        <Notice>Everybody of this list who is to be in is in already.</Notice>
      ) : null}
      {lines.length > 0 ? <Lines lines={lines} hasNumbers={read?.columns.number !== undefined} /> : null}
    </Panel>
  );
}

/** What each column of the list holds: as its headings say, as it was chosen last time, or as it is chosen now. */
function Columns({
  read,
  onChoose,
  onHeaded,
}: {
  read: RosterPreview;
  onChoose(columns: RosterColumns): void;
  onHeaded(hasHeadings: boolean): void;
}) {
  const { headings, columns, hasHeadings, isRemembered } = read;
  return (
    <fieldset className="rounded-[3px] border border-rule bg-well p-3">
      <legend className="px-1 text-xs text-ink2">
        What the columns hold{isRemembered ? ", as you chose it last time" : ""}
      </legend>
      <div className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1">
        {rosterFields.map((field) => (
          <label key={field} className="contents">
            <span>{FIELD_WORDS[field]}</span>
            <Select
              value={columns[field] ?? ""}
              onChange={({ target: { value } }) => {
                const { [field]: _, ...others } = columns;
                onChoose(value === "" ? others : { ...others, [field]: Number(value) });
              }}
            >
              <option value="">{WITHOUT[field] ?? "–"}</option>
              {headings.map((heading, place) => (
                <option key={place} value={place}>
                  {heading.slice(0, 40) || `column ${place + 1}`}
                </option>
              ))}
            </Select>
          </label>
        ))}
      </div>
      <label className="mt-2 flex items-center gap-2">
        <input type="checkbox" checked={hasHeadings} onChange={(event) => onHeaded(event.target.checked)} /> the first
        line names the columns
      </label>
    </fieldset>
  );
}

function Lines({ lines, hasNumbers }: { lines: readonly RosterLine[]; hasNumbers: boolean }) {
  return (
    <table className="w-full">
      <caption className="sr-only">What the roster would change</caption>
      <thead>
        <tr className="text-left text-xs text-ink2">
          <th className="py-1 pr-2 font-normal">Line</th>
          <th className="pr-2 font-normal">Sign-in name</th>
          <th className="pr-2 font-normal">Name</th>
          {hasNumbers ? <th className="pr-2 font-normal">Number</th> : null}
          <th className="font-normal">What happens</th>
        </tr>
      </thead>
      <tbody>
        {lines.map(({ line, login, name, number, status, problem }) => (
          <tr
            key={line}
            className={`border-t border-rule-soft align-top ${status === "bad" ? "bg-contact-soft" : ""} ${status === "left" ? "text-ink2" : ""}`}
          >
            <td className="figures px-1 py-1">{line}</td>
            <td className="figures max-w-32 truncate py-1 pr-2" title={login}>
              {login}
            </td>
            <td className="max-w-40 truncate py-1 pr-2" title={name}>
              {name}
            </td>
            {hasNumbers ? <td className="figures py-1 pr-2">{number}</td> : null}
            <td className="py-1">{problem ?? STATUS[status]}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
