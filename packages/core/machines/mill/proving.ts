import { type Program } from "../../gcode";
import { toolName } from "../../instruments/things";
import { travelCounts } from "../../lane/travel";
import { type FollowOptions, type MillRegisters, type MillTool, type MillWorld, proveMill } from "../../proving";
import { lengthRows, workOffsetNames } from "../../registers/mill";
import { toMm } from "../../units/scale";
import { type ProgramProof } from "../proof";
import { type MillLane } from "./lane";
import { datumNowMm, shapeFor, skewNowDeg, trueBoxes } from "./solids";
import { writing } from "../program/written";

/** A blank that lies turned by more than this is no box along the axes any more, degrees. */
const STRAIGHT_DEG = 0.02;
const NOSE_DIAMETER_MM = 60;
const HOLDER_DIAMETER_MM = 40;
/** So much of a probe is its body, above the stylus. */
const HOLDER_SHARE = 1 / 3;
const DRILL_POINTS: Readonly<Record<string, number>> = { drill: 118, spotDrill: 90 };

/** Whether a program can be run against this setup: a plain blank that lies along the axes. */
export const canProveMill = (state: MillLane): boolean =>
  state.setup.feature === null && Math.abs(skewNowDeg(state)) <= STRAIGHT_DEG;

/** The probe as it stands in its pocket: a body that cuts nothing. */
function probeOf({ setup, truth, harm, probe }: MillLane): [number, MillTool][] {
  if (!setup.gauging || !setup.probe) return [];
  const length = (truth.lengthsMm.probe ?? 0) + probe.longerMm - (harm.shorterMm.probe ?? 0);
  const diameter = setup.probe.ballDiameterMm;
  const holder = { diameter: HOLDER_DIAMETER_MM, length: length * HOLDER_SHARE };
  const body = { length, diameter, shape: "flat", fluteLength: 0, shankDiameter: diameter } as const;
  return [[setup.gauging.pocket, { ...body, holder, noseDiameter: NOSE_DIAMETER_MM }]];
}

function toolsOf(state: MillLane): Map<number, MillTool> {
  const { setup, truth, harm } = state;
  return new Map([
    ...probeOf(state),
    ...setup.tools.map(({ number, kind, diameterMm }) => {
      const name = toolName(number);
      const length = (truth.lengthsMm[name] ?? 0) - (harm.shorterMm[name] ?? 0);
      const diameter = truth.diametersMm[number] ?? diameterMm;
      const cutter = shapeFor(setup, name, length, diameter).rigid.findLast(
        ({ radiusMm }) => radiusMm === diameter / 2,
      );
      const fluteLength = cutter?.toMm ?? length;
      const pointAngle = DRILL_POINTS[kind];
      return [
        number,
        {
          length,
          diameter,
          shape: pointAngle === undefined ? "flat" : "drill",
          pointAngle,
          fluteLength,
          shankDiameter: diameter,
          holder: { diameter: HOLDER_DIAMETER_MM, length: length - fluteLength },
          noseDiameter: NOSE_DIAMETER_MM,
        },
      ] as const;
    }),
  ]);
}

/** What the mill of a lane really has. */
export function worldOf(state: MillLane): MillWorld {
  const datum = datumNowMm(state);
  const { stock, ...others } = trueBoxes(state);
  const part = ({ x, y, z }: { x: number; y: number; z: number }) => [x - datum.x, y - datum.y, z - datum.z] as const;
  const travel = travelCounts[state.setup.unit];
  const ends = (end: 0 | 1) =>
    [toMm(travel.x[end], state.scale), toMm(travel.y[end], state.scale), toMm(travel.z[end], state.scale)] as const;
  return {
    datum: [datum.x, datum.y, datum.z],
    tools: toolsOf(state),
    stock: { min: part(stock.low), max: part(stock.high) },
    solids: Object.entries(others).flatMap(([id, box]) =>
      box ? [{ id, min: part(box.low), max: part(box.high) }] : [],
    ),
    travel: { min: ends(0), max: ends(1) },
    home: [0, 0, 0],
  };
}

/** The registers of a lane as a program's moves are run with them, mm. */
export function registersOf({
  registers,
  scale,
  setup,
}: Pick<MillLane, "registers" | "scale" | "setup">): MillRegisters {
  const share = setup.settings.diameterMode === "radius" ? 1 : 2;
  const place = ({ x, y, z }: MillLane["registers"]["common"]) =>
    [toMm(x, scale), toMm(y, scale), toMm(z, scale)] as const;
  return {
    common: place(registers.common),
    work: new Map(workOffsetNames.map((name) => [name, place(registers.work[name])])),
    radii: new Map(
      lengthRows.map((row) => [
        row,
        toMm((registers.diameterGeometry[row] ?? 0) + (registers.diameterWear[row] ?? 0), scale) / share,
      ]),
    ),
    lengths: new Map(
      lengthRows.map((row) => [
        row,
        toMm((registers.lengthGeometry[row] ?? 0) + (registers.lengthWear[row] ?? 0), scale),
      ]),
    ),
  };
}

/** The first forbidden contact of a program with the registers of a lane on the machine as it really is. */
export function proofOnMill(state: MillLane, program: Program, options: FollowOptions): ProgramProof {
  const registers = { ...registersOf(state) };
  const onWrite = writing(state, "mill", (now) => Object.assign(registers, registersOf(now)));
  const found = proveMill(program, registers, worldOf(state), state.setup.unit, { ...options, onWrite });
  if (found === null) return { kind: "clear" };
  if ("wrong" in found) return { kind: "wrong", line: found.wrong.line, code: found.wrong.code };
  return { kind: "contact", contact: found };
}
