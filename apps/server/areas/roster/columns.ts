import { rosterFields, type RosterColumns, type RosterField } from "@probe-lane/contract";
import type { RosterTable } from "./rosterTable";

/** Headings that are understood, the surest first: in plain words, and as lists of the OneRoster format have them. */
const HEADINGS: Readonly<Record<RosterField, readonly string[]>> = {
  login: ["login", "username", "user name", "sign-in name", "user id", "e-mail", "email", "email address", "mail"],
  name: ["name", "full name", "student", "student name", "display name", "last name, first name"],
  given: ["givenname", "given name", "first name", "forename", "first"],
  family: ["familyname", "family name", "last name", "surname", "last"],
  number: ["identifier", "student number", "student no", "student no.", "student id", "number", "id number", "id"],
  role: ["role"],
  status: ["status"],
};

const plain = (heading: string): string => heading.trim().toLowerCase().replaceAll("_", " ");

/** Which column holds what, by its heading. */
export function columnsBy(headings: readonly string[]): RosterColumns {
  const known = headings.map(plain);
  const columns: RosterColumns = {};
  for (const field of rosterFields) {
    const heading = HEADINGS[field].find((one) => known.includes(one));
    if (heading !== undefined) columns[field] = known.indexOf(heading);
  }
  // one column of names is enough, and two say it better
  if (columns.given !== undefined && columns.family !== undefined) delete columns.name;
  else if (columns.name !== undefined) {
    delete columns.given;
    delete columns.family;
  }
  return columns;
}

/** The first line names the columns where it names one of them. */
export const beginsWithHeadings = ({ rows }: RosterTable): boolean =>
  Object.keys(columnsBy(rows[0]?.cells ?? [])).length > 0;

/** A title may stand above the headings: so many lines of it at the most. */
const MOST_TITLE_LINES = 6;
/** And headings then name so many columns that no title does. */
const NAMED_BELOW_TITLE = 2;

/** The table from its headings on, where a title stands above them. */
export function withoutTitle(table: RosterTable): RosterTable {
  const named = (at: number) => Object.keys(columnsBy(table.rows[at]?.cells ?? [])).length;
  if (named(0) > 0) return table;
  const from = table.rows.slice(0, MOST_TITLE_LINES).findIndex((_row, at) => named(at) >= NAMED_BELOW_TITLE);
  return from > 0 ? { rows: table.rows.slice(from) } : table;
}

/** By which a choice of columns is remembered. */
export const headingsKey = (headings: readonly string[]): string => headings.map(plain).join("\t");

/** What is said of a choice that nobody could be read by; null where it will do. */
export function columnsProblem({ name, given, family }: RosterColumns): string | null {
  if (name !== undefined || family !== undefined) return null;
  return given === undefined
    ? "Say which column holds the name."
    : "Say which column holds the family name, or the whole name.";
}
