import type { MillSeen } from "@probe-lane/core/bench";
import { edgeOf } from "@probe-lane/core/exercises";
import { scales, showLength, toMm } from "@probe-lane/core/units";
import { Rect, type Frame } from "../../../lane/drawing";
import { useWays, Ways } from "../../../lane/ways";
import { ownZero, programmedAt, solidsOf, type Place } from "../view";
import { fillOf, Note, PlanSolid, ragged } from "./bodies";
import { Witness } from "../../../lane/Witness";
import { HeldFromAbove } from "./Held";

/** T-slots of the table run along X, this far apart, mm. */
const SLOT_MM = { pitch: 63, half: 7 };

function Labels({ seen, frame }: { seen: MillSeen; frame: Frame }) {
  const { sheet, boxes } = seen;
  const { stock, frontJaw, backJaw, plate, stop } = boxes;
  const isFixed = (jaw: "front" | "back") => sheet.fixture.fixedJaw === jaw;
  const isLow = { x: edgeOf(sheet, "x")?.approach !== -1, y: edgeOf(sheet, "y")?.approach !== -1 };
  const size = sheet.partSizeMm
    .slice(0, 2)
    .map((mm) => showLength(mm, scales[sheet.unit], sheet.unit === "mm" ? 0 : 2))
    .join(" × ");
  const jaw = { fill: "var(--jaw-ink)", halo: "var(--jaw)", isBold: true, anchor: "middle" as const };
  const middle = (box: typeof stock) => frame.px((box.low.x + box.high.x) / 2);
  return (
    <>
      {frontJaw ? (
        <Note x={middle(frontJaw)} y={frame.py((frontJaw.low.y + frontJaw.high.y) / 2) + 4} {...jaw}>
          {isFixed("front") ? "fixed jaw" : "moving jaw"}
        </Note>
      ) : null}
      {backJaw ? (
        <Note x={middle(backJaw)} y={frame.py((backJaw.low.y + backJaw.high.y) / 2) + 4} {...jaw}>
          {isFixed("back") ? "fixed jaw" : "moving jaw"}
        </Note>
      ) : null}
      {plate ? (
        <Note x={frame.px(plate.low.x) + 6} y={frame.py(plate.low.y) - 6} {...jaw} anchor="start">
          fixture plate
        </Note>
      ) : null}
      {stop ? (
        <Note x={frame.px(stop.low.x) - 4} y={frame.py((stop.low.y + stop.high.y) / 2) + 4} anchor="end">
          stop
        </Note>
      ) : null}
      {(stock.high.x - stock.low.x) * frame.scale < 170 ? null : (
        <Note
          x={isLow.x ? frame.px(stock.high.x) - 8 : frame.px(stock.low.x) + 8}
          y={isLow.y ? frame.py(stock.high.y) + 18 : frame.py(stock.low.y) - 8}
          anchor={isLow.x ? "end" : "start"}
          halo="var(--stock)"
          isBold
        >
          {sheet.partName}, blank {size}
        </Note>
      )}
    </>
  );
}

/** The gripping faces of the jaws, serrated. */
function Grips({ seen: { boxes }, frame }: { seen: MillSeen; frame: Frame }) {
  const { frontJaw, backJaw } = boxes;
  const grip = (box: NonNullable<typeof frontJaw>, y: number, out: number) => (
    <path
      d={ragged([frame.px(box.low.x), frame.py(y)], [frame.px(box.high.x), frame.py(y)], out)}
      fill="none"
      stroke="var(--ink)"
      strokeWidth="0.8"
    />
  );
  return (
    <>
      {frontJaw ? grip(frontJaw, frontJaw.high.y, -3) : null}
      {backJaw ? grip(backJaw, backJaw.low.y, 3) : null}
    </>
  );
}

/** Where the student's own register has its zero; it claims only their number. */
function OwnZero({ seen, frame, width, height }: { seen: MillSeen; frame: Frame; width: number; height: number }) {
  const { x, y } = ownZero(seen);
  const line = { stroke: "var(--expected)", strokeWidth: 1.5, strokeDasharray: "12 3 2 3" };
  return (
    <g data-part="own-zero">
      {x === null ? null : (
        <>
          <path d={`M${frame.px(x)} 0V${height}`} {...line} />
          <Note
            x={frame.px(x) + 5}
            y={frame.py(seen.boxes.stock.low.y) - 6}
            halo="var(--stock)"
            fill="var(--expected)"
            isBold
          >
            my X 0
          </Note>
        </>
      )}
      {y === null ? null : (
        <>
          <path d={`M0 ${frame.py(y)}H${width}`} {...line} />
          <Note x={width - 66} y={frame.py(y) - 5} fill="var(--expected)" anchor="end" isBold>
            my Y 0
          </Note>
        </>
      )}
    </g>
  );
}

/** The machine from above, as it stands in front of a person. */
export function Plan({
  seen,
  place: { x, y },
  frame,
  toward,
  keys,
  struck,
}: {
  seen: MillSeen;
  place: Place;
  /** Where something was struck; null where nothing was. */
  struck: Place | null;
  frame: Frame;
  /** Axis keys that lead to the part, as "x1" and "y-1". */
  toward: ReadonlySet<string>;
  /** Where the axis arrows end, px; none where nobody works. */
  keys: { readonly left: number; readonly right: number; readonly up: number; readonly down: number } | null;
}) {
  const strokes = useWays(seen, "mill");
  const { width, height } = frame;
  const { stock, frontJaw } = seen.boxes;
  const scale = scales[seen.sheet.unit];
  const [cx, cy] = [frame.px(x), frame.py(y)];
  const edge = (a: readonly [number, number], b: readonly [number, number]) =>
    ragged([frame.px(a[0]), frame.py(a[1])], [frame.px(b[0]), frame.py(b[1])], 4);
  const arrow = (key: string) => ({
    stroke: toward.has(key) ? "var(--contact)" : "var(--ink3)",
    strokeWidth: toward.has(key) ? 2 : 1,
    fill: "none",
    markerEnd: `url(#head${toward.has(key) ? "-warm" : ""})`,
  });
  const slots = Array.from({ length: 13 }, (_, n) => -700 + n * SLOT_MM.pitch);
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label="Plan from above: table, vise and blank, and what hangs in the spindle."
    >
      <defs>
        {[
          ["head", "var(--ink3)"],
          ["head-warm", "var(--contact)"],
        ].map(([id, fill]) => (
          <marker
            key={id}
            id={id}
            viewBox="0 0 8 8"
            refX="7"
            refY="4"
            markerWidth="8"
            markerHeight="8"
            orient="auto"
            markerUnits="userSpaceOnUse"
          >
            <path d="M0 1L8 4L0 7Z" fill={fill} />
          </marker>
        ))}
      </defs>
      <rect width={width} height={height} fill="var(--well)" />
      {slots.map((at) => (
        <path
          key={at}
          d={`M0 ${frame.py(at - SLOT_MM.half)}H${width}M0 ${frame.py(at + SLOT_MM.half)}H${width}`}
          stroke="var(--rule)"
        />
      ))}
      <Rect
        frame={frame}
        u={[toMm(seen.travelCounts.x[0], scale), 0]}
        v={[toMm(seen.travelCounts.y[0], scale), 0]}
        fill="none"
        stroke="var(--ink3)"
        dash="4 4"
      />
      {solidsOf(seen)
        .filter(({ name }) => name !== "table")
        .map(({ name, solid }) => (
          <PlanSolid key={name} frame={frame} solid={solid} look={fillOf(name)} />
        ))}
      <Grips seen={seen} frame={frame} />
      <Ways
        strokes={strokes}
        called={seen.modal.tool}
        at={(place, stroke) => {
          const there = programmedAt(seen, place, stroke.frame);
          return there && [frame.px(there.x), frame.py(there.y)];
        }}
      />
      {frontJaw ? (
        <path
          d={[stock.low.y + 6, stock.low.y + 14, stock.high.y - 14, stock.high.y - 6]
            .map((at) => `M${frame.px(stock.low.x) + 6} ${frame.py(at)}H${frame.px(stock.high.x) - 6}`)
            .join("")}
          stroke="var(--ink2)"
          strokeWidth="0.8"
          strokeDasharray="6 4"
        />
      ) : null}
      <Rect
        frame={frame}
        u={[stock.low.x, stock.high.x]}
        v={[stock.low.y, stock.high.y]}
        fill="none"
        part="plan-stock"
      />
      {seen.isBurrDressed ? null : (
        <path
          d={[
            edge([stock.low.x, stock.low.y], [stock.low.x, stock.high.y]),
            edge([stock.low.x, stock.high.y], [stock.high.x, stock.high.y]),
            edge([stock.high.x, stock.high.y], [stock.high.x, stock.low.y]),
            edge([stock.high.x, stock.low.y], [stock.low.x, stock.low.y]),
          ].join("")}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.3"
          data-part="burr"
        />
      )}
      <Labels seen={seen} frame={frame} />
      {keys ? (
        <>
          <path d={`M${cx} ${cy}H${keys.left}`} {...arrow("x-1")} />
          <path d={`M${cx} ${cy}H${keys.right}`} {...arrow("x1")} />
          <path d={`M${cx} ${cy}V${keys.up}`} {...arrow("y1")} />
          <path d={`M${cx} ${cy}V${keys.down}`} {...arrow("y-1")} />
        </>
      ) : null}
      <OwnZero seen={seen} frame={frame} width={width} height={height} />
      {struck ? <Witness x={frame.px(struck.x)} y={frame.py(struck.y)} /> : null}
      <HeldFromAbove seen={seen} frame={frame} x={x} y={y} />
    </svg>
  );
}
