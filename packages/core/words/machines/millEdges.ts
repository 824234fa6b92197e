import { edgeOf, type Setup } from "../../exercises";
import type { RegisterRuling } from "../../grading";
import type { InstrumentName } from "../../instruments";
import { scales } from "../../units";
import { show } from "../causes/telling";
import { axisNames, instrumentWords } from "../names";

const contactMm = (value: RegisterRuling, sheet: Setup): number =>
  value.contact ? (value.contact.counts / scales[sheet.unit].countsPerUnit) * (sheet.unit === "mm" ? 1 : 25.4) : 0;

export function explainRadius(value: RegisterRuling, sheet: Setup): string {
  if (value.target.kind !== "place" || !value.contact || !value.method) return "";
  const at = contactMm(value, sheet);
  const r = Math.abs(value.method.offMm);
  const by =
    value.method.by === "edgeFinder"
      ? "At the kick"
      : `At the contact of the ${instrumentWords(value.method.by as InstrumentName)}`;
  return (
    `${by} the spindle axis stood at ${show(at, sheet)}. The edge lies one tip radius further toward the part: ` +
    `${show(at, sheet)} ${value.method.offMm > 0 ? "+" : "−"} ${show(r, sheet)} = ${show(at + value.method.offMm, sheet)}.`
  );
}

export function explainEdgeWork(value: RegisterRuling, sheet: Setup): string {
  const axis = value.target.axis === "y" ? "y" : "x";
  const edge = sheet.kind === "mill" && value.target.kind === "place" ? edgeOf(sheet, axis) : null;
  if (!edge) return "";
  return `That edge is ${axisNames[axis]} ${show(edge.edgeWorkMm, sheet)}, not zero: the datum lies ${show(Math.abs(edge.edgeWorkMm), sheet)} inside of it.`;
}
