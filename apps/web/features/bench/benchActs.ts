import type { Command, Observation } from "@probe-lane/core/bench";
import { taskWords } from "@probe-lane/core/words";
import { gapLabel } from "./benchView";
import type { OpenDialog } from "./dialogs";
import { toolOf } from "./turningView";

/** What hands can do now: a button, maybe its key, and the command or the dialog behind it. */
export interface Act {
  readonly label: string;
  readonly keyCap?: string;
  readonly dialog?: OpenDialog;
  readonly command?: Command;
  readonly isMain?: boolean;
}

const felt = (seen: Observation) =>
  seen.sheet.gaps.filter(
    ({ kind }) => (kind === "paper" || kind === "feeler") && seen.sheet.instruments.includes(kind),
  );
const hard = (seen: Observation) =>
  seen.sheet.gaps.filter(({ kind }) => (kind === "block" || kind === "pin") && seen.sheet.instruments.includes(kind));

/** What hands can do with what is in the gap, or could be put there. */
function gapActs(seen: Observation): Act[] {
  const { holds, paper, block, sheet, lamp } = seen;
  const isSolid = holds === null || holds === "pointedTool" || holds.startsWith("tool");
  if (!isSolid) return [];
  const sheets = felt(seen);
  const blocks = hard(seen);
  const acts: Act[] = [];
  if (paper)
    acts.push(
      {
        label: `Pull ${gapLabel(seen, paper.id).split(" ")[0] ?? "paper"}`,
        keyCap: "P",
        command: { type: "pullPaper" },
      },
      { label: "Feel it", keyCap: "Q", command: { type: "feelPaper" } },
    );
  else if (sheets.length === 1 && sheets[0])
    acts.push({ label: "Place paper", keyCap: "P", command: { type: "placePaper", id: sheets[0].id } });
  else if (sheets.length > 1) acts.push({ label: "Place …", keyCap: "P", dialog: "gap" });
  if (block) acts.push({ label: "Take block out", keyCap: "J", command: { type: "pullBlock" } });
  else if (blocks.length === 1 && blocks[0])
    acts.push({
      label: `Try ${gapLabel(seen, blocks[0].id)}`,
      keyCap: "J",
      command: { type: "tryBlock", id: blocks[0].id },
    });
  else if (blocks.length > 1) acts.push({ label: "Try a block …", keyCap: "J", dialog: "gap" });
  if (blocks.length > 0 && !seen.areBlocksWiped)
    acts.push({ label: "Wipe the blocks", command: { type: "wipeBlocks" } });
  if (sheet.instruments.includes("lampGauge"))
    acts.push(
      lamp
        ? { label: "Take the gauge away", command: { type: "takeLamp" } }
        : { label: "Stand the height gauge", command: { type: "standLamp" } },
    );
  return acts;
}

/** What only this kind of lathe has: a library, a clamp, a cone. */
function machineActs(seen: Observation): Act[] {
  const { lathe, sheet } = seen;
  const tool = toolOf(seen);
  if (!lathe || !tool || !sheet.lathe) return [];
  const { control, gang, cone, start, axis, profile } = sheet.lathe;
  if (axis) return [{ label: "Axis height …", keyCap: "W", dialog: "axisHeight" }];
  if (profile) return [{ label: "Does it fit? …", keyCap: "W", dialog: "fit" }];
  if (start) return [{ label: "Switch off and on", keyCap: "Q", command: { type: "switchOff" } }];
  if (control === "readout")
    return [
      ...(tool.kind === "threading"
        ? [{ label: "Sight the point over the edge", keyCap: "W", command: { type: "sightEdge" } as const }]
        : []),
      { label: "Recall …", keyCap: "Q", dialog: "recall" },
    ];
  if (cone)
    return [
      { label: "Run the cone’s pass", keyCap: "W", command: { type: "runCone", isHeld: false } },
      { label: "Run it, hold halfway", keyCap: "Q", command: { type: "runCone", isHeld: true } },
    ];
  if (!gang) return [];
  const feed: Act = {
    label: lathe.isFeedLow ? "Turn the feed up" : "Turn the feed down",
    keyCap: "Q",
    command: { type: "turnFeed", isLow: !lathe.isFeedLow },
  };
  if (lathe.loose !== null)
    return [
      { label: "Slide it to the bar", keyCap: "W", command: { type: "slideTool" } },
      { label: "Tighten the clamp …", keyCap: "B", dialog: "tighten" },
      feed,
    ];
  return [
    ...(gang.changed.includes(tool.number)
      ? [{ label: `Change tool ${tool.number} …`, keyCap: "W", dialog: "changeTool" } as const]
      : []),
    { label: "Loosen the clamp", keyCap: "B", command: { type: "loosenTool" } },
    feed,
  ];
}

/** What hands can do at a lathe: something into the gap or out of it, the chuck a quarter on, the arm down or away. */
function turningActs(seen: Observation): Act[] {
  const { lathe, sheet } = seen;
  if (!lathe) return [];
  const hasThin = felt(seen).length > 0 || sheet.instruments.includes("straightEdge");
  const [only, ...others] = hard(seen);
  const acts: Act[] = [];
  if (lathe.gap) acts.push({ label: "Pull it out", keyCap: "P", command: { type: "pullGap" } });
  else if (hasThin) acts.push({ label: "Hold … at the part", keyCap: "P", dialog: "turningGap" });
  if (lathe.block) acts.push({ label: "Take it out", keyCap: "J", command: { type: "pullGap" } });
  else if (only && others.length === 0)
    acts.push({
      label: `Try ${gapLabel(seen, only.id)} at the face`,
      keyCap: "J",
      command: { type: "tryGap", id: only.id, on: "face" },
    });
  else if (only) acts.push({ label: "Try … in the gap", keyCap: "J", dialog: "turningGap" });
  if (only && !seen.areBlocksWiped) acts.push({ label: "Wipe the blocks", command: { type: "wipeBlocks" } });
  if (sheet.lathe?.arm)
    acts.push({
      label: lathe.arm ? "Fold the arm away" : "Swing the arm down",
      keyCap: "W",
      command: { type: "swingArm", isDown: lathe.arm === null },
    });
  const tool = toolOf(seen);
  if (tool?.kind === "drill" && sheet.instruments.includes("indicator"))
    acts.push({
      label: "Carry the indicator round it",
      ...(sheet.lathe?.arm ? {} : { keyCap: "W" }),
      command: { type: "sweep" },
    });
  if (tool && sheet.lathe?.control !== "gang" && sheet.lathe?.targets.height.includes(tool.number))
    acts.push({ label: "Shim the holder …", keyCap: "Q", dialog: "shims" });
  acts.push(...machineActs(seen));
  if (sheet.lathe?.control !== "gang")
    acts.push({ label: "Turn the chuck by hand", keyCap: "B", command: { type: "turnChuck" } });
  return acts;
}

/** What the instrument in the spindle can be asked or made to do. */
export function instrumentActs(seen: Observation): Act[] {
  if (seen.lathe) return turningActs(seen);
  const { holds, sheet, tip } = seen;
  const acts: Act[] = [];
  if (holds === "edgeFinder") acts.push({ label: "Set wobbling", keyCap: "W", command: { type: "setWobbling" } });
  if (holds === "taster")
    acts.push(
      {
        label: tip?.kind === "dial" && tip.isTrued ? "True it again" : "True the ball",
        keyCap: "W",
        command: { type: "trueTaster" },
      },
      { label: "Turn by hand", command: { type: "turnSpindle" } },
    );
  if (holds === "probe") acts.push({ label: "Ask the probe …", keyCap: "W", dialog: "probe" });
  if (holds === "indicator") acts.push({ label: "Carry it round", keyCap: "W", command: { type: "sweep" } });
  acts.push(...gapActs(seen));
  if (sheet.instruments.includes("plungerSetter") && holds?.startsWith("tool"))
    acts.push({ label: "Ask the setter …", dialog: "setter" });
  if (sheet.instruments.includes("beamSetter") && holds?.startsWith("tool")) {
    acts.push({ label: "Ask the beam …", dialog: "beam" });
    if (!seen.isTipBlown) acts.push({ label: "Blow the tip clean", command: { type: "blowTip" } });
  }
  return acts;
}

/** What is still to be done before the first touch; alone it is a button, several are a list. */
export function readyActs({ sheet, tasksDone, isBurrDressed }: Observation): Act[] {
  const open = sheet.tasks.filter((task) => !tasksDone.includes(task) && !(task === "dressBurr" && isBurrDressed));
  const [only] = open;
  if (!only) return sheet.fixture.kind === "plate" ? [{ label: "Tap the part …", keyCap: "B", dialog: "ready" }] : [];
  if (sheet.tasks.length === 1)
    return [
      {
        label: taskWords[only].act,
        keyCap: "B",
        command: only === "dressBurr" ? { type: "dressBurr" } : { type: "doTask", task: only },
      },
    ];
  return [{ label: `Get ready … (${open.length} open)`, keyCap: "B", dialog: "ready" }];
}

const MEASURES = new Set<string>(["caliper", "micrometer", "rule", "presetter", "boreGauge"]);
/** Something stands beside the machine that measures; at a lathe a rule is no gauge for what was turned. */
export const canMeasure = ({ sheet }: Observation): boolean =>
  sheet.instruments.some((name) => MEASURES.has(name) && !(sheet.lathe && name === "rule"));
