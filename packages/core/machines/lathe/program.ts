import { LatheProof, latheOffset, latheWays } from "../../proving";
import { turretRows, turretSum } from "../../registers/turret";
import { toMm } from "../../units/scale";
import { type RegisterId } from "../../registers/mill";
import { programAct } from "../program/act";
import { struckAs } from "../program/struck";
import { type ProgramPorts, type Prover } from "../program/ports";
import { swing } from "./acts/station/act";
import { faceMm, tipAt } from "./contact";
import { turretDisplay } from "./display";
import { raysOnLathe } from "./firstPart";
import { type TurningLane } from "./lane";
import { canProveLathe, registersOf, worldOf } from "./proving";
import { latheRules } from "./rules";

const worldNow = (state: TurningLane) => worldOf(state, faceMm(state) ?? 0);

const proverOf = (proof: LatheProof): Prover<TurningLane> => ({
  meet: (move, path, hangs) => proof.meet(move, path, hangs),
  fork: (state) => proverOf(proof.fork(worldNow(state))),
});

/** Tools whose way is followed: not drills and threading tools. */
const isFollowed = (state: TurningLane, tool: number): boolean => worldNow(state).tools.has(tool);

const rowRegisters = (row: number): RegisterId[] =>
  turretRows.some((one) => one === row) ? ([`X${row}`, `XW${row}`, `Z${row}`, `ZW${row}`] as RegisterId[]) : [];

const ports: ProgramPorts<TurningLane> = {
  dialect: "lathe",
  axes: ["x", "z"],
  inForce: ({ modal }) => modal.workOffset,
  swings: true,
  restPlaces: ["chuck"],
  offset: (state, frame, row) => latheOffset(registersOf(state), frame, row),
  ways: (now, steps) => latheWays(steps, (row) => registersOf(now()).noses?.get(row)),
  prover: (state) => proverOf(new LatheProof(worldNow(state))),
  rays: raysOnLathe,
  gauging: null,
  // on a lathe it hangs on each tool
  putsOff: () => [0, 0],
  hangs: (state) => (isFollowed(state, state.lathe.station) ? state.lathe.station : null),
  brings: (state, tool) => (isFollowed(state, tool) ? tool : undefined),
  changeTool: (draft, tool) => {
    const swung = swing(draft, tool, null);
    if (swung.ok) for (const event of swung.value) draft.emit(event);
    return swung.ok ? null : "no-room-to-index";
  },
  sync: (draft, { frame, row }) => {
    const { modal, lathe } = draft.state;
    if (/^G5[4-9]$/.test(frame) && modal.workOffset !== frame)
      draft.emit({ type: "modalChanged", workOffset: frame as typeof modal.workOffset });
    if (lathe.row !== row) draft.emit({ type: "turretIndexed", station: lathe.station, row });
  },
  startProblem: (state) => {
    if (!canProveLathe(state)) return { code: "notProvable" };
    if (state.lathe.gap) return { code: "paperInGap" };
    if (state.lathe.block) return { code: "blockInGap" };
    return state.lathe.arm.isDown ? { code: "armIsDown" } : null;
  },
  struck: (draft, what) =>
    draft.emit({
      type: "incidentHappened",
      code: struckAs[what],
      isSilent: false,
      failsOutright: false,
      stopsMachine: true,
    }),
  rowRegisters,
  rowMm: ({ registers, scale }, row) => toMm(turretSum(registers.turret, "z", row), scale),
  wearRows: ({ registers: { turret } }) =>
    turretRows.filter((row) => (turret?.xw[row] ?? 0) !== 0 || (turret?.zw[row] ?? 0) !== 0),
  wearRegisters: () => turretRows.flatMap((row) => [`XW${row}`, `ZW${row}`] as RegisterId[]),
  // every tool goes toward the chuck: the deepest one is the nearest to it
  comesOver: (_state, { cutZ }) => (cutZ === null ? [] : ["chuck"]),
  travel: (state) => worldNow(state).travel,
  carried: () => null,
  displayMm: (state) => toMm(turretDisplay(state, "z"), state.scale),
  reallyMm: (state) => tipAt(state).zMm - (faceMm(state) ?? 0),
};

/** Programs on a turret lathe. */
export const program = programAct(ports, latheRules("turret"));
export const latheProgramPorts = ports;
