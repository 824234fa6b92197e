import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import type { ExportQuery, MarkCell, MarksView } from "@probe-lane/contract";
import { marksFile } from "../areas/marks/export";

const NOW = new Date("2026-12-01T12:00:00Z");
const cell = (total: number, more: Partial<MarkCell> = {}): MarkCell => ({
  href: "/lanes/1/ruling",
  attempt: 1,
  total,
  ruled: null,
  outOf: 100,
  strands: [
    { name: "values", marks: total / 2, outOf: 60 },
    { name: "safety", marks: 20, outOf: 20 },
  ],
  at: "2026-11-30T09:15:00.000Z",
  isLate: false,
  isPassed: true,
  ...more,
});
const student = (id: string, more: Partial<MarksView["students"][number]> = {}): MarksView["students"][number] => ({
  id,
  name: "Maud Larkinfield",
  login: "larkin",
  number: "0042",
  isRemoved: false,
  cells: {},
  ...more,
});
const view: Omit<MarksView, "looks"> = {
  assignments: [
    { id: "a", title: "Focuser plate, lower left corner", isFloor: false },
    { id: "b", title: "Knob", isFloor: false },
    { id: "c", title: "Knob", isFloor: true },
  ],
  students: [
    student("s", {
      cells: {
        a: { best: cell(86.45), attempts: 3, isOpen: true },
        b: { best: null, attempts: 1, isOpen: true },
        c: { best: cell(40, { isPassed: false, isLate: true, outOf: 90, strands: [] }), attempts: 1, isOpen: false },
      },
    }),
    student("t", { name: "=cmd|' /C calc'!A0", login: "ivo", number: "" }),
    student("gone", {
      name: "Ilse Thornquist",
      isRemoved: true,
      cells: { a: { best: cell(1), attempts: 1, isOpen: false } },
    }),
  ],
};
const file = (query: Partial<ExportQuery>) => marksFile(view, { as: "table", columns: [], ...query }, NOW);
const rows = (text: string) => Papa.parse<Record<string, string>>(text, { header: true }).data;

describe("marks as a file", () => {
  it("holds the best marks, in tenths, of who is in the class, under titles that tell exercises apart", () => {
    const text = file({ columns: ["number", "name"] });
    expect(text.split("\r\n")[0]).toBe('student number,name,"Focuser plate, lower left corner",Knob (2),Knob (3)');
    expect(rows(text)).toEqual([
      {
        "student number": "0042",
        name: "Maud Larkinfield",
        "Focuser plate, lower left corner": "86.5",
        "Knob (2)": "",
        "Knob (3)": "40",
      },
      expect.objectContaining({ "student number": "", "Knob (2)": "", "Knob (3)": "" }),
    ]);
  });
  it("makes no formula of a name", () => {
    expect(rows(file({ columns: ["name"] }))[1]?.["name"]).toBe("'=cmd|' /C calc'!A0");
  });
  it("tells attempts and strands where they are asked for, and nothing of the people where they are not", () => {
    const [first] = rows(file({ columns: ["attempts", "strands"] }));
    expect(first).toMatchObject({
      "Focuser plate, lower left corner, attempts": "3",
      "Focuser plate, lower left corner, values": "43.2",
      "Focuser plate, lower left corner, safety": "20",
      "Knob (2), attempts": "1",
    });
    expect(Object.keys(first ?? {}).some((heading) => /name|number/.test(heading))).toBe(false);
  });
  it("as results: one row a mark, by the school's number or the sign-in name, and said where it is not passed", () => {
    expect(rows(file({ as: "results" }))).toEqual([
      {
        sourcedId: "a-s",
        status: "active",
        dateLastModified: "2026-11-30T09:15:00.000Z",
        lineItemSourcedId: "a",
        studentSourcedId: "0042",
        scoreStatus: "fully graded",
        score: "86.5",
        scoreDate: "2026-11-30",
        comment: "",
      },
      expect.objectContaining({ sourcedId: "c-s", score: "40", comment: "not passed, late" }),
    ]);
    const numberless = { ...view, students: [student("u", { number: "", cells: view.students[0]?.cells ?? {} })] };
    expect(rows(marksFile(numberless, { as: "results", columns: [] }, NOW))[0]?.["studentSourcedId"]).toBe("larkin");
  });
  it("as line items: every assignment, out of what it is marked", () => {
    expect(
      rows(file({ as: "lineItems" })).map(({ sourcedId, title, resultValueMax }) => [sourcedId, title, resultValueMax]),
    ).toEqual([
      ["a", "Focuser plate, lower left corner", "100"],
      ["b", "Knob", "100"],
      ["c", "Knob", "90"],
    ]);
  });
});
