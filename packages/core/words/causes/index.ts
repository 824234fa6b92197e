import type { CauseId, MistakeId, Term } from "../../diagnosis";
import type { Setup } from "../../exercises";
import type { RegisterRuling } from "../../grading";
import { anywhere } from "./anywhere";
import { lengths } from "./lengths";
import { places } from "./places";
import type { CauseWords } from "./telling";
import { turning } from "./turning";

/** The words of a mistake that has a signature: what it predicts, and what tells it from others. */
type MistakeWords = CauseWords & Required<Pick<CauseWords, "equation" | "check">>;

export const mistakeWords: Record<MistakeId, MistakeWords> = { ...places, ...lengths, ...turning, ...anywhere };
const causes: Record<CauseId, CauseWords> = { ...places, ...lengths, ...turning, ...anywhere };

/** What a mistake is called. */
export const causeName = (id: CauseId): string => causes[id].name;

/** What a mistake is called where it stands in a headline. */
export const headlineOf = (id: CauseId): string => causes[id].headline ?? causes[id].name;

/** The question that tells a mistake from others; null where a log alone can show it. */
export const questionOf = (id: CauseId): string | null => causes[id].check ?? null;

/** What a cause means, in the student's numbers; a mistake that has no sentence of its own says what to look at. */
export const explain = (term: Term, value: RegisterRuling, sheet: Setup): string =>
  (causes[term.id].told ?? (() => causes[term.id].check ?? ""))(term, value, sheet);
