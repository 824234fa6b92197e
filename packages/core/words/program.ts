import { surfaces, type Surface } from "../exercises/scene";
import type { Diagnostic, DiagnosticCode } from "../gcode";
import type { ProgramProof } from "../machines/proof";
import { MOST_MOVES, type Contact, type ContactKind } from "../proving";
import { surfaceWords } from "./names";
import { scales, showLength, type LengthUnit } from "../units";

/** What is wrong with a line of a program, and what to do; `said` is what stands there. */
const SENTENCES: Record<DiagnosticCode, (said: string) => string> = {
  "unknown-letter": (said) => `This machine knows no word “${said}”: take it out, or write the letter that is meant.`,
  "unreadable-number": (said) => `“${said}” is no number: digits, at most one point, a sign before them.`,
  bracket: () => "A bracket or a comment is opened here and not shut: shut it.",
  expression: (said) =>
    said === ""
      ? "This sum or statement cannot be read: check its brackets, and that it is complete."
      : `The sum cannot be read at “${said}”: check its brackets and names.`,
  loop: () => "WHILE … DO and END do not pair: every DO 1, 2 or 3 wants an END with its number, one within the other.",
  "unknown-code": (said) =>
    `This machine has no code ${said === "" ? "of this number" : said}: take it out, or write the one that is meant.`,
  "two-of-a-group": (said) =>
    `${said === "" ? "This code" : said} and another of its kind stand in one block: only one of them can hold.`,
  "word-twice": (said) => `${said} says the same thing twice in one block: leave one of them.`,
  "word-missing": () =>
    "A word is missing that this code needs: Z and R of a cycle, Q of pecks, P of a call, both ends of a turning cycle.",
  "feed-missing": () =>
    "It is to be fed here and no feed has been given: write F. After another kind of feed it has to be given anew.",
  "arc-without-center": () => "The arc has neither R nor a center: write R, or the steps to the center.",
  "arc-radius": () => "The radius is too small to reach from start to end, or start and end are one place: correct R.",
  "arc-ends-differ": () =>
    "Start and end lie at different distances from the center: correct the steps to the center, or the end.",
  "comp-in-arc": () => "Compensation begins or ends in an arc: let the first move after it be a straight one.",
  gouge: () =>
    "With this radius beside it the tool would turn back into the part here: the tool is too large for the corner, or its D row holds too much.",
  "arc-too-small": () =>
    "This inside arc is smaller than the radius beside it: take a smaller tool, or correct the D row that is called.",
  "cycle-levels": () =>
    "The heights of this cycle are the wrong way round: Z has to lie below R, in a cycle from below above it.",
  "tool-missing": () => "A tool is to be changed and none has been named: write T.",
  "offset-row-missing": () => "An offset is called without its row: write H with a length, D with a compensation.",
  "position-unknown": () => "Where the tool stands is not known here: give the place of each axis first.",
  "program-missing": () => "There is no program of this number here: load it, or correct P.",
  "target-missing": () => "There is no block of this number: correct it, or number the block that is meant.",
  nesting: () => "Programs call one another more than four deep: call fewer within one another.",
  endless: () => "The program goes back here for ever: let something change that ends it.",
  "division-by-zero": () => "Something is divided by zero here: check the variables of the sum.",
  value: () =>
    "This value cannot be: a root below zero, the tangent of a right angle, or a variable that does not exist.",
};

/** One sentence for a diagnostic of a program. */
export const programWords = ({ code, said = "" }: Pick<Diagnostic, "code"> & { said?: string }): string =>
  SENTENCES[code](said);

/** A surface of the bench by its name; whatever else a solid is called, as it is called. */
const thing = (id: string): string => `the ${surfaces.find((one) => one === id) ? surfaceWords(id as Surface) : id}`;

const CONTACTS: Record<ContactKind, (what: string) => string> = {
  "past-travel": (what) => `${what.toUpperCase()} would have run past the end of its travel`,
  "tool-in-fixture": (what) => `the tool would have run into ${thing(what)}`,
  "holder-in-fixture": (what) => `the holder would have run into ${thing(what)}`,
  "tool-in-chuck": () => "the tool would have run into the chuck",
  "rapid-in-stock": () => "the tool would have gone into the blank in rapid",
  "fed-with-spindle-stopped": () => "the tool would have been fed into the blank with the spindle standing",
  "wrong-direction": () => "the tool would have been fed into the blank turning backwards",
  "shank-in-stock": () => "the shank, which does not cut, would have run into the blank",
  "holder-in-stock": () => "the holder would have run into the blank",
};

/** What would have been struck. */
export const contactName = ({ kind, with: what }: Pick<Contact, "kind" | "with">): string => CONTACTS[kind](what);

/** What would have been struck, and where the tip stood then, in the part's own frame. */
function contactWords({ line, kind, with: what, at }: Contact, unit: LengthUnit): string {
  const axes = at.length === 2 ? ["X", "Z"] : ["X", "Y", "Z"];
  const place = axes.map((axis, i) => `${axis} ${showLength(at[i] ?? 0, scales[unit])}`).join(", ");
  return `Line ${line}: ${contactName({ kind, with: what })}, with the tip at ${place} from the part’s true zero.`;
}

/** What came of a program run with a lane's registers, in a sentence. */
export function proofWords(proof: ProgramProof, unit: LengthUnit): string {
  switch (proof.kind) {
    case "clear":
      return "It ran to its end, and nothing was touched that it does not cut.";
    case "contact":
      return contactWords(proof.contact, unit);
    case "wrong":
      return `Line ${proof.line}: ${programWords(proof)}`;
    case "noTool":
      return `Line ${proof.line} calls tool ${proof.tool}, and this setup has none of that number: correct T, or set that tool.`;
    case "notRun":
      return `Line ${proof.line} says ${proof.code}, which is not followed here yet, so that nothing can be said of the way: run the program without it.`;
    case "tooLong":
      return `Up to line ${proof.line} it makes ${MOST_MOVES.toLocaleString("en")} moves, and no more are run here: run a part of it.`;
    case "otherTool":
      return `Line ${proof.line} calls tool ${proof.tool}, whose shape is not run here yet: on a lathe only turning, parting and boring tools are. Run the program without it.`;
    case "noRegister":
      return `The program calls ${proof.register}, and this machine has no such register: correct the word that calls it.`;
  }
}
