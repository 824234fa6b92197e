import { isOddName } from "@probe-lane/contract";
import Papa from "papaparse";

export interface RosterRow {
  line: number;
  login: string;
  name: string;
  problem: string | null;
}

const LOGIN = /^[a-z0-9][a-z0-9._-]{1,39}$/;
const MOST_LINES = 200;

/** Column names that are understood, in plain words and as OneRoster writes them. */
const COLUMNS = {
  login: ["login", "username", "user name", "sign-in name"],
  name: ["name", "full name", "student"],
  given: ["givenname", "given name", "first name"],
  family: ["familyname", "family name", "last name"],
};

const pick = (row: Record<string, string>, names: readonly string[]): string => {
  const key = Object.keys(row).find((column) => names.includes(column.trim().toLowerCase()));
  return (key ? (row[key] ?? "") : "").trim();
};

function problemOf(login: string, name: string, before: ReadonlyMap<string, number>): string | null {
  if (login === "") return "The sign-in name is missing.";
  if (!LOGIN.test(login))
    return `“${login.slice(0, 30)}” is not a sign-in name: use 2 to 40 small letters, digits, dots, dashes or underscores.`;
  if (name.length < 2) return "The name is missing.";
  if (name.length > 80) return "The name is longer than 80 characters.";
  if (isOddName(name))
    return "The name has signs that cannot be seen, or letters of two alphabets in one word: type it anew.";
  const first = before.get(login);
  return first === undefined ? null : `The sign-in name stands in line ${first} already.`;
}

/**
 * A roster read line by line; every bad line says what is wrong with it. Line numbers are those of the text, from 1.
 */
export function readRoster(csv: string): RosterRow[] {
  const plain = csv.replace(/^\uFEFF/, "");
  const headings = Papa.parse<string[]>(plain, { preview: 1 }).data[0] ?? [];
  const { data, meta } = Papa.parse<Record<string, string>>(plain, {
    header: true,
    // a heading that stands twice is another column, and nothing to be told of on the server's console
    transformHeader: (heading, place) => (headings.indexOf(heading) === place ? heading : `${heading} ${place}`),
    skipEmptyLines: "greedy",
  });
  const columns = (meta.fields ?? []).map((column) => column.trim().toLowerCase());
  const has = (names: readonly string[]) => columns.some((column) => names.includes(column));
  if (!has(COLUMNS.login) || !(has(COLUMNS.name) || (has(COLUMNS.given) && has(COLUMNS.family)))) {
    return [
      {
        line: 1,
        login: "",
        name: "",
        problem: "The first line must name the columns: login and name, or username, givenName and familyName.",
      },
    ];
  }
  if (data.length === 0) return [{ line: 2, login: "", name: "", problem: "There is nobody below the first line." }];
  if (data.length > MOST_LINES)
    return [
      {
        line: MOST_LINES + 2,
        login: "",
        name: "",
        problem: `A class has at most ${MOST_LINES} students: split the list.`,
      },
    ];
  const seen = new Map<string, number>();
  return data.map((row, index) => {
    const line = index + 2;
    const login = pick(row, COLUMNS.login).toLowerCase();
    const name =
      pick(row, COLUMNS.name) || [pick(row, COLUMNS.given), pick(row, COLUMNS.family)].filter(Boolean).join(" ");
    const problem = problemOf(login, name, seen);
    if (problem === null) seen.set(login, line);
    return { line, login, name, problem };
  });
}
