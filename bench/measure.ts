/** Median time of a piece of work, ms, after warming up. */
export function medianMs(turns: number, work: () => unknown): number {
  for (let turn = 0; turn < Math.ceil(turns / 4); turn++) work();
  const times = Array.from({ length: turns }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return times[Math.floor(turns / 2)] ?? NaN;
}

export const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? NaN;

export function report(what: string, figure: string, goal: string, ratio: string): void {
  process.stdout.write(`${what.padEnd(34)} ${figure.padStart(22)}   ${goal.padEnd(22)} ${ratio}\n`);
}
