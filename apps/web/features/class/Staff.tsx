import type { ClassView, InviteRequest } from "@probe-lane/contract";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, type ApiError } from "../../app/api";
import { Button, Notice, Panel } from "../../ui";
import { CLASS_KEY, spaced } from "./code";

/** Who teaches and helps in the class, and who is invited to. */
export function Staff({ view }: { view: ClassView }) {
  const client = useQueryClient();
  const onSuccess = () => client.invalidateQueries({ queryKey: CLASS_KEY });
  const invite = useMutation<unknown, ApiError, InviteRequest>({
    mutationFn: (request) => api.post("/class/invitations", request),
    onSuccess,
  });
  const withdraw = useMutation<unknown, ApiError, string>({
    mutationFn: (code) => api.delete(`/class/invitations/${code}`),
    onSuccess,
  });
  const remove = useMutation<unknown, ApiError, string>({
    mutationFn: (id) => api.delete(`/class/staff/${id}`),
    onSuccess,
  });
  const problem = invite.error ?? withdraw.error ?? remove.error;
  return (
    <Panel title="Who teaches and helps" bodyClassName="flex flex-col gap-3 p-4">
      <ul className="flex flex-col gap-1">
        {view.staff.map(({ id, name, login, role, isMe }) => (
          <li key={id} className="flex items-baseline gap-2">
            <b className="min-w-0 truncate" title={name}>
              {name}
            </b>
            <span className="figures text-ink2">{login}</span>
            <span className="flex-1">{isMe ? `${role}, you` : role}</span>
            {isMe ? null : (
              <Button
                look="quiet"
                className="text-xs underline"
                aria-label={`Take ${name} off this class`}
                disabled={remove.isPending}
                onClick={() => remove.mutate(id)}
              >
                Take off
              </Button>
            )}
          </li>
        ))}
      </ul>
      {view.invitations.length > 0 ? (
        <ul aria-label="Invitations" className="flex flex-col gap-1 border-t border-rule-soft pt-2">
          {view.invitations.map(({ code, role }) => (
            <li key={code} className="flex items-baseline gap-2">
              <b className="figures text-lg whitespace-nowrap">{spaced(code)}</b>
              <span className="flex-1">for one {role}</span>
              <Button
                look="quiet"
                className="text-xs underline"
                aria-label={`Withdraw ${spaced(code)}`}
                disabled={withdraw.isPending}
                onClick={() => withdraw.mutate(code)}
              >
                Withdraw
              </Button>
            </li>
          ))}
        </ul>
      ) : null}
      <p className="flex flex-wrap gap-2">
        <Button disabled={invite.isPending} onClick={() => invite.mutate({ role: "instructor" })}>
          Invite an instructor
        </Button>
        <Button disabled={invite.isPending} onClick={() => invite.mutate({ role: "assistant" })}>
          Invite an assistant
        </Button>
      </p>
      <p className="text-ink2">
        Each invitation is a code that works once: for a new account on the page to join, or for one that is there under
        “Your account”. An assistant sees the wall and the lanes, writes notes, answers hands and checks at the machine;
        marks, signatures and this page are an instructor’s.
      </p>
      {problem ? (
        <Notice kind="stop" role="alert">
          {problem.message}
        </Notice>
      ) : null}
    </Panel>
  );
}
