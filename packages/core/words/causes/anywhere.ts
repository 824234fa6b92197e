import type { CauseId } from "../../diagnosis";
import { registerWords } from "../names";
import { say, show, gapWords, nameOf, figureTold, keysWords, times, type CauseWords } from "./telling";

/** Mistakes that any register can hold. */
export const anywhere = {
  capturedAfterLeaving: {
    name: "taken after leaving the contact",
    told: ({ mm }, _v, sheet) =>
      `The machine had moved ${say(mm, sheet)} since the contact when the value was taken, and the move was not counted.`,
  },
  coarseClick: {
    name: "last click too coarse",
    told: ({ mm }, _v, sheet) => `The contact was found with a coarse click, ${say(Math.abs(mm), sheet)} late.`,
  },
  paperPinched: {
    name: "paper pinched too hard",
    told: ({ mm }, _v, sheet) =>
      `The paper was pinched, not dragging: the tip stood ${say(Math.abs(mm), sheet)} lower than one paper.`,
  },
  otherRegister: {
    name: "entered in another register",
    told: ({ register }, value) =>
      register
        ? `The value was put into ${registerWords(register)}; ${nameOf(value)} itself was not set.`
        : `The value stands in another register; ${nameOf(value)} itself was not set.`,
  },
  neverSet: { name: "never set", told: (_t, value) => `Nothing that was found was ever put into ${nameOf(value)}.` },
  takenBack: {
    name: "set, and taken back again",
    told: (_t, value) => `${nameOf(value)} was set and then taken back: it holds what it held before.`,
  },
  noContact: {
    name: "no contact found",
    told: (_t, value) => `No contact and no reading in the log stands behind ${nameOf(value)}.`,
  },
  edgePressed: {
    name: "straight edge pushed away",
    told: ({ mm }, _v, sheet) =>
      `Z was taken with the tool pushing the straight edge off the face, ${say(Math.abs(mm), sheet)} past where its light went out.`,
  },
  rounding: { name: "rounded", told: () => "" },
  otherFigure: { name: "another figure than the one that belongs", told: figureTold },
  otherReading: {
    name: "another reading than the contact’s",
    told: ({ figure, mm }, _v, sheet) =>
      figure
        ? `The reading in the working is ${show(figure.saidMm, sheet)}; at the contact the machine stood at ${show(figure.belongsMm, sheet)}.`
        : `The reading was taken ${say(Math.abs(mm), sheet)} away from the contact.`,
  },
  otherColumn: {
    name: "another column of the display read",
    told: () => "That is what the work display showed; the machine’s own position belongs in the sum.",
  },
  wrongSum: {
    name: "wrong sum in the ledger",
    told: ({ figure }, _v, sheet) =>
      figure
        ? `The lines of the working come to ${show(figure.belongsMm, sheet)}; its sum says ${show(figure.saidMm, sheet)}.`
        : "The sum of the working is not what its lines come to.",
  },
  changedAfter: {
    name: "another register changed afterwards",
    told: ({ mm, register }, _v, sheet) =>
      `${register ? registerWords(register) : "Another register of the sum"} was changed by ${say(mm, sheet)} after the value had been taken.`,
  },
  carriedOver: {
    name: "carried over from another value that is off",
    told: ({ mm, tool }, value, sheet) =>
      tool === value.target.tool
        ? `X of this tool is off, and the cone carries ${say(Math.abs(mm), sheet)} of that into its Z.`
        : `It hangs on ${tool === undefined ? "another tool" : `T${tool}`}, which is itself off: ${say(Math.abs(mm), sheet)} of that is carried over.`,
  },
  gapTwice: {
    name: "gap counted twice",
    told: (term, _v, sheet) => `${gapWords(term, sheet)} It was counted twice; it lies in between once.`,
  },
  otherGap: {
    name: "another thing in the gap counted",
    told: ({ figure }, _v, sheet) =>
      `What stood in the gap counts ${say(Math.abs(figure?.belongsMm ?? 0), sheet)}; ${say(Math.abs(figure?.saidMm ?? 0), sheet)} was counted, which is another thing of the drawer.`,
  },
  contactOff: {
    name: "the contact itself was off",
    told: ({ mm }, _v, sheet) => `The contact itself lies ${say(Math.abs(mm), sheet)} off; the log does not say why.`,
  },
  digitMistyped: {
    name: "one digit mistyped",
    told: (term, _v, sheet) => keysWords(term, "one digit is another one, or one too few.", sheet),
    equation: (f, show) => `one digit of ${show(f.wanted ?? 0)} is another one`,
    check: "Read the register digit by digit beside your sum.",
  },
  wholeSignTurned: {
    name: "sign of the whole value",
    told: (term, _v, sheet) => keysWords(term, "its sign is turned.", sheet),
    equation: (f, show) => times("−2 × ", "the right value", f.wanted, show),
    check: "Is there a minus sign before the value?",
  },
  inchForMm: {
    name: "inch and mm mixed",
    told: (term, _v, sheet) => keysWords(term, "it is right in the other unit.", sheet),
    equation: (f, show) => `right value ${show(f.wanted ?? 0)} × 25.4, or ÷ 25.4`,
    check: "In which unit does the control stand, and in which the reading?",
  },
  decimalShifted: {
    name: "decimal point shifted",
    told: (term, _v, sheet) => keysWords(term, "the decimal point is one place off.", sheet),
    equation: (f, show) => `right value ${show(f.wanted ?? 0)} × 10, or ÷ 10`,
    check: "Is the decimal point where it belongs?",
  },
  digitsSwapped: {
    name: "two digits swapped",
    told: (term, _v, sheet) => keysWords(term, "two neighboring digits changed places.", sheet),
    equation: (f, show) => `two neighboring digits of ${show(f.wanted ?? 0)} changed round`,
    check: "Read the register digit by digit beside your sum.",
  },
} satisfies Partial<Record<CauseId, CauseWords>>;
