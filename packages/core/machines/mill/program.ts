import { MillProof, millOffset, millWays } from "../../proving";
import { lowCorner } from "../../exercises/scene";
import { toolNumber } from "../../instruments/things";
import { lengthInUse } from "../../lane/state";
import { drawBetween } from "../../random";
import { displayCounts, lengthRows, lengthSum } from "../../registers/mill";
import { toMm } from "../../units/scale";
import { programAct } from "../program/act";
import { struckAs } from "../program/struck";
import { type ProgramPorts, type Prover } from "../program/ports";
import { changeProblem, changeTool } from "./acts/holder/act";
import { heldAs } from "../../instruments/things";
import { raysOnMill } from "./firstPart";
import { millGauging } from "./gauging";
import { type MillLane } from "./lane";
import { registersOf, worldOf } from "./proving";
import { millRules } from "./rules";
import { datumNowMm, shapeFor, trueLengthMm } from "./solids";

/** An instrument hangs where a tool should: it is proved as a body of its own. */
const INSTRUMENT = 99;
const INSTRUMENT_MM = { diameter: 20, holder: 40, nose: 60 } as const;
const CHIP_MM = { low: 0.05, high: 0.3 };

function worldWith(state: MillLane): ReturnType<typeof worldOf> {
  const world = worldOf(state);
  const { holds, setup } = state;
  if (holds === null || toolNumber(holds) !== null) return world;
  const length = trueLengthMm(state);
  const tip = shapeFor(setup, holds, length).rigid[0];
  const body = {
    length,
    diameter: (tip?.radiusMm ?? INSTRUMENT_MM.diameter / 2) * 2,
    shape: "flat" as const,
    // it cuts nothing
    fluteLength: 0,
    shankDiameter: (tip?.radiusMm ?? INSTRUMENT_MM.diameter / 2) * 2,
    holder: { diameter: INSTRUMENT_MM.holder, length: length / 3 },
    noseDiameter: INSTRUMENT_MM.nose,
  };
  return { ...world, tools: new Map([...world.tools, [INSTRUMENT, body]]) };
}

const proverOf = (proof: MillProof, seat: MillLane["seat"]): Prover<MillLane> => ({
  meet: (move, path, hangs) => proof.meet(move, path, hangs),
  // a blank that was seated again lies elsewhere: what was cut of it is not followed
  fork: (state) =>
    state.seat === seat
      ? proverOf(proof.fork(worldWith(state)), seat)
      : proverOf(new MillProof(worldWith(state)), state.seat),
});

const ports: ProgramPorts<MillLane> = {
  dialect: "mill",
  axes: ["x", "y", "z"],
  inForce: ({ modal }) => `${modal.workOffset}${modal.lengthRow === null ? "" : ` G43 H${modal.lengthRow}`}`,
  swings: false,
  restPlaces: ["fixedJaw", "movingJaw"],
  offset: (state, frame, row, sign) => millOffset(registersOf(state), frame, row, sign),
  ways: (now, steps) => millWays(steps, (row) => registersOf(now()).radii?.get(row) ?? 0),
  prover: (state) => proverOf(new MillProof(worldWith(state)), state.seat),
  rays: raysOnMill,
  gauging: millGauging,
  putsOff: (before, frame) => {
    const { datum } = worldOf(before);
    // how deep it goes hangs on each tool
    return millOffset(registersOf(before), frame, null, 1).map((at, axis) =>
      axis === 2 ? 0 : at - (datum[axis] ?? 0),
    );
  },
  hangs: ({ holds, carried, setup }) => {
    if (holds === null) return null;
    return toolNumber(holds) ?? (carried.isByChanger ? (setup.gauging?.pocket ?? INSTRUMENT) : INSTRUMENT);
  },
  brings: ({ carried }, tool) => carried.pockets[tool],
  changeTool: (draft, tool) => {
    const problem = changeProblem(draft.state, tool);
    if (problem?.code === "noRoomToLoad") return "no-room-to-change";
    if (problem?.code === "spindleHolds") return "instrument-in-spindle";
    if (problem) return "tool-missing";
    changeTool(draft, tool);
    return null;
  },
  sync: (draft, { frame, row, tool }) => {
    const { modal, registers } = draft.state;
    const workOffset = /^G5[4-9]$/.test(frame) ? (frame as typeof modal.workOffset) : modal.workOffset;
    const isSame = modal.workOffset === workOffset && modal.lengthRow === row && (tool === null || modal.tool === tool);
    if (isSame) return;
    draft.emit({
      type: "modalChanged",
      workOffset,
      lengthRow: row,
      calledLength: row === null ? null : lengthSum(registers, row),
      ...(tool === null ? {} : { tool }),
    });
  },
  startProblem: (state) => {
    // by the sheet, never by how the blank really lies: a refusal would tell
    const { feature, isSkewed, tasks } = state.setup;
    if (feature !== null || isSkewed || tasks.includes("sweepJaw")) return { code: "notProvable" };
    if (state.paper) return { code: "paperInGap" };
    return state.block ? { code: "blockInGap" } : null;
  },
  struck: (draft, what) => {
    const { holds, truth, incidents } = draft.state;
    const code = struckAs[what];
    const common = { type: "incidentHappened" as const, isSilent: false, failsOutright: false };
    const breaks = holds === null || code === "ranPastTravel" ? undefined : heldAs(holds)?.brokenAs;
    const isTool = holds !== null && toolNumber(holds) !== null && code !== "ranPastTravel";
    const shorterMm =
      Math.round(drawBetween(CHIP_MM.low, CHIP_MM.high, truth.seed, "run chip", incidents.length) * 1e4) / 1e4;
    draft.emit({
      ...common,
      code,
      stopsMachine: true,
      ...(isTool ? { thing: holds, shorterMm } : {}),
    });
    if (breaks && holds) draft.emit({ ...common, code: breaks, stopsMachine: true, thing: holds });
  },
  rowRegisters: (row) =>
    lengthRows.some((one) => one === row)
      ? ([`H${row}`, `HW${row}`] as ReturnType<ProgramPorts<MillLane>["rowRegisters"]>)
      : [],
  rowMm: ({ registers, scale }, row) => toMm(lengthSum(registers, row), scale),
  wearRows: ({ registers }) => lengthRows.filter((row) => (registers.lengthWear[row] ?? 0) !== 0),
  wearRegisters: () => lengthRows.map((row) => `HW${row}` as const),
  travel: (state) => worldOf(state).travel,
  carried: ({ holds, carried, setup }) => ({
    hangs: holds !== null && toolNumber(holds) === null && !carried.isByChanger ? "instrument" : "none",
    swapped: setup.tools.flatMap(({ number }) => (carried.pockets[number] === number ? [] : [number])),
  }),
  comesOver: ({ setup }, { tool, cutX, cutY }) => {
    const radius = (setup.tools.find(({ number }) => number === tool)?.diameterMm ?? 0) / 2;
    const [, sizeY] = setup.partSizeMm;
    const low = lowCorner(setup, setup.partSizeMm, "y");
    if (setup.fixture.kind !== "vise" || cutX === null || cutY === null) return [];
    // jaws stand along the front and the back of the blank
    const isFixedBehind = setup.fixture.fixedJaw === "back";
    return [
      ...(cutY[0] - radius < low ? [isFixedBehind ? ("movingJaw" as const) : ("fixedJaw" as const)] : []),
      ...(cutY[1] + radius > low + sizeY ? [isFixedBehind ? ("fixedJaw" as const) : ("movingJaw" as const)] : []),
    ];
  },
  displayMm: (state) =>
    toMm(displayCounts(state.registers, state.position, state.modal.workOffset, lengthInUse(state)).z, state.scale),
  reallyMm: (state) => toMm(state.position.z, state.scale) - trueLengthMm(state) - datumNowMm(state).z,
};

/** Programs on a mill. */
export const program = programAct(ports, millRules);
export const millProgramPorts = ports;
