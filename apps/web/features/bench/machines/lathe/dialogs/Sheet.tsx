import { scales, showLength } from "@probe-lane/core/units";
import { schoolWords, touchingWords, turretKindWords } from "@probe-lane/core/words";
import { turningFacts, type LatheDialogProps } from "../view";

/** Room for the part in its drawing: from the chuck to the right, and above and below the axis. */
const DRAWN = { width: 150, height: 110, jawX: 56, axisY: 84 } as const;

/** The bar as it is chucked, and where the drawing has its zero. */
function ZeroDrawing({ seen: { sheet, kind } }: Pick<LatheDialogProps, "seen">) {
  const { stock } = sheet.lathe;
  const scale = Math.min(DRAWN.width / stock.stickOutMm, DRAWN.height / stock.diameterMm);
  const [length, radius] = [stock.stickOutMm * scale, (stock.diameterMm * scale) / 2];
  const bore = ((stock.boreMm ?? 0) * scale) / 2;
  const { jawX, axisY } = DRAWN;
  const faceX = jawX + length;
  // a readout counts from the corner of face and band, the others from face and axis
  const zeroY = kind === "readout" ? axisY - radius : axisY;
  return (
    <svg viewBox="0 0 280 168" className="w-72 shrink-0" role="img" aria-label="Where the drawing has its zero">
      {[-1, 1].map((side) => (
        <rect
          key={side}
          x={jawX - 46}
          y={side < 0 ? axisY - radius - 18 : axisY + radius}
          width="66"
          height="18"
          fill="var(--steel)"
          stroke="var(--ink)"
        />
      ))}
      <rect
        x={jawX - 20}
        y={axisY - radius}
        width={length + 20}
        height={radius * 2}
        fill="var(--stock)"
        stroke="var(--stock-edge)"
      />
      {bore > 0 ? (
        <rect
          x={jawX - 20}
          y={axisY - bore}
          width={length + 20}
          height={bore * 2}
          fill="var(--well)"
          stroke="var(--stock-edge)"
        />
      ) : null}
      <path d={`M6 ${axisY}H${faceX + 46}`} stroke="var(--ink2)" strokeDasharray="12 3 2 3" />
      <path
        d={`M${faceX - 24} ${zeroY}h48M${faceX} ${zeroY - 24}v48`}
        stroke="var(--expected)"
        strokeWidth="2"
        strokeDasharray="8 3 2 3"
      />
      <text x={faceX + 8} y={zeroY - 8} fontSize="13" fontWeight="700" fill="var(--expected)">
        X0 Z0
      </text>
      <text x={faceX + 8} y={axisY + 40} fontSize="12" fill="var(--ink2)">
        ⌀ {showLength(stock.diameterMm, scales[sheet.unit], 1)}
      </text>
    </svg>
  );
}

/** The exercise in words: stock, tools, school of Z and what is to be set. */
export function LatheSheet({ seen }: LatheDialogProps) {
  const { sheet, kind } = seen;
  const { lathe } = sheet;
  const wanted = (list: readonly number[]) => list.map((number) => `T${number}`).join(", ");
  const rows: [string, string][] = [
    ...turningFacts(seen),
    ...touchingWords(sheet).map((words): [string, string] => ["at a touch", words]),
    ...lathe.tools.map((tool): [string, string] => [
      `T${tool.number}, ${turretKindWords[tool.kind]}`,
      tool.sideMm === undefined
        ? tool.insert
        : `${tool.insert}, Z by its side, the point trails by ${showLength(tool.sideMm, scales[sheet.unit])}`,
    ]),
    ...(lathe.targets.x.length > 0 ? [["X is wanted of", wanted(lathe.targets.x)] as [string, string]] : []),
    ...(lathe.targets.z.length > 0 ? [["Z is wanted of", wanted(lathe.targets.z)] as [string, string]] : []),
    ...(lathe.targets.height.length > 0
      ? [["center height is wanted of", wanted(lathe.targets.height)] as [string, string]]
      : []),
    ...(lathe.targets.nose.length > 0
      ? [["nose radius and tip code of", wanted(lathe.targets.nose)] as [string, string]]
      : []),
  ];
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-start gap-4">
        <ZeroDrawing seen={seen} />
        <div className="min-w-56 flex-1">
          <p>{sheet.story}</p>
          {seen.isCoachOn && sheet.advice ? (
            <p className="mt-2 border-l-4 border-expected bg-expected-soft px-3 py-2">{sheet.advice}</p>
          ) : null}
        </div>
      </div>
      <dl className="grid gap-x-8 sm:grid-cols-2">
        {rows.map(([name, value]) => (
          <div key={name + value} className="flex justify-between gap-3 border-t border-rule-soft py-1">
            <dt className="text-ink2">{name}</dt>
            <dd className="figures text-right">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="text-xs text-ink2">
        {kind === "turret" ? "School of Z" : "School"}:{" "}
        {lathe.schools.map((school) => schoolWords[school]).join("; or ")}. X registers and displays are diameters;{" "}
        {kind === "readout" ? "X plus is away from the axis" : "tools stand behind the axis, X plus is away from it"}, Z
        plus away from the chuck.{" "}
        {kind === "readout"
          ? "The library is added to what the readout shows."
          : `A reset ${sheet.settings.resetDropsLength ? "drops" : "keeps"} the offset that was called.`}
      </p>
    </div>
  );
}
