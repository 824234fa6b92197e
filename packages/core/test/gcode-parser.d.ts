declare module "gcode-parser" {
  /** Every line of a text with its words as letter and number. */
  export function parseStringSync(text: string): { line: string; words: [string, number][] }[];
}
