import type { MillSeen } from "@probe-lane/core/bench";
import type { Side } from "@probe-lane/core/lane";
import type { Axis } from "@probe-lane/core/registers";
import { scales, toMm } from "@probe-lane/core/units";
import { surfaceWords, taskWords } from "@probe-lane/core/words";
import { useState } from "react";
import { useElementSize } from "../../../../app/useElementSize";
import { KeyCap } from "../../../../ui";
import { scaleFor, shownFor, type Pads, type Shown, type ViewBox } from "../../lane/camera";
import { DOCK_PX, DockedKey, KEY_PX, TravelStrip, type Travel } from "../../lane/Dock";
import { clamp, frameOf } from "../../lane/drawing";
import type { PictureProps } from "../../lane/kit";
import { hasStruck } from "../../lane/things";
import { easeMs, useEased } from "../../lane/useEased";
import { useStruckAt } from "../../lane/Witness";
import { millKeys } from "./keys";
import { Loupe } from "./Loupe";
import { Plan } from "./scene/Plan";
import { Section } from "./scene/Section";
import { across, leftOutMm, nearestMm, placeOf, sceneWindows, sheetLine, towardPart } from "./view";

/** What of the setting up is done. */
function readyWords({ sheet, tasksDone, isBurrDressed }: MillSeen): string {
  // of a setup that was handed over nobody knows what was done
  if (sheet.handover) return "";
  const open = sheet.tasks.filter((task) => !tasksDone.includes(task) && !(task === "dressBurr" && isBurrDressed));
  if (open.length === 1 && open[0] === "dressBurr") return "burr on the edges";
  if (open.length > 0) return `still to do: ${open.length} of ${sheet.tasks.length}`;
  if (sheet.tasks.length === 0) return "machine and blank are ready";
  return sheet.tasks
    .map((task) => taskWords[task].done)
    .slice(-2)
    .join(", ");
}

/** How machine and blank stand, in a few words. */
export const standingWords = (seen: MillSeen): string =>
  [
    readyWords(seen),
    seen.lamp ? `height gauge on the ${surfaceWords(seen.lamp.on)}` : "",
    seen.tip?.kind === "dial"
      ? `taster ${seen.tip.isTrued ? "trued" : "not trued"}, spindle turned to ${seen.quarter * 90}°`
      : "",
    seen.sheet.facingAllowanceMm > 0 ? "dark skin: still to be faced" : "",
  ]
    .filter(Boolean)
    .join(" · ");

export const sideWords: Record<Side, string> = {
  front: "from the front",
  back: "from the back",
  left: "from the left",
  right: "from the right",
};
const AROUND = ["front", "right", "back", "left"] as const;

const WINDOW_MS = 200;
const windowMs = () => WINDOW_MS;
const flat = ({ left, right, bottom, top }: ViewBox): number[] => [left, right, bottom, top];
const windowOf = ([left = 0, right = 1, bottom = 0, top = 1]: readonly number[]): ViewBox => ({
  left,
  right,
  bottom,
  top,
});
const EDGE_PX = 30;
/** Narrower than this the sheet’s figures stand on the sheet only, px. */
const FACTS_FROM_PX = 560;

/** On which side the loupe stands: where the part is not, and once it stands there until the tip is past the part. */
function useLoupeSide(at: number, low: number, high: number): "left" | "right" {
  const wanted = at <= low ? "left" : at >= high ? "right" : null;
  const [side, setSide] = useState<"left" | "right">(wanted ?? (at < (low + high) / 2 ? "left" : "right"));
  if (wanted !== null && wanted !== side) setSide(wanted);
  return wanted ?? side;
}

/**
 * Plan over section, drawn in projection and to one scale; the loupe lies in the free side that the tool came from, the
 * keys are docked at the edges.
 */
export function MillPicture({
  seen,
  machine,
  framing,
  lastAxis,
  onJog,
  send,
  isReadOnly,
  pointed,
  stopsAt,
}: PictureProps<MillSeen>) {
  const { ref, width, height } = useElementSize();
  const { sight, sheet, boxes } = seen;
  const unit = scales[sheet.unit];
  const now = placeOf(seen, machine);
  const [shown, setShown] = useState<Shown>("near");
  const wanted = shownFor(framing, nearestMm(seen, machine), shown);
  if (wanted !== shown) setShown(wanted);
  const windows = sceneWindows(seen, machine, wanted);
  const eased = useEased([...flat(windows.plan), ...flat(windows.section)], windowMs);
  const [plan, section] = [windowOf(eased.slice(0, 4)), windowOf(eased.slice(4))];
  const [x = now.x, y = now.y, tipZ = now.tipZ] = useEased([now.x, now.y, now.tipZ], easeMs);
  const struck = useStruckAt(hasStruck(seen), now);
  const leftOut = leftOutMm(seen, tipZ, wanted);
  const place = { ...now, x, y, tipZ: tipZ - leftOut };
  const at = across(sight, x, y);
  const ends = [
    across(sight, boxes.stock.low.x, boxes.stock.low.y),
    across(sight, boxes.stock.high.x, boxes.stock.high.y),
  ];
  const side = useLoupeSide(across(sight, now.x, now.y), Math.min(...ends), Math.max(...ends));
  const share = clamp((plan.top - plan.bottom) / (plan.top - plan.bottom + section.top - section.bottom), 0.42, 0.56);
  const planHeight = Math.floor(height * share);
  const sectionHeight = height - planHeight - 1;
  const loupePx = Math.floor(clamp(Math.min(width * 0.3, sectionHeight - 112), 96, 250));
  const free = loupePx + 16;
  const pads: Pads = {
    left: side === "left" ? free : DOCK_PX,
    right: side === "right" ? free + DOCK_PX : DOCK_PX,
    top: EDGE_PX,
    bottom: EDGE_PX,
  };
  const sectionPads = { ...pads, bottom: 10 };
  const scale = Math.min(scaleFor(plan, width, planHeight, pads), scaleFor(section, width, sectionHeight, sectionPads));
  const planFrame = frameOf(plan, width, planHeight, { pads, scale });
  const sectionFrame = frameOf(section, width, sectionHeight, { pads: sectionPads, scale });
  const toward = towardPart(seen, machine);
  const isToward = (axis: Axis, direction: 1 | -1) =>
    toward.some((one) => one.axis === axis && one.direction === direction);
  const middle = {
    y: clamp(planFrame.py(y), KEY_PX, planHeight - KEY_PX),
    x: clamp(planFrame.px(x), DOCK_PX + KEY_PX, width - DOCK_PX - KEY_PX),
  };
  const half = KEY_PX / 2;
  const edges = { left: half + 4, right: width - half - 4, up: half + 4, down: planHeight - half - 4 };
  // beside the tip where the edge is too near to it
  const besideTip = (edge: number) => (Math.abs(planFrame.py(y) - edge) < KEY_PX + 8 ? KEY_PX + 22 : 0);
  const zX = width - half - 4;
  const key = (name: keyof typeof millKeys, px: number, py: number) => {
    const jogKey = millKeys[name];
    return onJog ? (
      <DockedKey
        key={name}
        jogKey={jogKey}
        x={px}
        y={py}
        isToward={isToward(jogKey.axis, jogKey.direction)}
        isActive={lastAxis === jogKey.axis}
        isPointed={pointed.has(`key ${jogKey.axis}`)}
        onJog={onJog}
        stopsAt={stopsAt}
      />
    ) : null;
  };
  const travel = (
    axis: Axis,
    mm: number,
    part: readonly [number, number],
    window: readonly [number, number],
  ): Travel => ({
    axis,
    from: toMm(seen.travelCounts[axis][0], unit),
    to: toMm(seen.travelCounts[axis][1], unit),
    at: mm,
    part,
    window,
  });
  const whole = (lengthMm: number) => [section.bottom + lengthMm, section.top + lengthMm] as const;
  const { stock } = boxes;
  return (
    <div className="flex min-w-0 flex-1 flex-col">
      <div ref={ref} className="relative min-h-0 flex-1 overflow-hidden">
        {width > 0 ? (
          <>
            <Plan
              seen={seen}
              place={place}
              struck={struck}
              frame={planFrame}
              toward={new Set(toward.map(({ axis, direction }) => `${axis}${direction}`))}
              keys={
                onJog
                  ? { left: KEY_PX + 8, right: width - KEY_PX - 8, up: KEY_PX + 8, down: planHeight - KEY_PX - 8 }
                  : null
              }
            />
            <div className="border-t border-rule" />
            <Section
              seen={seen}
              place={place}
              struck={struck}
              leftOutMm={leftOut}
              frame={sectionFrame}
              keys={
                onJog ? { x: zX, up: half + 8, down: sectionHeight - half - 8, isTowardDown: isToward("z", -1) } : null
              }
            />
            {key("ArrowLeft", edges.left, middle.y)}
            {key("ArrowRight", edges.right, middle.y)}
            {key("ArrowUp", middle.x + besideTip(edges.up), edges.up)}
            {key("ArrowDown", middle.x + besideTip(edges.down), edges.down)}
            {key("PageUp", zX, planHeight + half + 6)}
            {key("PageDown", zX, height - half - 6)}
            {width < FACTS_FROM_PX ? null : (
              <ul
                className={`absolute max-w-[200px] rounded-[3px] bg-well/80 text-xs leading-4 text-ink2 ${side === "left" ? "left-2" : "right-16 text-right"}`}
                style={{ top: planHeight - 8 - 16 * sheetLine(seen).length }}
              >
                {sheetLine(seen).map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            )}
            <div
              className="absolute flex flex-wrap items-center gap-1 text-xs"
              // beside the loupe's words, which grow upward
              style={{ top: planHeight + 8, left: side === "left" ? loupePx + 20 : 8 }}
            >
              <span>Section</span>
              <div role="group" aria-label="Line of sight" className="flex">
                {AROUND.map((one) => (
                  <button
                    key={one}
                    type="button"
                    aria-label={sideWords[one]}
                    aria-pressed={sight === one}
                    disabled={isReadOnly}
                    onClick={() => send({ type: "lookFrom", side: one })}
                    className={`min-h-6 border px-1.5 ${sight === one ? "border-ink bg-ink font-bold text-panel" : "border-ink3 bg-field"} ${pointed.has("look") ? "outline-3 outline-expected" : ""}`}
                  >
                    {one}
                  </button>
                ))}
              </div>
              {isReadOnly ? null : <KeyCap>V</KeyCap>}
            </div>
            <LoupeLeader
              from={{ x: side === "left" ? 8 + loupePx : width - DOCK_PX - 8 - loupePx, y: height - loupePx / 2 - 8 }}
              to={{ x: sectionFrame.px(at), y: planHeight + 1 + sectionFrame.py(place.tipZ) }}
              width={width}
              height={height}
            />
            <div
              className="absolute"
              style={{
                width: loupePx,
                bottom: 8,
                ...(side === "left" ? { left: 8 } : { right: DOCK_PX + 8 }),
              }}
            >
              <Loupe seen={seen} machine={machine} />
            </div>
          </>
        ) : null}
      </div>
      <TravelStrip
        travels={[
          travel("x", x, [stock.low.x, stock.high.x], [plan.left, plan.right]),
          travel("y", y, [stock.low.y, stock.high.y], [plan.bottom, plan.top]),
          travel(
            "z",
            tipZ + seen.heldLengthMm,
            [stock.low.z + seen.heldLengthMm, stock.high.z + seen.heldLengthMm],
            whole(seen.heldLengthMm),
          ),
        ]}
      />
    </div>
  );
}

/** A thin line from the loupe to what it magnifies. */
function LoupeLeader({
  from,
  to,
  width,
  height,
}: {
  from: { x: number; y: number };
  to: { x: number; y: number };
  width: number;
  height: number;
}) {
  return (
    <svg className="pointer-events-none absolute inset-0" width={width} height={height} aria-hidden>
      <path d={`M${from.x} ${from.y}L${to.x} ${to.y}`} stroke="var(--ink)" fill="none" />
      <circle cx={to.x} cy={to.y} r="11" stroke="var(--ink)" fill="none" />
    </svg>
  );
}
