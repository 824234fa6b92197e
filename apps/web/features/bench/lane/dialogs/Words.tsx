import { glossary } from "@probe-lane/core/words";
import { useState } from "react";

/** What the words of the bench mean; a few letters narrow the list. */
export function Words() {
  const [asked, setAsked] = useState("");
  const wanted = asked.trim().toLowerCase();
  const found = glossary.filter(({ word, means }) => `${word} ${means}`.toLowerCase().includes(wanted));
  return (
    <>
      <label className="mb-2 block text-xs text-ink2">
        Find a word{" "}
        <input
          value={asked}
          onChange={(event) => setAsked(event.target.value)}
          className="ml-1 rounded-[3px] border border-ink3 bg-field px-2 py-1 text-sm text-ink"
        />
      </label>
      <dl>
        {found.map(({ word, means }) => (
          <div key={word} className="border-t border-rule-soft py-1">
            <dt className="font-bold">{word}</dt>
            <dd>{means}</dd>
          </div>
        ))}
      </dl>
      {found.length === 0 ? <p>No word of the bench has these letters. Ask your instructor.</p> : null}
    </>
  );
}
