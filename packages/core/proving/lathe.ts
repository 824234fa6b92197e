import { interpret, type Move, type Program } from "../gcode";
import { type Contact, earlier, type Met, pastTravel } from "./contact";
import { firstInRing, type HalfPlace, LatheStock, type NoseShape, type NoseWay, type Ring } from "./latheStock";
import { type MetOnPath, UnknownRegister, UnknownTool } from "./mill";
import { SLACK_MM } from "./millTool";
import { firstContact, toldWrites, type FollowOptions, type Proved } from "./run";
import { latheWays, type Nose, type Way } from "./ways";

/** A turning tool as it is: machine X (a diameter) and Z with its control point on the axis and on the datum. */
export interface TurningTool {
  readonly kx: number;
  readonly kz: number;
  readonly noseRadius: number;
  /** 3 turns and parts, its shank away from the axis; 2 bores, its bar away from the chuck. */
  readonly tipCode: 2 | 3;
  /** Of the blade or the bar. */
  readonly width: number;
}

/** What a lathe really has; X of machine places is a diameter, mm. */
export interface LatheWorld {
  readonly tools: ReadonlyMap<number, TurningTool>;
  /** What was turned of the bar already: nothing stands outside of so large a radius between two places. */
  readonly turned?: readonly { readonly z: HalfPlace; readonly radius: number }[];
  readonly stock: { readonly diameter: number; readonly length: number; readonly face: number; readonly bore: number };
  /** Its jaws, and a broader body behind them. */
  readonly chuck: {
    readonly z: number;
    readonly diameter: number;
    readonly body?: { readonly z: number; readonly diameter: number };
  };
  readonly travel: { readonly min: HalfPlace; readonly max: HalfPlace };
  readonly home: HalfPlace;
}

export interface LatheRegisters {
  readonly common: HalfPlace;
  readonly work: ReadonlyMap<string, HalfPlace>;
  /** Geometry with its wear, by row. */
  readonly rows: ReadonlyMap<number, HalfPlace>;
  /** What the control believes of each row's nose; none: nothing is gone beside. */
  readonly noses?: ReadonlyMap<number, Nose>;
}

/** From the control point to the nose's center, along r and z. */
function noseCenter({ noseRadius, tipCode }: TurningTool): HalfPlace {
  return [tipCode === 3 ? noseRadius : -noseRadius, noseRadius];
}

/** Nose and strip about the nose's center, smaller all around by `slack`. */
function shapeOf({ noseRadius, tipCode, width }: TurningTool, slack: number): NoseShape {
  const radius = Math.max(0, noseRadius - slack);
  const across: [number, number] = [-noseRadius + slack, width - noseRadius - slack];
  return tipCode === 3
    ? { radius, r: [slack, Infinity], z: across }
    : { radius, r: [-across[1], -across[0]], z: [slack, Infinity] };
}

const AXES = ["x", "z"] as const;

/** A bar that is being cut by moves in their order, and what must not be met on their ways. */
export class LatheProof {
  private stock: LatheStock;
  private readonly chuck: readonly Ring[];

  constructor(private readonly world: LatheWorld) {
    const { stock, chuck } = world;
    this.stock = new LatheStock({
      r: [stock.bore / 2, stock.diameter / 2],
      z: [stock.face - stock.length, stock.face],
    });
    for (const { z, radius } of world.turned ?? []) this.stock.clear([radius, Infinity], z);
    this.chuck = [chuck, ...(chuck.body ? [chuck.body] : [])].map(({ z, diameter }) => ({
      r: [stock.diameter / 2, diameter / 2],
      z: [-Infinity, z],
    }));
  }

  /** What is left now, in a world that may hold other tools. */
  fork(world: LatheWorld): LatheProof {
    const after = new LatheProof(world);
    after.stock = this.stock.copy();
    return after;
  }

  private toolOf(number: number | null, line: number): TurningTool | null {
    const tool = number === null ? null : this.world.tools.get(number);
    if (tool === undefined) throw new UnknownTool(number ?? 0, line);
    return tool;
  }

  /** As on a mill; X of the places is a diameter. */
  meet(move: Move, path: readonly (readonly number[])[], number: number | null): MetOnPath | null {
    const tool = this.toolOf(number, move.line);
    for (let i = 1; i < path.length; i++) {
      const [from = [], to = []] = [path[i - 1], path[i]];
      const met = earlier(pastTravel(AXES, [from, to], this.world.travel), tool && this.met(move, from, to, tool));
      if (met) return { stretch: i - 1, met };
    }
    return null;
  }

  run({ move, path }: Way): Contact | null {
    const found = this.meet(move, path, move.tool);
    if (!found) return null;
    const { stretch, met } = found;
    const tool = this.toolOf(move.tool, move.line);
    const [from = [], to = []] = [path[stretch], path[stretch + 1]];
    const at = [0, 1].map((axis) => {
      const value = (from[axis] ?? 0) + ((to[axis] ?? 0) - (from[axis] ?? 0)) * met.share;
      return value - (tool ? ([tool.kx, tool.kz][axis] ?? 0) : 0);
    });
    return { line: move.line, kind: met.kind, with: met.with, at };
  }

  private met(move: Move, from: readonly number[], to: readonly number[], tool: TurningTool): Met | null {
    const [r, z] = noseCenter(tool);
    const center = (place: readonly number[]): HalfPlace => [
      ((place[0] ?? 0) - tool.kx) / 2 + r,
      (place[1] ?? 0) - tool.kz + z,
    ];
    const way: NoseWay = { from: center(from), to: center(to) };
    const small = shapeOf(tool, SLACK_MM);
    const met = this.chuck.reduce<Met | null>((first, ring) => {
      const share = firstInRing(way, small, ring);
      return share === null ? first : earlier(first, { share, kind: "tool-in-chuck", with: "chuck" });
    }, null);
    if (move.kind !== "rapid" && move.spindle !== "stopped") {
      this.stock.cut(way, shapeOf(tool, 0));
      return met;
    }
    const share = this.stock.firstMeeting(way, small);
    const kind = move.kind === "rapid" ? "rapid-in-stock" : "fed-with-spindle-stopped";
    return share === null ? met : earlier(met, { share, kind, with: "stock" });
  }
}

/** Machine = place + this, by work offset and row (none: the machine's own). X is a diameter. */
export function latheOffset(registers: LatheRegisters, frame: string, row: number | null): HalfPlace {
  const work = registers.work.get(frame);
  if (!work) throw new UnknownRegister(frame);
  const geometry = row === null ? ([0, 0] as const) : registers.rows.get(row);
  if (!geometry) throw new UnknownRegister(`row ${row}`);
  return [registers.common[0] + work[0] + geometry[0], registers.common[1] + work[1] + geometry[1]];
}

/** As `proveMill`, on a lathe: X of registers and answer is a diameter. */
export function proveLathe(
  program: Program,
  registers: LatheRegisters,
  world: LatheWorld,
  startUnits: "mm" | "inch",
  { blockDelete = false, onMoves, onWrite }: FollowOptions = {},
): Proved {
  const proof = new LatheProof(world);
  const offset = (frame: string, row: number | null): HalfPlace => latheOffset(registers, frame, row);
  const at = { at: world.home, home: world.home, offset };
  const steps = interpret(program, { startUnits, blockDelete, registers: at, figures: "mm", isExpanding: true });
  return firstContact(
    latheWays(toldWrites(steps, onWrite), (row) => registers.noses?.get(row)),
    (way) => proof.run(way),
    onMoves,
  );
}
