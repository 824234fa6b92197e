import { edgeOf } from "../../exercises/setup";
import type { MillLane } from "../../machines/mill/lane";
import { datumNowMm } from "../../machines/mill/solids";
import { toCounts, toMm, type Counts } from "../../units";
import type { Source } from "../account";
import { WORTH_NAMING_MM } from "../cause";
import type { Share } from "../figures";
import type { MillTrace } from "../trace";
import { type Contact, type Flat, LATEST, type Place, contactErrors, of, partMoved } from "./millContacts";

/** The middle of two contacts, or of what one reading gave, as what X or Y comes from. */
interface Middle {
  readonly source: Source;
  readonly radius: Counts;
  readonly seq: number;
}

export function middles(trace: MillTrace, axis: Flat, before: number): Middle[] {
  const { setup, scale } = trace.final;
  const work: Share[] = middleShares(trace.final, axis);
  const used = trace.contacts.filter((one) => one.axis === axis && one.seq < before && one.by !== "probe");
  const [lows, highs] = [1, -1].map((s) => used.filter(({ approach }) => approach === s).slice(-3)) as [
    Contact[],
    Contact[],
  ];
  const index = axis === "x" ? 0 : 1;
  const halfMm = ({ before: { truth } }: Contact) => truth.stockSizeMm[index] / 2;
  const isMiddle = setup.datum.kind === "middle";
  const pairs = isMiddle
    ? highs.flatMap((high) =>
        lows.map((low): Middle => {
          const [a, b] = [low, high].map((one) =>
            contactErrors(one, datumNowMm(one.before)[axis] - one.approach * halfMm(one)),
          ) as [ReturnType<typeof contactErrors>, ReturnType<typeof contactErrors>];
          const last = high.seq > low.seq ? high : low;
          const exact = (low.atCounts + high.atCounts) / 2;
          const counts = Math.round(exact);
          const halved = [...a.errors, ...b.errors].map((term) => ({ ...term, mm: term.mm / 2 }));
          const moved = [low, high].flatMap((one) =>
            partMoved(trace, axis, one.before, one.seq).map((term) => ({ ...term, mm: term.mm / 2 })),
          );
          const radiiMm = (low.radiusMm - high.radiusMm) / 2;
          return {
            // a dial over the face has no radius; the sheet's may be counted all the same
            radius: toCounts(high.radiusMm || setup.tipDiameterMm / 2, scale),
            seq: last.seq,
            source: {
              counts,
              contact: of({ ...last, atCounts: counts }),
              shares: work,
              errors: [...halved, ...moved],
              ownMm: (a.ownMm + b.ownMm) / 2 - radiiMm + toMm(counts - exact, scale),
            },
          };
        }),
      )
    : [];
  const read = trace.places
    .filter((place) => place.axis === axis && place.seq < before)
    .slice(-LATEST)
    .map((place): Middle => ({
      radius: 0,
      seq: place.seq,
      source: placeSource(trace, axis, place, work),
    }));
  return [...pairs, ...read].sort((a, b) => b.seq - a.seq);
}

/** What belongs beside a middle or a corner that was read: the datum's own distance from it. */
export function middleShares(lane: MillLane, axis: Flat): Share[] {
  const edge = edgeOf(lane.setup, axis);
  const counts = toCounts(edge?.edgeWorkMm ?? 0, lane.scale);
  return counts === 0
    ? []
    : [
        {
          term: "edgeWork",
          counts: -counts,
          slips: [
            { id: "edgeWorkForgotten", counts: 0 },
            { id: "edgeWorkSignTurned", counts },
          ],
        },
      ];
}

function placeSource(trace: MillTrace, axis: Flat, place: Place, shares: Share[]): Source {
  const { scale } = trace.final;
  const wantedMm = datumNowMm(place.before)[axis] + (edgeOf(trace.final.setup, axis)?.edgeWorkMm ?? 0);
  const errorMm = toMm(place.atCounts, scale) - wantedMm;
  const isOff = Math.abs(errorMm) >= 2 * WORTH_NAMING_MM;
  return {
    counts: place.atCounts,
    contact: of(place),
    shares,
    errors: [
      ...(isOff
        ? [{ id: place.by === "probe" ? ("stylusOff" as const) : ("contactOff" as const), mm: errorMm, seq: place.seq }]
        : []),
      ...partMoved(trace, axis, place.before, place.seq),
    ],
    ownMm: isOff ? 0 : errorMm,
  };
}
