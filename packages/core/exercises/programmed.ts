import { drawBetween, drawUnit } from "../random";
import type { Exercise } from "./schema";
import type { Cutting, Draw, ProgramFault, StoredProgram } from "./setup";

type Programmed = NonNullable<Exercise["program"]>;

const ENDS = /\r\n|\r|\n/;

/** The store with one fault in the program of the part, and which lines it stands in. */
function withFault(
  { number, store }: Programmed,
  fault: Programmed["faults"][number],
): { store: readonly StoredProgram[]; fault: ProgramFault } {
  const lines: number[] = [];
  const faulty = store.map((one) => {
    if (one.number !== number) return one;
    const text = one.text
      .split(ENDS)
      .map((line, at) => {
        const swap = fault.lines.find(({ right }) => right.trim() === line.trim());
        if (!swap) return line;
        lines.push(at + 1);
        return swap.wrong;
      })
      .join("\n");
    return { ...one, text };
  });
  return {
    store: faulty,
    fault: { kind: fault.kind, lines, tool: fault.tool ?? null, right: fault.lines.map(({ right }) => right) },
  };
}

/** What cutting does on one lane: each tool that the program works with gives way and wears by its own. */
function cuttingOf({ cutting, operations }: Programmed, seed: string): Cutting {
  const { springPerMm = [0, 0], springCapMm = 0, wearMm = [0, 0], warmMm = [0, 0] } = cutting ?? {};
  const byTool = ([low, high]: readonly [number, number], what: string) =>
    Object.fromEntries(operations.map(({ tool }) => [tool, tenthsOfMicron(drawBetween(low, high, seed, what, tool))]));
  return {
    springPerMm: byTool(springPerMm, "spring"),
    springCapMm,
    wearMm: byTool(wearMm, "edge wear"),
    warmMm: tenthsOfMicron(drawBetween(warmMm[0], warmMm[1], seed, "warm machine")),
  };
}
const tenthsOfMicron = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** The programs of an exercise on a drawn lane: none of them faulty in the stated share, else one of its faults. */
export function withPrograms(exercise: Exercise, seed: string, drawn: Draw): Draw {
  const { program } = exercise;
  if (!program) return drawn;
  const isSound = program.faults.length === 0 || drawUnit(seed, "program") < program.soundShare;
  const chosen = program.faults[Math.floor(drawBetween(0, program.faults.length - 1e-9, seed, "program fault"))];
  const { store, fault } = isSound || !chosen ? { store: program.store, fault: null } : withFault(program, chosen);
  return {
    ...drawn,
    setup: {
      ...drawn.setup,
      programs: store,
      program: program.number,
      operations: program.operations,
      ...(program.features.length > 0 ? { features: program.features } : {}),
      ...(program.blanks === undefined ? {} : { blanks: program.blanks }),
      ...(program.gauging ? { gauging: program.gauging } : {}),
      proving: program.proving,
      ...(program.signOff ? { signsOff: true } : {}),
    },
    truth: { ...drawn.truth, programFault: fault, ...(program.cutting ? { cutting: cuttingOf(program, seed) } : {}) },
  } as Draw;
}
