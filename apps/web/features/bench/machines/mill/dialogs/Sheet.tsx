import { edgeOf } from "@probe-lane/core/exercises";
import { scales, showLength } from "@probe-lane/core/units";
import { gapKindWords, registerWords, schoolWords, toolKindWords, touchingWords } from "@probe-lane/core/words";
import type { MillDialogProps } from "../view";

const CAPTURE = {
  machine: "stores the machine Z as it stands when a length is taken",
  counter: "stores the Z counter when a length is taken",
  display: "solves for the length so that the display reads what was asked",
} as const;

/** Where the drawing has its zero: a corner, the middle, or a round feature's axis. */
function ZeroDrawing({ sheet }: Pick<MillDialogProps["seen"], "sheet">) {
  const [width, depth] = [180, 110];
  const [ex, ey] = [edgeOf(sheet, "x"), edgeOf(sheet, "y")];
  const isLow = { x: ex?.approach !== -1, y: ey?.approach !== -1 };
  const feature = sheet.feature
    ? {
        x: 30 + (sheet.feature.atMm[0] / sheet.partSizeMm[0]) * width,
        y: 20 + depth - (sheet.feature.atMm[1] / sheet.partSizeMm[1]) * depth,
      }
    : null;
  const corner = { x: isLow.x ? 30 : 30 + width, y: isLow.y ? 20 + depth : 20 };
  const zero =
    ex && ey
      ? {
          x: corner.x + (isLow.x ? 1 : -1) * Math.abs(ex.edgeWorkMm) * 5,
          y: corner.y - (isLow.y ? 1 : -1) * Math.abs(ey.edgeWorkMm) * 5,
        }
      : (feature ?? { x: 30 + width / 2, y: 20 + depth / 2 });
  const isRight = !isLow.x && ex !== null;
  return (
    <svg viewBox="0 0 250 160" className="w-64 shrink-0" role="img" aria-label="Where the drawing has its zero">
      <rect
        x="30"
        y="20"
        width={width}
        height={depth}
        fill="var(--stock)"
        stroke="var(--stock-edge)"
        transform={sheet.isSkewed ? "rotate(-3 120 75)" : undefined}
      />
      {feature && sheet.feature?.kind === "pocket" ? (
        <rect
          x={feature.x - 40}
          y={feature.y - 24}
          width="80"
          height="48"
          fill="var(--well)"
          stroke="var(--stock-edge)"
          strokeWidth="2"
        />
      ) : null}
      {feature && sheet.feature?.kind !== "pocket" ? (
        <circle
          cx={feature.x}
          cy={feature.y}
          r="30"
          fill={sheet.feature?.kind === "bore" ? "var(--well)" : "var(--stock)"}
          stroke="var(--stock-edge)"
          strokeWidth="2"
        />
      ) : null}
      <path
        d={`M${zero.x - 24} ${zero.y}h48M${zero.x} ${zero.y - 24}v48`}
        stroke="var(--expected)"
        strokeWidth="2"
        strokeDasharray="8 3 2 3"
      />
      <text
        x={isRight ? zero.x - 10 : Math.min(zero.x + 10, 140)}
        y={isLow.y ? zero.y - 10 : zero.y + 22}
        textAnchor={isRight ? "end" : "start"}
        fontSize="13"
        fontWeight="700"
        fill="var(--expected)"
      >
        X0 Y0
      </text>
    </svg>
  );
}

/** The exercise in words, its drawing, and every figure that is not hidden. */
export function MillSheet({ seen }: MillDialogProps) {
  const { sheet } = seen;
  const show = (mm: number) => showLength(mm, scales[sheet.unit]);
  const [ex, ey] = [edgeOf(sheet, "x"), edgeOf(sheet, "y")];
  const rows: [string, string][] = [
    ...(ex && ey
      ? ([
          [`${ex.approach === 1 ? "left" : "right"} edge of the blank is`, `X ${show(ex.edgeWorkMm)}`],
          [`${ey.approach === 1 ? "front" : "back"} edge of the blank is`, `Y ${show(ey.edgeWorkMm)}`],
        ] as [string, string][])
      : ([
          [
            "X0 Y0 of the drawing",
            sheet.datum.kind === "middle"
              ? "middle of the blank"
              : `${sheet.feature?.kind === "pocket" ? "middle" : "axis"} of the ${sheet.feature?.kind ?? "feature"}`,
          ],
        ] as [string, string][])),
    [
      `top of the blank${sheet.facingAllowanceMm > 0 ? ", still to be faced," : ""} is`,
      `Z ${show(sheet.facingAllowanceMm)}`,
    ],
    [
      "blank, by the saw",
      sheet.partSizeMm.map((mm) => showLength(mm, scales[sheet.unit], sheet.unit === "mm" ? 1 : 3)).join(" × "),
    ],
    ...(sheet.instruments.includes("edgeFinder")
      ? [["edge finder tip", `⌀ ${show(sheet.tipDiameterMm)}`] as [string, string]]
      : []),
    ...sheet.gaps
      .filter(({ kind }) => sheet.instruments.includes(kind))
      .map(({ kind, nominalMm }): [string, string] => [gapKindWords[kind], show(nominalMm)]),
    ...(sheet.instruments.includes("lampGauge")
      ? [["height gauge with lamp", show(sheet.lampGaugeMm)] as [string, string]]
      : []),
    ...(sheet.probe
      ? ([
          [
            "probe: ball, effective radius",
            `⌀ ${show(sheet.probe.ballDiameterMm)}, ${show(sheet.probe.effectiveRadiusMm)}`,
          ],
          ["probe: length from the gauge line", show(sheet.probe.lengthMm)],
        ] as [string, string][])
      : []),
    ...(sheet.setter && sheet.instruments.includes("plungerSetter")
      ? ([
          ["setter: bare nose triggers at Z", show(sheet.setter.noseTriggerMm)],
          ["setter: plunger stands at", `X ${show(sheet.setter.xMm)} Y ${show(sheet.setter.yMm)}`],
          ["setter: plunger width", show(sheet.setter.widthMm)],
        ] as [string, string][])
      : []),
    ...sheet.tools.map(({ number, kind, diameterMm, workingRpm }): [string, string] => [
      `tool ${number}, ${toolKindWords[kind]}`,
      `⌀ ${show(diameterMm)}${sheet.isAtSpeed ? `, ${workingRpm} rev/min` : ""}`,
    ]),
    ...touchingWords(sheet).map((words): [string, string] => ["at a touch", words]),
    ...(sheet.partBefore ? sheet.leftovers : []).map(({ register, mm }): [string, string] => [
      `kept: ${registerWords(register)}`,
      show(mm),
    ]),
  ];
  const { settings, lengthSchools } = sheet;
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-start gap-4">
        <ZeroDrawing sheet={sheet} />
        <div className="min-w-56 flex-1">
          <p>{sheet.story}</p>
          {seen.isCoachOn && sheet.advice ? (
            <p className="mt-2 border-l-4 border-expected bg-expected-soft px-3 py-2">{sheet.advice}</p>
          ) : null}
          {!seen.isCoachOn && sheet.instruments.includes("edgeFinder") ? (
            <p className="mt-2 text-ink2">
              Look across the axis that you touch on: the face drags a tip along itself when it kicks, and along your
              line of sight that is hardly seen.
            </p>
          ) : null}
        </div>
      </div>
      {sheet.handover ? (
        <blockquote className="border-l-4 border-contact bg-well px-3 py-2">
          <b>{sheet.handover.from}:</b> {sheet.handover.account}
        </blockquote>
      ) : null}
      <dl className="grid gap-x-8 sm:grid-cols-2">
        {rows.map(([name, value]) => (
          <div key={name} className="flex justify-between gap-3 border-t border-rule-soft py-1">
            <dt className="text-ink2">{name}</dt>
            <dd className="figures min-w-0 text-right">{value}</dd>
          </div>
        ))}
      </dl>
      <div className="text-xs text-ink2">
        {lengthSchools.length > 0 ? (
          <p>
            {lengthSchools.length === 1 ? "School of lengths: " : "Lengths may be set either way: "}
            {lengthSchools.map((school) => schoolWords[school]).join("; or ")}.
          </p>
        ) : null}
        {sheet.diameterSchool ? (
          <p>
            {sheet.diameterSchool === "control-comp"
              ? "The program runs along the part; D holds the measured cutter."
              : "The path is offset by the nominal cutter; only the difference goes into wear."}{" "}
            Registers hold {settings.diameterMode === "radius" ? "radii" : "diameters"}.
          </p>
        ) : null}
        <p>
          This bench {CAPTURE[settings.lengthCapture]}; a reset {settings.resetDropsLength ? "drops" : "keeps"} the
          active length; a changed row acts {settings.rowActs === "atOnce" ? "at once" : "when it is called again"}; a
          spindle started with a probe or dial in it{" "}
          {settings.spindleGuard === "refuses" ? "refuses" : "starts, and destroys it"}.
        </p>
      </div>
    </div>
  );
}
