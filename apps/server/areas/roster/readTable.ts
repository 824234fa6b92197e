import Papa from "papaparse";
import readExcel from "read-excel-file/node";
import { openPackage, withRoles } from "./readPackage";
import type { RosterTable } from "./rosterTable";

/** A spreadsheet is a packed folder; its first bytes say so. */
const isPacked = (bytes: Buffer): boolean => bytes.length > 4 && bytes.readUInt32LE(0) === 0x04034b50;
/** The spreadsheets of before, which nothing here opens. */
const isOldSheet = (bytes: Buffer): boolean => bytes.length > 8 && bytes.readUInt32BE(0) === 0xd0cf11e0;

/**
 * Text in whatever it was written: by its mark where it has one; every other byte empty is UTF-16; what is not UTF-8 is
 * the old one-byte set of western Europe, which anything can be read as.
 */
export function decoded(bytes: Buffer): string {
  const as = (encoding: string, isStrict = false) => new TextDecoder(encoding, { fatal: isStrict }).decode(bytes);
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return as("utf-16le");
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return as("utf-16be");
  const start = bytes.subarray(0, 200);
  const emptyAt = (place: 0 | 1) => start.filter((byte, at) => at % 2 === place && byte === 0).length;
  if (emptyAt(1) > start.length / 5) return as("utf-16le");
  if (emptyAt(0) > start.length / 5) return as("utf-16be");
  try {
    return as("utf-8", true);
  } catch {
    return as("windows-1252");
  }
}

/** A first line that only tells spreadsheets how the cells are kept apart. */
const TELLS_SEPARATOR = /^sep=(.)\r?\n/i;

/** What keeps cells apart, where the first line leaves no doubt: commas in names must not decide. Empty for a guess. */
function separatorOf(body: string): string {
  const first = body.split(/\r\n|\r|\n/).find((line) => line.trim() !== "") ?? "";
  return first.includes(",") ? "" : (["\t", ";", "|"].find((one) => first.includes(one)) ?? "");
}

/** A cell without what only told a spreadsheet to take it as text: ="0042" or '0042. */
const asText = (cell: string): string => cell.trim().replace(/^(?:="(.*)"|'(\d+))$/, "$1$2");

export function readText(text: string): RosterTable {
  const plain = text.replace(/^\uFEFF/, "");
  const told = TELLS_SEPARATOR.exec(plain);
  const body = told ? plain.slice(told[0].length) : plain;
  const rows: { line: number; cells: string[] }[] = [];
  let line = told ? 2 : 1;
  let from = 0;
  Papa.parse<string[]>(body, {
    delimiter: told?.[1] ?? separatorOf(body),
    step: ({ data, meta }) => {
      const cells = data.map(asText);
      if (cells.some((cell) => cell !== "")) rows.push({ line, cells });
      // a cell in quotes may go over several lines
      line += body.slice(from, meta.cursor).split(/\r\n|\r|\n/).length - 1;
      from = meta.cursor;
    },
  });
  return { rows };
}

const cellText = (cell: unknown): string => {
  if (cell instanceof Date) return cell.toISOString().slice(0, 10);
  return typeof cell === "string" || typeof cell === "number" || typeof cell === "boolean" ? String(cell).trim() : "";
};

/** A packed folder that is no spreadsheet says so by what is in it. */
const IS_SHEET = "xl/workbook.xml";

/**
 * The list in a file or in typed text; a sentence where it cannot be read at all. The first sheet of a spreadsheet; of
 * a package the people with their roles.
 */
export async function readTable(source: Buffer | string): Promise<RosterTable | { readonly problem: string }> {
  if (typeof source === "string") return readText(source);
  if (isOldSheet(source))
    return { problem: "That is a spreadsheet of the old kind (.xls): save it as .xlsx or as CSV and choose it again." };
  if (!isPacked(source)) return readText(decoded(source));
  try {
    if (!source.includes(IS_SHEET)) {
      const lists = openPackage(source);
      if (!lists) return { problem: "There is no users.csv in that package: choose the list itself." };
      return withRoles(readText(decoded(lists.users)), lists.roles && readText(decoded(lists.roles)));
    }
    const [sheet] = await readExcel(source);
    const rows = (sheet?.data ?? []).map((row, at) => ({ line: at + 1, cells: row.map(cellText) }));
    return { rows: rows.filter(({ cells }) => cells.some((cell) => cell !== "")) };
  } catch {
    return { problem: "That file is no spreadsheet that can be read: save it as .xlsx or as CSV and choose it again." };
  }
}
