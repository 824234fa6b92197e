import type { ExpectedLine } from "./bias";
import { latheExpectation } from "./machines/latheExpectation";
import { millExpectation } from "./machines/millExpectation";
import type { LatheSchool, MillLengthSchool } from "./schools";
import type { Draw } from "./setup";

/**
 * What every register of a lane should hold when all is done right in a school, with the bias and the uncertainty of
 * the method; null when the exercise does not allow that school. For authors and the command line: it knows the truth.
 */
export const expectationOf = (drawn: Draw, school: MillLengthSchool | LatheSchool | null): ExpectedLine[] | null =>
  drawn.kind === "mill" ? millExpectation(drawn, school) : latheExpectation(drawn, school);
