import {
  explain,
  methods,
  mistakeIds,
  signaturesFor,
  type Figures,
  type Method,
  type MistakeId,
} from "@probe-lane/core/diagnosis";
import { drawBetween, drawNormal, drawOne } from "@probe-lane/core/random";

/**
 * Seeded floor lanes with known mistakes: how often the diagnosis names them, and what it says of numbers that mean
 * nothing.
 */
interface Miss {
  method: Method;
  truth: string;
  said: string;
  closure: number;
}
export interface FloorTables {
  rows: { id: MistakeId; lanes: number; first: number }[];
  injected: { lanes: number; first: number };
  clean: { lanes: number; silent: number };
  arbitrary: { lanes: number; open: number };
  misses: Miss[];
}

const MM_METHODS = methods.filter((method) => method !== "lathe-tip");

/** What a shop and its lane might be: every figure of the method known, as on an instructor's sheet. Lengths in mm. */
function drawFigures(method: Method, seed: string): Figures {
  const between = (low: number, high: number, key: string, step = 0.001) =>
    Math.round(drawBetween(low, high, seed, key) / step) * step;
  const approach = drawOne([1, -1] as const, seed, "approach");
  const wanted = -between(110, 390, "wanted");
  switch (method) {
    case "mill-edge":
      return {
        approach,
        tipRadius: drawOne([2, 2.5, 3, 5], seed, "r"),
        edgeWork: drawOne([0, 0.8, 1.5, -12.5], seed, "o"),
        partSize: between(40, 140, "size", 0.5),
        burr: between(0.06, 0.15, "burr"),
        dialTurn: 1,
        wanted,
      };
    case "mill-center":
      return { tipRadius: drawOne([2, 2.5, 3, 5], seed, "r"), wanted };
    case "mill-length":
      return {
        paper: drawOne([0.05, 0.08, 0.1], seed, "t"),
        block: drawOne([0, 20, 25.4], seed, "b"),
        facing: drawOne([0, 0.7, 1.2], seed, "a"),
        partHeight: between(15, 60, "h", 0.5),
        leftoverWork: drawOne([0, -12.4, 8.35], seed, "w"),
        oldWear: drawOne([0, 0.12, -0.2], seed, "wear"),
        neighbors: [between(6, 40, "n1"), -between(6, 40, "n2")],
        lengthInUse: wanted,
        wanted,
      };
    case "mill-diameter": {
      const nominal = drawOne([6, 10, 12, 16], seed, "d");
      return {
        nominalDiameter: nominal,
        cutterDiameter: nominal - between(0.03, 0.2, "worn"),
        oldWear: drawOne([0, 0.06, -0.1], seed, "wear"),
        wanted: nominal,
      };
    }
    case "lathe-x":
      return {
        paper: drawOne([0.05, 0.1], seed, "t"),
        outside: drawOne([1, -1] as const, seed, "side"),
        touchDiameter: between(12, 60, "d"),
        leftoverWork: drawOne([0, 3.2], seed, "w"),
        oldWear: drawOne([0, -0.15], seed, "wear"),
        noseRadius: drawOne([0.4, 0.8], seed, "rn"),
        tipCode: drawOne([2, 3], seed, "code"),
        neighbors: [between(8, 40, "n")],
        wanted,
      };
    case "lathe-z":
      return {
        block: drawOne([0, 2.5, 10], seed, "p"),
        facing: drawOne([0, -12.5], seed, "zs"),
        leftoverWork: drawOne([0, -41.3], seed, "w"),
        bladeWidth: drawOne([2, 3], seed, "blade"),
        lengthInUse: -between(60, 200, "zg"),
        shift: -between(200, 330, "shift"),
        masterOld: drawOne([0, 4.75], seed, "old"),
        noseRadius: drawOne([0.4, 0.8], seed, "rn"),
        tipCode: 3,
        neighbors: [between(8, 40, "n")],
        wanted,
      };
    case "lathe-nose":
    case "lathe-tip":
      return { wanted: drawOne([0.4, 0.8, 1.2], seed, "rn") };
    case "lathe-readout":
      return {
        reading: between(4, 40, "reading"),
        paper: drawOne([0.05, 0.1], seed, "t"),
        wanted: -between(4, 40, "reading"),
      };
  }
}

const U_MM = 0.004;

export function floorTables(lanes: number, seed = "floor"): FloorTables {
  const rows = new Map<MistakeId, { lanes: number; first: number }>(
    mistakeIds.map((id) => [id, { lanes: 0, first: 0 }]),
  );
  const tables: FloorTables = {
    rows: [],
    injected: { lanes: 0, first: 0 },
    clean: { lanes: 0, silent: 0 },
    arbitrary: { lanes: 0, open: 0 },
    misses: [],
  };
  for (let lane = 0; lane < lanes; lane++) {
    const key = `${seed} ${lane}`;
    const method = MM_METHODS[lane % MM_METHODS.length] ?? "mill-edge";
    const figures = drawFigures(method, key);
    const noise = drawNormal(0, U_MM, key, "noise");
    const say = (closure: number) => explain({ method, closure, figures, u: U_MM, resolution: 0.001 });
    const said = (closure: number) =>
      say(closure)
        .ranked[0]?.classes.map((members) => members.join(" = "))
        .join(" + ") ?? "unexplained";

    const choices = signaturesFor(method, figures).filter(({ predictedMm }) => Math.abs(predictedMm) > 6 * U_MM);
    const [one, ...more] = choices;
    if (one) {
      const others = more.filter(({ id: other }) => other !== one.id);
      const wanted = drawOne(
        [one.id, ...others.map(({ id: other }) => other).filter((other, i, all) => all.indexOf(other) === i)],
        key,
        "mistake",
      );
      const ways = choices.filter((choice) => choice.id === wanted);
      const { id, predictedMm } = drawOne([ways[0] ?? one, ...ways.slice(1)], key, "way");
      const top = say(predictedMm + noise).ranked[0];
      const isFirst = top?.classes.length === 1 && (top.classes[0]?.includes(id) ?? false);
      const row = rows.get(id);
      if (row) {
        row.lanes += 1;
        row.first += Number(isFirst);
      }
      tables.injected.lanes += 1;
      tables.injected.first += Number(isFirst);
      if (!isFirst)
        tables.misses.push({ method, truth: id, said: said(predictedMm + noise), closure: predictedMm + noise });
    }
    const clean = say(noise).ranked[0];
    tables.clean.lanes += 1;
    tables.clean.silent += Number(clean === undefined || clean.classes.length === 0);
    const arbitrary = drawBetween(-2, 2, key, "arbitrary");
    tables.arbitrary.lanes += 1;
    tables.arbitrary.open += Number(say(arbitrary).unexplained);
  }
  tables.rows = [...rows].map(([id, row]) => ({ id, ...row })).filter(({ lanes: n }) => n > 0);
  return tables;
}
