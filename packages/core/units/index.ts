/** Lengths: integer counts of a machine's least increment, and the text that people read and type. */
export {
  countsFromMm,
  formatCounts,
  formatMm,
  formatSignedCounts,
  formatUm,
  mmFromCounts,
  type Counts,
} from "./counts";
export { parseLengthMm, type LengthRefusal } from "./parse";
export {
  mmPerUnit,
  scales,
  showCounts,
  showLength,
  showSignedCounts,
  toCounts,
  toMm,
  type LengthUnit,
  type Scale,
} from "./scale";
