import { isOddName, SIGN_IN_NAME, type RosterColumns } from "@probe-lane/contract";
import type { RosterTable } from "./rosterTable";

export interface RosterRow {
  line: number;
  /** As the list has it, or made from the name. */
  login: string;
  isLoginMade: boolean;
  name: string;
  number: string;
  /** Why the line cannot be read. */
  problem: string | null;
  /** Why it is none of a student who is here. */
  left: string | null;
}

export const MOST_LINES = 200;
const LONGEST_NUMBER = 40;

/** What stands behind a comma and is no given name. */
const SUFFIX = /^(jr|sr|ii|iii|iv)\.?$/i;
/** "Last, First" the way it is said. */
function inOrder(name: string): string {
  const [family = "", given = "", ...more] = name.split(",").map((part) => part.trim());
  return given !== "" && more.length === 0 && !SUFFIX.test(given) ? `${given} ${family}` : name;
}

/** Marks that a letter carries, once it is taken apart. */
const MARKS = /\p{M}/gu;
const LETTERS: Readonly<Record<string, string>> = { ß: "ss", æ: "ae", ø: "o", đ: "d", ł: "l", þ: "th", œ: "oe" };
/** First and last word of a name in plain letters; empty where it has none. */
function madeLogin(name: string): string {
  const plain = name
    .toLowerCase()
    .normalize("NFD")
    .replace(MARKS, "")
    .replace(/[ßæøđłþœ]/g, (letter) => LETTERS[letter] ?? "");
  const words = plain
    .split(/\s+/)
    .map((word) => word.replace(/[^a-z0-9-]/g, "").replace(/^-+/, ""))
    .filter(Boolean);
  return [...new Set([words[0], words.at(-1)])].join(".").slice(0, 40);
}

/** Why a line is of no student, as the columns for role and status say; null where it is of one. */
function leftOut(role: string, status: string): string | null {
  if (role !== "" && !/^(student|learner|pupil)s?$/i.test(role)) return `Left out: the list calls them “${role}”.`;
  return /^(tobedeleted|inactive|withdrawn|dropped)$/i.test(status) ? `Left out: the list says “${status}”.` : null;
}

function problemOf(
  row: Omit<RosterRow, "problem" | "left">,
  isOverLines: boolean,
  before: ReadonlyMap<string, number>,
): string | null {
  const { login, name, number, isLoginMade } = row;
  if (name.length < 2) return "The name is missing.";
  if (isOverLines) return "The name goes over several lines: a quotation mark is open in this line, or in its name.";
  if (name.length > 80) return "The name is longer than 80 characters.";
  if (isOddName(name))
    return "The name has signs that cannot be seen, or letters of two alphabets in one word: type it anew.";
  if (login === "")
    return isLoginMade ? "No sign-in name can be made from this name: give it one." : "The sign-in name is missing.";
  if (!SIGN_IN_NAME.test(login))
    return `“${login.slice(0, 30)}” is not a sign-in name: use 2 to 64 small letters, digits, dots, dashes or an e-mail address.`;
  if (number.length > LONGEST_NUMBER) return `The student number is longer than ${LONGEST_NUMBER} characters.`;
  const first = before.get(login);
  return first === undefined || isLoginMade ? null : `The sign-in name stands in line ${first} already.`;
}

/** A list line by line, by the columns as they are understood; every bad line says what is wrong with it. */
export function readRoster({ rows }: RosterTable, columns: RosterColumns, hasHeadings: boolean): RosterRow[] {
  const listed = hasHeadings ? rows.slice(1) : rows;
  const isNameAlone = hasHeadings && rows[0]?.cells.length === 1;
  const seen = new Map<string, number>();
  return listed.map(({ line, cells }): RosterRow => {
    // a comma in the only column is part of the name
    const at = (place: number | undefined) =>
      place === undefined ? "" : isNameAlone ? cells.join(", ") : (cells[place] ?? "");
    const [whole, given, family] = [at(columns.name), at(columns.given), at(columns.family)];
    const name = (whole === "" ? [given, family].filter(Boolean).join(" ") : inOrder(whole)).replace(/\s+/g, " ");
    const isLoginMade = columns.login === undefined;
    const login = isLoginMade ? madeLogin(name) : at(columns.login).toLowerCase();
    const row = { line, login, isLoginMade, name, number: at(columns.number) };
    const left = leftOut(at(columns.role), at(columns.status));
    const problem = left === null ? problemOf(row, /[\r\n]/.test(whole + given + family), seen) : null;
    if (problem === null && left === null && !seen.has(login)) seen.set(login, line);
    return { ...row, problem, left };
  });
}
