import type { PartPicture, TurningSeen } from "@probe-lane/core/bench";
import { CHUCK_MM } from "@probe-lane/core/machines";
import type { AxisCounts } from "@probe-lane/core/registers";
import { box, type Body, type SpaceScene } from "../../lane/space/bodies";
import { outlineOf } from "./scene/inserts";
import { ownZero, tipPlace, toolOf } from "./view";

/** A turret stands behind the axis, a post on its operator's side. */
const sideOf = ({ kind }: TurningSeen): 1 | -1 => (kind === "readout" ? -1 : 1);

/** A lathe in space: Z to the right, X to the back (or to the operator, on a post), from what its drawing has. */
export function turningSpace(seen: TurningSeen, machine: AxisCounts, part: PartPicture | null): SpaceScene {
  const { lathe } = seen;
  const { tip } = lathe;
  const { radiusMm, zMm } = tipPlace(seen, machine);
  const side = sideOf(seen);
  const tool = toolOf(seen);
  const widest = Math.max(tip.partRadiusMm, 5);
  const isBar = seen.kind === "gang";
  const round = (tone: Body["tone"], from: number, to: number, radius: number): Body => ({
    kind: "cylinder",
    tone,
    along: "u",
    at: [0, 0],
    radius,
    from,
    to,
  });
  const jaw = (angle: number): Body => {
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    // jaws of a chuck stand round the part; lying, each is a block at its place
    return {
      kind: "prism",
      tone: "jaw",
      outline: box([tip.jawMm - 18, tip.jawMm], [c * (widest + 13) - 9, c * (widest + 13) + 9]),
      low: s * (widest + 13) - 9,
      high: s * (widest + 13) + 9,
    };
  };
  const outline = tool ? outlineOf(tool) : { insert: [], holder: [] };
  const flat = (list: readonly (readonly [number, number])[]) => list.map(([z, r]) => [z, r * side] as const);
  const standing: Body[] = [
    round("dark", tip.jawMm - 60, tip.jawMm - 18, isBar ? widest + 16 : widest + CHUCK_MM.body),
    ...(isBar
      ? [round("jaw", tip.jawMm - 18, tip.jawMm, widest + 7)]
      : [0, 1, 2].map((n) => jaw(Math.PI / 2 + (n * 2 * Math.PI) / 3))),
    ...(part?.kind === "halfSection"
      ? [
          {
            kind: "turned",
            tone: "stock",
            from: part.fromMm,
            step: part.stepMm,
            outer: part.outer,
            bore: part.bore,
          } as const,
        ]
      : []),
    ...lathe.outer
      .filter(() => part === null)
      .filter(({ radiusMm: r }) => r > 0)
      .map(({ fromMm, toMm, radiusMm: r, isTurned }) => round(isTurned ? "stock" : "steel", fromMm, toMm, r)),
  ];
  const carried: Body[] = [
    { kind: "prism", tone: "steel", outline: flat(outline.holder), low: -18, high: 0 },
    { kind: "prism", tone: "tip", outline: flat(outline.insert), low: -4, high: 0.2 },
  ];
  return {
    standing,
    carried: carried.filter((body) => body.kind !== "prism" || body.outline.length > 2),
    tip: [zMm, radiusMm * side, 0],
    turns: "standing",
    isTurning: seen.spindle.isOn,
    arrows: [
      {
        label: "Z+",
        at: [zMm + 40, radiusMm * side + 30 * side, 14],
        to: [zMm + 100, radiusMm * side + 30 * side, 14],
      },
      { label: "X+", at: [zMm + 40, radiusMm * side + 30 * side, 14], to: [zMm + 40, (radiusMm + 80) * side, 14] },
    ],
    looksAt: [(tip.jawMm + zMm) / 2, (radiusMm * side) / 2, 0],
    reach: Math.max(120, Math.hypot(zMm - tip.jawMm, radiusMm) * 0.75 + 70),
  };
}

/** A programmed place in that frame, through the student's own zero; null where it has none. */
export function wayInTurningSpace(
  seen: TurningSeen,
  [x = 0, z = 0]: readonly number[],
  frame: string,
): readonly [number, number, number] | null {
  const zero = frame === seen.modal.workOffset ? ownZero(seen) : null;
  return zero && [zero.zMm + z, (zero.radiusMm + x / 2) * sideOf(seen), 0];
}
