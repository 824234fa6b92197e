import { keyOf, reading } from "../../app/queries";
import type { ClassView, RosterLine, RosterPreview } from "@probe-lane/contract";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { api, type ApiError } from "../../app/api";
import { Button, Dialog, Loading, Notice, PageError, Panel } from "../../ui";

const KEY = keyOf("/class", {});

/** A code as it is read aloud, in two halves. */
const spaced = (code: string): string => `${code.slice(0, 4)} ${code.slice(4)}`.trim();

/** The class: who is in it, the code to join with, and a roster to add. */
export function ClassPage() {
  const { data, error } = useQuery(reading("/class", {}));
  if (error) return <PageError error={error} />;
  if (!data) return <Loading />;
  return (
    <div className="grid gap-4 lg:grid-cols-[1.2fr_1fr]">
      <Students view={data} />
      <div className="flex flex-col gap-4">
        <JoinCode code={data.joinCode} />
        <Reach />
        <Roster />
      </div>
    </div>
  );
}

function Students({ view }: { view: ClassView }) {
  const client = useQueryClient();
  const [asked, setAsked] = useState<ClassView["students"][number] | null>(null);
  const reset = useMutation<unknown, ApiError, string>({
    mutationFn: (id) => api.post(`/class/students/${id}/reset`),
    onSuccess: () => client.invalidateQueries({ queryKey: KEY }),
    onSettled: () => setAsked(null),
  });
  return (
    <Panel
      title={view.className}
      note={view.students.length === 1 ? "1 student" : `${view.students.length} students`}
      className="self-start"
    >
      {reset.error ? (
        <Notice kind="stop" role="alert">
          {reset.error.message}
        </Notice>
      ) : null}
      {view.students.length === 0 ? (
        <p className="p-4">Nobody yet. Give the class code to your students, or add a roster.</p>
      ) : (
        <table className="w-full">
          <thead>
            <tr className="text-left text-xs text-ink2">
              <th className="px-4 py-1.5 font-normal">Student</th>
              <th className="px-2 font-normal">Sign-in name</th>
              <th className="px-2 font-normal">Joined</th>
              <th className="px-2 text-right font-normal">Lanes</th>
              <th className="px-4" />
            </tr>
          </thead>
          <tbody>
            {view.students.map((student) => (
              <tr key={student.id} className="border-t border-rule-soft">
                <th scope="row" className="max-w-56 truncate px-4 py-1.5 text-left" title={student.name}>
                  {student.name}
                </th>
                <td className="figures px-2">{student.login}</td>
                <td className="px-2">
                  {student.hasJoined ? (
                    "yes"
                  ) : (
                    <span className="text-ink2">
                      not yet{student.ownCode ? "; code " : ""}
                      <b className="figures whitespace-nowrap text-ink">{spaced(student.ownCode ?? "")}</b>
                    </span>
                  )}
                </td>
                <td className="figures px-2 text-right">{student.lanes}</td>
                <td className="px-4 text-right">
                  <Button
                    look="quiet"
                    className="text-xs underline"
                    aria-label={
                      student.hasJoined ? `Reset the password of ${student.name}` : `A new code for ${student.name}`
                    }
                    onClick={() => (student.hasJoined ? setAsked(student) : reset.mutate(student.id))}
                  >
                    {student.hasJoined ? "Reset password" : "New code"}
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Dialog title="Reset this password?" isOpen={asked !== null} onClose={() => setAsked(null)}>
        <p>
          {asked?.name} is signed out, gets a code of their own that works once, and joins again with it and the sign-in
          name <b className="figures">{asked?.login}</b>, choosing a new password. Lanes and marks stay.
        </p>
        <p className="mt-4 flex gap-2">
          <Button look="act" disabled={reset.isPending} onClick={() => asked && reset.mutate(asked.id)}>
            Reset the password
          </Button>
          <Button onClick={() => setAsked(null)}>Leave it</Button>
        </p>
      </Dialog>
    </Panel>
  );
}

function JoinCode({ code }: { code: string | null }) {
  const client = useQueryClient();
  const renew = useMutation<unknown, ApiError>({
    mutationFn: () => api.post("/class/code"),
    onSuccess: () => client.invalidateQueries({ queryKey: KEY }),
  });
  return (
    <Panel title="Class code" bodyClassName="p-4">
      {code ? (
        <p data-testid="join-code" className="figures text-3xl font-semibold tracking-[0.15em]">
          {spaced(code)}
        </p>
      ) : (
        <p>There is no code: nobody can join.</p>
      )}
      <p className="mt-2 text-ink2">
        Students who are on no roster open “Join with your code” on the sign-in page, and choose their own password. Who
        is on the roster has a code of their own, in the list.
      </p>
      <p className="mt-3">
        <Button disabled={renew.isPending} onClick={() => renew.mutate()}>
          {code ? "Renew the code" : "Make a code"}
        </Button>{" "}
        <span className="text-xs text-ink2">The old one stops working at once.</span>
      </p>
      {renew.error ? (
        <Notice kind="stop" role="alert">
          {renew.error.message}
        </Notice>
      ) : null}
    </Panel>
  );
}

/** Where students find this: to be typed, or scanned off a projector. */
function Reach() {
  const { data } = useQuery(reading("/reach", {}));
  if (!data) return null;
  const { isShared, addresses, fingerprint } = data;
  return (
    <Panel title="Where they find it" bodyClassName="flex flex-col gap-3 p-4">
      {isShared ? null : (
        <p>
          This was started for this machine alone: no other device reaches it. Started with{" "}
          <code className="figures">./start --lan</code> it is open to the network, in secret, and the address stands
          here.
        </p>
      )}
      {addresses.map(({ url, code }) => (
        <div key={url} className="flex flex-wrap items-center gap-4">
          <img
            src={`data:image/svg+xml,${encodeURIComponent(code)}`}
            alt={`Code to scan: opens ${url}/join`}
            className="size-36 rounded-[3px] border border-rule bg-white"
          />
          <p className="figures min-w-0 text-lg font-semibold break-all" data-testid="address">
            {url}
          </p>
        </div>
      ))}
      {isShared && fingerprint ? (
        <p className="text-ink2">
          A browser that does not know this machine’s own certificate asks before it goes on. What it then shows as
          SHA-256 fingerprint must be this:{" "}
          <span className="figures block text-xs text-ink" data-testid="fingerprint">
            {fingerprint.split(":").map((pair, at) => (
              <Fragment key={at}>
                {at > 0 ? ":" : null}
                <wbr />
                {pair}
              </Fragment>
            ))}
          </span>
        </p>
      ) : null}
    </Panel>
  );
}

const STATUS: Record<RosterLine["status"], string> = {
  new: "will be added",
  already: "already there, left alone",
  bad: "cannot be read",
};

function Roster() {
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
      await client.invalidateQueries({ queryKey: KEY });
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
