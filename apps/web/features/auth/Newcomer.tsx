import { LEAST_PASSWORD } from "@probe-lane/contract";
import type { FormEvent, InputHTMLAttributes, ReactNode } from "react";
import { Button, Mark, Notice } from "../../ui";

const FIELD = "mt-1 w-full rounded-[3px] border border-ink3 bg-field px-2.5 py-2 text-base font-normal";
const LOGIN = "[A-Za-z0-9][A-Za-z0-9._\\-]{1,39}";

/** What is set of a form by a field of it. */
type Set<K extends string> = (field: K) => (event: { target: { value: string } }) => void;

interface FieldProps extends InputHTMLAttributes<HTMLInputElement> {
  label: ReactNode;
  note?: ReactNode;
}

/** A line of a form that somebody fills in who is new here. */
export function Field({ label, note, className = "", ...input }: FieldProps) {
  const noteId = note ? `${input.name ?? "field"}-note` : undefined;
  return (
    <label className="font-bold">
      {label}
      <input className={`${FIELD} ${className}`} required aria-describedby={noteId} {...input} />
      {note ? (
        <span id={noteId} className="block text-xs font-normal text-ink2">
          {note}
        </span>
      ) : null}
    </label>
  );
}

export function CodeField({ label, value, set }: { label: string; value: string; set: Set<"code"> }) {
  return (
    <Field
      label={label}
      name="code"
      className="figures uppercase"
      value={value}
      onChange={set("code")}
      autoFocus
      maxLength={20}
      autoComplete="off"
      spellCheck={false}
    />
  );
}

/** Who somebody will be here: a name to sign in with, one that others read, a password. */
export function WhoFields({
  form,
  set,
  loginNote,
  nameLabel,
}: {
  form: { readonly login: string; readonly name: string; readonly password: string };
  set: Set<"login" | "name" | "password">;
  loginNote: string;
  nameLabel: string;
}) {
  return (
    <>
      <Field
        label="Sign-in name"
        name="login"
        note={loginNote}
        value={form.login}
        onChange={set("login")}
        pattern={LOGIN}
        title="2 to 40 letters, digits, dots, dashes or underscores"
        autoComplete="username"
        autoCapitalize="none"
        spellCheck={false}
      />
      <Field
        label={nameLabel}
        name="name"
        value={form.name}
        onChange={set("name")}
        minLength={2}
        maxLength={80}
        autoComplete="name"
      />
      <Field
        label={`A password of your own, at least ${LEAST_PASSWORD} characters`}
        name="password"
        type="password"
        value={form.password}
        onChange={set("password")}
        minLength={LEAST_PASSWORD}
        maxLength={200}
        autoComplete="new-password"
      />
    </>
  );
}

interface FormProps {
  title: string;
  onSubmit: (event: FormEvent) => void;
  error: Error | null;
  isPending: boolean;
  /** What the button says, and while it is under way. */
  act: readonly [string, string];
  foot?: ReactNode;
  children: ReactNode;
}

/** A page with one form, for somebody who has no account yet. */
export function NewcomerForm({ title, onSubmit, error, isPending, act: [act, acting], foot, children }: FormProps) {
  return (
    <main className="grid min-h-dvh place-items-center p-4">
      <form
        onSubmit={onSubmit}
        className="flex w-full max-w-md flex-col gap-4 rounded-panel border border-rule bg-panel p-6 sm:p-8"
      >
        <p className="flex items-center gap-2 text-lg font-bold">
          <Mark /> Probe Lane
        </p>
        <h1 className="text-xl font-bold">{title}</h1>
        {children}
        {error ? (
          <Notice kind="stop" role="alert">
            {error.message}
          </Notice>
        ) : null}
        <Button look="act" type="submit" disabled={isPending} className="justify-center py-2 text-base">
          {isPending ? acting : act}
        </Button>
        {foot}
      </form>
    </main>
  );
}
