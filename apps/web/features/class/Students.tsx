import type { ClassView } from "@probe-lane/contract";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type ApiError } from "../../app/api";
import { Button, Dialog, Notice, Panel, Select } from "../../ui";
import { CLASS_KEY, spaced } from "./code";

type Student = ClassView["students"][number];
const FIELD = "mt-1 w-full rounded-[3px] border border-ink3 bg-field px-2 py-1.5 text-base font-normal";

/** Who is in the class, and what can be changed of each. */
export function Students({ view }: { view: ClassView }) {
  const client = useQueryClient();
  const [asked, setAsked] = useState<Student | null>(null);
  const [changed, setChanged] = useState<Student | null>(null);
  const reset = useMutation<unknown, ApiError, string>({
    mutationFn: (id) => api.post(`/class/students/${id}/reset`),
    onSuccess: () => client.invalidateQueries({ queryKey: CLASS_KEY }),
    onSettled: () => setAsked(null),
  });
  return (
    <Panel title={view.className} note={view.students.length === 1 ? "1 student" : `${view.students.length} students`}>
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
                  {student.number ? (
                    <span className="figures ml-2 text-xs font-normal text-ink2">{student.number}</span>
                  ) : null}
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
                <td className="px-4 text-right whitespace-nowrap">
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
                  <Button
                    look="quiet"
                    className="text-xs underline"
                    aria-label={`Rename or take off ${student.name}`}
                    onClick={() => setChanged(student)}
                  >
                    Change
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
      {changed ? (
        <ChangeStudent
          key={changed.id}
          student={changed}
          others={view.students.filter(({ id }) => id !== changed.id)}
          onClose={() => setChanged(null)}
        />
      ) : null}
    </Panel>
  );
}

const WAYS = { keep: "Take off, keep the lanes", delete: "Take off, delete the lanes" } as const;

/** Another name, or off the class: with what was done kept under "removed", or all of it gone. */
function ChangeStudent({
  student,
  others,
  onClose,
}: {
  student: Student;
  others: readonly Student[];
  onClose(): void;
}) {
  const client = useQueryClient();
  const [name, setName] = useState(student.name);
  const [number, setNumber] = useState(student.number);
  const [sure, setSure] = useState<keyof typeof WAYS | null>(null);
  const done = async () => {
    await client.invalidateQueries({ queryKey: CLASS_KEY });
    onClose();
  };
  const rename = useMutation<unknown, ApiError>({
    mutationFn: () => api.put(`/class/students/${student.id}`, { name: name.trim(), number: number.trim() }),
    onSuccess: done,
  });
  const remove = useMutation<unknown, ApiError, keyof typeof WAYS>({
    mutationFn: (lanes) => api.delete(`/class/students/${student.id}?lanes=${lanes}`),
    onSuccess: done,
  });
  const lift = useMutation<unknown, ApiError>({ mutationFn: () => api.post(`/class/students/${student.id}/lift`) });
  const problem = rename.error ?? remove.error ?? lift.error;
  return (
    <Dialog title={student.name} isOpen onClose={onClose}>
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          rename.mutate();
        }}
      >
        <label className="flex-1 font-bold">
          Name, as the class knows it
          <input
            className={FIELD}
            value={name}
            onChange={(event) => setName(event.target.value)}
            required
            minLength={2}
            maxLength={80}
          />
        </label>
        <label className="w-32 font-bold">
          Student number
          <input
            className={`figures ${FIELD}`}
            value={number}
            onChange={(event) => setNumber(event.target.value)}
            maxLength={40}
          />
        </label>
        <Button
          type="submit"
          disabled={rename.isPending || (name.trim() === student.name && number.trim() === student.number)}
        >
          Save
        </Button>
      </form>
      <p className="mt-3 flex flex-wrap items-center gap-2">
        <Button disabled={lift.isPending || lift.isSuccess} onClick={() => lift.mutate()}>
          Let them sign in at once
        </Button>
        <span role="status" className="text-ink2">
          {lift.isSuccess
            ? "Done: what was mistyped before counts no more."
            : "After some mistyped passwords a wait grows, up to a minute; this ends it."}
        </span>
      </p>
      <p className="mt-3">
        <a className="font-bold text-expected underline" href={`/api/class/students/${student.id}/archive`} download>
          Everything of this student as one file
        </a>
      </p>
      {others.length > 0 ? <SamePerson student={student} others={others} onDone={done} /> : null}
      <div className="mt-4 border-t border-rule pt-3">
        {sure === null ? (
          <p className="flex flex-wrap gap-2">
            {(["keep", "delete"] as const).map((way) => (
              <Button key={way} onClick={() => setSure(way)}>
                {WAYS[way]}
              </Button>
            ))}
          </p>
        ) : (
          <>
            <p>
              {sure === "keep"
                ? `${student.name} is signed out and no longer in this class. Their lanes and marks stand last among the marks, as removed. With the code of the class and the same password they can come back.`
                : `${student.name} is signed out, and what they did in this class is deleted: ${lanesWords(student.lanes)}, their marks and their floor lanes. This cannot be undone.`}
            </p>
            <p className="mt-3 flex gap-2">
              <Button look="act" disabled={remove.isPending} onClick={() => remove.mutate(sure)}>
                {sure === "keep" ? "Yes, take off" : "Yes, delete it all"}
              </Button>
              <Button onClick={() => setSure(null)}>Leave it</Button>
            </p>
          </>
        )}
      </div>
      {problem ? (
        <Notice kind="stop" role="alert">
          {problem.message}
        </Notice>
      ) : null}
    </Dialog>
  );
}

const lanesWords = (many: number): string => (many === 1 ? "1 lane" : `${many} lanes`);

/** Two accounts of one person: the other one goes into this. */
function SamePerson({
  student,
  others,
  onDone,
}: {
  student: Student;
  others: readonly Student[];
  onDone(): Promise<void>;
}) {
  const [otherId, setOtherId] = useState("");
  const other = others.find(({ id }) => id === otherId);
  const merge = useMutation<unknown, ApiError, string>({
    mutationFn: (id) => api.post(`/class/students/${id}/merge`, { into: student.id }),
    onSuccess: onDone,
  });
  return (
    <div className="mt-4 border-t border-rule pt-3">
      <label className="font-bold">
        The same person as
        <Select
          className="mt-1 block w-full !px-2 !py-1.5"
          value={otherId}
          onChange={(event) => {
            setOtherId(event.target.value);
            merge.reset();
          }}
        >
          <option value="">nobody else in this class</option>
          {others.map(({ id, name, login }) => (
            <option key={id} value={id}>
              {name} ({login})
            </option>
          ))}
        </Select>
      </label>
      {other ? (
        <>
          <p className="mt-2">
            Everything of <b>{other.name}</b> ({lanesWords(other.lanes)} in this class, floor lanes and marks) comes to{" "}
            <b>{student.name}</b>, counted behind what stands here; the account <b className="figures">{other.login}</b>{" "}
            is gone. They sign in as <b className="figures">{student.login}</b>
            {student.hasJoined ? ", with its password" : ", once they have joined with its code"}. This cannot be
            undone.
          </p>
          <p className="mt-3 flex gap-2">
            <Button look="act" disabled={merge.isPending} onClick={() => merge.mutate(other.id)}>
              Yes, make them one
            </Button>
            <Button onClick={() => setOtherId("")}>Leave it</Button>
          </p>
        </>
      ) : null}
      {merge.error ? (
        <Notice kind="stop" role="alert">
          {merge.error.message}
        </Notice>
      ) : null}
    </div>
  );
}
