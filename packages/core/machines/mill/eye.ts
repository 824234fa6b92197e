import { type MillTruth } from "../../exercises/setup";
import { seen } from "../../lane/eye";
import { type MillLane, type Seat } from "./lane";
import { type Thing } from "../../instruments/things";
import { sceneSolids, surfaces, type Scene, type Surface } from "../../exercises/scene";
import { skewNowDeg, stockOffMm } from "./solids";
import { toMm } from "../../units/scale";
import { planGap } from "../../geometry/solid";

const EYE_STEP_DEG = 0.5;

/** Where an eye puts the datum. Everything drawn hangs on this one place, so that no second rounding tells more. */
function seenDatum({ datumMm, eyeOffsetMm }: MillTruth): MillTruth["datumMm"] {
  return { x: seen(datumMm.x, eyeOffsetMm.x), y: seen(datumMm.y, eyeOffsetMm.y), z: seen(datumMm.z, eyeOffsetMm.z) };
}

/** The length of what the spindle holds as an eye sees it, mm; 0 for the bare nose. */
export function seenLengthMm({ truth }: MillLane, thing: Thing | null): number {
  return thing === null ? 0 : seen(truth.lengthsMm[thing] ?? 0, 0);
}

const drawn = new WeakMap<Seat, { truth: MillTruth; scene: Scene }>();

/** The solids as an eye places them, worked out anew only when the blank or a gauge moved. */
export function seenScene({ setup, truth, seat }: MillLane): Scene {
  const known = drawn.get(seat);
  if (known && known.truth === truth) return known.scene;
  const off = stockOffMm({ truth, seat });
  const datumMm = seenDatum(truth);
  const scene = sceneSolids(setup, {
    datumMm,
    stockOffMm: { x: seen(off.x, 0), y: seen(off.y, 0), z: 0 },
    sizeMm: setup.partSizeMm,
    skewDeg: Math.round(skewNowDeg({ truth, seat }) / EYE_STEP_DEG) * EYE_STEP_DEG || 0,
    featureDiameterMm: setup.feature?.diameterMm ?? 0,
    setterTopMm: truth.setter ? seen(truth.setter.topMm, 0) : null,
    lampGauge: seat.lamp
      ? {
          x: seat.lamp.x,
          y: seat.lamp.y,
          footMm: seen(seat.lamp.footMm, truth.eyeOffsetMm.z),
          heightMm: setup.lampGaugeMm,
        }
      : null,
  });
  drawn.set(seat, { truth, scene });
  return scene;
}

const TOP_DOWN: readonly Surface[] = [
  "lampGauge",
  "boss",
  "stock",
  "stop",
  "frontJaw",
  "backJaw",
  "setter",
  "plate",
  "table",
];

/** The surface that an eye finds under the spindle axis; not the bottom of a bore. */
export function surfaceBelow(state: MillLane, ...without: Surface[]): Surface | null {
  const scene = seenScene(state);
  const [x, y] = [toMm(state.position.x, state.scale), toMm(state.position.y, state.scale)];
  return (
    TOP_DOWN.find((surface) => {
      const solid = scene[surface];
      return solid !== undefined && !without.includes(surface) && planGap(solid, x, y) <= 0;
    }) ?? null
  );
}

/** Room under the tip of `thing` down to the highest thing within reach of a holder, as an eye judges it, mm. */
export function seenRoomMm(state: MillLane, thing: Thing | null): number {
  const REACH_MM = 35;
  const tip = toMm(state.position.z, state.scale) - seenLengthMm(state, thing);
  const [x, y] = [toMm(state.position.x, state.scale), toMm(state.position.y, state.scale)];
  const scene = seenScene(state);
  const tops = surfaces.flatMap((name) => {
    const solid = scene[name];
    return solid && planGap({ ...solid, hole: undefined }, x, y) < REACH_MM ? [tip - solid.highZ] : [];
  });
  return Math.min(...tops, Infinity);
}
