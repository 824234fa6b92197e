import type { MillSeen } from "@probe-lane/core/bench";
import { gauges } from "@probe-lane/core/exercises";
import { boxOf, type BoxMm } from "@probe-lane/core/geometry";
import { useId } from "react";
import { Rect, type Frame } from "../../../lane/drawing";
import { useWays, Ways } from "../../../lane/ways";
import { across, depth, ownZero, programmedAt, solidsOf, type Place } from "../view";
import { fillOf, Hatch, Note, ragged } from "./bodies";
import { Witness } from "../../../lane/Witness";
import { HeldFromBeside } from "./Held";

/** Parallels under the blank: how wide each is, and how much of the room below is the vise's own bed. */
const PARALLEL_MM = 8;
const BED_SHARE = 0.4;

/** What lies in the gap: paper as thin as can be seen, a block as high as it is written on it. */
function InGap({ seen, frame, at, tipZ }: { seen: MillSeen; frame: Frame; at: number; tipZ: number }) {
  const { paper, block, sheet } = seen;
  const height = sheet.gaps.find(({ id }) => id === block?.id)?.nominalMm ?? 0;
  if (block)
    return (
      <Rect
        frame={frame}
        u={[at - 9, at + 26]}
        v={[tipZ - height, tipZ]}
        fill="var(--expected-soft)"
        stroke="var(--expected)"
        part="gap-block"
      />
    );
  if (!paper) return null;
  return (
    <g className={paper.feel === "slides" || paper.feel === "drags" ? "tugging" : undefined}>
      <path
        d={`M${frame.px(at) - 34} ${frame.py(tipZ) + 2}H${frame.px(at) + 60}l8 -5h14`}
        fill="none"
        stroke="var(--expected)"
        strokeWidth="2.5"
        data-part="gap-paper"
      />
    </g>
  );
}

/** A break across the drawing: so much of the way is left out. */
function Break({ frame, v, mm, at }: { frame: Frame; v: number; mm: number; at: number }) {
  const y = frame.py(v);
  const teeth = Array.from({ length: Math.ceil(frame.width / 120) }, () => `h46l6 -9l12 18l6 -9h50`).join("");
  return (
    <g data-part="break">
      <path d={`M-20 ${y - 4}${teeth}V${y + 8}H-20Z`} fill="var(--well)" />
      <path d={`M-20 ${y - 4}${teeth}M-20 ${y + 4}${teeth}`} fill="none" stroke="var(--ink3)" />
      <Note x={frame.px(at) - 14} y={y - 10} anchor="end" fill="var(--contact)" isBold>
        {Math.round(mm)} mm left out
      </Note>
    </g>
  );
}

/**
 * A section through the blank, seen from a side: what the plane cuts is hatched, what stands before it is a phantom,
 * what is behind is seen.
 */
export function Section({
  seen,
  place: { x, y, tipZ },
  leftOutMm,
  frame,
  keys,
  struck,
}: {
  seen: MillSeen;
  place: Place;
  /** Where something was struck; null where nothing was. */
  struck: Place | null;
  /** What of the way between tip and blank is left out of the drawing, mm. */
  leftOutMm: number;
  frame: Frame;
  /** Where the arrow of Z stands and ends, px; none where nobody works. */
  keys: { readonly x: number; readonly up: number; readonly down: number; readonly isTowardDown: boolean } | null;
}) {
  const id = useId();
  const strokes = useWays(seen, "mill");
  const { width, height } = frame;
  const { sight, sheet, boxes } = seen;
  const { stock, table, frontJaw, backJaw } = boxes;
  const u = (px: number, py: number) => across(sight, px, py);
  const span = ({ low, high }: BoxMm): [number, number] => [u(low.x, low.y), u(high.x, high.y)];
  const isAlongX = sight === "front" || sight === "back";
  const at = u(x, y);
  const far = ({ low, high }: BoxMm) => depth(sight, (low.x + high.x) / 2, (low.y + high.y) / 2);
  const solids = solidsOf(seen)
    .filter(({ name }) => name !== "table")
    .map(({ name, solid }) => ({ name, box: boxOf(solid) }))
    .sort((a, b) => far(b.box) - far(a.box));
  const isToolFar = depth(sight, x, y) > far(stock) + 1;
  const isCut = (name: string) => name === "stock" || name === "boss" || (!isAlongX && /Jaw|plate/.test(name));
  const isBefore = ({ name, box }: (typeof solids)[number]) => !isCut(name) && far(box) < far(stock) - 1;
  const tool = <HeldFromBeside seen={seen} frame={frame} at={at} tipZ={tipZ} />;
  const [left, right] = span(stock).sort((a, b) => a - b);
  const { hole } = seen.solids.stock;
  const holeHalf = hole?.kind === "rect" ? hole[isAlongX ? "halfX" : "halfY"] : (hole?.radiusMm ?? 0);
  const bedTop = frontJaw ? frontJaw.low.z + (stock.low.z - frontJaw.low.z) * BED_SHARE : stock.low.z;
  const lies = (px: number, pz: number): [number, number] => [frame.px(px), frame.py(pz)];
  const isLit = (name: string) => (name === "setter" ? seen.isSetterTriggered : seen.lamp?.isLit);
  const body = ({ name, box }: (typeof solids)[number]) => (
    <g key={name}>
      <Rect
        frame={frame}
        u={span(box)}
        v={[box.low.z, box.high.z]}
        fill={fillOf(name).fill}
        stroke={fillOf(name).stroke}
        {...(name === "stock" ? { part: "elevation-stock" } : {})}
      />
      {isCut(name) ? (
        <Rect
          frame={frame}
          u={span(box)}
          v={[box.low.z, box.high.z]}
          fill={`url(#${id}${name === "stock" || name === "boss" ? "s" : "j"})`}
        />
      ) : null}
      {name === "setter" || gauges.includes(name) ? (
        <Rect
          frame={frame}
          u={[(span(box)[0] + span(box)[1]) / 2 - 4, (span(box)[0] + span(box)[1]) / 2 + 4]}
          v={[box.high.z, box.high.z + (name === "setter" ? 3 : 2)]}
          fill={isLit(name) ? "var(--contact)" : "var(--expected)"}
          stroke="var(--ink2)"
        />
      ) : null}
    </g>
  );
  const zero = ownZero(seen);
  const zeroU = isAlongX ? zero.x : zero.y;
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="group"
      aria-label={`Section through the blank, seen from the ${sight}.`}
    >
      <defs>
        <Hatch id={`${id}s`} angleDeg={45} pitch={8} />
        <Hatch id={`${id}j`} angleDeg={-50} pitch={6} />
        <Hatch id={`${id}t`} angleDeg={60} pitch={11} />
      </defs>
      <rect width={width} height={height} fill="var(--well)" />
      <Rect frame={frame} u={[-2000, 2000]} v={[table.low.z, table.high.z]} fill="var(--steel)" stroke="var(--ink2)" />
      <Rect frame={frame} u={[-2000, 2000]} v={[table.low.z, table.high.z]} fill={`url(#${id}t)`} />
      {solids.filter((one) => !isCut(one.name) && !isBefore(one)).map(body)}
      {isToolFar ? tool : null}
      {frontJaw && backJaw ? (
        <>
          <Rect
            frame={frame}
            u={isAlongX ? span(frontJaw) : [u(0, frontJaw.high.y), u(0, backJaw.low.y)]}
            v={[frontJaw.low.z, bedTop]}
            fill="var(--jaw)"
            stroke="var(--ink2)"
          />
          <Rect
            frame={frame}
            u={isAlongX ? span(frontJaw) : [u(0, frontJaw.high.y), u(0, backJaw.low.y)]}
            v={[frontJaw.low.z, bedTop]}
            fill={`url(#${id}j)`}
          />
          {(isAlongX
            ? ([[left + 4, right - 4]] as const)
            : ([
                [left + 2, left + 2 + PARALLEL_MM],
                [right - 2 - PARALLEL_MM, right - 2],
              ] as const)
          ).map(([a, b]) => (
            <Rect key={a} frame={frame} u={[a, b]} v={[bedTop, stock.low.z]} fill="var(--steel)" stroke="var(--ink2)" />
          ))}
        </>
      ) : null}
      {solids.filter(({ name }) => isCut(name)).map(body)}
      {sheet.facingAllowanceMm > 0 ? (
        <Rect
          frame={frame}
          u={span(stock)}
          v={[stock.high.z - sheet.facingAllowanceMm, stock.high.z]}
          fill="var(--stock-edge)"
        />
      ) : null}
      {hole ? (
        <Rect
          frame={frame}
          u={[u(hole.x, hole.y) - holeHalf, u(hole.x, hole.y) + holeHalf]}
          v={[stock.low.z, stock.high.z]}
          fill="var(--well)"
          stroke="var(--ink)"
        />
      ) : null}
      {seen.isBurrDressed ? null : (
        <path
          d={[left, right - 3]
            .map((from) => ragged(lies(from, stock.high.z), lies(from + 3, stock.high.z), 7))
            .join("")}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
      )}
      {solids.filter(isBefore).map(({ name, box }) => (
        <Rect
          key={name}
          frame={frame}
          u={span(box)}
          v={[box.low.z, box.high.z]}
          fill="none"
          stroke="var(--ink2)"
          dash="12 3 2 3 2 3"
        />
      ))}
      {isToolFar ? null : tool}
      <InGap seen={seen} frame={frame} at={at} tipZ={tipZ} />
      {leftOutMm > 0 ? null : (
        <Ways
          strokes={strokes}
          called={seen.modal.tool}
          at={(place, stroke) => {
            const there = programmedAt(seen, place, stroke.frame);
            return there?.tipZ == null ? null : [frame.px(u(there.x, there.y)), frame.py(there.tipZ)];
          }}
        />
      )}
      <g data-part="own-zero">
        {zeroU === null ? null : (
          <path
            d={`M${frame.px(isAlongX ? u(zeroU, 0) : u(0, zeroU))} 0V${height}`}
            stroke="var(--expected)"
            strokeWidth="1.5"
            strokeDasharray="12 3 2 3"
          />
        )}
        {zero.tipZ === null || leftOutMm > 0 ? null : (
          <>
            <path
              d={`M0 ${frame.py(zero.tipZ)}H${width}`}
              stroke="var(--expected)"
              strokeWidth="1.5"
              strokeDasharray="12 3 2 3"
            />
            <Note x={width - 66} y={frame.py(zero.tipZ) - 5} anchor="end" fill="var(--expected)" isBold>
              my Z 0, with this tool
            </Note>
          </>
        )}
      </g>
      {(right - left) * frame.scale > 90 &&
      frame.px((left + right) / 2) < width - 90 &&
      frame.px((left + right) / 2) > 60 ? (
        <>
          <Note
            x={frame.px((left + right) / 2)}
            y={frame.py((stock.low.z + stock.high.z) / 2) + 4}
            anchor="middle"
            halo="var(--stock)"
            isBold
          >
            blank
          </Note>
          {frontJaw ? (
            <Note
              x={frame.px((left + right) / 2)}
              y={frame.py((bedTop + stock.low.z) / 2) + 4}
              anchor="middle"
              halo={isAlongX ? "var(--steel)" : "var(--well)"}
            >
              parallels
            </Note>
          ) : null}
        </>
      ) : null}
      {struck ? <Witness x={frame.px(u(struck.x, struck.y))} y={frame.py(struck.tipZ)} /> : null}
      {leftOutMm > 0 ? <Break frame={frame} v={stock.high.z + 19} mm={leftOutMm} at={at} /> : null}
      {keys ? (
        <>
          <path d={`M${keys.x} ${keys.up}V${keys.down}`} stroke="var(--ink3)" />
          {keys.isTowardDown ? (
            <path d={`M${keys.x} ${(keys.up + keys.down) / 2}V${keys.down}`} stroke="var(--contact)" strokeWidth="2" />
          ) : null}
        </>
      ) : null}
    </svg>
  );
}
