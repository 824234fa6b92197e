import { type Stretch } from "../../proving";

/** A fed way as it was really gone, with what hung there. */
export interface CutWay {
  readonly hangs: number | null;
  readonly stretches: readonly Stretch[];
}
