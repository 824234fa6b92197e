/** Blocks of the sets, in steps of the set: half a micrometre, or a ten-thousandth of an inch. */
const run = (first: number, step: number, count: number): number[] =>
  Array.from({ length: count }, (_, n) => first + n * step);
const SETS = {
  "inch-81": {
    perUnit: 10_000,
    blocks: [...run(1001, 1, 9), ...run(1010, 10, 49), ...run(500, 500, 19), ...run(10_000, 10_000, 4)],
  },
  "metric-88": {
    perUnit: 2000,
    blocks: [2001, ...run(2002, 2, 9), ...run(2020, 20, 49), ...run(1000, 1000, 19), ...run(20_000, 20_000, 10)],
  },
} as const;
export const gaugeSets = ["inch-81", "metric-88"] as const;
export type GaugeSet = (typeof gaugeSets)[number];

/** Sizes of the blocks of a set, smallest first, in its own unit. */
export const readGaugeSet = (set: GaugeSet): number[] =>
  SETS[set].blocks.map((steps) => steps / SETS[set].perUnit).sort((a, b) => a - b);

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

/**
 * Fewest blocks of a set that make a size, each block once; of several the one with the larger largest block, then the
 * larger second, and so on. Wear blocks are extra to the set, all of them are used and come off first; blocks on loan
 * are left out. When it cannot be made: the nearest sizes below and above that can. Null for a block on loan that the
 * set does not have. The set's length unit.
 */
export function gaugeStack(
  set: GaugeSet,
  size: number,
  wearBlocks: WearBlocks = { count: 0, size: 0 },
  without: readonly number[] = [],
): GaugeStackAnswer | null {
  const { perUnit, blocks: all } = SETS[set];
  const onLoan = new Set(without.map((one) => Math.round(one * perUnit)));
  if (without.some((one) => !all.some((block) => Math.abs(block - one * perUnit) < ON_GRID))) return null;
  const blocks = all.filter((block) => !onLoan.has(block)).sort((a, b) => b - a);
  const wear = Array.from({ length: wearBlocks.count }, () => wearBlocks.size);
  const wearTotal = wearBlocks.count * wearBlocks.size;
  const wanted = (size - wearTotal) * perUnit;
  const target = Math.round(wanted);
  const isOnGrid = Math.abs(wanted - target) < ON_GRID;
  const [largest = 0] = blocks;
  const limit = Math.min(
    blocks.reduce((sum, block) => sum + block, 0),
    Math.max(0, Math.ceil(wanted)) + largest,
  );
  // least number of blocks for each sum, block by block from the smallest; which block the best one takes is kept as a
  // bit
  const least = new Uint8Array(limit + 1).fill(NEVER);
  least[0] = 0;
  const takes = blocks.map(() => new Uint8Array((limit >> 3) + 1));
  for (let place = blocks.length - 1; place >= 0; place--) {
    const block = blocks[place] ?? 0;
    const taken = takes[place];
    for (let sum = limit; taken && sum >= block; sum--) {
      const withIt = (least[sum - block] ?? NEVER) + 1;
      // as few with it as without: the larger block goes first
      if (withIt > (least[sum] ?? NEVER) || withIt >= NEVER) continue;
      least[sum] = withIt;
      taken[sum >> 3] = (taken[sum >> 3] ?? 0) | (1 << (sum & 7));
    }
  }
  const isReached = (sum: number) =>
    sum >= 0 && sum <= limit && (least[sum] ?? NEVER) !== NEVER && (sum > 0 || wear.length > 0);
  const asSize = (units: number) => Math.round((units / perUnit + wearTotal) * 1e9) / 1e9;
  if (isOnGrid && isReached(target)) {
    const chosen: number[] = [];
    let left = target;
    for (const [place, block] of blocks.entries()) {
      if (left < block || ((takes[place]?.[left >> 3] ?? 0) & (1 << (left & 7))) === 0) continue;
      chosen.push(block / perUnit);
      left -= block;
    }
    return { possible: true, blocks: chosen, wear, total: asSize(target) };
  }
  let below = Math.floor(wanted + ON_GRID);
  let above = Math.ceil(wanted - ON_GRID);
  below = Math.min(below, limit);
  while (below >= 0 && !isReached(below)) below -= 1;
  above = Math.max(above, 0);
  while (above <= limit && !isReached(above)) above += 1;
  return { possible: false, below: below >= 0 ? asSize(below) : null, above: above <= limit ? asSize(above) : null };
}
