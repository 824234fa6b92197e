import type { ExportQuery, MarksView } from "@probe-lane/contract";
import Papa from "papaparse";

type Marks = Omit<MarksView, "looks">;
type Student = Marks["students"][number];
type Row = Record<string, string | number>;

/** A cell that a spreadsheet would take for a formula is text to it. */
const csv = (fields: readonly string[], data: readonly Row[]): string =>
  Papa.unparse(
    { fields: [...fields], data: data.map((row) => fields.map((field) => row[field] ?? "")) },
    {
      escapeFormulae: true,
    },
  );

const tenth = (marks: number): number => Math.round(marks * 10) / 10;
/** By which a student is known outside: the school's number, or the sign-in name where there is none. */
const knownBy = ({ number, login }: Student): string => (number === "" ? login : number);

const HEADINGS = { number: "student number", login: "sign-in name", name: "name" } as const;

/** Students × assignments: the best marks of each, and what was asked for besides. */
function table({ assignments, students }: Marks, columns: ExportQuery["columns"]): string {
  const [hasStrands, hasAttempts] = [columns.includes("strands"), columns.includes("attempts")];
  const people = (["number", "login", "name"] as const).filter((one) => columns.includes(one));
  const strandsOf = (id: string): string[] => [
    ...new Set(students.flatMap(({ cells }) => cells[id]?.best?.strands.map(({ name }) => name) ?? [])),
  ];
  const titled = assignments.map((one, at) => {
    const isTwice = assignments.some((other, place) => other.title === one.title && place !== at);
    return { ...one, title: isTwice ? `${one.title} (${at + 1})` : one.title };
  });
  const fields = titled.flatMap(({ id, title }) => [
    title,
    ...(hasAttempts ? [`${title}, attempts`] : []),
    ...(hasStrands ? strandsOf(id).map((strand) => `${title}, ${strand}`) : []),
  ]);
  const rows = students.map((student): Row => {
    const row: Row = Object.fromEntries(people.map((one) => [HEADINGS[one], student[one]]));
    for (const { id, title } of titled) {
      const cell = student.cells[id];
      row[title] = cell?.best ? tenth(cell.best.total) : "";
      row[`${title}, attempts`] = cell?.attempts ?? 0;
      for (const { name, marks } of cell?.best?.strands ?? []) row[`${title}, ${name}`] = tenth(marks);
    }
    return row;
  });
  return csv([...people.map((one) => HEADINGS[one]), ...fields], rows);
}

/** One row a mark, as the results of the open format for schools. */
function results({ assignments, students }: Marks): string {
  const fields = ["sourcedId", "status", "dateLastModified", "lineItemSourcedId", "studentSourcedId", "scoreStatus"];
  const rows = students.flatMap((student) =>
    assignments.flatMap(({ id }): Row[] => {
      const best = student.cells[id]?.best;
      if (!best) return [];
      return [
        {
          sourcedId: `${id}-${student.id}`,
          status: "active",
          dateLastModified: best.at,
          lineItemSourcedId: id,
          studentSourcedId: knownBy(student),
          scoreStatus: "fully graded",
          score: tenth(best.total),
          scoreDate: best.at.slice(0, 10),
          comment: [best.isPassed ? "" : "not passed", best.isLate ? "late" : ""].filter(Boolean).join(", "),
        },
      ];
    }),
  );
  return csv([...fields, "score", "scoreDate", "comment"], rows);
}

/** What the results are of: one row an assignment, out of what it is marked. */
function lineItems({ assignments, students }: Marks, now: Date): string {
  const fields = ["sourcedId", "status", "dateLastModified", "title", "resultValueMin", "resultValueMax"];
  const rows = assignments.map(({ id, title }): Row => {
    const best = students.map(({ cells }) => cells[id]?.best).find((one) => one != null);
    return {
      sourcedId: id,
      status: "active",
      dateLastModified: now.toISOString(),
      title,
      resultValueMin: 0,
      resultValueMax: best?.outOf ?? 100,
    };
  });
  return csv(fields, rows);
}

/** The marks of a class as a file, of those who are in it. */
export function marksFile(view: Marks, { as, columns }: ExportQuery, now: Date): string {
  const here = { ...view, students: view.students.filter(({ isRemoved }) => !isRemoved) };
  if (as === "results") return results(here);
  return as === "lineItems" ? lineItems(here, now) : table(here, columns);
}
