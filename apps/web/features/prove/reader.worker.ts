import { programFacts, programPaths, type Dialect, type ProgramFacts, type Stroke } from "@probe-lane/core/gcode";

export interface ReadRequest {
  readonly id: number;
  readonly text: string;
  readonly dialect: Dialect;
  readonly startUnits: "mm" | "inch";
  readonly blockDelete: boolean;
}
export interface ReadReply {
  readonly id: number;
  readonly facts: ProgramFacts;
  readonly strokes: readonly Stroke[];
  /** False where the drawing ends before the program does. */
  readonly isDrawnWhole: boolean;
}

/** More moves than this are not drawn: nobody could tell them apart. */
export const DRAWN_MOVES = 4000;

self.onmessage = ({ data }: MessageEvent<ReadRequest>) => {
  const { id, text, dialect, startUnits, blockDelete } = data;
  const options = { startUnits, blockDelete, isExpanding: true };
  const { strokes, isWhole } = programPaths(text, dialect, options, DRAWN_MOVES);
  self.postMessage({
    id,
    facts: programFacts(text, dialect, options),
    strokes,
    isDrawnWhole: isWhole,
  } satisfies ReadReply);
};
