import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import type { RosterColumns } from "@probe-lane/contract";
import { beginsWithHeadings, columnsBy, columnsProblem, withoutTitle } from "../areas/roster/columns";
import { withRoles } from "../areas/roster/readPackage";
import { readRoster } from "../areas/roster/readRoster";
import { readTable } from "../areas/roster/readTable";

const folder = new URL("./rosters/", import.meta.url);

/** What a file comes to: its rows in a few words, or the sentence that says why nothing can be read. */
async function read(file: string, chosen?: RosterColumns): Promise<string[] | string> {
  const found = await readTable(readFileSync(new URL(file, folder)));
  if ("problem" in found) return found.problem;
  const table = withoutTitle(found);
  const hasHeadings = beginsWithHeadings(table);
  const columns = chosen ?? (hasHeadings ? columnsBy(table.rows[0]?.cells ?? []) : {});
  const problem = columnsProblem(columns);
  if (problem !== null) return problem;
  return readRoster(table, columns, hasHeadings).map(({ line, login, name, number, problem: bad, left }) =>
    [`${line}`, login, name, number, bad ?? left ?? ""].join(" | ").replace(/( \| )+$/, ""),
  );
}

const ODD = "The name has signs that cannot be seen, or letters of two alphabets in one word: type it anew.";

/** Lists as schools really have them, one oddity each. */
const FILES: Readonly<Record<string, readonly string[] | string>> = {
  "plain.csv": ["2 | larkin | Maud Larkinfield | 4711", "3 | thornquist | Ivo Thornquist | 4712"],
  "byte-order-mark.csv": ["2 | larkin | Maud Larkinfield"],
  // only names: sign-in names are made from them, in letters that every keyboard has
  "one-column.csv": [
    "2 | maud.larkinfield | Maud Larkinfield",
    "3 | ivo.thornquist | Ivo Thornquist",
    "4 | ilse.thornquist | Ilse Thornquist",
    "5 | bo.dellacourt | Bo Jr Dellacourt",
  ],
  "no-headings.txt": "Say which column holds the name.",
  // headings of another language: the e-mail address is known, what the others hold is asked for
  "semicolons-cp1252.csv": "Say which column holds the name.",
  "utf16-little.csv": ["2 | bozena.lukasz | Bożena Łukasz | 0042"],
  "utf16-big-unmarked.csv": ["2 | larkin | Maud Larkinfield", "3 | thornquist | Ivo Thornquist"],
  "told-separator.csv": ["3 | larkin | Maud Larkinfield"],
  "blank-lines.csv": ["5 | larkin | Maud Larkinfield", "8 | thornquist | Ivo Thornquist"],
  // a cell of three lines, and the line behind it counted as an editor counts
  "long-cells.csv": [
    "2 | larkin | Maud Larkinfield",
    "5 | b d | Bo Dellacourt |  | “b d” is not a sign-in name: use 2 to 64 small letters, digits, dots, dashes or an e-mail address.",
  ],
  "oneroster-users.csv": [
    "2 | larkin | Maud Larkinfield | 4711",
    "3 | kesterby | Ansgar Kesterby |  | Left out: the list calls them “teacher”.",
    "4 | thornquist | Ivo Thornquist | 4712 | Left out: the list says “tobedeleted”.",
  ],
  "same-names.csv": [
    "2 | maud.larkinfield | Maud Larkinfield | 1",
    "3 | maud.larkinfield | Maud Larkinfield | 2",
    "4 | maud.larkinfield | MAUD LARKINFIELD | 3",
  ],
  "twice.csv": ["2 | twin | One Name", "3 | twin | Other Name |  | The sign-in name stands in line 2 already."],
  "renamed.xlsx": ["2 | larkin | Maud Larkinfield"],
  "old-kind.xls": "That is a spreadsheet of the old kind (.xls): save it as .xlsx or as CSV and choose it again.",
  "tabs.tsv": ["2 | larkin | Maud Larkinfield | 4711", "3 | thornquist | Ivo Thornquist, Jr. | 4712"],
  "old-line-ends.csv": ["2 | larkin | Maud Larkinfield", "3 | thornquist | Ivo Thornquist"],
  // what follows the mark would be swallowed by one name
  "open-quote.csv": [
    `2 | larkin | Ivo Thornquist Maud Larkinfield thornquist |  | The name goes over several lines: a quotation mark is open in this line, or in its name.`,
  ],
  "hidden-signs.csv": [
    `2 | larkin | Maud\u200B Larkinfield |  | ${ODD}`,
    `3 | thornquist | Ivo\u202E Thornquist |  | ${ODD}`,
    `4 | kesterby | \u0410nsgar Kesterby |  | ${ODD}`,
    "5 | brook | Ada Brook",
  ],
  // zeros in front, kept by telling a spreadsheet that it is text
  "told-as-text.csv": ["2 | larkin | Maud Larkinfield | 0042", "3 | thornquist | Ivo Thornquist | 0043"],
  "hard-spaces.csv": ["2 | maud.larkinfield | Maud Larkinfield | 4711", "3 | ivo.thornquist | Ivo Thornquist | 4712"],
  "title-above.csv": ["5 | maud.larkinfield | Maud Larkinfield | 4711", "6 | ivo.thornquist | Ivo Thornquist | 4712"],
  "mail-addresses.csv": [
    "2 | maud.larkinfield@fernhollow.example | Maud Larkinfield",
    "3 | ivo+evening@fernhollow.example | Ivo Thornquist",
    "4 | not an address | Ansgar Kesterby |  | “not an address” is not a sign-in name: use 2 to 64 small letters, digits, dots, dashes or an e-mail address.",
  ],
  "only-headings.csv": [],
  // as a school's server packs it: what somebody is stands in a list of its own, and may be taken back there
  "oneroster-package.zip": [
    "2 | larkin | Maud Larkinfield | 4711",
    "3 | kesterby | Ansgar Kesterby |  | Left out: the list calls them “teacher”.",
    "4 | thornquist | Ivo Thornquist | 4712",
    "5 | wrenhollow | Tilda Wrenhollow | 4713 | Left out: the list says “tobedeleted”.",
    "6 | dellacourt | Bo Dellacourt | 4714 | Left out: the list calls them “without a role”.",
    "7 | brook | Ada Brook | 4715 | Left out: the list says “inactive”.",
  ],
  "other-package.zip": "There is no users.csv in that package: choose the list itself.",
  "spreadsheet.xlsx": "Say which column holds the name.",
};

describe("lists as schools have them", () => {
  it("are all told of here", () => {
    expect(readdirSync(folder).sort()).toEqual(Object.keys(FILES).sort());
  });
  it.each(Object.entries(FILES))("%s", async (file, expected) => {
    expect(await read(file)).toEqual(expected);
  });
  it("are read by the columns that somebody chose, whatever the headings say", async () => {
    expect(await read("semicolons-cp1252.csv", { family: 0, given: 1, login: 2 })).toEqual([
      "2 | zoe.gruenwald@fernhollow.example | Zoë Grünwald",
      "3 | soren@fernhollow.example | Søren Lærke",
    ]);
    expect(await read("semicolons-cp1252.csv", { family: 0, given: 1 })).toEqual([
      "2 | zoe.grunwald | Zoë Grünwald",
      "3 | soren.laerke | Søren Lærke",
    ]);
    expect(await read("no-headings.txt", { name: 0 })).toEqual([
      "1 | maud.larkinfield | Maud Larkinfield",
      "2 | ivo.thornquist | Ivo Thornquist",
    ]);
    expect(await read("plain.csv", { given: 1 })).toBe("Say which column holds the family name, or the whole name.");
  });
  it("a spreadsheet's cells are text and figures, its empty rows are counted", async () => {
    const table = await readTable(readFileSync(new URL("spreadsheet.xlsx", folder)));
    if ("problem" in table) throw new Error(table.problem);
    expect(readRoster(table, { number: 0, name: 1 }, true)).toMatchObject([
      { line: 2, name: "Maud Larkinfield", number: "4711", login: "maud.larkinfield", problem: null },
      { line: 4, name: "Ivo Thornquist", number: "4712", login: "ivo.thornquist", problem: null },
    ]);
    const broken = readFileSync(new URL("spreadsheet.xlsx", folder)).subarray(0, 700);
    expect(await readTable(broken)).toEqual({
      problem: "That file is no spreadsheet that can be read: save it as .xlsx or as CSV and choose it again.",
    });
  });
  it("of a package take a role from its own list, whatever stood beside the people and wherever their rows end", () => {
    const table = (...rows: string[][]) => ({ rows: rows.map((cells, at) => ({ line: at + 1, cells })) });
    const roles = table(["userSourcedId", "role", "status"], ["u1", "teacher", "active"], ["u2", "student", "active"]);
    const read = (users: ReturnType<typeof table>) => {
      const whole = withRoles(users, roles);
      return readRoster(whole, columnsBy(whole.rows[0]?.cells ?? []), true).map(({ login, left }) => [login, left]);
    };
    const expected = [
      ["larkin", "Left out: the list calls them “teacher”."],
      ["thornquist", null],
    ];
    const headings = ["sourcedId", "username", "name", "sms"];
    // the first ends before its last column
    const short = ["u1", "larkin", "Maud Larkinfield"];
    const full = ["u2", "thornquist", "Ivo Thornquist", ""];
    expect(read(table(headings, short, full))).toEqual(expected);
    const beside = [...headings, "role"];
    expect(read(table(beside, [...short, "", "student"], [...full, "teacher"]))).toEqual(expected);
  });
  it("a name that ends in a suffix is not turned round, and a name in other letters wants a sign-in name", () => {
    const rows = (text: string[]) =>
      readRoster({ rows: text.map((name, at) => ({ line: at + 1, cells: [name] })) }, { name: 0 }, false);
    expect(rows(["Bo Dellacourt, Jr."])[0]).toMatchObject({ name: "Bo Dellacourt, Jr.", login: "bo.jr" });
    expect(rows(["山田 花子"])[0]?.problem).toBe("No sign-in name can be made from this name: give it one.");
  });
});
