import { templateSchema, type FloorSchool, type FloorTemplate } from "@probe-lane/core/floor";
import { formatMm, parseLengthMm } from "@probe-lane/core/units";

/** What the form of a new floor exercise holds at first: text, as it is typed. */
export const START = {
  title: "",
  machine: "mill" as FloorTemplate["machine"],
  machineNumber: "",
  unit: "mm" as FloorTemplate["unit"],
  datum: "front left" as FloorTemplate["datum"],
  school: "part-touch" as FloorSchool,
  asksNose: "no",
  tools: "2",
  readingsNeeded: "1",
  tipDiameter: "10",
  edgeX: "0",
  edgeY: "0",
  paper: "0.08",
  skin: "0",
  toleranceXy: "0.03",
  toleranceZ: "0.03",
};
export type Form = typeof START;
const LENGTHS = ["tipDiameter", "edgeX", "edgeY", "paper", "skin", "toleranceXy", "toleranceZ"] as const;

const INCH_MM = 25.4;
/** Fine enough that a length comes back to its thousandth when the unit is changed back. */
const DIGITS = { mm: 3, inch: 5 } as const;
const fully = (mm: number, unit: Form["unit"]): string =>
  formatMm(unit === "mm" ? mm : mm / INCH_MM, DIGITS[unit]).replace(/\.?0+$/, "");

/** The same lengths, written in another unit; what cannot be read stays as it was typed. */
export function inUnit(form: Form, unit: Form["unit"]): Form {
  const written: Form = { ...form, unit };
  for (const name of LENGTHS) {
    const read = parseLengthMm(form[name], form.unit);
    if (read.ok) written[name] = fully(read.value, unit);
  }
  return written;
}

/** The template in mm, or the first thing that is missing or cannot be read. */
export function templateOf(form: Form): { template: FloorTemplate } | { problem: string } {
  const mm: Record<string, number> = {};
  for (const name of LENGTHS) {
    const read = parseLengthMm(form[name], form.unit);
    if (!read.ok) return { problem: "One of the lengths cannot be read yet." };
    mm[`${name}Mm`] = read.value;
  }
  const parsed = templateSchema.safeParse({
    title: form.title,
    machine: form.machine,
    ...(form.machineNumber.trim() === "" ? {} : { machineNumber: form.machineNumber }),
    unit: form.unit,
    datum: form.datum,
    school: form.school,
    asksNose: form.machine === "lathe" && form.asksNose === "yes",
    tools: Number(form.tools),
    readingsNeeded: Number(form.readingsNeeded),
    ...mm,
  });
  return parsed.success
    ? { template: parsed.data }
    : {
        problem:
          form.title.trim().length < 3
            ? "Give it a title."
            : "A figure is out of range: tools 1 to 8, diameters and tolerances above zero.",
      };
}
