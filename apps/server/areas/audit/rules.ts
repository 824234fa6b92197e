import type { AuditWhat } from "@probe-lane/contract";
import type { Request } from "express";

/** What a request is about, by the id in its address: whose name stands in the list. */
export type About = "student" | "lane" | "floorLane" | "assignment";

interface Rule {
  readonly method: "GET" | "POST" | "PUT" | "DELETE";
  /** Of the plain address below /api; its only group is the id of what it is about. */
  readonly path: RegExp;
  readonly about: About | null;
  /** What is done by it when it is answered well; null where it is nothing to be kept. */
  readonly what: (req: Request) => AuditWhat | null;
}

const ID = "([0-9a-f-]{36})";
const always = (what: AuditWhat) => (): AuditWhat => what;
const bodyOf = (req: Request): Record<string, unknown> => (req.body ?? {}) as Record<string, unknown>;

/** Kinds of entries of one batch at a real machine. */
const entryTypes = (req: Request): unknown[] => {
  const { entries } = bodyOf(req);
  return Array.isArray(entries) ? entries.map((one: { entry?: { type?: unknown } }) => one.entry?.type) : [];
};

/** An address as the routers take it: letters large or small, with a stroke at its end or without. */
export const plainPath = (path: string): string => path.toLowerCase().replace(/\/+$/, "");

/** What somebody who teaches does that others may ask about later: sign-offs, marks, files, people and lanes gone. */
export const auditRules: readonly Rule[] = [
  {
    method: "POST",
    path: new RegExp(`^/lanes/${ID}/signature$`),
    about: "lane",
    what: (req) => (bodyOf(req)["isGiven"] === true ? "signed" : "sentBack"),
  },
  {
    method: "POST",
    path: new RegExp(`^/floor/lanes/${ID}/entries$`),
    about: "floorLane",
    what: (req) => {
      const types = entryTypes(req);
      if (types.includes("signedOff")) return "signedAtMachine";
      if (types.includes("signatureWithdrawn")) return "withdrawnAtMachine";
      if (types.includes("sentBack")) return "sentBackAtMachine";
      return types.includes("overridden") ? "marksGivenAtMachine" : null;
    },
  },
  {
    method: "POST",
    path: new RegExp(`^/lanes/${ID}/overrides$`),
    about: "lane",
    what: (req) => (bodyOf(req)["marks"] === null ? "marksTakenBack" : "marksGiven"),
  },
  { method: "POST", path: new RegExp(`^/lanes/${ID}/look/answer$`), about: "lane", what: always("lookAnswered") },
  {
    method: "POST",
    path: new RegExp(`^/assignments/${ID}/marking$`),
    about: "assignment",
    what: always("markedAgain"),
  },
  { method: "PUT", path: /^\/class\/policy$/, about: null, what: always("policyChanged") },
  { method: "GET", path: /^\/marks\/file$/, about: null, what: always("marksSaved") },
  { method: "GET", path: new RegExp(`^/lanes/${ID}/record$`), about: "lane", what: always("recordTaken") },
  {
    method: "GET",
    path: new RegExp(`^/class/students/${ID}/archive$`),
    about: "student",
    what: always("archiveTaken"),
  },
  {
    method: "DELETE",
    path: new RegExp(`^/class/students/${ID}$`),
    about: "student",
    what: (req) => (req.query["lanes"] === "delete" ? "studentDeleted" : "studentTakenOff"),
  },
  {
    method: "POST",
    path: new RegExp(`^/class/students/${ID}/merge$`),
    about: "student",
    what: always("accountsMerged"),
  },
  {
    method: "POST",
    path: new RegExp(`^/class/students/${ID}/reset$`),
    about: "student",
    what: always("passwordReset"),
  },
  {
    method: "POST",
    path: new RegExp(`^/class/students/${ID}/lift$`),
    about: "student",
    what: always("waitLifted"),
  },
  { method: "POST", path: /^\/class\/roster$/, about: null, what: always("rosterAdded") },
];
