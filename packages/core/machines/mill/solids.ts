import { type MillLane, type Seat } from "./lane";
import { sceneBoxes, sceneSolids, tableZMm, type Placing, type Scene } from "../../exercises/scene";
import { type MillSetup, type MillTruth } from "../../exercises/setup";
import { shapes, toolNumber, type Shape, type Thing } from "../../instruments/things";
import { type AxisCounts } from "../../registers/mill";
import { toMm, type Scale } from "../../units/scale";
import { type PointMm } from "../../geometry/contact";

/** Where the blank stands off its seated place, mm: not at the stop, not tapped down, moved by tapping, raised. */
export function stockOffMm({ truth, seat }: Pick<MillLane, "truth" | "seat">): { x: number; y: number; z: number } {
  return {
    x: seat.shiftMm.x + (seat.isAtStop ? 0 : truth.offStopMm),
    y: seat.shiftMm.y,
    z: seat.raisedMm + (seat.isTapped ? 0 : truth.liftMm),
  };
}

/** How far the blank is turned as it lies now, degrees. */
export const skewNowDeg = ({ truth, seat }: Pick<MillLane, "truth" | "seat">): number =>
  seat.skewDeg + (seat.isJawTrue ? 0 : truth.jawSkewDeg);

/** Where the part's datum stands as the blank lies now, machine frame, mm. */
export function datumNowMm(state: Pick<MillLane, "truth" | "seat">): { x: number; y: number; z: number } {
  const off = stockOffMm(state);
  const { datumMm } = state.truth;
  return { x: datumMm.x + off.x, y: datumMm.y + off.y, z: datumMm.z + off.z };
}

/** How far the burr stands out of a face across an axis, until it is dressed, mm. */
export const burrNowMm = (
  { truth, isBurrDressed }: Pick<MillLane, "truth" | "isBurrDressed">,
  axis: "x" | "y",
): number => (isBurrDressed ? 0 : truth.burrMm[axis]);

function truePlacing({ setup, truth, seat, setter }: MillLane): Placing {
  return {
    datumMm: truth.datumMm,
    stockOffMm: stockOffMm({ truth, seat }),
    sizeMm: truth.stockSizeMm,
    tableMm: tableZMm(setup, truth),
    skewDeg: skewNowDeg({ truth, seat }),
    featureDiameterMm: truth.feature?.diameterMm ?? 0,
    setterTopMm: truth.setter ? truth.setter.topMm + setter.shiftMm : null,
    gauge: seat.lamp ? { x: seat.lamp.x, y: seat.lamp.y, footMm: seat.lamp.footMm, heightMm: setup.lampGaugeMm } : null,
  };
}

const solid = new WeakMap<Seat, { truth: MillTruth; shiftMm: number; scene: Scene }>();

/** The solids as they are, worked out anew only when the blank or a gauge moved. */
export function trueScene(state: MillLane): Scene {
  const known = solid.get(state.seat);
  if (known && known.truth === state.truth && known.shiftMm === state.setter.shiftMm) return known.scene;
  const scene = sceneSolids(state.setup, truePlacing(state));
  solid.set(state.seat, { truth: state.truth, shiftMm: state.setter.shiftMm, scene });
  return scene;
}

/** How far a spindle that runs draws the tool up, mm. */
const grownMm = ({ truth, spindle }: MillLane): number =>
  spindle.isOn ? (truth.growthMmPer1000 * spindle.rpm) / 1000 : 0;

/** True length of what the spindle holds, from the gauge line down, mm; 0 for the bare nose. */
export function trueLengthMm(state: MillLane): number {
  const {
    holds,
    truth,
    harm: { shorterMm },
    carried: { seatMm },
    probe: { longerMm },
  } = state;
  if (holds === null) return 0;
  return (
    (holds === "probe" ? longerMm : 0) +
    (truth.lengthsMm[holds] ?? 0) -
    (shorterMm[holds] ?? 0) +
    seatMm -
    grownMm(state)
  );
}

/** The solid of a thing for a length and a diameter, as it is or as an eye takes it. */
export function shapeFor(setup: MillSetup, thing: Thing | null, lengthMm: number, diameterMm?: number): Shape {
  switch (thing) {
    case null:
      return shapes.nose();
    case "edgeFinder":
      return shapes.edgeFinder(lengthMm, setup.tipDiameterMm);
    case "pointedTool":
      return shapes.pointedTool(lengthMm);
    case "taster":
      return shapes.taster(lengthMm);
    case "probe":
      return shapes.probe(lengthMm, setup.probe?.ballDiameterMm ?? 6);
    case "indicator":
      return shapes.indicator(lengthMm);
    default: {
      const tool = setup.tools.find(({ number }) => number === toolNumber(thing));
      return shapes.tool(tool?.kind ?? "endMill", lengthMm, diameterMm ?? tool?.diameterMm ?? 10);
    }
  }
}

export const heldShape = (state: MillLane): Shape =>
  shapeFor(state.setup, state.holds, trueLengthMm(state), state.truth.diametersMm[toolNumber(state.holds) ?? 0]);

export const pointOf = (position: AxisCounts, scale: Scale): PointMm => ({
  x: toMm(position.x, scale),
  y: toMm(position.y, scale),
  z: toMm(position.z, scale),
});

/** Where the tip stands for a machine position, mm. */
export function tipPoint(state: MillLane, position: AxisCounts): PointMm {
  const at = pointOf(position, state.scale);
  return { ...at, z: at.z - trueLengthMm(state) };
}

export const trueBoxes = (state: MillLane) => sceneBoxes(trueScene(state));
