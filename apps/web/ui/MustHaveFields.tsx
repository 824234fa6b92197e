import type { MustHave } from "@probe-lane/core/grading";
import { mustHaveWords } from "@probe-lane/core/words";
import { FigureInput } from ".";
import type { MustHaveTexts } from "./mustHaves";

/** What stands over points: what is asked for, how deep is too deep, and what counts at most without it. */
export function MustHaveFields({
  offered,
  texts,
  onChange,
  className,
}: {
  /** Those that the exercise can miss. */
  offered: readonly MustHave[];
  texts: MustHaveTexts;
  onChange(texts: MustHaveTexts): void;
  className: string;
}) {
  return (
    <>
      {offered.map((name) => (
        <label key={name} className={className}>
          {mustHaveWords[name].asks}
          <input
            type="checkbox"
            checked={texts.names[name]}
            onChange={({ target }) => onChange({ ...texts, names: { ...texts.names, [name]: target.checked } })}
          />
        </label>
      ))}
      <label className={className}>
        much deeper: by more mm than
        <FigureInput
          className="w-24"
          value={texts.deepest}
          onChange={({ target }) => onChange({ ...texts, deepest: target.value })}
        />
      </label>
      <label className={className}>
        without it at most, of a hundred
        <FigureInput
          className="w-24"
          value={texts.capPercent}
          onChange={({ target }) => onChange({ ...texts, capPercent: target.value })}
        />
      </label>
    </>
  );
}
