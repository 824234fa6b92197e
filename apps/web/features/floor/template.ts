import { isByFirstTool, templateSchema, type FloorSchool, type FloorTemplate } from "@probe-lane/core/floor";
import { formatMm, parseLengthMm } from "@probe-lane/core/units";

/** What the form of a new floor exercise holds at first: text, as it is typed. */
export const START = {
  title: "",
  machine: "mill" as FloorTemplate["machine"],
  machineNumber: "",
  drawingNumber: "",
  unit: "mm" as FloorTemplate["unit"],
  datum: "front left" as FloorTemplate["datum"],
  school: "part-touch" as FloorSchool,
  asksNose: "no",
  tools: "2",
  toolNames: [] as readonly string[],
  diameters: "none" as NonNullable<FloorTemplate["diameters"]>,
  /** Nominal diameters by tool; empty where none is asked for. */
  nominals: [] as readonly string[],
  readingsNeeded: "1",
  tipDiameter: "10",
  edgeX: "0",
  edgeY: "0",
  paper: "0.08",
  block: "0",
  skin: "0",
  toleranceXy: "0.03",
  toleranceZ: "0.03",
};
export type Form = typeof START;
/** What of it is one text. */
export type TextName = { [K in keyof Form]: Form[K] extends string ? K : never }[keyof Form];
const LENGTHS = ["tipDiameter", "edgeX", "edgeY", "paper", "block", "skin", "toleranceXy", "toleranceZ"] as const;

const INCH_MM = 25.4;
/** Fine enough that a length comes back to its thousandth when the unit is changed back. */
const DIGITS = { mm: 3, inch: 5 } as const;
const fully = (mm: number, unit: Form["unit"]): string =>
  formatMm(unit === "mm" ? mm : mm / INCH_MM, DIGITS[unit]).replace(/\.?0+$/, "");

/** The same lengths, written in another unit; what cannot be read stays as it was typed. */
export function inUnit(form: Form, unit: Form["unit"]): Form {
  const again = (text: string) => {
    const read = parseLengthMm(text, form.unit);
    return read.ok ? fully(read.value, unit) : text;
  };
  const written: Form = { ...form, unit, nominals: form.nominals.map(again) };
  for (const name of LENGTHS) written[name] = again(form[name]);
  return written;
}

/** A text of one tool changed in a list by tools. */
export const withTool = (list: readonly string[], tool: number, text: string): string[] =>
  Array.from({ length: Math.max(list.length, tool) }, (_, at) => (at === tool - 1 ? text : (list[at] ?? "")));

/** Numbers of the tools that are set; where others are counted from the first it is not among them. */
export function toolsOf({ tools, school }: Pick<Form, "tools" | "school">): number[] {
  const many = /^[1-8]$/.test(tools.trim()) ? Number(tools) : 0;
  return Array.from({ length: many }, (_, at) => at + (isByFirstTool(school) ? 2 : 1));
}

/** Nominal diameters by tool number from the first on; null where none is typed. */
function nominalsOf(form: Form): (number | null)[] | { problem: string } {
  const read = form.nominals.map((text) => (text.trim() === "" ? null : parseLengthMm(text, form.unit)));
  if (read.some((one) => one !== null && (!one.ok || one.value <= 0)))
    return { problem: "A diameter is a length above zero; leave it empty for a tool without one." };
  const asked = new Set(toolsOf(form));
  return read.map((one, at) => (one?.ok && asked.has(at + 1) ? one.value : null));
}

/** What is wrong with a template that none of its parts says. */
function problemOf(form: Form, nominals: readonly (number | null)[]): string {
  if (form.title.trim().length < 3) return "Give it a title.";
  if (form.diameters !== "none" && nominals.every((mm) => mm === null))
    return "Type the nominal diameter of each tool whose diameter is to be set.";
  if (form.school === "offset-per-tool" && Number(form.tools) > 6)
    return "There are six work offsets, one for each tool: set six tools at most.";
  return "A figure is out of range: tools 1 to 8, diameters and tolerances above zero.";
}

/** The template in mm, or the first thing that is missing or cannot be read. */
export function templateOf(form: Form): { template: FloorTemplate } | { problem: string } {
  const mm: Record<string, number> = {};
  for (const name of LENGTHS) {
    const read = parseLengthMm(form[name], form.unit);
    if (!read.ok) return { problem: "One of the lengths cannot be read yet." };
    mm[`${name}Mm`] = read.value;
  }
  const isMill = form.machine === "mill";
  const nominals = isMill && form.diameters !== "none" ? nominalsOf(form) : [];
  if ("problem" in nominals) return nominals;
  const names = form.toolNames.map((name) => name.trim());
  const parsed = templateSchema.safeParse({
    title: form.title,
    machine: form.machine,
    ...(form.machineNumber.trim() === "" ? {} : { machineNumber: form.machineNumber }),
    ...(form.drawingNumber.trim() === "" ? {} : { drawingNumber: form.drawingNumber }),
    unit: form.unit,
    datum: form.datum,
    school: form.school,
    asksNose: !isMill && form.asksNose === "yes",
    tools: Number(form.tools),
    ...(names.some((name) => name !== "") ? { toolNames: names } : {}),
    ...(isMill && form.diameters !== "none" ? { diameters: form.diameters, nominalDiametersMm: nominals } : {}),
    readingsNeeded: Number(form.readingsNeeded),
    ...mm,
  });
  return parsed.success ? { template: parsed.data } : { problem: problemOf(form, nominals) };
}
