import type { FirstRequest, Me } from "@probe-lane/contract";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState, type FormEvent } from "react";
import { Navigate } from "react-router";
import { api, type ApiError } from "../../app/api";
import { reading } from "../../app/queries";
import { SESSION_KEY, useMe } from "../../app/session";
import { Loading, PageError } from "../../ui";
import { CodeField, Field, NewcomerForm, WhoFields } from "./Newcomer";

const EMPTY = { code: "", schoolName: "", className: "", login: "", name: "", password: "" };

/** An empty school: its first instructor begins it, with the code that the terminal shows. */
export function FirstPage() {
  const { me } = useMe();
  const { data, error } = useQuery(reading("/session/first", {}));
  const client = useQueryClient();
  const [form, setForm] = useState(EMPTY);
  const begin = useMutation<unknown, ApiError, FirstRequest>({
    mutationFn: (request) => api.post("/session/first", request),
    onSuccess: async () => {
      client.clear();
      client.setQueryData(SESSION_KEY, await api.get<Me>("/session"));
    },
  });
  useEffect(() => {
    document.title = "A new school · Probe Lane";
  }, []);
  if (me) return <Navigate to={me.role === "instructor" ? "/class" : "/"} replace />;
  if (error) return <PageError error={error} />;
  if (me === undefined || !data) return <Loading />;
  if (!data.isOpen) return <Navigate to="/sign-in" replace />;
  const set = (field: keyof typeof EMPTY) => (event: { target: { value: string } }) =>
    setForm((held) => ({ ...held, [field]: event.target.value }));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    begin.mutate({ ...form, login: form.login.toLowerCase() });
  };
  return (
    <NewcomerForm
      title="A new school"
      onSubmit={submit}
      error={begin.error}
      isPending={begin.isPending}
      act={["Begin", "Beginning …"]}
    >
      <p>
        Nobody teaches here yet. You become its first instructor; your class gets a code that students join with, and
        all exercises lie on its shelf.
      </p>
      <CodeField label="Code, as the terminal shows it" value={form.code} set={set} />
      <Field
        label="School"
        name="school"
        value={form.schoolName}
        onChange={set("schoolName")}
        minLength={2}
        maxLength={80}
        autoComplete="organization"
      />
      <Field
        label="Class"
        name="class"
        value={form.className}
        onChange={set("className")}
        minLength={2}
        maxLength={80}
        autoComplete="off"
      />
      <WhoFields
        form={form}
        set={set}
        nameLabel="Your name, as students know it"
        loginNote="2 to 40 letters, digits, dots, dashes or underscores."
      />
    </NewcomerForm>
  );
}
