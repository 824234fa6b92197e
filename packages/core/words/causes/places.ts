import type { CauseId } from "../../diagnosis";
import { explainEdgeWork, explainRadius } from "../machines/millEdges";
import { axisNames } from "../names";
import { say, show, times, toward, type CauseWords } from "./telling";

/** Mistakes of a place on a mill: edges, middles, turns. */
export const places = {
  radiusForgotten: {
    name: "radius left out",
    headline: "one tip radius, left out",
    told: (_t, value, sheet) => `${explainRadius(value, sheet)} That radius is missing from your value.`,
    equation: (f, show) => `${toward(f, false)}r, r = ${show(f.tipRadius ?? 0)}`,
    check: "Is there a line for the tip radius in your working?",
  },
  radiusSignTurned: {
    name: "radius turned round",
    headline: "the tip radius, turned round",
    told: (_t, value, sheet) => `${explainRadius(value, sheet)} Yours went the other way, away from the part.`,
    equation: (f, show) => `${toward(f, false)}2r, r = ${show(f.tipRadius ?? 0)}`,
    check: "Which way does your radius line go: toward the part or away from it?",
  },
  diameterForRadius: {
    name: "diameter for radius",
    headline: "the whole tip diameter, where its radius belongs",
    told: (_t, value, sheet) => `${explainRadius(value, sheet)} Yours took the whole tip diameter.`,
    equation: (f, show) => `${toward(f, true)}r, r = ${show(f.tipRadius ?? 0)}`,
    check: "Is the radius line half of what is written on the tip?",
  },
  edgeWorkForgotten: {
    name: "edge’s coordinate left out",
    told: (_t, value, sheet) => `${explainEdgeWork(value, sheet)} That term is missing from your value.`,
    equation: (f, show) => times("+", "the edge’s", f.edgeWork, show),
    check: "Did you call the edge zero, or its own coordinate?",
  },
  edgeWorkSignTurned: {
    name: "edge’s coordinate turned round",
    told: (_t, value, sheet) => `${explainEdgeWork(value, sheet)} Yours counted it to the wrong side.`,
    equation: (f, show) => times("+2 × ", "the edge’s", f.edgeWork, show),
    check: "On which side of the datum does the touched edge lie?",
  },
  otherEdge: {
    name: "the other edge",
    told: (_t, value) =>
      `The other ${axisNames[value.target.axis ?? "x"]} face was touched, a whole part away from the one that the drawing asks for.`,
    equation: (f, show) => `${toward(f, true)}size ${show(f.partSize ?? 0)}`,
    check: "Which of the two faces did you touch?",
  },
  burr: {
    name: "burr not dressed",
    headline: "the burr was still on",
    told: ({ mm }, _v, sheet) =>
      `The burr was still on that edge: the tip met it ${say(Math.abs(mm), sheet)} before the face.`,
    equation: (f, show) => `${toward(f, false)}burr ${show(f.burr ?? 0)}`,
    check: "Dress the edge and touch it again: does the number move?",
  },
  edgeBreak: {
    name: "touched on the edge break",
    told: ({ mm }, _v, sheet) =>
      `The tip reached no further down than the broken edge, and met it ${say(Math.abs(mm), sheet)} late.`,
  },
  bentFinder: {
    name: "tip bent",
    told: ({ mm }, _v, sheet) =>
      `The tip had been pushed too far before and was bent: it meets every face ${say(Math.abs(mm), sheet)} early, and does not say so.`,
  },
  slowSpindle: { name: "spindle too slow", told: () => "Below 400 rev/min the tip kicks late." },
  dialTurnShort: {
    name: "dial one turn short",
    told: () => "The small hand of the dial stood one turn away from zero.",
    equation: (f, show) => `${toward(f, false)}one turn ${show(f.dialTurn ?? 0)}`,
    check: "Do BOTH hands of the dial stand at zero?",
  },
  radiusOnOneSide: {
    name: "radius added on one side only",
    told: () => "The radius stands in one of the two contacts. Between two contacts it cancels.",
    equation: (f, show) => `± r/2, r = ${show(f.tipRadius ?? 0)}`,
    check: "Is a radius in one of the two contacts? In the middle it cancels.",
  },
  axesSwapped: {
    name: "X and Y swapped",
    told: () => "That is the value of the other axis.",
    equation: (f, show) => `the other axis ${show(f.otherAxis ?? 0)} − ${show(f.wanted ?? 0)}`,
    check: "Does the other axis hold this one’s value?",
  },
  oneSideOnly: {
    name: "one face only, no middle",
    told: () => "One face was touched; a middle wants both, touched in the same way.",
  },
  notOverMiddle: {
    name: "taken away from the middle",
    told: ({ mm }, _v, sheet) =>
      `The value was taken ${say(Math.abs(mm), sheet)} away from the middle that your contacts give, and that distance was not counted.`,
  },
  keptChanged: {
    name: "kept value no longer true",
    told: ({ mm }, _v, sheet) =>
      `It was taken back as it was kept, and what it hangs on has changed since: it is ${say(Math.abs(mm), sheet)} off today.`,
  },
  partMoved: {
    name: "part moved after it was touched",
    told: () => "The part was moved after it was touched: what was found before no longer holds.",
  },
  tasterNotTrued: {
    name: "taster not trued",
    told: ({ mm }, _v, sheet) =>
      `The ball of the taster ran out of true by ${say(Math.abs(mm), sheet)} toward that face; it was never set true.`,
  },
  faceAskew: {
    name: "face touched ran askew",
    told: ({ mm }, _v, sheet) =>
      `The face that was touched ran askew, so that the corner stands ${say(Math.abs(mm), sheet)} elsewhere than the place of the touch tells. First the part is made to lie true, then it is touched.`,
  },
  jawAskew: {
    name: "fixed jaw askew",
    told: ({ mm }, _v, sheet) =>
      `The fixed jaw stands askew, and the part with it: at its far end that is ${say(Math.abs(mm), sheet)}. Sweep it, tap the vise, and sweep again until both ends read alike.`,
  },
  turnForgotten: { name: "turn not called", told: () => "The part lies turned and nothing was called for it." },
  turnSignTurned: { name: "turn called the wrong way", told: () => "The turn was called to the other side." },
  otherTipRadius: {
    name: "radius of another tip",
    told: ({ figure }, _v, sheet) =>
      `${say(Math.abs(figure?.saidMm ?? 0), sheet)} is the radius of another tip; of this one ${say(Math.abs(figure?.belongsMm ?? 0), sheet)} belongs in.`,
  },
  otherEdgeWork: {
    name: "coordinate of another edge",
    told: ({ figure }, _v, sheet) =>
      `${show(-(figure?.saidMm ?? 0), sheet)} is the coordinate of another edge; the touched one lies at ${show(-(figure?.belongsMm ?? 0), sheet)}.`,
  },
  stylusOff: {
    name: "ball met it at another place",
    told: ({ mm }, _v, sheet) =>
      `The ball answered ${say(Math.abs(mm), sheet)} off the face: bent, or met at another height than its middle.`,
  },
  kickScattered: {
    name: "spindle too fast for the finder",
    told: ({ mm }, _v, sheet) =>
      `Above its rated speed the finder’s kick scatters: it came ${say(Math.abs(mm), sheet)} off.`,
  },
  dialNotAtZero: {
    name: "dial not at zero",
    told: ({ mm }, _v, sheet) => `The dial stood ${say(Math.abs(mm), sheet)} away from zero when the value was taken.`,
  },
} satisfies Partial<Record<CauseId, CauseWords>>;
