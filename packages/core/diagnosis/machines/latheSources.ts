import { farEdgeMm } from "../../exercises/machines/lathe";
import { kxNowMm } from "../../machines/lathe/contact";
import type { TurningLane } from "../../machines/lathe/lane";
import type { RegisterId } from "../../registers";
import { turretSum } from "../../registers/turret";
import { toCounts, toMm, type Counts } from "../../units";
import type { Source, SumQuestion } from "../account";
import { signaturesFor } from "../catalog";
import type { OtherWay, Share } from "../figures";
import type { Standing } from "../standing";
import type { TurningTrace } from "../trace";
import {
  bladeShare,
  coneShare,
  coneValueMm,
  contactPlace,
  contactsOf,
  gapShare,
  measuredFor,
  offsetWantedMm,
  outsideOf,
  reachMm,
  sideShare,
  toolOf,
  turretErrors,
  type Contact,
  type TurretAxis,
} from "./latheContact";

/** A row that was kept is right when it lies this near, mm. */
export const KEPT_MM = 0.03;

const upper = (axis: TurretAxis): "X" | "Z" => (axis === "x" ? "X" : "Z");

export const rowsOf = (tool: number, axis: TurretAxis): readonly RegisterId[] => [
  `${upper(axis)}${tool}`,
  `${upper(axis)}W${tool}`,
];

export const workOf = (axis: TurretAxis): readonly RegisterId[] => [`G54.${axis}`, `common.${axis}`];

export const nameOf =
  (axis: TurretAxis): SumQuestion<TurningLane>["nameOf"] =>
  (register, change) => {
    if (/^[XZ]W/.test(register)) return "oldWear";
    if (register.startsWith("common")) {
      // a position that was declared is lost, or declared again
      if (change === "left") return "leftoverCommonZ";
      return change === "cleared" ? "declarationLost" : "declaredElsewhere";
    }
    if (register.startsWith("G54")) {
      if (change === "changed") return "changedAfter";
      return axis === "x" ? "workXNotZero" : "leftoverWorkZ";
    }
    return change === "left" ? "masterNotCleared" : "changedAfter";
  };

/** A contact as what a tool's X or Z comes from. */
export function sourcesFrom(trace: TurningTrace, contact: Contact, axis: TurretAxis, before: number): Source[] {
  const { final } = trace;
  const { scale } = final;
  const place = contactPlace(contact, axis);
  const tool = toolOf(final, contact.tool);
  if (axis === "z") {
    const shares =
      contact.on === "cone"
        ? coneShare(final, tool, contact)
        : [...gapShare(final, contact, "z"), ...bladeShare(final, tool, contact), ...sideShare(final, tool, contact)];
    const bladeMm = farEdgeMm(tool) - (contact.isFarEdge ? (tool.bladeMm ?? 0) : 0);
    const valueMm = contact.on === "cone" ? coneValueMm(final, tool, contact) : contact.thicknessMm + bladeMm;
    return [{ counts: place.counts, contact: place, shares, ...turretErrors(trace, contact, "z", valueMm, 0) }];
  }
  const s = outsideOf(contact);
  const measured = measuredFor(trace, contact, before);
  if (measured.length === 0) return [unmeasured(trace, contact)];
  return measured.map(({ mm }): Source => {
    const d = toCounts(-mm, scale);
    const shares: Share[] = [
      ...(d === 0
        ? []
        : [
            {
              term: "diameter" as const,
              counts: d,
              slips: [
                { id: "diameterAsRadius" as const, counts: Math.round(d / 2) },
                { id: "notMeasured" as const, counts: 0 },
              ],
            },
          ]),
      ...gapShare(final, contact, "x"),
    ];
    return {
      counts: place.counts,
      contact: place,
      shares,
      ...turretErrors(trace, contact, "x", mm + s * 2 * contact.thicknessMm, mm),
    };
  });
}

/** Nothing was measured: what belonged is the band as it is, and all that the figure is off by is that. */
function unmeasured(trace: TurningTrace, contact: Contact): Source {
  const { final } = trace;
  const place = contactPlace(contact, "x");
  const gap = gapShare(final, contact, "x");
  const gapCounts = gap.reduce((sum, { counts }) => sum + counts, 0);
  const wanted = toCounts(offsetWantedMm(final, contact.tool, "x"), final.scale);
  const d = wanted - place.counts - gapCounts;
  return {
    counts: place.counts,
    contact: place,
    shares: [{ term: "diameter", counts: d, slips: [] }, ...gap],
    errors: [],
    ownMm: toMm(wanted, final.scale) - offsetWantedMm(final, contact.tool, "x"),
  };
}

/** A trip of the arm as what a row comes from: its reading less the card's plane. */
export function armSource(trace: TurningTrace, contact: Contact, axis: TurretAxis, wantedMm: number): Source {
  const { final } = trace;
  const card = final.setup.lathe.arm ?? { xMm: 0, zMm: 0 };
  const truth = final.truth.lathe.arm ?? card;
  const counts = (mm: number) => toCounts(mm, final.scale);
  const [mine, theirs] = axis === "x" ? [card.xMm, card.zMm] : [card.zMm, card.xMm];
  const offMm = axis === "x" ? truth.xMm - card.xMm : truth.zMm - card.zMm;
  const errorMm = toMm(contact.at[axis], final.scale) - mine - wantedMm;
  const blade = axis === "z" ? bladeShare(final, toolOf(final, contact.tool), contact) : [];
  const isOff = Math.abs(offMm) > 1e-9;
  return {
    counts: contact.at[axis],
    contact: contactPlace(contact, axis),
    shares: [
      {
        term: "armPlane",
        counts: counts(-mine),
        slips: [
          { id: "sensorConstant", counts: 0 },
          { id: "sensorConstant", counts: counts(mine) },
          { id: "otherPlane", counts: counts(-theirs) },
          ...(axis === "x" ? [{ id: "diameterAsRadius" as const, counts: counts(-mine / 2) }] : []),
        ],
      },
      ...blade,
    ],
    errors: isOff ? [{ id: "armOff", mm: offMm, seq: contact.seq }] : [],
    ownMm: errorMm - offMm + blade.reduce((sum, share) => sum + toMm(share.counts, final.scale), 0),
  };
}

export const valueOf = ({ counts, shares }: Source): Counts =>
  shares.reduce((sum, share) => sum + share.counts, counts);

/** Everything that a tool's value can come from before a moment. */
export function allSources(trace: TurningTrace, tool: number, axis: TurretAxis, before: number): Source[] {
  return contactsOf(trace, tool, axis, before).flatMap((contact) =>
    contact.by === "arm"
      ? [armSource(trace, contact, axis, axis === "x" ? kxNowMm(trace.final, tool) : reachMm(trace.final, tool))]
      : sourcesFrom(trace, contact, axis, before),
  );
}

/** Figures that were typed in place of the right one: another tool's, the other axis's, another column. */
export function otherWays(
  trace: TurningTrace,
  tool: number,
  axis: TurretAxis,
  at: Standing<TurningLane>,
  source: Source,
): OtherWay[] {
  if (at.origin !== null) return [];
  const { final } = trace;
  const belongs = valueOf(source);
  const before = at.act.seq;
  const neighbors = final.setup.lathe.tools
    .filter(({ number }) => number !== tool)
    .flatMap(({ number }) =>
      allSources(trace, number, axis, before)
        .slice(0, 3)
        .map((one) => ({ id: "neighborRow" as const, counts: valueOf(one) - belongs, tool: number })),
    );
  const across = axis === "x" ? "z" : "x";
  const swapped = allSources(trace, tool, across, before)
    .slice(0, 3)
    .map((one) => ({ id: "axesSwapped" as const, counts: valueOf(one) - belongs }));
  const { machine } = at.act.event;
  const { registers, lathe, modal } = at.act.before;
  const shown =
    registers.common[axis] + registers.work[modal.workOffset][axis] + turretSum(registers.turret, axis, lathe.row);
  return [
    ...neighbors,
    ...swapped,
    ...(machine[axis] === source.counts
      ? []
      : [{ id: "capturedAfterLeaving" as const, counts: machine[axis] - source.counts, isReading: true }]),
    ...(shown === 0 || final.kind === "gang" ? [] : [{ id: "otherColumn" as const, counts: -shown, isReading: true }]),
    ...nosesOf(trace, tool, axis),
  ];
}

/** What the catalog predicts of a nose that is set by its center. */
function nosesOf({ final }: TurningTrace, tool: number, axis: TurretAxis): OtherWay[] {
  const { noseRadiusMm: noseRadius, tipCode } = toolOf(final, tool);
  if (final.setup.lathe.targets.nose.length === 0) return [];
  return signaturesFor(axis === "x" ? "lathe-x" : "lathe-z", { noseRadius, tipCode }).map(({ id, predictedMm }) => ({
    id,
    counts: toCounts(predictedMm, final.scale),
  }));
}
