import type { Observation, Side } from "@probe-lane/core/bench";
import type { AxisCounts } from "@probe-lane/core/registers";
import { feelWords, surfaceWords, thingWords, wobbleWords } from "@probe-lane/core/words";

/** A rectangle of a view, mm: across and up. */
export interface ViewBox { left: number; right: number; bottom: number; top: number }

/** How a place of the machine lies across a view from one side: right of the viewer is plus. */
export function across(side: Side, x: number, y: number): number {
  switch (side) {
    case "front": return x;
    case "back": return -x;
    case "left": return -y;
    case "right": return y;
  }
}

/** Further from the viewer is larger. */
export function depth(side: Side, x: number, y: number): number {
  switch (side) {
    case "front": return y;
    case "back": return -y;
    case "left": return x;
    case "right": return -x;
  }
}

export const nextSide: Record<Side, Side> = { front: "right", right: "back", back: "left", left: "front" };

export interface Place { x: number; y: number; tipZ: number; noseZ: number }

/** Where the spindle axis, the tip and the nose stand, mm; the tip as far down as an eye makes the tool. */
export function placeOf(seen: Observation, machine: AxisCounts): Place {
  const noseZ = machine.z / 1000;
  return { x: machine.x / 1000, y: machine.y / 1000, noseZ, tipZ: noseZ - seen.heldLengthMm };
}

/** Eye distances from the tip's outside to the blank's sides and skin, mm, rounded as an eye would. */
export function daylight(seen: Observation, machine: AxisCounts): { side: number; above: number } {
  const { stock } = seen.boxes;
  const { x, y, tipZ } = placeOf(seen, machine);
  const radius = seen.holds === "edgeFinder" ? seen.sheet.tipDiameterMm / 2 : seen.holds === "tool1" ? seen.sheet.tool1DiameterMm / 2 : 0.2;
  const dx = Math.max(stock.low.x - x, x - stock.high.x);
  const dy = Math.max(stock.low.y - y, y - stock.high.y);
  const beside = dx > 0 && dy > 0 ? Math.hypot(dx, dy) : Math.max(dx, dy);
  return { side: beside - radius, above: tipZ - stock.high.z };
}

const nearest = (mm: number): string => String(Math.max(0, Math.round(mm)));

/** What eye, ear and finger say at the working point: one strong line, and one that helps. */
export function sensationOf(seen: Observation, machine: AxisCounts): { strong: string; soft: string; isContact: boolean } {
  const { tip, paper, resting, holds, spindle } = seen;
  if (seen.isStopped) return { strong: "machine stopped itself", soft: "something was struck", isContact: true };
  if (paper) {
    const soft = { slides: "nothing holds it", drags: "just held, still moves", held: "moves only with a pull", pinched: "will tear if pulled", torn: "the tip has touched" }[paper.feel];
    return { strong: `paper ${feelWords[paper.feel]}`, soft, isContact: paper.feel !== "slides" };
  }
  if (resting) return { strong: `tip rests on the ${surfaceWords(resting)}`, soft: "metal on metal: go back up", isContact: true };
  if (holds === null) return { strong: "spindle empty", soft: "nothing to look at", isContact: false };
  if (tip) {
    switch (tip.kind) {
      case "destroyed": return { strong: "edge finder in pieces", soft: "take it out and load another", isContact: true };
      case "aside": return { strong: "tip kicked aside", soft: spindle.isOn ? "it stays there until set wobbling" : "spindle stopped", isContact: true };
      case "running": {
        const soft = tip.wobble === "wide" ? "free of the part" : tip.wobble === "true" ? "no wobble to be seen" : "the part straightens it";
        return { strong: wobbleWords[tip.wobble], soft, isContact: tip.wobble !== "wide" && tip.wobble !== "true" };
      }
      case "still": return { strong: "tip stands still", soft: "spindle stopped", isContact: false };
    }
  }
  const { side, above } = daylight(seen, machine);
  if (side > 0) return { strong: `${thingWords(holds)} beside the part`, soft: `about ${nearest(side)} mm of daylight`, isContact: false };
  return { strong: `${thingWords(holds)} over the part`, soft: above > 0 ? `about ${nearest(above)} mm of daylight` : "close to the top", isContact: false };
}

/** The window of the drawing: round the blank and its jaws, or the whole table. */
export function planWindow(seen: Observation, fit: "near" | "whole"): ViewBox {
  if (fit === "whole") {
    const { x, y } = seen.travelCounts;
    return { left: x[0] / 1000 - 60, right: x[1] / 1000 + 60, bottom: y[0] / 1000 - 40, top: y[1] / 1000 + 40 };
  }
  const { frontJaw, backJaw } = seen.boxes;
  const MARGIN = 16;
  return { left: frontJaw.low.x - MARGIN, right: frontJaw.high.x + MARGIN, bottom: frontJaw.low.y - MARGIN, top: backJaw.high.y + MARGIN };
}

/** The edges' work coordinates and the rest of the sheet in one line, with field words. */
export function sheetLine({ sheet }: Observation): string[] {
  const faceX = sheet.edges.x.approach === 1 ? "left" : "right";
  const faceY = sheet.edges.y.approach === 1 ? "front" : "back";
  return [
    `${faceX} edge is X ${sheet.edges.x.edgeWorkMm.toFixed(3)}`, `${faceY} edge is Y ${sheet.edges.y.edgeWorkMm.toFixed(3)}`,
    `skin is Z ${sheet.facingAllowanceMm.toFixed(3)}`, `tip ⌀ ${sheet.tipDiameterMm.toFixed(3)}`, `paper ${sheet.paperMm.toFixed(3)}`,
  ];
}
