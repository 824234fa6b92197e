import type { MillSeen } from "@probe-lane/core/bench";
import { setterMasters, setterOf } from "@probe-lane/core/machines";
import { edgeOf } from "@probe-lane/core/exercises";
import { taskWords } from "@probe-lane/core/words";
import type { Act } from "../../lane/act";
import { feltThings, gapLabel, hardThings } from "../../lane/things";

/** What hands can do with what is in the gap, or could be put there. */
function gapActs(seen: MillSeen): Act[] {
  const { holds, paper, block, sheet, lamp } = seen;
  const isSolid = holds === null || holds === "pointedTool" || holds.startsWith("tool");
  if (!isSolid) return [];
  const sheets = feltThings(seen);
  const blocks = hardThings(seen);
  const acts: Act[] = [];
  if (paper)
    acts.push(
      {
        label: `Pull ${gapLabel(seen, paper.id).split(" ")[0] ?? "paper"}`,
        on: "paper",
        command: { type: "pullPaper" },
      },
      { label: "Feel it", on: "feel", command: { type: "feelPaper" } },
    );
  else if (sheets.length === 1 && sheets[0])
    acts.push({ label: "Place paper", on: "paper", command: { type: "placePaper", id: sheets[0].id } });
  else if (sheets.length > 1) acts.push({ label: "Place …", on: "paper", dialog: "gap" });
  if (block) acts.push({ label: "Take block out", on: "block", command: { type: "pullBlock" } });
  else if (blocks.length === 1 && blocks[0])
    acts.push({
      label: `Try ${gapLabel(seen, blocks[0].id)}`,
      on: "block",
      command: { type: "tryBlock", id: blocks[0].id },
    });
  else if (blocks.length > 1) acts.push({ label: "Try a block …", on: "block", dialog: "gap" });
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

/** Points that the control keeps, and what can be set from them. */
function pointActs({ holds, tip, points, sheet }: MillSeen): Act[] {
  const isTouching =
    tip?.kind === "aside" || (tip?.kind === "dial" && tip.isTouching) || (tip?.kind === "probe" && tip.isTriggered);
  const keep: Act[] =
    isTouching && (holds === "edgeFinder" || holds === "taster" || holds === "probe")
      ? [{ label: "Keep this point", command: { type: "keepPoint" } }]
      : [];
  const set = (["x", "y"] as const).flatMap((axis): Act[] => {
    const on = points.filter((point) => point.axis === axis);
    const what = edgeOf(sheet, axis) ? "edge" : "middle";
    const isEnough = what === "edge" ? on.length > 0 : new Set(on.map(({ approach }) => approach)).size > 1;
    return isEnough
      ? [
          {
            label: `${axis.toUpperCase()} from ${what === "edge" ? "its point" : "its points"}`,
            command: { type: "setFromPoints", what, axis, into: "G54" },
          },
        ]
      : [];
  });
  return [...keep, ...set];
}

const CALIBRATIONS = {
  probe: "Calibrate the setter by it",
  nose: "Calibrate the setter by the nose",
  pin: "Calibrate the setter by the master pin",
} as const;

/** What can be calibrated with what hangs there: the probe by its masters, the setter by a known length. */
function calibrationActs({ holds, sheet }: MillSeen): Act[] {
  const setter = setterOf(sheet.instruments);
  const setterActs = (setter === null ? [] : setterMasters[setter])
    .filter((by) => (by === "probe" ? holds === "probe" : holds === null))
    .map((by): Act => ({ label: CALIBRATIONS[by], command: { type: "calibrate", what: "setter", by } }));
  const own: Act[] =
    holds === "probe"
      ? [
          { label: "Calibrate in the ring", command: { type: "calibrate", what: "probeRadius", by: "ring" } },
          { label: "Calibrate on the block", command: { type: "calibrate", what: "probeLength", by: "block" } },
        ]
      : [];
  return [...own, ...setterActs];
}

/** What the instrument in the spindle can be asked or made to do. */
function instrumentActs(seen: MillSeen): Act[] {
  const { holds, sheet, tip } = seen;
  const acts: Act[] = [];
  if (holds === "edgeFinder") acts.push({ label: "Set wobbling", on: "wobble", command: { type: "setWobbling" } });
  if (holds === "taster")
    acts.push(
      {
        label: tip?.kind === "dial" && tip.isTrued ? "True it again" : "True the ball",
        on: "wobble",
        command: { type: "trueTaster" },
      },
      { label: "Turn by hand", command: { type: "turnSpindle" } },
    );
  if (holds === "probe") acts.push({ label: "Ask the probe …", on: "wobble", dialog: "probe" });
  if (sheet.settings.keepsPoints) acts.push(...pointActs(seen));
  if (sheet.hasMasters) acts.push(...calibrationActs(seen));
  const isRound = seen.sheet.feature !== null && seen.sheet.feature.kind !== "pocket";
  if (holds === "indicator" && isRound)
    acts.push({ label: "Carry it round", on: "wobble", command: { type: "sweep" } });
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
function readyActs({ sheet, tasksDone, isBurrDressed }: MillSeen): Act[] {
  const open = sheet.tasks.filter((task) => !tasksDone.includes(task) && !(task === "dressBurr" && isBurrDressed));
  const [only] = open;
  const hasJaw = sheet.tasks.includes("sweepJaw");
  if (!only && hasJaw) return [{ label: "Sweep or tap the vise …", on: "burr", dialog: "ready" }];
  if (!only) {
    if (sheet.fixture.kind === "plate") return [{ label: "Tap the part …", on: "burr", dialog: "ready" }];
    return sheet.programs ? [{ label: "Change the parallels …", on: "burr", dialog: "ready" }] : [];
  }
  if (sheet.tasks.length === 1 && !hasJaw)
    return [
      {
        label: taskWords[only].act,
        on: "burr",
        command: only === "dressBurr" ? { type: "dressBurr" } : { type: "doTask", task: only },
      },
    ];
  return [{ label: `Get ready … (${open.length} open)`, on: "burr", dialog: "ready" }];
}

/** What hands can do at a mill now. */
export const millActs = (seen: MillSeen): Act[] => [...instrumentActs(seen), ...readyActs(seen)];
