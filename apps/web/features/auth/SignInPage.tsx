import { useEffect, useState, type FormEvent } from "react";
import { Navigate, useLocation, useNavigate } from "react-router";
import { useMe, useSignIn } from "../../app/session";
import { Button, Mark, Notice, TextLink } from "../../ui";

const FIELD = "mt-1 w-full rounded-[3px] border border-ink3 bg-field px-2.5 py-2 text-base";

export function SignInPage() {
  const { me } = useMe();
  const signIn = useSignIn();
  const navigate = useNavigate();
  const asked = (useLocation().state as { from?: string } | null)?.from;
  const from = asked ?? "/";
  const [login, setLogin] = useState("");
  const [password, setPassword] = useState("");
  useEffect(() => {
    document.title = "Sign in · Probe Lane";
  }, []);
  if (me) return <Navigate to={from} replace />;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    signIn.mutate({ login, password }, { onSuccess: () => void navigate(from, { replace: true }) });
  };
  return (
    <main className="grid min-h-dvh place-items-center p-4">
      <div className="grid w-full max-w-4xl overflow-hidden rounded-panel border border-rule bg-panel md:grid-cols-[1.1fr_1fr]">
        <div className="hidden flex-col justify-between border-r border-rule bg-well p-8 md:flex">
          <p className="flex items-center gap-2 text-xl font-bold">
            <Mark /> Probe Lane
          </p>
          <EdgeDrawing />
          <p className="text-ink2">
            Set the machine up yourself. Find the edge, work out the number, and learn from the number that was wrong.
          </p>
        </div>
        <form onSubmit={submit} className="flex flex-col gap-4 p-8">
          <h1 className="text-xl font-bold">Sign in</h1>
          <label className="font-bold">
            Name
            <input
              className={FIELD}
              value={login}
              onChange={(event) => setLogin(event.target.value)}
              autoComplete="username"
              autoCapitalize="none"
              required
              autoFocus
              maxLength={80}
            />
          </label>
          <label className="font-bold">
            Password
            <input
              className={FIELD}
              type="password"
              value={password}
              onChange={(event) => setPassword(event.target.value)}
              autoComplete="current-password"
              required
              maxLength={200}
            />
          </label>
          {asked && asked !== "/" && !signIn.error ? (
            <Notice>Sign in to go on where you were. A lane is as you left it.</Notice>
          ) : null}
          {signIn.error ? (
            <Notice kind="stop" role="alert">
              {signIn.error.message}
            </Notice>
          ) : null}
          <Button look="act" type="submit" disabled={signIn.isPending} className="justify-center py-2 text-base">
            {signIn.isPending ? "Signing in …" : "Sign in"}
          </Button>
          <p>
            New in a class? <TextLink to="/join">Join with your code</TextLink>
          </p>
          <p className="text-xs text-ink2">
            This trainer does not license anyone to run a machine. At a real one follow its manual, the shop’s rules and
            the person in charge.
          </p>
        </form>
      </div>
    </main>
  );
}

/** One edge and one tip: the sum that everything here is about. */
function EdgeDrawing() {
  return (
    <svg
      viewBox="0 0 360 220"
      className="my-6 w-full"
      role="img"
      aria-label="A round tip touching the left edge of a part; the edge lies one tip radius beyond the spindle axis."
    >
      <rect x="180" y="60" width="180" height="120" fill="var(--stock)" stroke="var(--stock-edge)" />
      <circle cx="130" cy="120" r="50" fill="var(--contact-soft)" stroke="var(--contact)" strokeWidth="2" />
      <path d="M130 20V196M180 34V196" stroke="var(--ink2)" strokeDasharray="7 3 2 3" />
      <path d="M130 120H180" stroke="var(--contact)" strokeWidth="2" />
      <circle cx="130" cy="120" r="3" fill="var(--contact)" />
      <text x="155" y="112" textAnchor="middle" className="figures" fontSize="15" fill="var(--ink)">
        r
      </text>
      <text x="122" y="210" textAnchor="middle" fontSize="13" fill="var(--ink2)">
        spindle axis
      </text>
      <text x="192" y="210" fontSize="13" fill="var(--expected)">
        edge = axis + r
      </text>
      <path d="M20 40h50m-8-5l8 5-8 5" fill="none" stroke="var(--ink2)" />
      <text x="20" y="30" fontSize="13" fill="var(--ink2)">
        moving plus
      </text>
    </svg>
  );
}
