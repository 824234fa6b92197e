import { boxOf, turned, type BoxMm, type Solid } from "../geometry";
import { SETTER_RADIUS_MM, SETTER_TRAVEL_MM } from "../instruments";
import { LAMP_GAUGE_RADIUS_MM, LAMP_GAUGE_TRAVEL_MM } from "../instruments/lampGauge";
import type { MillSetup as Setup, MillTruth as Truth } from "./setup";

/** What stands on a machine, from the table up: what comes later stands on what comes before, and is drawn over it. */
export const surfaces = [
  "table",
  "setter",
  "plate",
  "frontJaw",
  "backJaw",
  "stop",
  "stock",
  "boss",
  "lampGauge",
] as const;
export type Surface = (typeof surfaces)[number];
/** Gauges that are stood on the others by hand, and taken away again. */
export const gauges: readonly Surface[] = ["lampGauge"];

/** The vise of the bench, mm: jaws wider than the part, its bed over the table. */
const JAW_WIDTH_MM = 150;
const JAW_DEPTH_MM = 24;
const JAW_TOP_OVER_TABLE_MM = 78;
const STOP_MM = { thick: 8, below: 6 };
const PLATE_MM = { over: 30, thick: 25 };
const TABLE_MM = { low: { x: -900, y: -700 }, high: { x: 300, y: 300 }, thick: 50 };

/** Where the fixed setter stands on every bench, machine frame, mm. */
export const SETTER_PLACE_MM = { x: -452, y: -292 } as const;
export const SETTER_HEIGHT_MM = 60;

/** Height of the blank's skin, mm: the facing allowance above the datum plane. */
export const skinZMm = (setup: Setup, datumZMm: number): number => datumZMm + setup.facingAllowanceMm;

/** Height of the table, mm, by the nominal heights of fixture and blank; a real one stands a little off it. */
export const nominalTableMm = (setup: Setup, datumZMm: number): number =>
  skinZMm(setup, datumZMm) -
  (setup.fixture.kind === "vise"
    ? setup.fixture.proudMm + JAW_TOP_OVER_TABLE_MM
    : setup.partSizeMm[2] + PLATE_MM.thick);

/** Height of the table as it is, mm. Lanes of before it was drawn have it at its nominal height. */
export const tableZMm = (setup: Setup, { datumMm, tableMm }: Pick<Truth, "datumMm" | "tableMm">): number =>
  tableMm ?? nominalTableMm(setup, datumMm.z);

type Size = readonly [number, number, number];

/** Low corner of the blank from the datum in the part's own axes, mm. */
export function lowCorner(setup: Setup, size: Size, axis: "x" | "y"): number {
  const along = size[axis === "x" ? 0 : 1];
  const { datum, feature } = setup;
  if (datum.kind === "middle") return -along / 2;
  if (datum.kind === "feature") return -(feature?.atMm[axis === "x" ? 0 : 1] ?? along / 2);
  const { approach, edgeWorkMm } = datum.edges[axis];
  return approach === 1 ? edgeWorkMm : edgeWorkMm - along;
}

export interface Placing {
  /** Where the part's datum stands when it is seated, machine frame, mm. */
  readonly datumMm: { readonly x: number; readonly y: number; readonly z: number };
  /** How far the blank stands off that place: not at the stop, not tapped down, moved by tapping. */
  readonly stockOffMm: { readonly x: number; readonly y: number; readonly z: number };
  readonly sizeMm: Size;
  /** Top of the table, mm. */
  readonly tableMm: number;
  readonly skewDeg: number;
  readonly featureDiameterMm: number;
  /** Top of the setter's plunger, machine frame, mm; null when there is no setter. */
  readonly setterTopMm: number | null;
  /** Where a height gauge stands: its foot, mm. */
  readonly gauge: {
    readonly x: number;
    readonly y: number;
    readonly footMm: number;
    readonly heightMm: number;
  } | null;
}

export type Scene = Readonly<Partial<Record<Surface, Solid>> & Record<"stock" | "table", Solid>>;

const slab = (x: readonly [number, number], y: readonly [number, number], lowZ: number, highZ: number): Solid => ({
  plan: {
    kind: "rect",
    x: (x[0] + x[1]) / 2,
    y: (y[0] + y[1]) / 2,
    halfX: (x[1] - x[0]) / 2,
    halfY: (y[1] - y[0]) / 2,
    angleDeg: 0,
  },
  lowZ,
  highZ,
});

/**
 * Everything solid for a given placing: the true one for contact, or the one that an eye sees for the drawing. Machine
 * frame (gauge point), mm.
 */
export function sceneSolids(setup: Setup, placing: Placing): Scene {
  const { datumMm, sizeMm, skewDeg, stockOffMm } = placing;
  const [width, depth, height] = sizeMm;
  const low = { x: lowCorner(setup, sizeMm, "x"), y: lowCorner(setup, sizeMm, "y") };
  const place = (x: number, y: number) => {
    const at = turned(x, y, skewDeg);
    return { x: datumMm.x + stockOffMm.x + at.x, y: datumMm.y + stockOffMm.y + at.y };
  };
  const skin = skinZMm(setup, datumMm.z);
  const table = placing.tableMm;
  const { feature, fixture } = setup;
  const featureAt = feature ? place(low.x + feature.atMm[0], low.y + feature.atMm[1]) : null;
  const stock: Solid = {
    plan: {
      kind: "rect",
      ...place(low.x + width / 2, low.y + depth / 2),
      halfX: width / 2,
      halfY: depth / 2,
      angleDeg: skewDeg,
    },
    lowZ: skin + stockOffMm.z - height,
    highZ: skin + stockOffMm.z,
    ...(feature?.kind === "bore" && featureAt
      ? { hole: { kind: "round", ...featureAt, radiusMm: placing.featureDiameterMm / 2 } }
      : {}),
    ...(feature?.kind === "pocket" && featureAt
      ? {
          hole: {
            kind: "rect",
            ...featureAt,
            halfX: placing.featureDiameterMm / 2,
            halfY: (placing.featureDiameterMm - feature.diameterMm + (feature.acrossYMm ?? feature.diameterMm)) / 2,
          },
        }
      : {}),
  };
  const around = boxOf(stock);
  // jaws, stop and plate stand where the seated blank would be
  const box = {
    low: { x: around.low.x - stockOffMm.x, y: around.low.y - stockOffMm.y },
    high: { x: around.high.x - stockOffMm.x, y: around.high.y - stockOffMm.y },
  };
  const middle = (box.low.x + box.high.x) / 2;
  const jawTop = skin - fixture.proudMm;
  const jawX: [number, number] = [middle - JAW_WIDTH_MM / 2, middle + JAW_WIDTH_MM / 2];
  const isVise = fixture.kind === "vise";
  return {
    stock,
    ...(feature?.kind === "boss" && featureAt
      ? {
          boss: {
            plan: { kind: "disc", ...featureAt, radiusMm: placing.featureDiameterMm / 2 },
            lowZ: skin + stockOffMm.z,
            highZ: skin + stockOffMm.z + feature.heightMm,
          },
        }
      : {}),
    ...(isVise
      ? {
          frontJaw: slab(jawX, [box.low.y - JAW_DEPTH_MM, box.low.y], table, jawTop),
          backJaw: slab(jawX, [box.high.y, box.high.y + JAW_DEPTH_MM], table, jawTop),
        }
      : {
          plate: slab(
            [box.low.x - PLATE_MM.over, box.high.x + PLATE_MM.over],
            [box.low.y - PLATE_MM.over, box.high.y + PLATE_MM.over],
            table,
            skin - height,
          ),
        }),
    ...(isVise && fixture.hasStop
      ? {
          stop: slab(
            [box.low.x - STOP_MM.thick, box.low.x],
            [box.low.y + depth / 2 - 5, box.low.y + depth / 2 + 5],
            table,
            jawTop - STOP_MM.below,
          ),
        }
      : {}),
    ...(placing.setterTopMm === null
      ? {}
      : {
          // what is hard begins where the plunger can go no further
          setter: {
            plan: { kind: "disc", ...SETTER_PLACE_MM, radiusMm: SETTER_RADIUS_MM },
            lowZ: placing.setterTopMm - SETTER_HEIGHT_MM,
            highZ: placing.setterTopMm - SETTER_TRAVEL_MM,
          },
        }),
    ...(placing.gauge
      ? {
          lampGauge: {
            plan: { kind: "disc", x: placing.gauge.x, y: placing.gauge.y, radiusMm: LAMP_GAUGE_RADIUS_MM },
            lowZ: placing.gauge.footMm,
            highZ: placing.gauge.footMm + placing.gauge.heightMm - LAMP_GAUGE_TRAVEL_MM,
          },
        }
      : {}),
    table: slab([TABLE_MM.low.x, TABLE_MM.high.x], [TABLE_MM.low.y, TABLE_MM.high.y], table - TABLE_MM.thick, table),
  };
}

/** Boxes round the solids, for who only needs where they end. */
export const sceneBoxes = (
  scene: Scene,
): Readonly<Partial<Record<Surface, BoxMm>> & Record<"stock" | "table", BoxMm>> =>
  Object.fromEntries(Object.entries(scene).map(([name, solid]) => [name, boxOf(solid)])) as ReturnType<
    typeof sceneBoxes
  >;
