import {
  explain,
  methods,
  wantedFrom,
  type Explained,
  type FigureName,
  type Figures,
  type Method,
} from "@probe-lane/core/diagnosis";
import { parseLengthMm } from "@probe-lane/core/units";
import { refusalWords } from "@probe-lane/core/words";

export type Unit = "mm" | "inch";
type FormFigure = Exclude<FigureName, "approach" | "outside" | "wanted" | "reading" | "tipCode">;

/** Figures of a method that a shop knows, in the order in which a person thinks of them. */
export const methodFigures: Record<Method, readonly FormFigure[]> = {
  "mill-edge": ["tipRadius", "edgeWork", "partSize", "burr", "dialTurn", "otherAxis"],
  "mill-center": ["tipRadius", "otherAxis"],
  "mill-length": [
    "paper",
    "block",
    "facing",
    "leftoverWork",
    "leftoverCommon",
    "oldWear",
    "partHeight",
    "lift",
    "neighbors",
    "lengthInUse",
    "toolLength",
    "probeError",
    "growth",
  ],
  "mill-diameter": ["nominalDiameter", "cutterDiameter", "oldWear"],
  "lathe-x": [
    "touchDiameter",
    "paper",
    "leftoverWork",
    "oldWear",
    "noseRadius",
    "neighbors",
    "masterOld",
    "sensorConstant",
  ],
  "lathe-z": [
    "block",
    "facing",
    "leftoverWork",
    "leftoverCommon",
    "oldWear",
    "bladeWidth",
    "noseRadius",
    "lengthInUse",
    "shift",
    "neighbors",
    "masterOld",
    "sensorConstant",
    "plateReach",
  ],
  "lathe-readout": ["paper"],
  "lathe-nose": [],
  "lathe-tip": [],
};

export interface DeskForm {
  method: Method;
  unit: Unit;
  held: string;
  /** What it should be; left empty when a reading is given instead. */
  wanted: string;
  reading: string;
  approach: "" | "plus" | "minus";
  outside: "outside" | "bore";
  tipCode: string;
  figures: Partial<Record<FormFigure, string>>;
}
export const emptyForm: DeskForm = {
  method: methods[0],
  unit: "mm",
  held: "",
  wanted: "",
  reading: "",
  approach: "",
  outside: "outside",
  tipCode: "",
  figures: {},
};

export interface DeskView {
  /** Fields that were typed and cannot be read, with the sentence for each. */
  problems: Partial<Record<string, string>>;
  figures: Figures;
  closureMm: number | null;
  /** What is still needed before anything can be said. */
  needs: "held" | "wanted" | null;
  explained: Explained | null;
  /** Where the direction of approach was left empty and nothing can be said without it: what each one would mean. */
  either: readonly { readonly approach: "plus" | "minus"; readonly closureMm: number; readonly explained: Explained }[];
  /** The register holds the reading itself: no radius was taken to it, whatever the rest is. */
  isReadingItself: boolean;
}

/** Standard uncertainty of a careful touch and of what it is held against, mm. */
const U_MM = 0.005;

/** Everything the page shows, from what was typed; half of the fields may be empty. */
export function deskView(form: DeskForm): DeskView {
  const problems: DeskView["problems"] = {};
  const read = (name: string, text: string | undefined): number | undefined => {
    if (text === undefined || text.trim() === "") return undefined;
    const answer = parseLengthMm(text, form.unit);
    if (answer.ok) return answer.value;
    problems[name] = refusalWords({ code: "text", problem: answer.error }, form.unit);
    return undefined;
  };
  const held = read("held", form.held);
  const reading = read("reading", form.reading);
  const plain = Object.fromEntries(
    methodFigures[form.method]
      .filter((name) => name !== "neighbors")
      .map((name) => [name, read(name, form.figures[name])]),
  );
  const neighbors = (form.figures.neighbors ?? "")
    .split(/[;\s]+(?=[-+\u2212\d.])/)
    .map((text, i) => read(i === 0 ? "neighbors" : `neighbors ${i}`, text))
    .filter((mm) => mm !== undefined);
  const figures: Figures = {
    ...plain,
    ...(neighbors.length > 0 ? { neighbors } : {}),
    approach: form.approach === "" ? undefined : form.approach === "plus" ? 1 : -1,
    outside: form.outside === "bore" ? -1 : 1,
    tipCode: /^[0-9]$/.test(form.tipCode.trim()) ? Number(form.tipCode) : undefined,
    reading: form.method === "lathe-readout" ? reading : undefined,
  };
  const typed = read("wanted", form.wanted);
  const wanted = typed ?? wantedBy(form.method, reading, figures);
  const either = held === undefined ? [] : eitherWay(form.method, held, typed, reading, figures);
  const isReadingItself =
    form.method === "mill-edge" && held !== undefined && reading !== undefined && Math.abs(held - reading) < 4 * U_MM;
  if (held === undefined || wanted === undefined) {
    const needs = held === undefined ? "held" : "wanted";
    return { problems, figures, closureMm: null, needs, explained: null, either, isReadingItself };
  }
  const closureMm = held - wanted;
  const all = { ...figures, wanted };
  const explained = explainedBy(form.method, closureMm, all);
  return {
    problems,
    figures: all,
    closureMm,
    needs: null,
    explained,
    either: explained.unexplained ? either : [],
    isReadingItself: isReadingItself && explained.unexplained,
  };
}

const wantedBy = (method: Method, reading: number | undefined, figures: Figures): number | undefined =>
  reading === undefined ? undefined : (wantedFrom(method, reading, figures) ?? undefined);

const explainedBy = (method: Method, closure: number, figures: Figures): Explained =>
  explain({ method, closure, figures, u: U_MM, resolution: 0.001 });

/** An edge whose direction of approach was not said: what each would explain, those that explain nothing left out. */
function eitherWay(
  method: Method,
  held: number,
  typed: number | undefined,
  reading: number | undefined,
  figures: Figures,
): DeskView["either"] {
  if (method !== "mill-edge" || figures.approach !== undefined || figures.tipRadius === undefined) return [];
  return (["plus", "minus"] as const).flatMap((approach) => {
    const known: Figures = { ...figures, approach: approach === "plus" ? 1 : -1 };
    const wanted = typed ?? wantedBy(method, reading, known);
    if (wanted === undefined) return [];
    const explained = explainedBy(method, held - wanted, { ...known, wanted });
    return explained.unexplained ? [] : [{ approach, closureMm: held - wanted, explained }];
  });
}
