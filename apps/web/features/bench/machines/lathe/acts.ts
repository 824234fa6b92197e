import type { TurningSeen } from "@probe-lane/core/bench";
import type { LatheKind, TurretTool } from "@probe-lane/core/exercises";
import type { Act } from "../../lane/act";
import { feltThings, gapLabel, hardThings } from "../../lane/things";
import { toolOf } from "./view";

/** What can stand between tool and part, or be taken from there. */
function gapActs(seen: TurningSeen): Act[] {
  const { lathe, sheet } = seen;
  const hasThin = feltThings(seen).length > 0 || sheet.instruments.includes("straightEdge");
  const [only, ...others] = hardThings(seen);
  const acts: Act[] = [];
  if (lathe.gap) acts.push({ label: "Pull it out", on: "paper", command: { type: "pullGap" } });
  else if (hasThin) acts.push({ label: "Hold … at the part", on: "paper", dialog: "gap" });
  if (lathe.block) acts.push({ label: "Take it out", on: "block", command: { type: "pullGap" } });
  else if (only && others.length === 0)
    acts.push({
      label: `Try ${gapLabel(seen, only.id)} at the face`,
      on: "block",
      command: { type: "tryGap", id: only.id, on: "face" },
    });
  else if (only) acts.push({ label: "Try … in the gap", on: "block", dialog: "gap" });
  if (only && !seen.areBlocksWiped) acts.push({ label: "Wipe the blocks", command: { type: "wipeBlocks" } });
  return acts;
}

/** The arm, and an indicator that is carried round a drill. */
function measuringActs(seen: TurningSeen, tool: TurretTool | null): Act[] {
  const { lathe, sheet } = seen;
  const { arm } = sheet.lathe;
  const acts: Act[] = [];
  if (arm)
    acts.push({
      label: lathe.arm ? "Fold the arm away" : "Swing the arm down",
      on: "wobble",
      command: { type: "swingArm", isDown: lathe.arm === null },
    });
  if (tool?.kind === "drill" && sheet.instruments.includes("indicator"))
    acts.push({ label: "Carry the indicator round it", ...(arm ? {} : { on: "wobble" }), command: { type: "sweep" } });
  return acts;
}

/** Height by shims under the holder, or by the shop’s setting gauge, where it is asked for. */
const shimActs = ({ sheet }: TurningSeen, tool: TurretTool): Act[] => {
  if (!sheet.lathe.targets.height.includes(tool.number)) return [];
  return sheet.lathe.hasHeightGauge
    ? [
        { label: "Raise to the setting gauge, lock", on: "feel", command: { type: "raiseToGauge", from: "below" } },
        { label: "Let down onto the gauge, lock", command: { type: "raiseToGauge", from: "above" } },
      ]
    : [{ label: "Shim the holder …", on: "feel", dialog: "shims" }];
};

/** What is asked for by the sheet alone: how high the axis stands, or which tool does for the part. */
function taskActs({ sheet: { lathe } }: TurningSeen): Act[] | null {
  if (lathe.axis) return [{ label: "Axis height …", on: "wobble", dialog: "axisHeight" }];
  if (lathe.profile) return [{ label: "Does it fit? …", on: "wobble", dialog: "fit" }];
  return null;
}

function turretActs({ sheet: { lathe } }: TurningSeen): Act[] {
  if (lathe.start) return [{ label: "Switch off and on", on: "feel", command: { type: "switchOff" } }];
  if (!lathe.cone) return [];
  return [
    { label: "Run the cone’s pass", on: "wobble", command: { type: "runCone", isHeld: false } },
    { label: "Run it, hold halfway", on: "feel", command: { type: "runCone", isHeld: true } },
  ];
}

const readoutActs = (_seen: TurningSeen, tool: TurretTool): Act[] => [
  ...(tool.kind === "threading"
    ? [{ label: "Sight the point over the edge", on: "wobble", command: { type: "sightEdge" } } as const]
    : []),
  { label: "Recall …", on: "feel", dialog: "recall" },
];

function gangActs({ lathe, sheet }: TurningSeen, tool: TurretTool): Act[] {
  const feed: Act = {
    label: lathe.isFeedLow ? "Turn the feed up" : "Turn the feed down",
    on: "feel",
    command: { type: "turnFeed", isLow: !lathe.isFeedLow },
  };
  if (lathe.loose !== null)
    return [
      { label: "Slide it to the bar", on: "wobble", command: { type: "slideTool" } },
      { label: "Tighten the clamp …", on: "burr", dialog: "tighten" },
      feed,
    ];
  return [
    ...(sheet.lathe.gang?.changed.includes(tool.number)
      ? [{ label: `Change tool ${tool.number} …`, on: "wobble", dialog: "changeTool" } as const]
      : []),
    { label: "Loosen the clamp", on: "burr", command: { type: "loosenTool" } },
    feed,
  ];
}

const OWN: Record<LatheKind, (seen: TurningSeen, tool: TurretTool) => Act[]> = {
  turret: turretActs,
  readout: readoutActs,
  gang: gangActs,
};

/** A chipped insert asks for it loudly; a fresh edge can be wanted at any time. */
const insertActs = ({ sheet, lathe }: TurningSeen, tool: TurretTool): Act[] =>
  tool.kind === "drill" || tool.kind === "endMill" || sheet.lathe.axis || sheet.lathe.profile
    ? []
    : [
        {
          label: lathe.chipped.includes(tool.number) ? "Change the chipped insert" : "Change the insert",
          command: { type: "changeInsert" },
        },
      ];

const TURN_CHUCK: Act = { label: "Turn the chuck by hand", on: "burr", command: { type: "turnChuck" } };

/** What hands can do at a lathe now: in the gap, with the arm, to the holder, and what only this kind has. */
export function latheActs(seen: TurningSeen): Act[] {
  const tool = toolOf(seen);
  const isGang = seen.kind === "gang";
  const own = tool ? (taskActs(seen) ?? OWN[seen.kind](seen, tool)) : [];
  return [
    ...gapActs(seen),
    ...measuringActs(seen, tool),
    ...(tool && !isGang ? shimActs(seen, tool) : []),
    ...own,
    ...(tool ? insertActs(seen, tool) : []),
    ...(isGang ? [] : [TURN_CHUCK]),
  ];
}
