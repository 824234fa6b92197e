import { type Program } from "../../gcode";
import { travelCounts } from "../../lane/travel";
import { type FollowOptions, type LatheRegisters, type LatheWorld, proveLathe, type TurningTool } from "../../proving";
import { workOffsetNames } from "../../registers/mill";
import { tipCodes } from "../../registers/nose";
import { turretSum } from "../../registers/turret";
import { toMm } from "../../units/scale";
import { type ProgramProof } from "../proof";
import { CHUCK_MM } from "./chuckBody";
import { faceMm, kxNowMm, reachNowMm } from "./contact";
import { type TurningLane } from "./lane";
import { writing } from "../program/written";

/** How broad the shank of a turning tool and the bar of a boring tool are taken, where no blade says it, mm. */
const SHANK_MM = { 3: 16, 2: 10 } as const;
/** How far the bar reaches into the chuck, mm. */
const GRIP_MM = 40;

const isRun = (code: number): code is 2 | 3 => code === 2 || code === 3;

/** Whether a program can be run against this setup: on a turret, once the part has a face. */
export const canProveLathe = (state: TurningLane): boolean => state.kind === "turret" && faceMm(state) !== null;

/** What the lathe of a lane really has, once the part has a face. */
export function worldOf(state: TurningLane, face: number): LatheWorld {
  const { setup, truth, scale } = state;
  const { stock } = truth.lathe;
  const tools = setup.lathe.tools.flatMap(({ number, tipCode, noseRadiusMm, bladeMm }): [number, TurningTool][] =>
    isRun(tipCode)
      ? [
          [
            number,
            {
              kx: kxNowMm(state, number),
              kz: face + reachNowMm(state, number),
              noseRadius: noseRadiusMm,
              tipCode,
              width: bladeMm ?? SHANK_MM[tipCode],
            },
          ],
        ]
      : [],
  );
  const travel = travelCounts[setup.unit];
  const jaw = truth.lathe.jawMm - face;
  return {
    tools: new Map(tools),
    turned: state.lathe.outer.flatMap(({ fromMm, toMm, radiusMm, cut }) =>
      cut === 0 ? [] : [{ z: [fromMm - face, toMm - face] as const, radius: radiusMm }],
    ),
    stock: { diameter: stock.diameterMm, length: GRIP_MM - jaw, face: 0, bore: stock.boreMm ?? 0 },
    chuck: {
      z: jaw,
      diameter: stock.diameterMm + 2 * CHUCK_MM.jaws,
      body: { z: jaw - CHUCK_MM.bodyBehind, diameter: stock.diameterMm + 2 * CHUCK_MM.body },
    },
    travel: {
      min: [toMm(travel.x[0], scale), toMm(travel.z[0], scale)],
      max: [toMm(travel.x[1], scale), toMm(travel.z[1], scale)],
    },
    home: [0, 0],
  };
}

/** The registers of a lane as a program's moves are run with them, mm; X is a diameter. */
export function registersOf({ registers, scale, setup }: TurningLane): LatheRegisters {
  const place = ({ x, z }: { x: number; z: number }) => [toMm(x, scale), toMm(z, scale)] as const;
  const { turret } = registers;
  return {
    common: place(registers.common),
    work: new Map(workOffsetNames.map((name) => [name, place(registers.work[name])])),
    rows: new Map(
      setup.lathe.tools.map(({ number }) => [
        number,
        place({ x: turretSum(turret, "x", number), z: turretSum(turret, "z", number) }),
      ]),
    ),
    noses: new Map(
      setup.lathe.tools.map(({ number }) => {
        const code = tipCodes.find((one) => one === Math.round((turret?.q[number] ?? 0) / scale.countsPerUnit)) ?? 0;
        return [number, { noseRadius: toMm(turret?.r[number] ?? 0, scale), tipCode: code }];
      }),
    ),
  };
}

/** As on a mill: X of registers and places is a diameter, and the datum is the face as it was cut. */
export function proofOnLathe(state: TurningLane, program: Program, options: FollowOptions): ProgramProof | null {
  const face = faceMm(state);
  if (face === null) return null;
  const registers = { ...registersOf(state) };
  const onWrite = writing(state, "lathe", (now) => Object.assign(registers, registersOf(now)));
  const found = proveLathe(program, registers, worldOf(state, face), state.setup.unit, { ...options, onWrite });
  if (found === null) return { kind: "clear" };
  if ("wrong" in found) return { kind: "wrong", line: found.wrong.line, code: found.wrong.code };
  return { kind: "contact", contact: found };
}
