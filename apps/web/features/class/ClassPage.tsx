import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type ApiError } from "../../app/api";
import { reading } from "../../app/queries";
import { Button, Loading, Notice, PageError, Panel, TextLink } from "../../ui";
import { CLASS_KEY, spaced } from "./code";
import { Policy } from "./Policy";
import { Reach } from "./Reach";
import { Roster } from "./Roster";
import { Settings } from "./Settings";
import { Staff } from "./Staff";
import { Students } from "./Students";

/** The class: who is in it, the codes to join with, a roster to add, who teaches it, and the next one. */
export function ClassPage() {
  const { data, error } = useQuery(reading("/class", {}));
  if (error) return <PageError error={error} />;
  if (!data) return <Loading />;
  return (
    <div className="flex flex-col gap-4">
      {data.isArchived ? (
        <Notice>This class is archived: what was done in it can be read, and nothing new is begun.</Notice>
      ) : null}
      <div className="grid gap-4 lg:grid-cols-[1.2fr_1fr]">
        <div className="flex flex-col gap-4">
          <Students view={data} />
          <Staff view={data} />
          <Policy key={JSON.stringify(data.policy)} view={data} />
          <Settings key={`${data.className} ${data.term}`} view={data} />
          <p>
            <TextLink to="/audit">What was done in this class</TextLink>{" "}
            <span className="text-xs text-ink2">signatures, marks given, files taken, students taken off</span>
          </p>
        </div>
        <div className="flex flex-col gap-4">
          <JoinCode code={data.joinCode} />
          <Reach />
          <Roster />
        </div>
      </div>
    </div>
  );
}

function JoinCode({ code }: { code: string | null }) {
  const client = useQueryClient();
  const renew = useMutation<unknown, ApiError>({
    mutationFn: () => api.post("/class/code"),
    onSuccess: () => client.invalidateQueries({ queryKey: CLASS_KEY }),
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
