import { type MillTruth } from "../../exercises/setup";
import { eyeShiftMm, seen, seenAs } from "../../lane/eye";
import { type MillLane, type Seat } from "./lane";
import { type Thing } from "../../instruments/things";
import { gauges, sceneSolids, surfaces, tableZMm, type Scene, type Surface } from "../../exercises/scene";
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
  return thing === null ? 0 : seenAs(truth.lengthsMm[thing] ?? 0, truth, "length", thing);
}

/** How far an eye takes the blank to be turned, degrees: in steps that are shifted for the lane; square is square. */
function seenSkewDeg({ truth, seat }: Pick<MillLane, "truth" | "seat">): number {
  const deg = skewNowDeg({ truth, seat });
  if (deg === 0) return 0;
  const shift = eyeShiftMm(truth, "skew");
  return Math.round((Math.round((deg - shift) / EYE_STEP_DEG) * EYE_STEP_DEG + shift) * 1000) / 1000;
}

const drawn = new WeakMap<Seat, { truth: MillTruth; scene: Scene }>();

/** The solids as an eye places them, worked out anew only when the blank or a gauge moved. */
export function seenScene({ setup, truth, seat }: MillLane): Scene {
  const known = drawn.get(seat);
  if (known && known.truth === truth) return known.scene;
  const off = stockOffMm({ truth, seat });
  const datumMm = seenDatum(truth);
  const tableMm = seenAs(tableZMm(setup, truth), truth, "table");
  const placing = {
    datumMm,
    // against the stop it stands where it is meant to stand, and everybody knows it
    stockOffMm: {
      x: off.x === 0 ? 0 : seenAs(off.x, truth, "off stop", "x"),
      y: off.y === 0 ? 0 : seenAs(off.y, truth, "off stop", "y"),
      // a lift off the parallels is seen by nobody, and by how much they were changed everybody knows
      z: seat.raisedMm,
    },
    sizeMm: setup.partSizeMm,
    tableMm,
    skewDeg: seenSkewDeg({ truth, seat }),
    featureDiameterMm: setup.feature?.diameterMm ?? 0,
    setterTopMm: truth.setter ? seenAs(truth.setter.topMm, truth, "setter") : null,
  };
  const bare = sceneSolids(setup, { ...placing, gauge: null });
  // a gauge is drawn standing on what it stands on
  const scene = seat.lamp
    ? sceneSolids(setup, {
        ...placing,
        gauge: {
          x: seat.lamp.x,
          y: seat.lamp.y,
          footMm: bare[seat.lamp.on]?.highZ ?? tableMm,
          heightMm: setup.lampGaugeMm,
        },
      })
    : bare;
  drawn.set(seat, { truth, scene });
  return scene;
}

const TOP_DOWN = [...surfaces].reverse();

/** The surface that an eye finds under the spindle axis; not the bottom of a bore. */
export function surfaceBelow(state: MillLane, without: readonly Surface[] = []): Surface | null {
  const scene = seenScene(state);
  const [x, y] = [toMm(state.position.x, state.scale), toMm(state.position.y, state.scale)];
  return (
    TOP_DOWN.find((surface) => {
      const solid = scene[surface];
      return solid !== undefined && !without.includes(surface) && planGap(solid, x, y) <= 0;
    }) ?? null
  );
}

/** The surface under the spindle axis that something can be laid on. */
export const bearingBelow = (state: MillLane): Surface | null => surfaceBelow(state, gauges);

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
