import type { CauseId, Term } from "@probe-lane/core/diagnosis";
import type { RegisterRuling, Ruling } from "@probe-lane/core/grading";
import { formatUm, scales, showLength } from "@probe-lane/core/units";
import { causeName, targetWords } from "@probe-lane/core/words";

interface ChainStep {
  readonly amount: string;
  /** The figure that was stated and the one that belonged; null where the step was no figure. */
  readonly figure: { readonly said: string; readonly belongs: string } | null;
}
interface ChainRow {
  readonly key: string;
  readonly name: string;
  readonly contact: { readonly figure: string; readonly atMs: number } | null;
  /** By column; null where this value has no such step. */
  readonly steps: readonly (ChainStep | null)[];
  readonly own: string;
  /** What the method is expected to leave, and how sure that is. */
  readonly expected: string;
  readonly landed: string;
}
export interface ChainView {
  readonly columns: readonly { readonly id: CauseId; readonly label: string }[];
  readonly hasContact: boolean;
  readonly rows: readonly ChainRow[];
}

/** Less than this is part of what the method leaves, mm. */
const LEAST_MM = 0.0005;
/** Steps in the order of the work: the move since the contact, the figure told, other rows; last the contact's own. */
const MOVES: ReadonlySet<CauseId> = new Set([
  "capturedAfterLeaving",
  "notOverMiddle",
  "dialTurnShort",
  "dialNotAtZero",
]);
const placeOf = ({ id, figure, register }: Term): number => {
  if (MOVES.has(id)) return 0;
  if (figure) return 1;
  return register ? 2 : 3;
};

/**
 * The way of values of one cause from the contact to where the tool landed, a column for each thing that happened: all
 * of a row adds up to what it is off by. Null where nothing was kept of it, or where the value is no length.
 */
export function chainView(values: readonly RegisterRuling[], sheet: Ruling["sheet"]): ChainView | null {
  const scale = scales[sheet.unit];
  const signed = (mm: number): string => `${mm > 0 ? "+" : ""}${showLength(mm, scale)}`;
  const kept = values.filter(({ provenance, target }) => provenance !== null && target.unit !== "degree");
  const termsOf = ({ provenance }: RegisterRuling): readonly Term[] =>
    (provenance?.terms ?? []).filter(({ id, mm }) => id !== "rounding" && Math.abs(mm) >= LEAST_MM);
  const places = new Map<CauseId, number>();
  for (const term of kept.flatMap(termsOf))
    places.set(term.id, Math.min(places.get(term.id) ?? Infinity, placeOf(term)));
  const columns = [...places].sort(([, a], [, b]) => a - b).map(([id]) => ({ id, label: causeName(id) }));
  if (columns.length === 0) return null;
  const hasContact = kept.some(({ contact }) => contact !== null);
  // one thing that is the whole of it is said by the headline
  if (columns.length === 1 && kept.length === 1 && !hasContact) return null;
  const rows = kept.map((value): ChainRow => {
    const terms = termsOf(value);
    const steps = columns.map(({ id }): ChainStep | null => {
      const own = terms.filter((term) => term.id === id);
      if (own.length === 0) return null;
      const figure = own.find((term) => term.figure)?.figure;
      return {
        amount: signed(own.reduce((sum, { mm }) => sum + mm, 0)),
        figure: figure
          ? { said: showLength(figure.saidMm, scale), belongs: showLength(figure.belongsMm, scale) }
          : null,
      };
    });
    const ownMm = value.closureMm - terms.reduce((sum, { mm }) => sum + mm, 0);
    return {
      key: value.target.id,
      name: targetWords(value.target),
      contact: value.contact
        ? { figure: showLength(value.contact.counts * scale.countMm, scale), atMs: value.contact.atMs }
        : null,
      steps,
      own: signed(ownMm),
      expected: `${formatUm(value.biasMm)} ± ${formatUm(2 * value.uMm).replace("+", "")} µm`,
      landed: signed(value.closureMm),
    };
  });
  return { columns, hasContact, rows };
}
