import { drawBetween } from "../../random";
import { type RegisterId } from "../../registers";
import { scales, toCounts, toMm } from "../../units";
import type { Exercise } from "../schema";
import { keptThings, type KeptChangeKind } from "../schools";
import type { KeptChange, KeptSetup, MillDraw } from "../setup";
import type { TargetId } from "../target";
import { soundSetup } from "./millHandover";

type Kept = NonNullable<Exercise["kept"]>;

/** How far each change puts off what hangs on it, mm. */
const VISE_MM = { x: [6, 30], y: [3, 15], z: [0.05, 0.6] } as const;
const STOP_MM = [5, 20] as const;
/** The parallels of today are so much higher than those of the card, and no two pairs are quite alike. */
const PARALLELS_MM = [4.97, 5.03] as const;
const CUTTER_MM = { length: [0.4, 3], diameter: [0.02, 0.12] } as const;
const DEEPER_MM = [0.5, 4] as const;
/** A diameter is measured this well, mm. */
const MEASURED_WITHIN_MM = 0.003;

/** Things of the card of which some are not as they were, and nothing hangs on them. */
const UNLIKE = ["stock", "coolant"] as const;

/** Registers that hang on a change, with how far the kept value is off today, mm. */
type Off = readonly (readonly [RegisterId, number])[];

/** Values that a register reaches: a work Z every length, a row its own tool. */
function targetsOf(register: RegisterId, setup: MillDraw["setup"]): TargetId[] {
  if (register === "G54.z") return setup.targets.lengths.map((tool): TargetId => `z${tool}`);
  if (register.startsWith("G54")) return [register.endsWith("x") ? "x" : "y"];
  return [`${register.startsWith("H") ? "z" : "d"}${register.slice(1)}` as TargetId];
}

/**
 * The lane of a setup that was proven and kept some days ago: its registers as they were right then, and what has
 * changed since. Registers in mm, on the machine's increment.
 */
export function drawMillKept(kept: Kept, { setup, truth }: MillDraw, program: number): MillDraw {
  const draw = (low: number, high: number, ...keys: (string | number)[]) =>
    drawBetween(low, high, truth.seed, "kept", ...keys);
  const signed = ([low, high]: readonly [number, number], ...keys: (string | number)[]) =>
    draw(low, high, ...keys) * (draw(0, 1, "sign", ...keys) < 0.5 ? -1 : 1);
  const hasDiameter = (tool: number) => setup.targets.diameters.includes(tool);
  const ofChange = (kind: KeptChangeKind, tool: number): Off => {
    switch (kind) {
      case "viseMoved":
        return (["x", "y", "z"] as const).map((axis) => [`G54.${axis}` as const, signed(VISE_MM[axis], axis)]);
      case "stopMoved":
        return [["G54.x", signed(STOP_MM, "stop")]];
      case "otherParallels":
        return [["G54.z", -draw(...PARALLELS_MM, "parallels")]];
      case "newCutter":
        return [
          [`H${tool}` as RegisterId, signed(CUTTER_MM.length, "cutter", tool)],
          ...(hasDiameter(tool) ? ([[`D${tool}`, signed(CUTTER_MM.diameter, "diameter", tool)]] as Off) : []),
        ];
      case "setDeeper":
        return [[`H${tool}` as RegisterId, draw(...DEEPER_MM, "deeper", tool)]];
    }
  };
  const count = Math.round(draw(kept.count[0] - 0.499, kept.count[1] + 0.499, "count"));
  const order = [...kept.changes].sort((a, b) => draw(0, 1, "order", a) - draw(0, 1, "order", b));
  const tools = [...setup.targets.lengths].sort((a, b) => draw(0, 1, "tool", a) - draw(0, 1, "tool", b));
  const chosen: { kind: KeptChangeKind; tool: number | null; off: Off }[] = [];
  for (const kind of order) {
    const isOfTool = kind === "newCutter" || kind === "setDeeper";
    const tool = isOfTool ? tools.find((one) => !chosen.some((other) => other.tool === one)) : null;
    if (chosen.length >= count || tool === undefined) continue;
    const off = ofChange(kind, tool ?? 0);
    const held = chosen.flatMap((one) => one.off.map(([register]) => register));
    const isFree = off.every(([register]) => !held.includes(register));
    if (isFree && held.length + off.length <= kept.mostRegisters) chosen.push({ kind, tool, off });
  }
  const scale = scales[setup.unit];
  const rounded = (mm: number) => toMm(toCounts(mm, scale), scale);
  const sound = soundSetup(setup, truth, (low, high, ...keys) => draw(low, high, "sound", ...keys)).values;
  for (const tool of setup.targets.diameters) {
    const share = setup.settings.diameterMode === "radius" ? 2 : 1;
    const measured = (truth.diametersMm[tool] ?? 0) + draw(-MEASURED_WITHIN_MM, MEASURED_WITHIN_MM, "measured", tool);
    sound.set(`D${tool}`, measured / share);
  }
  const off = new Map(chosen.flatMap((one) => [...one.off]));
  const keptChanges = chosen.map(({ kind, tool, off: each }): KeptChange => ({
    kind,
    tool,
    offs: each.map(([register, mm]) => ({ register, mm })),
    effects: each.flatMap(([register, mm]) => targetsOf(register, setup).map((target) => ({ target, mm }))),
  }));
  const changeOf = (thing: string, tool?: number): KeptChangeKind | null =>
    chosen.find((one) => (tool === undefined ? THING_OF[one.kind] === thing : one.tool === tool))?.kind ?? null;
  const unlike = new Set(UNLIKE.filter((thing) => draw(0, 1, "unlike", thing) < 0.5));
  const rows = keptThings.flatMap((thing): KeptSetup["rows"][number][] => {
    if (thing === "tool") return setup.targets.lengths.map((tool) => ({ thing, tool, change: changeOf(thing, tool) }));
    const isUnlike = thing === "setBy" || [...unlike].some((one) => one === thing);
    return [{ thing, change: changeOf(thing) ?? (isUnlike ? "unlike" : null) }];
  });
  const { partsSince: [fewest, most] = [0, 0] } = kept;
  const partsSince = Math.round(draw(fewest, most, "parts since"));
  return {
    kind: "mill",
    setup: {
      ...setup,
      kept: {
        ...(partsSince > 0 ? { partsSince } : {}),
        initials: kept.initials,
        daysAgo: Math.round(draw(kept.daysAgo[0], kept.daysAgo[1], "days")),
        program,
        registers: [...sound].map(([register, mm]) => ({ register, mm: rounded(mm + (off.get(register) ?? 0)) })),
        rows,
      },
    },
    truth: { ...truth, keptChanges },
  };
}

/** What of the card a change is told by. */
const THING_OF: Record<KeptChangeKind, string> = {
  viseMoved: "vise",
  stopMoved: "stop",
  otherParallels: "parallels",
  newCutter: "tool",
  setDeeper: "tool",
};
