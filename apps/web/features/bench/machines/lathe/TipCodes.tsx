import { tipCodes, tipDirection, type TipCode } from "@probe-lane/core/registers";

const SIZE = 44;
const NOSE = 11;

/** One nose as it stands behind the axis, X up and Z to the right, with the imaginary tip where the code has it. */
function Nose({ code }: { code: TipCode }) {
  const [x, z] = tipDirection(code);
  const middle = SIZE / 2;
  const tip = { x: middle + z * NOSE, y: middle - x * NOSE };
  return (
    <svg viewBox={`0 0 ${SIZE} ${SIZE}`} width={SIZE} height={SIZE} aria-hidden>
      <circle cx={middle} cy={middle} r={NOSE} fill="var(--contact-soft)" stroke="var(--contact)" strokeWidth="1.5" />
      <path d={`M${middle - 3} ${middle}h6M${middle} ${middle - 3}v6`} stroke="var(--ink2)" />
      <path d={`M${tip.x - 6} ${tip.y}h12M${tip.x} ${tip.y - 6}v12`} stroke="var(--ink)" strokeWidth="1.5" />
    </svg>
  );
}

/**
 * The tip codes as pictures of a nose: which one is chosen is typed for the student, and nothing is said of whether it
 * is right.
 */
export function TipCodes({ chosen, onChoose }: { chosen: string; onChoose(code: string): void }) {
  return (
    <div role="group" aria-label="Where the tip stands from the middle of the nose" className="flex flex-wrap gap-1">
      {tipCodes
        .filter((code) => code !== 9)
        .map((code) => (
          <button
            key={code}
            type="button"
            aria-pressed={chosen === String(code)}
            aria-label={`Tip code ${code}`}
            onClick={() => onChoose(String(code))}
            className={`flex items-center rounded-[3px] border pr-1.5 ${chosen === String(code) ? "border-ink bg-field font-bold" : "border-ink3 bg-panel"}`}
          >
            <Nose code={code} />
            <span className="figures">{code === 0 ? "0, 9" : code}</span>
          </button>
        ))}
    </div>
  );
}
