import type { PartInstrument } from "@probe-lane/core/machines/program";
import type { ReactNode } from "react";

/** What each instrument looks like, in a few strokes on 56 by 32. */
const SHAPES: Record<PartInstrument, ReactNode> = {
  caliper: (
    <>
      <path d="M4 8h48v6H4z M8 14v14l5-6v-8z M22 14v14l-5-6v-8z" />
      <path d="M20 6h14v10H20z" className="fill-field" />
    </>
  ),
  micrometer: (
    <>
      <path d="M6 12c0 18 26 18 26 4h-5c0 9-15 9-15-4z" />
      <path d="M4 10h9v4H4z M18 10h10v4H18z" />
      <path d="M28 7h12v10H28z M40 5h12v14H40z" className="fill-field" />
    </>
  ),
  boreGauge: (
    <>
      <circle cx="28" cy="9" r="8" className="fill-field" />
      <path d="M28 9l4-4 M26 17h4v8h-4z M18 25h20v4H18z" />
    </>
  ),
  depthMicrometer: (
    <>
      <path d="M8 18h40v5H8z M27 23h2v8h-2z" />
      <path d="M22 8h12v10H22z M21 2h14v6H21z" className="fill-field" />
    </>
  ),
  heightGauge: (
    <>
      <path d="M12 27h32v4H12z M18 2h5v25h-5z M23 13h20l3 3H23z" />
      <path d="M15 9h11v9H15z" className="fill-field" />
    </>
  ),
  plug: (
    <>
      <path d="M16 13h24v6H16z" />
      <path d="M4 9h12v14H4z M40 11h8v10h-8z" className="fill-field" />
    </>
  ),
  gaugeStack: (
    <>
      <path d="M6 30h12V16H6z M38 30h12V16H38z" />
      <path d="M21 4h6v26h-6z M27 4h3v26h-3z M30 4h5v26h-5z" className="fill-field" />
    </>
  ),
};

export function InstrumentPicture({ name }: { name: PartInstrument }) {
  return (
    <svg
      viewBox="0 0 56 32"
      width={48}
      height={27}
      aria-hidden
      className="fill-[var(--rule)] stroke-ink"
      strokeWidth={1}
      strokeLinejoin="round"
    >
      {SHAPES[name]}
    </svg>
  );
}
