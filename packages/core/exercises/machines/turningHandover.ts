import { drawBetween } from "../../random";
import { isRegisterId, type RegisterId } from "../../registers";
import { scales, toCounts, toMm } from "../../units";
import { chooseFaults, type Handover } from "../faults";
import type { FaultKind } from "../schools";
import type { Fault, HandedLine, TurningDraw } from "../setup";

/** Another hand found what is right this well, mm; X is a diameter. */
const FOUND_WITHIN_MM = { x: 0.006, z: 0.003 };
const FACED_OFF_MM = { low: 0.5, high: 0.9 };
const SKIM_MM = { low: 0.5, high: 0.9, long: 14 };
const WEAR_MM = { low: 0.12, high: 0.4 };
const WORK_Z_MM = { low: 2, high: 6 };
const FACED_AGAIN_MM = { low: 0.3, high: 0.8 };
const ROWS_APART_MM = 1;
/** Faults that hang on the same thing are never both in one lane. */
const REALM: Partial<Record<FaultKind, readonly string[]>> = {
  neighborRow: ["rows"],
  staleWear: ["wear"],
  feelerOnce: ["x"],
  bladeEdge: ["blade"],
  oldWorkZ: ["z"],
  facedAgain: ["z"],
};

/**
 * A turret that somebody else set at the part's face, with the faults of this lane in registers and ledger. The part
 * comes faced and with a band turned, whose diameter a micrometer tells.
 */
export function drawTurningHandover(handover: Handover, { kind, setup, truth }: TurningDraw): TurningDraw {
  const { lathe: sheet } = setup;
  const { lathe } = truth;
  const draw = (low: number, high: number, ...keys: string[]) =>
    drawBetween(low, high, truth.seed, "handover", ...keys);
  const pick = (list: readonly number[], key: string) =>
    [...list].sort((a, b) => draw(0, 1, key, String(a)) - draw(0, 1, key, String(b)));
  const micron = (mm: number) => Math.round(mm * 1e4) / 1e4;
  const chosen = chooseFaults(handover, truth.seed, (kind) => REALM[kind] ?? []);
  const setFaceMm = micron(lathe.skinMm - draw(FACED_OFF_MM.low, FACED_OFF_MM.high, "faced"));
  const againMm = chosen.includes("facedAgain") ? micron(draw(FACED_AGAIN_MM.low, FACED_AGAIN_MM.high, "again")) : 0;
  const diameterMm = micron(
    lathe.stock.diameterMm -
      2 * (lathe.stock.runoutMm + lathe.stock.ovalMm / 2) -
      draw(SKIM_MM.low, SKIM_MM.high, "skim"),
  );
  const paperMm = setup.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0;
  const pinMm = setup.gaps.find(({ kind }) => kind === "pin")?.nominalMm ?? 0;
  const lines = new Map<RegisterId, HandedLine[]>();
  const [first] = sheet.tools;
  for (const { number } of sheet.tools) {
    const own = lathe.tools[number] ?? { kxMm: 0, qMm: 0 };
    const [x, z]: [RegisterId, RegisterId] = [`X${number}`, `Z${number}`];
    const isFirst = number === first?.number;
    const [between, gap] = [isFirst ? 0 : 2 * paperMm, isFirst ? 0 : pinMm];
    lines.set(x, [
      {
        register: x,
        kind: "reading",
        mm: own.kxMm + diameterMm + between + draw(-FOUND_WITHIN_MM.x, FOUND_WITHIN_MM.x, "found", x),
      },
      { register: x, kind: "term", term: "diameter", mm: -diameterMm },
      ...(between === 0 ? [] : [{ register: x, kind: "term", term: "paper", mm: -between } as const]),
    ]);
    lines.set(z, [
      {
        register: z,
        kind: "reading",
        mm: setFaceMm + own.qMm + gap + draw(-FOUND_WITHIN_MM.z, FOUND_WITHIN_MM.z, "found", z),
      },
      ...(gap === 0 ? [] : [{ register: z, kind: "term", term: "block", mm: -gap } as const]),
    ]);
  }
  const values = new Map<RegisterId, number>();
  const touched = sheet.tools
    .filter(({ number, bladeMm }) => number !== first?.number && bladeMm === undefined)
    .map(({ number }) => number);
  const blades = sheet.tools.filter(({ bladeMm }) => bladeMm !== undefined);
  const faults: Fault[] = [];
  // what changes a working comes before its sum is taken, what changes a register after it
  if (chosen.includes("feelerOnce") && touched.length > 0) {
    const [tool = 0] = pick(touched, "feeler");
    const register: RegisterId = `X${tool}`;
    lines.set(
      register,
      (lines.get(register) ?? []).map((line) => (line.term === "paper" ? { ...line, mm: -paperMm } : line)),
    );
    faults.push({ kind: "feelerOnce", tool, registers: [register], effects: [{ target: `X${tool}`, mm: paperMm }] });
  }
  if (chosen.includes("bladeEdge") && blades[0]?.bladeMm) {
    const { number, bladeMm } = blades[0];
    const register: RegisterId = `Z${number}`;
    lines.set(register, [...(lines.get(register) ?? []), { register, kind: "term", term: "bladeWidth", mm: -bladeMm }]);
    faults.push({
      kind: "bladeEdge",
      tool: number,
      registers: [register],
      effects: [{ target: `Z${number}`, mm: -bladeMm }],
    });
  }
  for (const [register, list] of lines)
    values.set(
      register,
      list.reduce((sum, { mm }) => sum + mm, 0),
    );
  const busy = new Set(faults.map(({ tool }) => tool));
  const free = pick(
    sheet.tools.map(({ number }) => number).filter((number) => !busy.has(number)),
    "free",
  );
  const [a = 0, b = 0, c = a] = free;
  const reach = (tool: number) => lathe.tools[tool] ?? { kxMm: 0, qMm: 0 };
  const [dx, dz] = [reach(b).kxMm - reach(a).kxMm, reach(b).qMm - reach(a).qMm];
  if (
    chosen.includes("neighborRow") &&
    free.length > 1 &&
    Math.abs(dx) > ROWS_APART_MM &&
    Math.abs(dz) > ROWS_APART_MM
  ) {
    for (const letter of ["X", "Z"] as const) {
      const [own = 0, others = 0] = [values.get(`${letter}${a}`), values.get(`${letter}${b}`)];
      values.set(`${letter}${a}`, others).set(`${letter}${b}`, own);
    }
    faults.push({
      kind: "neighborRow",
      tool: a,
      registers: [`X${a}`, `X${b}`, `Z${a}`, `Z${b}`],
      effects: [
        { target: `X${a}`, mm: dx },
        { target: `X${b}`, mm: -dx },
        { target: `Z${a}`, mm: dz },
        { target: `Z${b}`, mm: -dz },
      ],
    });
  }
  if (chosen.includes("staleWear")) {
    const mm = -micron(draw(WEAR_MM.low, WEAR_MM.high, "wear"));
    values.set(`XW${c}`, mm);
    faults.push({ kind: "staleWear", tool: c, registers: [`XW${c}`], effects: [{ target: `X${c}`, mm }] });
  }
  const all = sheet.targets.z.map((tool) => `Z${tool}` as const);
  if (chosen.includes("oldWorkZ")) {
    const mm = micron(draw(WORK_Z_MM.low, WORK_Z_MM.high, "work z"));
    values.set("G54.z", mm);
    faults.push({ kind: "oldWorkZ", registers: ["G54.z"], effects: all.map((target) => ({ target, mm })) });
  }
  if (againMm > 0)
    faults.push({
      kind: "facedAgain",
      registers: sheet.targets.z.map((tool) => `Z${tool}` as const),
      effects: all.map((target) => ({ target, mm: againMm })),
    });
  const scale = scales[setup.unit];
  const rounded = (mm: number) => toMm(toCounts(mm, scale), scale);
  const ledger = [...lines.values()].flat().map((line) => ({ ...line, mm: rounded(line.mm) }));
  const sums = [...lines.keys()].map((register): HandedLine => ({
    register,
    kind: "sum",
    mm: rounded(ledger.reduce((sum, line) => (line.register === register ? sum + line.mm : sum), 0)),
  }));
  return {
    kind,
    truth: {
      ...truth,
      faults,
      lathe: {
        ...lathe,
        handed: { faceMm: micron(setFaceMm - againMm), bandRadiusMm: diameterMm / 2, bandMm: SKIM_MM.long },
      },
    },
    setup: {
      ...setup,
      handover: { from: handover.from, account: handover.account, ledger: [...ledger, ...sums] },
      leftovers: [...values]
        .filter(([register]) => isRegisterId(register))
        .map(([register, mm]) => ({ register, mm: rounded(mm) })),
    },
  };
}
