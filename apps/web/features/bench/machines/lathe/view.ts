import type { LatheSeen, TurningSeen } from "@probe-lane/core/bench";
import type { TurretTool } from "@probe-lane/core/exercises";
import { type AxisCounts } from "@probe-lane/core/registers";
import { scales, showLength, toMm } from "@probe-lane/core/units";
import {
  edgeFeelWords,
  feelWords,
  gapKindWords,
  instrumentWords,
  turnedFaceWords,
  turretKindWords,
} from "@probe-lane/core/words";
import { holding, windowRound, type Shown, type ViewBox } from "../../lane/camera";
import type { DialogProps } from "../../lane/kit";
import { nearest, stoppedSensation, type Sensation } from "../../lane/things";

export type LatheDialogProps = DialogProps<TurningSeen>;

export const toolOf = (seen: TurningSeen): TurretTool | null =>
  seen.sheet.lathe.tools.find(({ number }) => number === seen.lathe.station) ?? null;

/** Tool 3, grooving tool, blade 3 mm. */
export const turretLabel = ({ number, kind, insert }: TurretTool): string =>
  `T${number} ${turretKindWords[kind]}, ${insert}`;

/**
 * Where the tip stands for a machine position, by eye: radius and Z in the drawing's frame, mm. A waiting click moves
 * it at once.
 */
export function tipPlace(seen: TurningSeen, machine: AxisCounts): { radiusMm: number; zMm: number } {
  const scale = scales[seen.sheet.unit];
  const { tip } = seen.lathe;
  return {
    radiusMm: tip.radiusMm + toMm(machine.x - seen.machine.x, scale) / 2,
    zMm: tip.zMm + toMm(machine.z - seen.machine.z, scale),
  };
}

/** The window of the half section: part and jaws with room for the tool, or the whole travel. */
export function turningWindow(seen: TurningSeen, machine: AxisCounts, shown: Shown): ViewBox {
  const { tip } = seen.lathe;
  const { radiusMm, zMm } = tipPlace(seen, machine);
  if (shown === "contact") return windowRound(zMm, radiusMm, CLOSE_HALF_MM);
  if (shown === "far")
    return { left: tip.jawMm - 40, right: tip.faceMm + 330, bottom: -20, top: tip.partRadiusMm + 150 };
  const { arm } = seen.lathe;
  const near = { left: tip.jawMm - 26, right: tip.faceMm + 46, bottom: -14, top: tip.partRadiusMm + 40 };
  // with the arm down the work is done at its sensor
  const all = arm
    ? { ...near, right: Math.max(near.right, arm.zMm + 36), top: Math.max(near.top, arm.radiusMm + 44) }
    : near;
  return holding(all, zMm, radiusMm, TIP_ROOM_MM);
}

/** Room round a tip, and half of what is looked at closely, mm. */
const TIP_ROOM_MM = 30;
const CLOSE_HALF_MM = 15;

/** Daylight from the tip to the part's end or its skin, as an eye tells it, mm. */
export function turningDaylight(seen: TurningSeen, machine: AxisCounts): number {
  const { tip } = seen.lathe;
  const { radiusMm, zMm } = tipPlace(seen, machine);
  const [out, right] = [radiusMm - tip.partRadiusMm, zMm - tip.faceMm];
  return out > 0 && right > 0 ? Math.hypot(out, right) : Math.max(out, right);
}

/** Axis and direction that lead to the part: along Z from before the face, across from outside. */
export function towardTurned(seen: TurningSeen, machine: AxisCounts): { axis: "x" | "z"; direction: -1 }[] {
  const { tip } = seen.lathe;
  const { radiusMm, zMm } = tipPlace(seen, machine);
  if (zMm > tip.faceMm) return [{ axis: "z", direction: -1 }];
  return radiusMm > tip.partRadiusMm ? [{ axis: "x", direction: -1 }] : [];
}

const gapName = ({ sheet }: Pick<TurningSeen, "sheet">, id: string): string => {
  const gap = sheet.gaps.find((one) => one.id === id);
  return gap ? gapKindWords[gap.kind] : instrumentWords("straightEdge");
};

/** What ear and eye say of an edge in turning metal. */
const HEARD: Readonly<Record<Exclude<LatheSeen["heard"], "air" | null>, Sensation>> = {
  scrapes: { strong: "it just scrapes", soft: "a bright line, no chip", isContact: true },
  cuts: { strong: "it cuts", soft: "chip comes off, fresh metal", isContact: true },
  chatters: { strong: "it sings and tears", soft: "too fast, or the insert is chipped", isContact: true },
  rubs: { strong: "it rubs, heel first", soft: "the chuck turns the wrong way", isContact: true },
};

/** What eye and finger say at the tip of a turret tool. */
export function turningSensation(seen: TurningSeen, machine: AxisCounts): Sensation {
  const { lathe } = seen;
  if (seen.isStopped) return stoppedSensation(seen);
  if (lathe.gap) {
    const { id, on, feel } = lathe.gap;
    if (id === "straightEdge")
      return {
        strong: edgeFeelWords[feel],
        soft: lathe.gap.isBehind ? "straight edge on the face, from behind" : "straight edge on the face",
        isContact: feel !== "slides",
      };
    return {
      strong: `${gapName(seen, id)} ${feelWords[feel]}`,
      soft: `at the ${turnedFaceWords[on]}`,
      isContact: feel !== "slides",
    };
  }
  if (lathe.block)
    return {
      strong: `${gapName(seen, lathe.block.id)} goes`,
      soft: "it is in the gap: do not close it",
      isContact: true,
    };
  if (lathe.isArmTripped) return { strong: "arm tripped", soft: "the axis stopped by itself", isContact: true };
  if (lathe.loose !== null)
    return { strong: `tool ${lathe.loose} is loose in its clamp`, soft: "slide it, then tighten", isContact: true };
  if (lathe.sighted?.at.z === machine.z && lathe.sighted.at.x === machine.x)
    return {
      strong: `the point stands ${lathe.sighted.looks} the edge`,
      soft: "by eye, no better",
      isContact: lathe.sighted.looks === "over",
    };
  if (lathe.isResting) return { strong: "tip on the metal", soft: "nothing in between: go back", isContact: true };
  const { lastTry } = lathe;
  if (lastTry && !lastTry.goes && lastTry.at.x === seen.machine.x && lastTry.at.z === seen.machine.z)
    return { strong: `${gapName(seen, lastTry.id)} does not go`, soft: "open the gap a little", isContact: true };
  if (lathe.isPastCenter)
    return { strong: "past the middle", soft: "here the edge rubs the other way: go back", isContact: true };
  if (lathe.heard !== null && lathe.heard !== "air") return HEARD[lathe.heard];
  const { radiusMm, zMm } = tipPlace(seen, machine);
  const { faceMm, partRadiusMm } = lathe.tip;
  if (lathe.cone) {
    const { looks, isHeld } = lathe.cone;
    const said =
      looks === "cuts"
        ? "the pass cut the cone"
        : looks === "skims"
          ? "the pass just skimmed"
          : "the pass stood off the cone";
    return { strong: said, soft: isHeld ? "held halfway along it" : "run to its end", isContact: looks !== "air" };
  }
  const band =
    lathe.isCleanedUp === null ? "" : lathe.isCleanedUp ? "band cleaned up all round" : "band still shows the saw";
  if (zMm > faceMm && (lathe.pip === "standing" || lathe.pip === "rubbed"))
    return {
      strong: lathe.pip === "standing" ? "a pip stands in the middle" : "the middle is rubbed to a pip",
      soft: "left by the last facing cut",
      isContact: true,
    };
  if (zMm > faceMm)
    return { strong: "tip before the face", soft: `about ${nearest(zMm - faceMm)} mm of daylight`, isContact: false };
  return {
    strong: "tip beside the part",
    soft:
      radiusMm > partRadiusMm ? `about ${nearest(radiusMm - partRadiusMm)} mm of daylight` : band || "at the surface",
    isContact: false,
  };
}

/** Where zero is, as the sheet says it before anything is set. */
function zeroFacts(kind: TurningSeen["sheet"]["kind"], isAxisAsked: boolean): [string, string][] {
  if (kind === "gang" || (kind === "readout" && isAxisAsked)) return [];
  if (kind === "readout") return [["corner of face and band", "X 0, Z 0"]];
  return [
    ["face, once cut", "Z 0"],
    ["axis", "X 0"],
  ];
}

/** The sheet of a lathe: what is named and how large it is. */
export function turningFacts({ sheet }: Pick<TurningSeen, "sheet">): [string, string][] {
  const { lathe } = sheet;
  const show = (mm: number, decimals?: number) => showLength(mm, scales[sheet.unit], decimals);
  return [
    [sheet.kind === "gang" ? "bar, ground" : "stock, sawn", `⌀ ${show(lathe.stock.diameterMm, 1)}`],
    ["stands out", show(lathe.stock.stickOutMm, 1)],
    ...(lathe.stock.boreMm === null ? [] : [["drilled", `⌀ ${show(lathe.stock.boreMm, 1)}`] as [string, string]]),
    ...zeroFacts(sheet.kind, Boolean(lathe.axis)),
    ...(lathe.gang
      ? ([
          ["work X of all tools", show(lathe.gang.workXMm)],
          ["approach stops over the bar by", show(lathe.gang.clearanceMm, 1)],
          ["tools stand out", show(lathe.gang.overhangMm, 1)],
          ["worn, to be changed", lathe.gang.changed.map((number) => `T${number}`).join(", ")],
        ] as [string, string][])
      : []),
    ...(lathe.profile
      ? ([
          ["steepest fall of the profile", `${lathe.profile.steepestFallDeg}°`],
          ["groove", `${show(lathe.profile.grooveMm, 1)} deep`],
        ] as [string, string][])
      : []),
    ...(lathe.axis ? ([["ground pin", `⌀ ${show(lathe.axis.pinMm)}`]] as [string, string][]) : []),
    ...(lathe.tools.some(({ qualified }) => qualified === "far")
      ? [
          [
            "set on its far edge",
            lathe.tools
              .filter(({ qualified }) => qualified === "far")
              .map(({ number }) => `T${number}`)
              .join(", "),
          ] as [string, string],
        ]
      : []),
    ...(lathe.start
      ? [["start point, machine", `X ${show(lathe.start.xMm)} Z ${show(lathe.start.zMm)}`] as [string, string]]
      : []),
    ...(lathe.cone
      ? [
          [
            "cone",
            `⌀ ${show(lathe.cone.diameterMm, 1)} at Z ${show(lathe.cone.atMm, 1)}, ${lathe.cone.angleDeg}°, ${show(lathe.cone.lengthMm, 1)} long`,
          ] as [string, string],
        ]
      : []),
    ...(lathe.alreadySet && !lathe.gang
      ? [["set and right", lathe.alreadySet.map((number) => `T${number}`).join(", ")] as [string, string]]
      : []),
    ...sheet.gaps
      .filter(({ kind }) => sheet.instruments.includes(kind))
      .map(({ kind, nominalMm }): [string, string] => [gapKindWords[kind], show(nominalMm)]),
    ...(lathe.arm ? [["arm trips at", `⌀ ${show(lathe.arm.xMm)}, Z ${show(lathe.arm.zMm)}`] as [string, string]] : []),
  ];
}

/**
 * Where the display would read zero with the tool that is called, by eye: the student's own zero, mm. Null while no row
 * is called.
 */
export function ownZero({ lathe, work, sheet }: TurningSeen): { radiusMm: number; zMm: number } | null {
  const scale = scales[sheet.unit];
  return lathe.row === null
    ? null
    : { radiusMm: lathe.tip.radiusMm - toMm(work.x, scale) / 2, zMm: lathe.tip.zMm - toMm(work.z, scale) };
}
