/** A list as it stands in its file: cells by line, blank lines left out, lines counted from 1 as an editor counts. */
export interface RosterTable {
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[];
}
