import type { ProgramGauged } from "../lane/programDesk";
import type { GaugeOutcome } from "../lane/programNames";
import { scales, showLength, type LengthUnit } from "../units";
import { registerWords } from "./names";

/** What a program gauged, by its axis. */
export const gaugedWhat = ({ axis }: Pick<ProgramGauged, "axis">): string => {
  if (axis === null) return "length of the tool";
  return axis === "z" ? "depth of the floor" : `width along ${axis.toUpperCase()}`;
};

/** What came of a gauging, in a word or two. */
export const gaugeOutcomeWords: Record<GaugeOutcome, string> = {
  written: "written",
  good: "goes on",
  tooMuch: "alarm: more than its limit, nothing written",
  metalLeft: "alarm: metal is left",
  lengthOff: "alarm: not the length of its row, nothing written",
  scribed: "scrap mark scribed",
};

/** Why a gauging stopped its run. */
export const gaugeAlarmWords: Partial<Record<GaugeOutcome, string>> = {
  tooMuch: "Alarm: what it would write is more than its limit; nothing was written.",
  metalLeft: "Alarm: metal is left where it gauged. The part can be cut further.",
  lengthOff: "Alarm: the tool is not as long as its row has it; nothing was written. Is it chipped, or set wrong?",
};

const signed = (mm: number, unit: LengthUnit): string => `${mm > 0 ? "+" : ""}${showLength(mm, scales[unit])}`;

/** What was added to which register by a gauging; null where nothing was. */
export function gaugeWrote(
  { register, changeMm, outcome }: Pick<ProgramGauged, "register" | "changeMm" | "outcome">,
  unit: LengthUnit,
): string | null {
  return outcome === "written" && register !== null && changeMm !== null
    ? `${registerWords(register)} ${signed(changeMm, unit)}`
    : null;
}

/** One gauging, in a line. */
export function gaugedWords(one: Omit<ProgramGauged, "part" | "cut" | "reallyMm">, unit: LengthUnit): string {
  const length = (mm: number) => showLength(mm, scales[unit]);
  const wrote = gaugeWrote(one, unit);
  const outcome = wrote ?? gaugeOutcomeWords[one.outcome];
  return `${gaugedWhat(one)} gauged ${length(one.mm)}, wanted ${length(one.targetMm)}: ${outcome}.`;
}
