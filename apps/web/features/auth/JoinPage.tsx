import { LEAST_PASSWORD } from "@probe-lane/contract";
import { useEffect, useState, type FormEvent } from "react";
import { Navigate, useNavigate } from "react-router";
import { useJoin, useMe } from "../../app/session";
import { Button, Mark, Notice, TextLink } from "../../ui";

const FIELD = "mt-1 w-full rounded-[3px] border border-ink3 bg-field px-2.5 py-2 text-base";
const LOGIN = "[A-Za-z0-9][A-Za-z0-9._\\-]{1,39}";

/** A student's first evening: the code from the board or one of their own, a sign-in name, a password. */
export function JoinPage() {
  const { me } = useMe();
  const join = useJoin();
  const navigate = useNavigate();
  const [form, setForm] = useState({ code: "", login: "", name: "", password: "" });
  useEffect(() => {
    document.title = "Join a class · Probe Lane";
  }, []);
  if (me) return <Navigate to="/" replace />;
  const set = (field: keyof typeof form) => (event: { target: { value: string } }) =>
    setForm((held) => ({ ...held, [field]: event.target.value }));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    join.mutate(
      { ...form, login: form.login.toLowerCase() },
      { onSuccess: () => void navigate("/", { replace: true }) },
    );
  };
  return (
    <main className="grid min-h-dvh place-items-center p-4">
      <form
        onSubmit={submit}
        className="flex w-full max-w-md flex-col gap-4 rounded-panel border border-rule bg-panel p-6 sm:p-8"
      >
        <p className="flex items-center gap-2 text-lg font-bold">
          <Mark /> Probe Lane
        </p>
        <h1 className="text-xl font-bold">Join a class</h1>
        <label className="font-bold">
          Code, from your instructor
          <input
            className={`${FIELD} figures uppercase`}
            value={form.code}
            onChange={set("code")}
            autoFocus
            required
            maxLength={20}
            autoComplete="off"
            spellCheck={false}
          />
        </label>
        <label className="font-bold">
          Sign-in name
          <input
            className={FIELD}
            value={form.login}
            onChange={set("login")}
            required
            pattern={LOGIN}
            title="2 to 40 letters, digits, dots, dashes or underscores"
            autoComplete="username"
            autoCapitalize="none"
            spellCheck={false}
            aria-describedby="login-note"
          />
          <span id="login-note" className="block text-xs font-normal text-ink2">
            If you are on the roster, take the one that stands there, with the code of your own. 2 to 40 letters,
            digits, dots, dashes or underscores.
          </span>
        </label>
        <label className="font-bold">
          Your name, as the class knows it
          <input
            className={FIELD}
            value={form.name}
            onChange={set("name")}
            required
            minLength={2}
            maxLength={80}
            autoComplete="name"
          />
        </label>
        <label className="font-bold">
          A password of your own, at least {LEAST_PASSWORD} characters
          <input
            className={FIELD}
            type="password"
            value={form.password}
            onChange={set("password")}
            required
            minLength={LEAST_PASSWORD}
            maxLength={200}
            autoComplete="new-password"
          />
        </label>
        {join.error ? (
          <Notice kind="stop" role="alert">
            {join.error.message}
          </Notice>
        ) : null}
        <Button look="act" type="submit" disabled={join.isPending} className="justify-center py-2 text-base">
          {join.isPending ? "Joining …" : "Join the class"}
        </Button>
        <p>
          Joined before? <TextLink to="/sign-in">Sign in</TextLink>
        </p>
      </form>
    </main>
  );
}
