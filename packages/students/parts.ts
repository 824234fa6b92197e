import { canRead, isFit, partInstruments, readingInstruments } from "@probe-lane/core/machines/program";
import type { RegisterId } from "@probe-lane/core/registers";
import type { Bench } from "./bench";
import { door, reachIn, text } from "./moves";

/** What somebody does otherwise than a careful student with the part that was cut. */
export interface PartHabits {
  /** Measures nothing, and cuts no second part. */
  measuresNothing?: boolean;
  /** Measures with the first instrument that can read it at all, on a part still warm. */
  measuresCarelessly?: boolean;
  /** Corrects the wrong way, in geometry instead of wear, or not at all. */
  corrects?: "wrongWay" | "inGeometry" | "nothing";
}

/** Which wear moves which feature, and what a millimetre of it does: what the drawing and the program tell. */
const CLAMP: Readonly<Record<string, readonly [RegisterId, number]>> = {
  "tongue, width": ["DW1", 1],
  "tongue, depth": ["HW1", -1],
  "pocket, width": ["DW2", -1],
  "pocket, depth": ["HW2", -1],
};
/** Bore and slot share a cutter; what a drill leaves is moved by nothing. */
const PLATE: Readonly<Record<string, readonly [RegisterId, number]>> = {
  "boss, diameter": ["DW1", 1],
  "boss, height": ["HW1", -1],
  "bore, diameter": ["DW2", -1],
  "bore, depth": ["HW2", -1],
  "slot, width": ["DW2", -1],
  "slot, depth": ["HW2", -1],
  "chamfer, width": ["HW3", -1],
};
const MOVED_BY: Readonly<Record<string, Readonly<Record<string, readonly [RegisterId, number]>>>> = {
  "plate-first-part": PLATE,
  "clamp-first-part": CLAMP,
  "clamp-setup-kept": CLAMP,
  "clamp-one-tool-changed": CLAMP,
  "clamp-edges-worn": CLAMP,
  "collar-first-part": {
    "outside, diameter": ["XW1", 1],
    "bore, diameter": ["XW2", 1],
    "collar, length from the face": ["ZW3", -1],
  },
  "knob-first-part": {
    "spigot, diameter": ["XW1", 1],
    "knob, diameter": ["XW1", 1],
    "shoulder, from the face": ["ZW1", -1],
    "groove, diameter": ["XW2", 1],
    "groove, far wall from the face": ["ZW2", -1],
  },
};

const STACK_STEP_MM = 0.001;
const MOST_STACKS = 24;

type Features = NonNullable<Bench["seen"]["sheet"]["features"]>;

/** The largest stack that goes into a slot, found by halves about what the drawing says; null where none is there. */
function stackInto(lane: Bench, { name, nominalMm, toleranceMm: [low, high] }: Features[number]): number | null {
  let [goes, stays] = [nominalMm + low - 0.5, nominalMm + high + 0.5];
  for (let turn = 0; turn < MOST_STACKS && stays - goes > STACK_STEP_MM * 1.5; turn++) {
    const size = Math.round((goes + stays) / 2 / STACK_STEP_MM) * STACK_STEP_MM;
    if (lane.attempt({ type: "tryGauge", with: "gaugeStack", feature: name, text: text(lane, size) })) return null;
    if (lane.seen.program?.parts?.figures.at(-1)?.goes) goes = size;
    else stays = size;
  }
  return goes;
}

/** Reads every feature of the part that is held, mm, by name. */
function measureAll(lane: Bench, { measuresCarelessly }: PartHabits): Map<string, number> {
  const isTurned = lane.seen.kind !== "mill";
  reachIn(lane);
  if (!measuresCarelessly && lane.seen.program?.parts?.isWarm) lane.do({ type: "letCool" });
  const read = new Map<string, number>();
  for (const feature of lane.seen.sheet.features ?? []) {
    const can = readingInstruments.filter((one) => canRead(one, feature, isTurned));
    const fit = can
      .filter((one) => isFit(one, feature))
      .sort((a, b) => partInstruments[a].errorMm - partInstruments[b].errorMm);
    const [by] = measuresCarelessly ? can : fit;
    if (by === undefined && canRead("gaugeStack", feature, isTurned)) {
      const goes = stackInto(lane, feature);
      if (goes !== null) read.set(feature.name, goes);
    } else if (by !== undefined) {
      if (lane.attempt({ type: "measurePart", feature: feature.name, with: by })) continue;
      read.set(feature.name, lane.seen.program?.parts?.figures.at(-1)?.mm ?? 0);
    }
  }
  return read;
}

/** Calls the part what the figures make of it: too much left can be cut, too much gone cannot be put back. */
function judge(lane: Bench, read: ReadonlyMap<string, number>): "good" | "rework" | "scrap" {
  const verdicts = (lane.seen.sheet.features ?? []).map(({ name, reads, toward, nominalMm, toleranceMm }) => {
    const mm = read.get(name);
    // what is not there where the drawing has it is nowhere else either
    if (mm === undefined) return "scrap";
    const offMm = mm - nominalMm;
    if (offMm >= toleranceMm[0] && offMm <= toleranceMm[1]) return "good";
    if (reads === "middle") return "scrap";
    const isTurnedRound =
      reads === "land" || (reads === "wall" && toward.endsWith("-")) || (reads === "depth" && toward.endsWith("+"));
    return offMm > 0 === isTurnedRound ? "rework" : "scrap";
  });
  const worst = (["scrap", "rework"] as const).find((one) => verdicts.includes(one)) ?? "good";
  lane.do({ type: "judgePart", verdict: worst });
  return worst;
}

const save = (lane: Bench) => lane.do({ type: "saveSetup", initials: "P. L.", isConfirmed: false });

/** What is off goes into wear: the mean of what each feature asks of its register. */
function correct(lane: Bench, read: ReadonlyMap<string, number>, { corrects }: PartHabits): void {
  const asked = new Map<RegisterId, number[]>();
  for (const { name, nominalMm, toleranceMm } of lane.seen.sheet.features ?? []) {
    const [register, factor] = MOVED_BY[lane.seen.sheet.exerciseId]?.[name] ?? [];
    const mm = read.get(name);
    if (register === undefined || factor === undefined || mm === undefined) continue;
    const aim = nominalMm + (toleranceMm[0] + toleranceMm[1]) / 2;
    asked.set(register, [...(asked.get(register) ?? []), (aim - mm) / factor]);
  }
  for (const [wear, changes] of asked) {
    const mean = changes.reduce((sum, mm) => sum + mm, 0) / changes.length;
    const register = (corrects === "inGeometry" ? wear.replace("W", "") : wear) as RegisterId;
    const change = text(lane, corrects === "wrongWay" ? -mean : mean);
    if (Number(change) !== 0) lane.do({ type: "typeRegister", register, text: change, how: "add", isConfirmed: true });
  }
}

/** A gauging of the program and what was measured of the same width farther apart than this are not one figure, mm. */
const NOT_ONE_MM = 0.012;

/** Calibrates a probe whose gauging is not what an instrument says of that width. */
function doubtGauging(lane: Bench, read: ReadonlyMap<string, number>): boolean {
  const { seen } = lane;
  const last = seen.program?.gauged.findLast(({ axis }) => axis !== null && axis !== "z");
  const width = seen.sheet.features?.find(
    ({ reads, toward }) => reads === "width" && toward.startsWith(last?.axis ?? "-"),
  );
  const mm = width && read.get(width.name);
  if (!last || mm === undefined || Math.abs(last.mm - mm) < NOT_ONE_MM) return false;
  door(lane, false);
  lane.do({ type: "calibrate", what: "probeRadius", by: "ring" });
  return true;
}

/** Measures the part that was run, calls it, corrects wear, cuts the next blank by `run`, and measures that. */
export function workParts(lane: Bench, habits: PartHabits, run: () => void): void {
  const { parts } = lane.seen.program ?? {};
  if (!parts || parts.cut === 0 || habits.measuresNothing || lane.seen.isStopped) return;
  const read = measureAll(lane, habits);
  if (judge(lane, read) === "good") {
    save(lane);
    return;
  }
  if (habits.corrects === "nothing") return;
  const isProbeWrong = doubtGauging(lane, read);
  if (!isProbeWrong) correct(lane, read, habits);
  reachIn(lane);
  lane.do({ type: "takeBlank" });
  door(lane, false);
  run();
  if (lane.seen.isStopped) return;
  if (judge(lane, measureAll(lane, habits)) === "good") save(lane);
}
