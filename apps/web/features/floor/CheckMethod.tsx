export const TOUCH = "second touch";
export const BY_PART = "measured first part";
/** Ways to check a register, with the standard uncertainty that a careful hand has by each, mm. */
const CHECKS = [
  { method: TOUCH, uMm: 0.004 },
  { method: "probe", uMm: 0.002 },
  { method: "indicator sweep", uMm: 0.003 },
  { method: BY_PART, uMm: 0.006 },
  { method: "rule", uMm: 0.3 },
] as const;
export type CheckMethod = (typeof CHECKS)[number]["method"];
export const uOf = (method: CheckMethod): number => CHECKS.find((one) => one.method === method)?.uMm ?? 0.004;

/** How a check was made, chosen from those with a known uncertainty. */
export function CheckMethodSelect({ value, onChange }: { value: CheckMethod; onChange(method: CheckMethod): void }) {
  return (
    <select
      value={value}
      onChange={({ target }) => onChange(target.value as CheckMethod)}
      className="block min-h-11 rounded-[3px] border border-ink3 bg-field px-2 text-base text-ink"
    >
      {CHECKS.map(({ method }) => (
        <option key={method} value={method}>
          {method}
        </option>
      ))}
    </select>
  );
}
