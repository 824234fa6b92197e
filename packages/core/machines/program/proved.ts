import type { ProvingSchool } from "../../exercises/schools";
import type { GateRow } from "../../lane/gates";
import type { LaneBase } from "../../lane/state";
import { toMm } from "../../units/scale";
import { isAllLookedUp } from "../../lane/programDesk";
import { LIFT_MM } from "../../lane/programNames";

type Done = Pick<LaneBase, "program" | "registers" | "scale"> & {
  readonly setup: Pick<LaneBase["setup"], "programs" | "proving" | "blanks">;
};

/** How much higher than now the common Z stood when a run began, mm. */
const liftMm = ({ registers, scale }: Done, before: LaneBase): number =>
  toMm(before.registers.common.z - registers.common.z, scale);

/** Runs of the program as it stands now that came to their end. */
const ended = ({ program }: Done) =>
  program.done.filter(
    ({ run, why }) => why === "end" && (run.before as LaneBase).program.held?.lines === program.held?.lines,
  );

/** Which schools of proving were done, as the log has it: that they were, never whether what was said is right. */
function isProved(done: Done, school: ProvingSchool): boolean {
  const { program } = done;
  switch (school) {
    case "lookedUp":
      return isAllLookedUp(program);
    case "deepestBeside":
      return program.deepest.length > 0;
    case "airRun":
      return ended(done).some(({ run }) => liftMm(done, run.before as LaneBase) >= LIFT_MM);
    case "gapCompared":
      return program.gaps.length > 0;
  }
}

/** Whether the program as it stands was run whole with the registers as they stand, and not in the air. */
const isRun = (done: Done): boolean => ended(done).some(({ run }) => liftMm(done, run.before as LaneBase) < LIFT_MM);

/** Schools of proving that the exercise asks for, each done or not, as the log has it. */
export const schoolsProved = (done: Done): { readonly school: ProvingSchool; readonly isDone: boolean }[] =>
  (done.setup.proving ?? []).map((school) => ({ school, isDone: isProved(done, school) }));

/** A part was measured and called something: it tells more of the registers than any check before it. */
export const isPartCalled = ({ program }: Pick<Done, "program">): boolean => program.parts.judged.length > 0;

export type ProgramGateKind = "programHeld" | "proved" | "ran" | "partJudged" | "partAgain";

/** The gates of a program, in the order of the work; none where the exercise has none. */
export function addProgramGates(row: Pick<GateRow<ProgramGateKind>, "add">, done: Done): void {
  const { programs, proving = [] } = done.setup;
  if (!programs) return;
  row.add("programHeld", done.program.held !== null);
  if (proving.length > 0)
    row.add(
      "proved",
      schoolsProved(done).every(({ isDone }) => isDone),
    );
  // a part that was measured and called something was run, whatever was set after it
  const isJudged = isPartCalled(done);
  row.add("ran", isRun(done) || isJudged);
  if (done.setup.blanks !== undefined) row.add("partJudged", isJudged);
  // by what was said of it: a part that was called good needs no other
  const { judged } = done.program.parts;
  if ((done.setup.blanks ?? 1) > 1)
    row.add(
      "partAgain",
      judged.some(({ part, verdict }) => part > 1 || verdict === "good"),
    );
}
