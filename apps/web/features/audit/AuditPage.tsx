import type { AuditWhat } from "@probe-lane/contract";
import { useQuery } from "@tanstack/react-query";
import { format } from "date-fns";
import { reading } from "../../app/queries";
import { Loading, Notice, PageError, TextLink } from "../../ui";

const WORDS: Record<AuditWhat, string> = {
  signed: "signed for the first cut",
  sentBack: "sent a signature back",
  signedAtMachine: "signed at the machine",
  sentBackAtMachine: "sent a floor lane back",
  withdrawnAtMachine: "withdrew a signature at the machine",
  marksGiven: "gave other marks",
  marksTakenBack: "took given marks back",
  marksGivenAtMachine: "gave other marks for a floor lane",
  markedAgain: "changed the marking and had every lane marked again",
  lookAnswered: "answered who asked for another look",
  marksSaved: "saved the marks as a file",
  recordTaken: "took the record of a lane",
  archiveTaken: "took everything of a student as a file",
  studentTakenOff: "took a student off, lanes kept",
  studentDeleted: "took a student off, lanes deleted",
  accountsMerged: "let an account go into another of the same person",
  passwordReset: "reset a password",
  policyChanged: "changed from how many marks a lane passes",
  waitLifted: "let somebody sign in at once who had to wait",
  rosterAdded: "added a roster",
};

/** Who signed, gave marks, took files or deleted, and when: the newest first. */
export function AuditPage() {
  const { data, error } = useQuery(reading("/audit", {}));
  if (error) return <PageError error={error} />;
  if (!data) return <Loading />;
  return (
    <div className="mx-auto flex max-w-5xl flex-col gap-3">
      <p>
        <TextLink to="/class">Back to the class</TextLink>
      </p>
      {data.rows.length === 0 ? (
        <Notice>
          Nothing yet. Signatures, marks that are given, files that are taken and students who are taken off stand here.
        </Notice>
      ) : (
        <div className="overflow-x-auto rounded-panel border border-rule bg-panel">
          <table className="w-full">
            <caption className="sr-only">What was done in this class, the newest first</caption>
            <thead>
              <tr className="text-left text-xs text-ink2">
                <th className="px-4 py-1.5 font-normal">When</th>
                <th className="px-2 font-normal">Who</th>
                <th className="px-2 font-normal">What</th>
                <th className="px-4 font-normal">Of</th>
              </tr>
            </thead>
            <tbody>
              {data.rows.map(({ id, at, by, what, about }) => (
                <tr key={id} className="border-t border-rule-soft align-top">
                  <td className="figures px-4 py-1.5 whitespace-nowrap">{format(new Date(at), "d MMM yyyy, HH:mm")}</td>
                  <th scope="row" className="px-2 py-1.5 text-left whitespace-nowrap">
                    {by}
                  </th>
                  <td className="px-2 py-1.5">{WORDS[what]}</td>
                  <td className="px-4 py-1.5">{about}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}
