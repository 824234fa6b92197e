import { hangings, restPlaces, type AskKind } from "../../lane/programNames";
import { parseLengthMm } from "../../units";

const MATTERS = new RegExp(`^\\d+ (${restPlaces.join("|")})$`);

/** Whether an answer can be read at all, before anybody says whether it is right. */
export function canBeRead(ask: AskKind, said: string, unit: "mm" | "inch"): boolean {
  if (ask === "units") return said === "mm" || said === "inch";
  if (ask === "offset") return /G\s*5[4-9]/i.test(said);
  if (ask === "lift" || ask === "held" || ask === "deepest") return parseLengthMm(said, unit).ok;
  if (ask === "spindle") return said === "stopped" || /^(forward|reverse) \d+$/.test(said);
  if (ask === "matters") return said === "none" || MATTERS.test(said);
  if (ask === "hangs") return hangings.some((one) => one === said);
  if (ask === "travel") return /^(none|[xyz]([,\s]+[xyz])*)$/i.test(said);
  if (ask === "swing") return /^none$/i.test(said) || parseLengthMm(said, unit).ok;
  return /\d/.test(said) || /\bnone\b/i.test(said);
}
