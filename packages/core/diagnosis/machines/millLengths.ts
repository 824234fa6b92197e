import { millLengthSchools, type MillLengthSchool } from "../../exercises/schools";
import { merged, wholeTerm, type CauseId, type Provenance, worthNaming } from "../cause";
import { sumOf } from "../standing";
import type { MillTrace } from "../trace";
import { type SplitSchool, masterOf } from "./millSplit";
import { rowProvenance } from "./millRow";
import { workProvenance } from "./millWork";

/** What it takes to say a provenance: a school that leaves hardly anything to be said is the one that was followed. */
const costOf = ({ terms }: Provenance): number =>
  worthNaming(terms).reduce((sum, { id }) => sum + (UNSETTLED.has(id) ? 1.5 : 1), 0);

const IN_WORK_Z: ReadonlySet<MillLengthSchool> = new Set(["offset-per-tool", "master"]);

const UNSETTLED: ReadonlySet<CauseId> = new Set([
  "neverSet",
  "takenBack",
  "noContact",
  "otherFigure",
  "otherReading",
  "schoolsMixed",
  "contactOff",
]);

/**
 * Everything of a tool's Z: its row and the work offset that it works in. Where the school is free, and the one that
 * was read leaves it unsettled, by the school that says it with the fewest terms: all of them end in the same sum.
 */
export function sumProvenance(trace: MillTrace, tool: number, read: SplitSchool, closureMm: number): Provenance {
  const first = sumBySchool(trace, tool, read, closureMm);
  const isFree = !trace.final.setup.isSchoolPrescribed;
  if (!isFree || worthNaming(first.terms).every(({ id }) => !UNSETTLED.has(id))) return first;
  // where a tool is left at zero, its whole sum may stand in work Z, whether that is allowed or not
  const { lengthSchools, targets } = trace.final.setup;
  const isAtZero = targets.lengths.some((one) => sumOf(trace.final, [`H${one}`, `HW${one}`]) === 0);
  const others = millLengthSchools
    .filter((school) => lengthSchools.includes(school) || (isAtZero && IN_WORK_Z.has(school)))
    .filter((school) => school !== read.school)
    .map((school) => sumBySchool(trace, tool, { school, master: masterOf(trace) }, closureMm));
  return others.reduce((best, one) => (costOf(one) < costOf(best) - 1e-9 ? one : best), first);
}

function sumBySchool(trace: MillTrace, tool: number, split: SplitSchool, closureMm: number): Provenance {
  const row = rowProvenance(trace, tool, split);
  const work = workProvenance(trace, tool, split);
  const isUnset = ({ terms }: Provenance) => terms.some(({ id }) => id === "neverSet" || id === "takenBack");
  // what was only left where it was sets nothing
  if (isUnset(row) && work.contact === null)
    return wholeTerm(
      row.terms.find(({ id }) => id === "takenBack")?.id ?? "neverSet",
      closureMm,
      row.terms[0]?.seq ?? 0,
    );
  return {
    belongs: row.contact ? row.belongs : work.belongs,
    contact: row.contact ?? work.contact,
    terms: merged([...row.terms, ...work.terms]),
    open: row.open ?? work.open,
    ownMm: row.ownMm + work.ownMm,
  };
}
