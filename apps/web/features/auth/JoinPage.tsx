import { useEffect, useState, type FormEvent } from "react";
import { Navigate, useNavigate } from "react-router";
import { useJoin, useMe } from "../../app/session";
import { TextLink } from "../../ui";
import { CodeField, NewcomerForm, WhoFields } from "./Newcomer";

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
    <NewcomerForm
      title="Join a class"
      onSubmit={submit}
      error={join.error}
      isPending={join.isPending}
      act={["Join the class", "Joining …"]}
      foot={
        <p>
          Joined before? <TextLink to="/sign-in">Sign in</TextLink>
        </p>
      }
    >
      <CodeField label="Code, from your instructor" value={form.code} set={set} />
      <WhoFields
        form={form}
        set={set}
        nameLabel="Your name, as the class knows it"
        loginNote="If you are on the roster, take the one that stands there, with the code of your own. 2 to 40 letters, digits, dots, dashes or underscores."
      />
    </NewcomerForm>
  );
}
