/** Blocks of the sets, in steps of the set: half a micrometre, or a ten-thousandth of an inch. */
const run = (first: number, step: number, count: number): number[] =>
  Array.from({ length: count }, (_, n) => first + n * step);
/** `middle` and `coarse` are steps: the middle blocks are multiples of the one, the coarse ones of the other. */
const SETS = {
  "inch-81": {
    perUnit: 10_000,
    middle: 10,
    coarse: 500,
    fineBlocks: run(1001, 1, 9),
    middleBlocks: run(1010, 10, 49),
    coarseBlocks: [...run(500, 500, 19), ...run(10_000, 10_000, 4)],
  },
  "metric-88": {
    perUnit: 2000,
    middle: 20,
    coarse: 1000,
    fineBlocks: [2001, ...run(2002, 2, 9)],
    middleBlocks: run(2020, 20, 49),
    coarseBlocks: [...run(1000, 1000, 19), ...run(20_000, 20_000, 10)],
  },
} as const;
export const gaugeSets = ["inch-81", "metric-88"] as const;
export type GaugeSet = (typeof gaugeSets)[number];

const blocksOf = (set: GaugeSet): readonly number[] => {
  const { fineBlocks, middleBlocks, coarseBlocks } = SETS[set];
  return [...fineBlocks, ...middleBlocks, ...coarseBlocks];
};

/** Sizes of the blocks of a set, smallest first, in its own unit. */
export const readGaugeSet = (set: GaugeSet): number[] =>
  blocksOf(set)
    .map((steps) => steps / SETS[set].perUnit)
    .sort((a, b) => a - b);

export interface WearBlocks {
  readonly count: number;
  readonly size: number;
}
export type GaugeStackAnswer =
  | { possible: true; blocks: number[]; wear: number[]; total: number }
  | { possible: false; below: number | null; above: number | null };

/** More blocks than a set has. */
const NEVER = 255;
const ON_GRID = 1e-6;

/** Every sum of some blocks that are multiples of one step: with how few, and of those the largest blocks. */
interface Sums {
  readonly step: number;
  readonly total: number;
  /** Least number of blocks for a sum, by sum / step; NEVER where there is none. */
  readonly least: Uint8Array;
  /** The blocks of a sum, largest first. */
  blocks(sum: number): number[];
}

function sumsOf(blocks: readonly number[], step: number): Sums {
  const sorted = [...blocks].sort((a, b) => b - a);
  const total = sorted.reduce((sum, block) => sum + block, 0);
  const last = total / step;
  const least = new Uint8Array(last + 1).fill(NEVER);
  least[0] = 0;
  const takes = sorted.map(() => new Uint8Array((last >> 3) + 1));
  // block by block from the smallest; which block the best one takes is kept as a bit
  for (let place = sorted.length - 1; place >= 0; place--) {
    const block = (sorted[place] ?? 0) / step;
    const taken = takes[place];
    for (let sum = last; taken && sum >= block; sum--) {
      const withIt = (least[sum - block] ?? NEVER) + 1;
      // as few with it as without: the larger block goes first
      if (withIt > (least[sum] ?? NEVER) || withIt >= NEVER) continue;
      least[sum] = withIt;
      taken[sum >> 3] = (taken[sum >> 3] ?? 0) | (1 << (sum & 7));
    }
  }
  return {
    step,
    total,
    least,
    blocks: (sum) => {
      const chosen: number[] = [];
      let left = sum / step;
      for (const [place, block] of sorted.entries()) {
        if (left < block / step || ((takes[place]?.[left >> 3] ?? 0) & (1 << (left & 7))) === 0) continue;
        chosen.push(block);
        left -= block / step;
      }
      return chosen;
    },
  };
}

interface Tables {
  /** Sums of the finest blocks that can be made. */
  readonly fine: readonly number[];
  readonly fineSums: Sums;
  readonly middle: Sums;
  readonly coarse: Sums;
}
/** Places of a table whose value is wanted. */
function indicesOf(table: Uint8Array, isWanted: (value: number) => boolean): number[] {
  const found: number[] = [];
  table.forEach((value, place) => {
    if (isWanted(value)) found.push(place);
  });
  return found;
}

const MOST_TABLES = 16;
const tables = new Map<string, Tables>();

/** What can be made of a set without the blocks on loan; worked out once for the same ones. */
function tablesOf(set: GaugeSet, onLoan: ReadonlySet<number>): Tables {
  const key = `${set} ${[...onLoan].sort((a, b) => a - b).join(" ")}`;
  const known = tables.get(key);
  if (known) return known;
  const { middle, coarse, fineBlocks, middleBlocks, coarseBlocks } = SETS[set];
  const there = (blocks: readonly number[]) => blocks.filter((block) => !onLoan.has(block));
  const fineSums = sumsOf(there(fineBlocks), 1);
  const made: Tables = {
    fineSums,
    fine: indicesOf(fineSums.least, (least) => least !== NEVER),
    middle: sumsOf(there(middleBlocks), middle),
    coarse: sumsOf(there(coarseBlocks), coarse),
  };
  const [oldest] = tables.keys();
  if (tables.size >= MOST_TABLES && oldest !== undefined) tables.delete(oldest);
  tables.set(key, made);
  return made;
}

/** One way to a sum: what the finest blocks make of it, and what the middle ones do; the rest is coarse. */
type Way = readonly [fine: number, middle: number];

/** Ways to a sum with the fewest blocks; with `isAny` the first that is found. */
function waysTo(
  { fine, fineSums, middle, coarse }: Tables,
  target: number,
  isAny: boolean,
): { ways: Way[]; count: number } {
  let ways: Way[] = [];
  let count = NEVER;
  const stride = coarse.step;
  for (const sum of fine) {
    const rest = target - sum;
    const leastFine = fineSums.least[sum] ?? NEVER;
    if (rest < 0 || rest % middle.step !== 0 || leastFine > count) continue;
    // what is left for the coarse ones is a multiple of theirs, and no more than they come to
    const least = rest - coarse.total;
    const offset = rest % stride;
    const from = least <= offset ? offset : offset + Math.ceil((least - offset) / stride) * stride;
    for (let part = from; part <= Math.min(rest, middle.total); part += stride) {
      const found =
        leastFine + (middle.least[part / middle.step] ?? NEVER) + (coarse.least[(rest - part) / stride] ?? NEVER);
      if (found >= NEVER || found > count) continue;
      if (found < count) ways = [];
      count = found;
      ways.push([sum, part]);
      if (isAny) return { ways, count };
    }
  }
  return { ways, count };
}

/** Of two stacks of as many blocks, whether the first has the larger block where they first differ. */
function isLarger(a: readonly number[], b: readonly number[]): boolean {
  const place = a.findIndex((block, i) => block !== b[i]);
  return place >= 0 && (a[place] ?? 0) > (b[place] ?? 0);
}

/**
 * Fewest blocks of a set that make a size, each block once; of several the one with the larger largest block, then the
 * larger second, and so on. Wear blocks are extra to the set, all of them are used and come off first; blocks on loan
 * are left out. When it cannot be made: the nearest sizes below and above that can. Null for a block on loan that the
 * set does not have. The set's length unit.
 *
 * A sum is split in three: the coarse blocks are multiples of half a millimetre (0.05 inch), the middle ones of a
 * hundredth (0.001), and of the rest there are ten. Each third has a small table of its own.
 */
export function gaugeStack(
  set: GaugeSet,
  size: number,
  wearBlocks: WearBlocks = { count: 0, size: 0 },
  without: readonly number[] = [],
): GaugeStackAnswer | null {
  const { perUnit } = SETS[set];
  const all = blocksOf(set);
  const onLoan = new Set(without.map((one) => Math.round(one * perUnit)));
  if (without.some((one) => !all.some((block) => Math.abs(block - one * perUnit) < ON_GRID))) return null;
  const table = tablesOf(set, onLoan);
  const wear = Array.from({ length: wearBlocks.count }, () => wearBlocks.size);
  const wearTotal = wearBlocks.count * wearBlocks.size;
  const wanted = (size - wearTotal) * perUnit;
  const target = Math.round(wanted);
  const isOnGrid = Math.abs(wanted - target) < ON_GRID;
  const limit = table.fineSums.total + table.middle.total + table.coarse.total;
  const isReached = (sum: number) =>
    sum >= 0 && sum <= limit && waysTo(table, sum, true).ways.length > 0 && (sum > 0 || wear.length > 0);
  const asSize = (units: number) => Math.round((units / perUnit + wearTotal) * 1e9) / 1e9;
  if (isOnGrid && isReached(target)) {
    const stacks = waysTo(table, target, false).ways.map(([fine, middle]) =>
      [
        ...table.fineSums.blocks(fine),
        ...table.middle.blocks(middle),
        ...table.coarse.blocks(target - fine - middle),
      ].sort((a, b) => b - a),
    );
    const best = stacks.reduce((one, two) => (isLarger(two, one) ? two : one));
    return { possible: true, blocks: best.map((block) => block / perUnit), wear, total: asSize(target) };
  }
  let below = Math.min(Math.floor(wanted + ON_GRID), limit);
  while (below >= 0 && !isReached(below)) below -= 1;
  let above = Math.max(Math.ceil(wanted - ON_GRID), 0);
  while (above <= limit && !isReached(above)) above += 1;
  return { possible: false, below: below >= 0 ? asSize(below) : null, above: above <= limit ? asSize(above) : null };
}
