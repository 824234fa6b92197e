import { movePoints, type Move } from "../gcode";

/**
 * The machine places that a move passes, its start first: two of a straight one, more of an arc. Of a lathe X is a
 * diameter. Only of moves that know where the machine stands.
 */
export function machinePath(move: Move, isLathe: boolean): (readonly number[])[] {
  const { machine } = move;
  if (!machine) throw new Error(`machinePath: line ${move.line} does not know where the machine stands`);
  if (!move.center) return [machine.from, machine.to];
  return movePoints(move, isLathe).map((place) =>
    place.map((value, axis) => value + (machine.from[axis] ?? 0) - (move.from[axis] ?? 0)),
  );
}
