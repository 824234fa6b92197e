import type { TurningSeen } from "@probe-lane/core/bench";
import type { Axis } from "@probe-lane/core/registers";
import { scales, toMm } from "@probe-lane/core/units";
import { useState } from "react";
import { useElementSize } from "../../../../app/useElementSize";
import { scaleFor, shownFor, type Shown } from "../../lane/camera";
import { DOCK_PX, DockedKey, KEY_PX, TravelStrip, type Travel } from "../../lane/Dock";
import { clamp, frameOf } from "../../lane/drawing";
import type { PictureProps } from "../../lane/kit";
import { hasStruck } from "../../lane/things";
import { easeMs, useEased } from "../../lane/useEased";
import { useStruckAt } from "../../lane/Witness";
import { handWoundKeys, latheKeys } from "./keys";
import { FromTheTailstock } from "./scene/FromTheTailstock";
import { SlideFromTheEnd } from "./scene/SlideFromTheEnd";
import { TurningLoupe } from "./scene/TurningLoupe";
import { TurningScene } from "./scene/TurningScene";
import { tipPlace, towardTurned, turningDaylight, turningFacts, turningSensation, turningWindow } from "./view";

const WINDOW_MS = 200;
const windowMs = () => WINDOW_MS;

/** The half section with its keys at the edges; beside it the tip under a glass, what it feels like, and the sheet. */
export function LathePicture({ seen, machine, framing, lastAxis, onJog, pointed, stopsAt }: PictureProps<TurningSeen>) {
  const { ref, width, height } = useElementSize();
  const { strong, soft, isContact } = turningSensation(seen, machine);
  const [shown, setShown] = useState<Shown>("near");
  const wanted = shownFor(framing, turningDaylight(seen, machine), shown);
  if (wanted !== shown) setShown(wanted);
  const target = turningWindow(seen, machine, wanted);
  const [left = 0, right = 1, bottom = 0, top = 1] = useEased(
    [target.left, target.right, target.bottom, target.top],
    windowMs,
  );
  const now = tipPlace(seen, machine);
  const [zMm = now.zMm, radiusMm = now.radiusMm] = useEased([now.zMm, now.radiusMm], easeMs);
  const struck = useStruckAt(hasStruck(seen), now);
  const window = { left, right, bottom, top };
  // a post stands on its operator's side
  const isUpsideDown = seen.kind === "readout";
  const pads = { left: DOCK_PX, right: DOCK_PX, top: 24, bottom: 24 };
  const frame = frameOf(window, width, height, { isUpsideDown, pads, scale: scaleFor(window, width, height, pads) });
  const toward = towardTurned(seen, machine);
  const half = KEY_PX / 2;
  const x = clamp(frame.px(zMm), DOCK_PX + KEY_PX, Math.max(width - DOCK_PX - KEY_PX, DOCK_PX + KEY_PX));
  const y = clamp(frame.py(radiusMm), DOCK_PX + half, Math.max(height - DOCK_PX - half, DOCK_PX + half));
  // beside the tip where the edge is too near to it
  const besideTip = (edge: number) => (Math.abs(frame.py(radiusMm) - edge) < KEY_PX + 8 ? -(KEY_PX + 22) : 0);
  const edges = { left: half + 4, right: width - half - 4, up: half + 4, down: height - half - 4 };
  const places = {
    ArrowLeft: [edges.left, y],
    ArrowRight: [edges.right, y],
    ArrowUp: [x + besideTip(edges.up), edges.up],
    ArrowDown: [x + besideTip(edges.down), edges.down],
  } as const;
  const unit = scales[seen.sheet.unit];
  const along = (axis: Axis, part: readonly [number, number], view: readonly [number, number]): Travel => {
    const at = toMm(machine[axis], unit);
    // the part's places are in the frame of the tip; the strip is in that of the slide
    const off = axis === "x" ? at - 2 * now.radiusMm : at - now.zMm;
    const place = (mm: number) => (axis === "x" ? 2 * mm : mm) + off;
    return {
      axis,
      mark: axis === "x" ? "⌀" : undefined,
      from: toMm(seen.travelCounts[axis][0], unit),
      to: toMm(seen.travelCounts[axis][1], unit),
      at,
      part: [place(part[0]), place(part[1])],
      window: [place(view[0]), place(view[1])],
    };
  };
  const { tip } = seen.lathe;
  return (
    <div className="flex min-w-0 flex-1 flex-col">
      <div className="flex min-h-0 flex-1">
        <div ref={ref} className="relative min-w-0 flex-1 overflow-hidden">
          {width > 0 ? (
            <>
              <TurningScene
                seen={seen}
                tip={{ zMm, radiusMm }}
                struck={struck}
                frame={frame}
                keys={
                  onJog
                    ? { left: KEY_PX + 8, right: width - KEY_PX - 8, up: KEY_PX + 8, down: height - KEY_PX - 8 }
                    : null
                }
              />
              {onJog
                ? (["ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown"] as const).map((name) => {
                    const jogKey = (isUpsideDown ? handWoundKeys : latheKeys)[name];
                    const [px, py] = places[name];
                    return (
                      <DockedKey
                        key={name}
                        jogKey={jogKey}
                        x={px}
                        y={py}
                        isToward={toward.some((one) => one.axis === jogKey.axis && one.direction === jogKey.direction)}
                        isActive={lastAxis === jogKey.axis}
                        isPointed={pointed.has(`key ${jogKey.axis}`)}
                        onJog={onJog}
                        stopsAt={stopsAt}
                      />
                    );
                  })
                : null}
            </>
          ) : null}
        </div>
        <div className="flex w-[150px] shrink-0 flex-col gap-2 border-l border-rule-soft p-2 xl:w-[190px]">
          <p aria-live="polite" role="status">
            <b data-testid="sensation" className={`block text-lg leading-5 ${isContact ? "text-contact" : ""}`}>
              {strong}
            </b>
            <span className="text-xs text-ink2">{soft}</span>
          </p>
          <TurningLoupe seen={seen} machine={machine} />
          {seen.lathe.neighbors.length > 0 ? (
            <SlideFromTheEnd seen={seen} shiftMm={radiusMm - seen.lathe.tip.radiusMm} />
          ) : (
            <FromTheTailstock seen={seen} radiusMm={radiusMm} />
          )}
          <ul className="mt-auto text-xs leading-4 text-ink2">
            <li>{seen.kind === "gang" ? "hatched: bar as it came" : "hatched: sawn"}; heavy line: turned</li>
            {turningFacts(seen).map(([name, size]) => (
              <li key={name}>
                {name} <span className="figures">{size}</span>
              </li>
            ))}
          </ul>
        </div>
      </div>
      <TravelStrip
        travels={[along("x", [0, tip.partRadiusMm], [bottom, top]), along("z", [tip.jawMm, tip.faceMm], [left, right])]}
      />
    </div>
  );
}
