import { toolName } from "../../instruments";
import { drawBetween } from "../../random";
import { isRegisterId, type RegisterId } from "../../registers";
import { scales, toCounts, toMm } from "../../units";
import { chooseFaults, type Handover } from "../faults";
import type { FaultKind } from "../schools";
import {
  edgeOf,
  paperOf,
  type Fault,
  type HandedLine,
  type MillDraw,
  type MillSetup as Setup,
  type MillTruth as Truth,
} from "../setup";
import type { TargetId } from "../target";
import { expectedLengths } from "./millExpected";

/** Two hands never find quite the same: what is right was found this well, mm. */
const FOUND_WITHIN_MM = 0.006;
const WEAR_MM = { low: 0.2, high: 0.6 };
const SETTER_MM = { low: 0.35, high: 1.2 };
const JOB_BEFORE_MM = { x: { low: 18, high: 46 }, y: { low: 12, high: 30 }, z: { low: 6, high: 14 } } as const;
/**
 * Signs and sizes of two faults on one value could cancel; tools whose lengths lie closer than this are not taken for
 * each other's row.
 */
const ROWS_APART_MM = 3;

type Draw = (low: number, high: number, ...keys: string[]) => number;

interface Registers {
  values: Map<RegisterId, number>;
  ledger: HandedLine[];
}

const allZ = (setup: Setup): TargetId[] => setup.targets.lengths.map((tool) => `z${tool}` as const);
const sum = (lines: readonly HandedLine[], register: RegisterId): number =>
  lines.reduce((total, line) => (line.register === register ? total + line.mm : total), 0);

/**
 * The setup as it would be with nothing wrong: lengths from the gauge line, work Z by the bare nose, edges by the
 * finder.
 */
export function soundSetup(setup: Setup, truth: Truth, draw: Draw): Registers {
  const ledger: HandedLine[] = [];
  const near = (mm: number, register: string) => mm + draw(-FOUND_WITHIN_MM, FOUND_WITHIN_MM, "found", register);
  for (const axis of ["x", "y"] as const) {
    const edge = edgeOf(setup, axis);
    if (!edge) continue;
    const register: RegisterId = `G54.${axis}`;
    const radiusMm = edge.approach * (setup.tipDiameterMm / 2);
    ledger.push(
      { register, kind: "reading", mm: near(truth.datumMm[axis] + edge.edgeWorkMm - radiusMm, register) },
      { register, kind: "term", term: "tipRadius", mm: radiusMm },
    );
    if (edge.edgeWorkMm !== 0) ledger.push({ register, kind: "term", term: "edgeWork", mm: -edge.edgeWorkMm });
  }
  for (const { register, wantedMm } of expectedLengths(setup, truth, "gauge-line")) {
    if (register !== "G54.z") ledger.push({ register, kind: "reading", mm: near(wantedMm, register) });
    else {
      const betweenMm = paperOf(setup) + setup.facingAllowanceMm;
      ledger.push(
        { register, kind: "reading", mm: near(wantedMm + betweenMm, register) },
        { register, kind: "term", term: "paper", mm: -paperOf(setup) },
      );
      if (setup.facingAllowanceMm !== 0)
        ledger.push({ register, kind: "term", term: "facing", mm: -setup.facingAllowanceMm });
    }
  }
  return {
    ledger,
    values: new Map(
      [...new Set(ledger.map(({ register }) => register))].map((register) => [register, sum(ledger, register)]),
    ),
  };
}

/** Seeds one fault into registers and ledger; null when it cannot be in this lane. */
function seed(
  kind: FaultKind,
  { values, ledger }: Registers,
  setup: Setup,
  truth: Truth,
  draw: Draw,
  free: readonly number[],
): Fault | null {
  const [tool = 0, other = 0] = free;
  const row: RegisterId = `H${tool}`;
  switch (kind) {
    case "neighborRow": {
      const otherRow: RegisterId = `H${other}`;
      const apartMm = (truth.lengthsMm[toolName(other)] ?? 0) - (truth.lengthsMm[toolName(tool)] ?? 0);
      if (free.length < 2 || Math.abs(apartMm) < ROWS_APART_MM) return null;
      const [own = 0, others = 0] = [values.get(row), values.get(otherRow)];
      values.set(row, others).set(otherRow, own);
      return {
        kind,
        tool,
        registers: [row, otherRow],
        effects: [
          { target: `z${tool}`, mm: apartMm },
          { target: `z${other}`, mm: -apartMm },
        ],
      };
    }
    case "staleWear": {
      if (tool === 0) return null;
      const mm = -draw(WEAR_MM.low, WEAR_MM.high, "wear");
      values.set(`HW${tool}`, mm);
      return { kind, tool, registers: [`HW${tool}`], effects: [{ target: `z${tool}`, mm }] };
    }
    case "schoolMixed": {
      if (tool === 0) return null;
      const lines = ledger
        .filter(({ register }) => register === "G54.z")
        .map((line) => (line.kind === "reading" ? { ...line, mm: line.mm + (values.get(row) ?? 0) } : line));
      ledger.splice(
        0,
        ledger.length,
        ...ledger.filter(({ register }) => register !== row),
        ...lines.map((line) => ({ ...line, register: row })),
      );
      values.set(row, sum(ledger, row));
      return { kind, tool, registers: [row], effects: [{ target: `z${tool}`, mm: truth.datumMm.z }] };
    }
    case "radiusSign": {
      const axis = draw(0, 1, "axis") < 0.5 ? "x" : "y";
      const place = ledger.findIndex(({ register, term }) => register === `G54.${axis}` && term === "tipRadius");
      const line = ledger[place];
      if (!line) return null;
      ledger[place] = { ...line, mm: -line.mm };
      values.set(`G54.${axis}`, sum(ledger, `G54.${axis}`));
      return { kind, axis, registers: [`G54.${axis}`], effects: [{ target: axis, mm: -2 * line.mm }] };
    }
    case "setterMoved": {
      const mm = -(truth.doubt?.of === "setter" ? truth.doubt.byMm : 0);
      if (mm === 0) return null;
      for (const number of setup.targets.lengths) {
        values.set(`H${number}`, (values.get(`H${number}`) ?? 0) + mm);
        for (const [place, line] of ledger.entries())
          if (line.register === `H${number}` && line.kind === "reading") ledger[place] = { ...line, mm: line.mm + mm };
      }
      return {
        kind,
        registers: setup.targets.lengths.map((number) => `H${number}` as const),
        effects: allZ(setup).map((target) => ({ target, mm })),
      };
    }
    case "wrongOffset": {
      const shift = (axis: "x" | "y" | "z") =>
        draw(JOB_BEFORE_MM[axis].low, JOB_BEFORE_MM[axis].high, "job before", axis) *
        (draw(0, 1, "job before sign", axis) < 0.5 ? -1 : 1);
      const moved = { x: shift("x"), y: shift("y"), z: shift("z") };
      for (const axis of ["x", "y", "z"] as const) {
        const right = values.get(`G54.${axis}`) ?? 0;
        values.set(`G55.${axis}`, right).set(`G54.${axis}`, right + moved[axis]);
      }
      ledger.splice(
        0,
        ledger.length,
        ...ledger.map((line) =>
          line.register.startsWith("G54")
            ? { ...line, register: line.register.replace("G54", "G55") as RegisterId }
            : line,
        ),
      );
      return {
        kind,
        registers: ["G54.x", "G54.y", "G54.z"],
        effects: [
          { target: "x", mm: moved.x },
          { target: "y", mm: moved.y },
          ...allZ(setup).map((target) => ({ target, mm: moved.z })),
        ],
      };
    }
    case "feelerOnce":
    case "bladeEdge":
    case "oldWorkZ":
    case "facedAgain":
      throw new Error(`seed: ${kind} belongs to a lathe`);
    case "offStop":
      return truth.offStopMm > 0 ? { kind, registers: [], effects: [{ target: "x", mm: -truth.offStopMm }] } : null;
  }
}

/**
 * What a fault hangs on; two faults of one lane never hang on the same, so that each can be told by a reading of its
 * own.
 */
const REALM: Record<FaultKind, readonly string[]> = {
  neighborRow: ["rows"],
  staleWear: ["wear"],
  schoolMixed: ["rows", "setter"],
  feelerOnce: ["rows", "x"],
  bladeEdge: ["rows", "blade"],
  oldWorkZ: ["z"],
  facedAgain: ["z"],
  radiusSign: ["place"],
  setterMoved: ["setter"],
  wrongOffset: ["place", "seat"],
  offStop: ["seat"],
};

/**
 * The faults of one lane and what its registers and ledger hold with them. A share of the lanes is sound. The setter is
 * out of date only where that is one of the faults: `truth.doubt` says so, and is taken back otherwise. Lengths in mm,
 * on the machine's increment.
 */
export function drawMillHandover(handover: Handover, { setup, truth }: MillDraw): MillDraw {
  const draw: Draw = (low, high, ...keys) => drawBetween(low, high, truth.seed, "handover", ...keys);
  const chosen = chooseFaults(handover, truth.seed, (kind) => REALM[kind]);
  const sign = draw(0, 1, "setter sign") < 0.5 ? -1 : 1;
  const off = Math.round(sign * draw(SETTER_MM.low, SETTER_MM.high, "setter") * 1000) / 1000;
  const withDoubt: Truth = {
    ...truth,
    doubt: chosen.includes("setterMoved") ? { of: "setter", byMm: off } : null,
    offStopMm: chosen.includes("offStop") ? truth.offStopMm : 0,
  };
  const registers = soundSetup(setup, withDoubt, draw);
  let free = [...setup.targets.lengths].sort((a, b) => draw(0, 1, "tool", String(a)) - draw(0, 1, "tool", String(b)));
  const faults: Fault[] = [];
  // the job before is in the other rows last, so that what else is wrong goes with it
  for (const kind of [...chosen].sort((a, b) => Number(a === "wrongOffset") - Number(b === "wrongOffset"))) {
    const fault = seed(kind, registers, setup, withDoubt, draw, free);
    if (!fault) continue;
    faults.push(fault);
    if (fault.tool !== undefined)
      free = free.filter((tool) => !fault.registers.includes(`H${tool}`) && tool !== fault.tool);
  }
  const scale = scales[setup.unit];
  const rounded = (mm: number) => toMm(toCounts(mm, scale), scale);
  const ledger = registers.ledger.map((line) => ({ ...line, mm: rounded(line.mm) }));
  const sums = [...new Set(ledger.map(({ register }) => register))].map((register): HandedLine => ({
    register,
    kind: "sum",
    mm: rounded(sum(ledger, register)),
  }));
  return {
    kind: "mill",
    truth: { ...withDoubt, faults },
    setup: {
      ...setup,
      setter: setup.setter && {
        ...setup.setter,
        noseTriggerMm: rounded((truth.setter?.topMm ?? 0) + (withDoubt.doubt?.byMm ?? 0)),
      },
      handover: { from: handover.from, account: handover.account, ledger: [...ledger, ...sums] },
      leftovers: [...registers.values]
        .filter(([register]) => isRegisterId(register))
        .map(([register, mm]) => ({ register, mm: rounded(mm) })),
    },
  };
}
