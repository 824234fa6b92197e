import { LEAST_PASSWORD, type Me, type PasswordRequest } from "@probe-lane/contract";
import { useMutation } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { api, type ApiError } from "../../app/api";
import { useEnter } from "../../app/enter";
import { useMe } from "../../app/session";
import { Button, Notice, Panel } from "../../ui";

const FIELD = "mt-1 w-full rounded-[3px] border border-ink3 bg-field px-2.5 py-2 text-base";
const EMPTY = { current: "", next: "", again: "" };

/** Who somebody is here, and a new password of their own. */
export function AccountPage() {
  const { me } = useMe();
  const [form, setForm] = useState(EMPTY);
  const change = useMutation<unknown, ApiError, PasswordRequest>({
    mutationFn: (request) => api.post("/session/password", request),
    onSuccess: () => setForm(EMPTY),
  });
  const isTyped = Object.values(form).some((text) => text !== "");
  const isUnlike = form.again !== "" && form.again !== form.next;
  const set = (field: keyof typeof EMPTY) => (event: { target: { value: string } }) =>
    setForm((held) => ({ ...held, [field]: event.target.value }));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (form.next === form.again) change.mutate({ current: form.current, next: form.next });
  };
  const field = (name: keyof typeof EMPTY, label: string, autoComplete: string) => (
    <label className="font-bold">
      {label}
      <input
        className={FIELD}
        type="password"
        value={form[name]}
        onChange={set(name)}
        autoComplete={autoComplete}
        required
        maxLength={200}
      />
    </label>
  );
  if (!me) return null;
  return (
    <div className="mx-auto flex max-w-md flex-col gap-4">
      <Panel title={me.name} bodyClassName="p-4">
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
          <dt className="text-ink2">sign-in name</dt>
          <dd className="figures">{me.login}</dd>
        </dl>
      </Panel>
      <Classes me={me} />
      <Panel title="Change your password" note="everywhere else you are signed out" bodyClassName="p-4">
        <form onSubmit={submit} className="flex flex-col gap-3">
          {/* a keeper of passwords wants to know whose it is */}
          <input type="text" autoComplete="username" value={me.login} readOnly hidden />
          {field("current", "The one you have now", "current-password")}
          {field("next", `A new one, at least ${LEAST_PASSWORD} characters`, "new-password")}
          {field("again", "The new one again", "new-password")}
          {isUnlike ? (
            <Notice kind="stop" role="alert">
              The two new ones are not alike. Type the second one anew.
            </Notice>
          ) : null}
          {change.error && !isUnlike ? (
            <Notice kind="stop" role="alert">
              {change.error.message}
            </Notice>
          ) : null}
          {change.isSuccess && !isTyped ? <Notice role="status">Changed. Use the new one from now on.</Notice> : null}
          <Button
            look="act"
            type="submit"
            disabled={change.isPending || isUnlike || form.again === ""}
            className="justify-center py-2 text-base"
          >
            {change.isPending ? "Changing …" : "Change it"}
          </Button>
        </form>
      </Panel>
      <p className="text-ink2">
        {me.role === "student"
          ? "Who has forgotten a password asks the instructor, who resets it on the page of the class."
          : "Passwords that students have forgotten are reset on the page of the class."}
      </p>
    </div>
  );
}

/** The classes that somebody is in, the open one among them; another one by its code. */
function Classes({ me }: { me: Me }) {
  const enter = useEnter();
  const [code, setCode] = useState("");
  const add = useMutation<{ id: string }, ApiError>({
    mutationFn: () => api.post<{ id: string }>("/session/classes", { code }),
    onSuccess: ({ id }) => {
      setCode("");
      enter.mutate(id);
    },
  });
  const problem = enter.error ?? add.error;
  return (
    <Panel title={me.classes.length === 1 ? "Your class" : "Your classes"} bodyClassName="flex flex-col gap-3 p-4">
      <ul className="flex flex-col gap-2">
        {me.classes.map(({ id, name, term, schoolName, role, isArchived }) => (
          <li key={id} className="flex items-center gap-3">
            <span className="min-w-0 flex-1">
              <b className="block truncate" title={name}>
                {name}
              </b>
              <span className="block text-xs text-ink2">
                {[term, schoolName, role, ...(isArchived ? ["archived"] : [])].filter((word) => word !== "").join(", ")}
              </span>
            </span>
            {id === me.classId ? (
              <span>open now</span>
            ) : (
              <Button aria-label={`Open ${name}`} disabled={enter.isPending} onClick={() => enter.mutate(id)}>
                Open
              </Button>
            )}
          </li>
        ))}
      </ul>
      <form
        className="flex items-end gap-2 border-t border-rule-soft pt-3"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <label className="flex-1 font-bold">
          Another class, by its code
          <input
            className={`${FIELD} figures font-normal uppercase`}
            value={code}
            onChange={(event) => setCode(event.target.value)}
            required
            maxLength={20}
            autoComplete="off"
            spellCheck={false}
          />
        </label>
        <Button type="submit" disabled={add.isPending || code.trim() === ""} className="py-2">
          Add it
        </Button>
      </form>
      {problem ? (
        <Notice kind="stop" role="alert">
          {problem.message}
        </Notice>
      ) : null}
    </Panel>
  );
}
