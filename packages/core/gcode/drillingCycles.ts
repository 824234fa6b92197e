import { Wrong } from "./diagnostics";
import { type DrillingCycle, type Level, type Rig } from "./rig";

const CODES: ReadonlySet<number> = new Set([73, 76, 81, 82, 83, 84, 85, 86, 87, 88, 89]);
const PECKS: ReadonlySet<number> = new Set([73, 83]);
const BREAKS_CHIPS = 73;
/** How far a peck goes back to break a chip, and over how much it comes down again before it is fed, mm. */
const PECK_BACK_MM = 0.5;
const FEEDS_BACK: ReadonlySet<number> = new Set([84, 85, 89]);
const FROM_BELOW = 87;

export const isDrilling = (code: number): boolean => CODES.has(code);

/**
 * A hole, or `L` of them: rapid in X Y, rapid to R, feed to Z, then back: by rapid to R (G99) or to the initial level
 * (G98), the higher one; G84, G85 and G89 feed to R first; G87 comes from below and goes to the initial level.
 */
export function drillCycle(rig: Rig, held: DrillingCycle, named: number): void {
  const said = { depth: rig.length("Z"), retract: rig.length("R"), peck: rig.length("Q") };
  const level = (value: number | null, before: Level | undefined): Level | undefined =>
    value === null
      ? before
      : { value: rig.isIncremental ? value : value + (rig.shift[2] ?? 0), isStep: rig.isIncremental };
  const depth = level(said.depth, held.depth);
  const retract = level(said.retract, held.retract);
  const peck = said.peck ?? held.peck;
  rig.drilling = { ...held, depth, retract, peck };
  if (named === 0) return;
  if (!depth || !retract || (PECKS.has(held.code) && peck === undefined)) throw new Wrong("word-missing");
  const high = retract.isStep ? held.initial + retract.value : retract.value;
  const low = depth.isStep ? high + depth.value : depth.value;
  if (Number.isNaN(high) || Number.isNaN(held.initial)) throw new Wrong("position-unknown");
  if (held.code === FROM_BELOW ? high >= low : low > high) throw new Wrong("cycle-levels");
  const times = rig.said.value("L") ?? 1;
  rig.repeat(times);
  for (let i = 0; i < times; i++) hole(rig, { ...held, peck }, named & 3, high, low);
}

/** Down in pecks: after each one up a little (G73) or out to R and down again (G83). */
function pecked(rig: Rig, { code, peck }: DrillingCycle, [x, y]: readonly [number, number], high: number, low: number) {
  const back = PECK_BACK_MM * rig.mm;
  const step = peck ?? 0;
  const pecks = step > 0 ? Math.ceil((high - low) / step - 1e-9) : 1;
  rig.repeat(pecks);
  for (let i = 1; i <= pecks; i++) {
    const to = i === pecks ? low : high - i * step;
    rig.go("feed", [x, y, to], 4);
    if (i === pecks) return;
    if (code === BREAKS_CHIPS) rig.go("rapid", [x, y, to + back], 4);
    else {
      rig.go("rapid", [x, y, high], 4);
      rig.go("rapid", [x, y, Math.min(high, to + back)], 4);
    }
  }
}

function hole(rig: Rig, cycle: DrillingCycle, named: number, high: number, low: number): void {
  const { code, initial } = cycle;
  const [x = NaN, y = NaN] = rig.goal();
  if (Number.isNaN(x) || Number.isNaN(y)) throw new Wrong("position-unknown");
  rig.go("rapid", [x, y, rig.place[2] ?? NaN], named);
  rig.go("rapid", [x, y, high], 4);
  if (rig.isExpanding && PECKS.has(code)) pecked(rig, cycle, [x, y], high, low);
  else rig.go("feed", [x, y, low], 4);
  const top = code === FROM_BELOW ? initial : Math.max(initial, high);
  const goesUp = code === FROM_BELOW || rig.returnsToInitial;
  if (FEEDS_BACK.has(code)) {
    rig.go("feed", [x, y, high], 4);
    if (goesUp && top > high) rig.go("rapid", [x, y, top], 4);
  } else rig.go("rapid", [x, y, goesUp ? top : high], 4);
}
