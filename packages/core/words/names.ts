import type { IncidentCode } from "../bench/events";
import type { TermName } from "../bench/commands";
import type { Surface } from "../exercises";
import type { Feel, Thing, Wobble } from "../instruments";
import type { Axis } from "../registers";

const THINGS: Record<Thing, string> = { edgeFinder: "edge finder", pointedTool: "pointed tool", tool1: "tool 1" };
export const thingWords = (thing: string): string => THINGS[thing as Thing] ?? thing;

const SURFACES: Record<Surface, string> = { stock: "part", frontJaw: "front jaw", backJaw: "back jaw", table: "table" };
export const surfaceWords = (surface: Surface): string => SURFACES[surface];

export const axisNames: Record<Axis, string> = { x: "X", y: "Y", z: "Z" };

/** "G54 X", "common Z", "H1 length", "H1 wear". */
export function registerWords(register: string): string {
  const [table, axis] = register.split(".");
  if (axis) return `${table} ${axis.toUpperCase()}`;
  return register.startsWith("HW") ? `H${register.slice(2)} wear` : `H${register.slice(1)} length`;
}

export const wobbleWords: Record<Wobble, string> = {
  wide: "wide wobble", large: "wobble large", middling: "wobble middling", small: "wobble small", slight: "wobble slight",
  shiver: "just a shiver", true: "runs true",
};

export const feelWords: Record<Feel, string> = {
  slides: "slides freely", drags: "drags", held: "held", pinched: "pinched hard", torn: "torn",
};

export const incidentWords: Record<IncidentCode, string> = {
  finderThrown: "edge finder thrown apart by too much speed",
  finderBent: "edge finder pushed too far: tip slightly bent",
  finderBroken: "edge finder driven into something hard",
  toolChipped: "tool driven into something hard and chipped",
  noseStruck: "bare spindle nose driven into something hard",
  paperUnderTurningTool: "hand and paper under a turning tool",
  paperTorn: "paper torn",
};

export const termWords: Record<TermName, string> = {
  tipRadius: "tip radius", edgeWork: "edge’s own work coordinate", paper: "paper", facing: "facing allowance",
  moved: "moved since", lift: "height over the plane", other: "other",
};

export const schoolWords: Record<"part-touch" | "plane-lift" | "unclear", string> = {
  "part-touch": "each tool touched on the part, work Z zero",
  "plane-lift": "tools touched on a fixed plane, work Z the lift",
  unclear: "not to be told from the log",
};
