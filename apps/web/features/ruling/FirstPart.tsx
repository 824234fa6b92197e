import type { FeatureCut } from "@probe-lane/core/bench";
import type { FigureRuled, PartRuled, Ruling } from "@probe-lane/core/grading";
import { scales, showLength, type LengthUnit } from "@probe-lane/core/units";
import {
  drawingWords,
  featureCause,
  movedByWords,
  offWords,
  partCause,
  partInstrumentWords,
  partMovedBy,
  partSaidWords,
  verdictWords,
} from "@probe-lane/core/words";
import { scaleLinear } from "d3-scale";
import { Panel } from "../../ui";
import { GaugedTable } from "../../ui/program/GaugedTable";

const BAND = { width: 84, height: 16, inner: 14 } as const;
/** So much of the band lies on either side of the tolerance. */
const BESIDE = 0.75;
const MARKS: Record<FeatureCut["verdict"], string> = { good: "✓", rework: "△", scrap: "▲", notCut: "○" };

/** Where a feature stands in its tolerance; beyond the ends of the band an arrow says which way. */
function Band({ nominalMm, toleranceMm: [low, high], actualMm, verdict }: FeatureCut) {
  if (actualMm === null) return null;
  const size = high - low || 1;
  const at = scaleLinear([low - size * BESIDE, high + size * BESIDE], [0, BAND.width]).clamp(true);
  const offMm = actualMm - nominalMm;
  const x = at(offMm);
  const isBeyond = x <= 0 || x >= BAND.width;
  const middle = BAND.height / 2;
  return (
    <svg width={BAND.width} height={BAND.height} aria-hidden className="inline-block overflow-visible">
      <path d={`M0 ${middle}H${BAND.width}`} stroke="var(--ink3)" />
      <rect
        x={at(low)}
        y={1}
        width={at(high) - at(low)}
        height={BAND.inner}
        fill="var(--expected-soft)"
        stroke="var(--expected)"
      />
      <path d={`M${at(0)} 1v${BAND.inner}`} stroke="var(--expected)" />
      <path
        d={isBeyond ? `M${x} ${middle}l${x <= 0 ? 8 : -8} -6v12z` : `M${x} ${middle + 2}l-4 -8h8z`}
        fill={verdict === "good" ? "var(--ink)" : "var(--contact)"}
      />
    </svg>
  );
}

/** What a student read of a feature, and with what; of stacks the largest that went in. */
function Mine({ figure, unit }: { figure: FigureRuled | null; unit: LengthUnit }) {
  if (!figure) return <span className="text-ink2">–</span>;
  const by = partInstrumentWords[figure.with];
  return (
    <span title={`${by}${figure.isWarm ? ", the part warm" : ""}`}>
      {showLength(figure.mm, scales[unit])}
      <span className="block font-sans text-xs text-ink2">
        {by}
        {figure.isWarm ? ", warm" : ""}
      </span>
    </span>
  );
}

/** Features of a part with their limits, what each came out at, and what moves it; `figures`: with what was read. */
function PartTable({
  title,
  features,
  ruling,
  part,
  note,
  foot,
}: {
  title: string;
  features: readonly FeatureCut[];
  ruling: Ruling;
  /** The part that was cut on the lane; left out of one that is only reckoned. */
  part?: PartRuled;
  note: string;
  foot: string;
}) {
  const { unit } = ruling.sheet;
  const head = "px-2 py-1 text-left text-xs font-normal text-ink2";
  const figure = "figures px-2 py-1 text-right whitespace-nowrap";
  return (
    <Panel title={title} note={note}>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={`Features: ${title}`}>
        <table className="w-full">
          <thead>
            <tr className="border-b border-rule">
              <th className={head}>feature</th>
              <th className={`${head} !text-right`}>drawing</th>
              {part ? <th className={`${head} !text-right`}>yours</th> : null}
              <th className={`${head} !text-right`}>as cut</th>
              <th className={`${head} !text-right`}>off by</th>
              <th className={head}>in the tolerance</th>
              <th className={head}>part is</th>
              <th className={head}>moved by, of 1</th>
            </tr>
          </thead>
          <tbody>
            {features.map((feature) => {
              const ruled = part?.features.find(({ name }) => name === feature.name);
              const cause =
                part && ruled
                  ? partCause(ruled, part, ruling.values, unit)
                  : featureCause(feature, ruling.values, unit);
              const isGood = feature.verdict === "good";
              return [
                <tr key={feature.name} className={`border-t border-rule-soft ${isGood ? "" : "bg-contact-soft"}`}>
                  <th scope="row" className="px-2 py-1 text-left font-bold">
                    {feature.name}
                  </th>
                  <td className={`${figure} text-ink2`}>{drawingWords(feature, unit)}</td>
                  {part ? (
                    <td className={figure}>
                      <Mine figure={ruled?.figure ?? null} unit={unit} />
                    </td>
                  ) : null}
                  <td className={`${figure} font-bold`}>
                    {feature.actualMm === null ? "–" : showLength(feature.actualMm, scales[unit])}
                  </td>
                  <td className={figure}>{offWords(feature, unit)}</td>
                  <td className="px-2 py-1">
                    <Band {...feature} />
                  </td>
                  <td className={`px-2 py-1 whitespace-nowrap ${isGood ? "" : "font-bold text-contact"}`}>
                    <span aria-hidden>{MARKS[feature.verdict]}</span> {verdictWords[feature.verdict]}
                  </td>
                  <td className="px-2 py-1 text-xs">
                    {part && ruled ? partMovedBy(ruled, part) : movedByWords(feature)}
                  </td>
                </tr>,
                cause === null ? null : (
                  <tr key={`${feature.name} cause`} className="bg-contact-soft">
                    <td colSpan={part ? 8 : 7} className="px-2 pb-1.5 text-xs">
                      {cause}
                    </td>
                  </tr>
                ),
              ];
            })}
          </tbody>
        </table>
      </div>
      {part && part.gauged.length > 0 ? (
        <div className="border-t border-rule">
          <GaugedTable gauged={part.gauged} unit={unit} />
        </div>
      ) : null}
      <p className="px-2 py-1.5 text-xs text-ink2">{foot}</p>
    </Panel>
  );
}

const offNote = (features: readonly FeatureCut[]): string => {
  const off = features.filter(({ verdict }) => verdict !== "good").length;
  return off === 0 ? "every feature is good" : `${off} of ${features.length} not good`;
};

/** The part that the program as it was handed in cuts with these registers, feature by feature. */
export function FirstPart({ features, ruling }: { features: readonly FeatureCut[]; ruling: Ruling }) {
  return (
    <PartTable
      title="The first part, as these registers cut it"
      features={features}
      ruling={ruling}
      note={offNote(features)}
      foot="Cut by the program as it was handed in, with the tools as they really are; nothing springs, wears or warms in it. It costs and earns no marks."
    />
  );
}

/** What a part was cut by, and whether the values that are marked are those it was cut with. */
function cutBy({ cuts, isByValues }: PartRuled): string {
  if (cuts === 0) return "No run of this lane took anything away where the drawing has a feature.";
  const runs = cuts === 1 ? "run" : `${cuts} runs`;
  const values = isByValues ? " The values above are as they stood then." : "";
  return `Cut by this lane’s own ${runs} with the tools as they really are, with what they gave way, wore and grew warm.${values}`;
}

/** Parts that were cut on this lane, each as it came out, beside what was read of it. */
export function Parts({ parts, ruling }: { parts: readonly PartRuled[]; ruling: Ruling }) {
  return parts.map((part) => (
    <PartTable
      key={part.part}
      title={`Part ${part.part}, as it came out`}
      features={part.features}
      ruling={ruling}
      part={part}
      note={`${offNote(part.features)}; ${part.said === null ? "called nothing" : `called ${partSaidWords[part.said]}`}`}
      foot={cutBy(part)}
    />
  ));
}
