import { useState } from "react";
import { Button, Dialog } from "../../ui";

/** What the file can hold besides the marks, with what it is called. */
const COLUMNS = {
  number: "student number",
  login: "sign-in name",
  name: "name",
  attempts: "how many attempts",
  strands: "the strands of every mark",
} as const;
type Column = keyof typeof COLUMNS;
const names = Object.keys(COLUMNS) as Column[];

const LINK = "font-bold text-expected underline";

/** The marks as a file: a table with the columns that are chosen, or what other software for schools takes in. */
export function MarksFile() {
  const [isOpen, setOpen] = useState(false);
  const [chosen, setChosen] = useState<ReadonlySet<Column>>(new Set(["number", "login", "name"]));
  const columns = names.filter((one) => chosen.has(one));
  const toggle = (one: Column) => setChosen(new Set(names.filter((other) => (other === one) !== chosen.has(other))));
  return (
    <>
      <Button onClick={() => setOpen(true)}>Save as a file …</Button>
      <Dialog title="Marks as a file" isOpen={isOpen} onClose={() => setOpen(false)}>
        <fieldset>
          <legend className="font-bold">Beside the best mark of each exercise</legend>
          {names.map((one) => (
            <label key={one} className="flex min-h-7 items-center gap-2">
              <input type="checkbox" checked={chosen.has(one)} onChange={() => toggle(one)} /> {COLUMNS[one]}
            </label>
          ))}
        </fieldset>
        <p className="mt-2">
          <a className={LINK} href={`/api/marks/file?as=table&columns=${columns.join(",")}`} download="marks.csv">
            A table (CSV)
          </a>
        </p>
        <p className="mt-4 border-t border-rule pt-3 text-ink2">
          For other software of your school, in the OneRoster form:{" "}
          <a className={LINK} href="/api/marks/file?as=results" download="results.csv">
            results
          </a>{" "}
          and the{" "}
          <a className={LINK} href="/api/marks/file?as=lineItems" download="lineItems.csv">
            line items
          </a>{" "}
          that they are of. Students are known there by their number, or by their sign-in name where they have none.
        </p>
      </Dialog>
    </>
  );
}
