import { interpret, type Move, type Program } from "../gcode";
import { type Contact, earlier, type Met, pastTravel } from "./contact";
import { bodiesOf, type MillBodies, type MillTool } from "./millTool";
import { MillStock } from "./millStock";
import { type Box, firstInBox, placeOn, type Triple, type Way } from "./solids";
import { firstContact, toldWrites, type FollowOptions, type Proved } from "./run";
import { millWays, type Way as MoveWay } from "./ways";

/** What a mill really has: where the datum lies, its tools, the block, what holds it, and how far it travels. mm. */
export interface MillWorld {
  readonly datum: Triple;
  readonly tools: ReadonlyMap<number, MillTool>;
  readonly stock: Box;
  readonly solids: readonly (Box & { readonly id: string })[];
  readonly travel: { readonly min: Triple; readonly max: Triple };
  readonly home: Triple;
}

const AXES = ["x", "y", "z"] as const;

/** Thrown where a program takes a tool that is not there. */
export class UnknownTool extends Error {
  constructor(
    readonly tool: number,
    readonly line: number,
  ) {
    super(`tool ${tool} of line ${line} is not there`);
  }
}

/** A contact on a way of several stretches: on which, and by the share of it. */
export interface MetOnPath {
  readonly stretch: number;
  readonly met: Met;
}

/** A block that is being cut by moves in their order, and what must not be met on their ways. */
export class MillProof {
  private stock: MillStock;
  private readonly bodies = new Map<number, MillBodies>();

  constructor(private readonly world: MillWorld) {
    this.stock = new MillStock(world.stock);
  }

  /** What is left now, in a world that may hold other tools. */
  fork(world: MillWorld): MillProof {
    const after = new MillProof(world);
    after.stock = this.stock.copy();
    return after;
  }

  private bodiesOf(tool: number | null, line: number): MillBodies | null {
    if (tool === null) return null;
    const known = this.bodies.get(tool);
    if (known) return known;
    const real = this.world.tools.get(tool);
    if (!real) throw new UnknownTool(tool, line);
    const bodies = bodiesOf(real);
    this.bodies.set(tool, bodies);
    return bodies;
  }

  private tipWay(from: readonly number[], to: readonly number[], length: number): Way {
    const { datum } = this.world;
    const tip = (place: readonly number[]): Triple => [
      (place[0] ?? 0) - datum[0],
      (place[1] ?? 0) - datum[1],
      (place[2] ?? 0) - datum[2] - length,
    ];
    return { from: tip(from), to: tip(to) };
  }

  private lengthOf = (tool: number | null): number => (tool === null ? 0 : (this.world.tools.get(tool)?.length ?? 0));

  /**
   * The first forbidden contact of one move along machine places, with the tool that really hangs there; what it cuts
   * on the way is taken from the stock.
   */
  meet(move: Move, path: readonly (readonly number[])[], tool: number | null): MetOnPath | null {
    const bodies = this.bodiesOf(tool, move.line);
    const length = this.lengthOf(tool);
    for (let i = 1; i < path.length; i++) {
      const [from = [], to = []] = [path[i - 1], path[i]];
      const way = this.tipWay(from, to, length);
      const met = earlier(pastTravel(AXES, [from, to], this.world.travel), bodies && this.met(move, way, bodies));
      if (met) return { stretch: i - 1, met };
    }
    return null;
  }

  /** The first forbidden contact of one move, as it is told. */
  run({ move, path }: MoveWay): Contact | null {
    const found = this.meet(move, path, move.tool);
    if (!found) return null;
    const way = this.tipWay(path[found.stretch] ?? [], path[found.stretch + 1] ?? [], this.lengthOf(move.tool));
    return { line: move.line, kind: found.met.kind, with: found.met.with, at: placeOn(way, found.met.share) };
  }

  private met(move: Move, way: Way, bodies: MillBodies): Met | null {
    let met: Met | null = null;
    for (const solid of this.world.solids) {
      for (const cylinder of [...bodies.edges, bodies.shank]) {
        const share = firstInBox(way, cylinder, solid);
        if (share !== null) met = earlier(met, { share, kind: "tool-in-fixture", with: solid.id });
      }
      for (const cylinder of bodies.nose ? [bodies.holder, bodies.nose] : [bodies.holder]) {
        const share = firstInBox(way, cylinder, solid);
        if (share !== null) met = earlier(met, { share, kind: "holder-in-fixture", with: solid.id });
      }
    }
    return earlier(met, this.metStock(move, way, bodies));
  }

  private metStock(move: Move, way: Way, bodies: MillBodies): Met | null {
    const isCutting = move.kind !== "rapid" && move.spindle === "forward";
    let met: Met | null = null;
    const look = (cylinder: MillBodies["shank"], kind: Met["kind"]): void => {
      const share = this.stock.firstMeeting(way, cylinder);
      if (share !== null) met = earlier(met, { share, kind, with: "stock" });
    };
    // what the edges cut on this way is gone before shank and holder come to it
    if (isCutting) this.stock.cut(way, bodies);
    else for (const edge of bodies.edges) look(edge, edgesKind(move));
    look(bodies.shank, "shank-in-stock");
    look(bodies.holder, "holder-in-stock");
    if (bodies.nose) look(bodies.nose, "holder-in-stock");
    return met;
  }
}

function edgesKind(move: Move): Met["kind"] {
  if (move.kind === "rapid") return "rapid-in-stock";
  return move.spindle === "stopped" ? "fed-with-spindle-stopped" : "wrong-direction";
}

export interface MillRegisters {
  readonly common: Triple;
  readonly work: ReadonlyMap<string, Triple>;
  /** Length with its wear, by row. */
  readonly lengths: ReadonlyMap<number, number>;
  /** What is gone beside the programmed way under G41 and G42, by row of diameters; none: nothing. */
  readonly radii?: ReadonlyMap<number, number>;
}

/** Thrown where a program calls registers that are not there. */
export class UnknownRegister extends Error {
  constructor(readonly register: string) {
    super(`${register} is not among the registers`);
  }
}

/** Machine = place + this, by work offset and length row (none: the gauge line counts). */
export function millOffset(registers: MillRegisters, frame: string, row: number | null, sign: 1 | -1): Triple {
  const work = registers.work.get(frame);
  if (!work) throw new UnknownRegister(frame);
  const length = row === null ? 0 : registers.lengths.get(row);
  if (length === undefined) throw new UnknownRegister(`H${row}`);
  const [cx, cy, cz] = registers.common;
  return [cx + work[0], cy + work[1], cz + work[2] + sign * length];
}

/**
 * The first forbidden contact of a program that is run from home with these registers on a real mill; null where
 * there is none. Straight in rapids too. Throws `UnknownTool` and `UnknownRegister`; a program that is wrong tells its
 * line.
 */
export function proveMill(
  program: Program,
  registers: MillRegisters,
  world: MillWorld,
  startUnits: "mm" | "inch",
  { blockDelete = false, onMoves, onWrite }: FollowOptions = {},
): Proved {
  const proof = new MillProof(world);
  const offset = (frame: string, row: number | null, sign: 1 | -1): Triple => millOffset(registers, frame, row, sign);
  const at = { at: world.home, home: world.home, offset };
  const steps = interpret(program, { startUnits, blockDelete, registers: at, figures: "mm", isExpanding: true });
  return firstContact(
    millWays(toldWrites(steps, onWrite), (row) => registers.radii?.get(row) ?? 0),
    (way) => proof.run(way),
    onMoves,
  );
}
