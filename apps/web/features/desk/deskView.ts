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
  const wanted =
    read("wanted", form.wanted) ??
    (reading === undefined ? undefined : (wantedFrom(form.method, reading, figures) ?? undefined));
  if (held === undefined || wanted === undefined) {
    return { problems, figures, closureMm: null, needs: held === undefined ? "held" : "wanted", explained: null };
  }
  const closureMm = held - wanted;
  const all = { ...figures, wanted };
  return {
    problems,
    figures: all,
    closureMm,
    needs: null,
    explained: explain({ method: form.method, closure: closureMm, figures: all, u: U_MM, resolution: 0.001 }),
  };
}
