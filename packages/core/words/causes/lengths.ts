import type { CauseId } from "../../diagnosis";
import { registerWords } from "../names";
import { say, gapWords, skinWords, times, type CauseWords } from "./telling";

/** Mistakes of lengths, work Z and diameters on a mill. */
export const lengths = {
  paperForgotten: {
    name: "paper left out",
    headline: "one paper, left out",
    told: (term, _v, sheet) => `${gapWords(term, sheet)} The paper is missing from your sum.`,
    equation: (f, show) => times("+", "paper", f.paper, show),
    check: "Is there a line for the paper in your working?",
  },
  paperWrongWay: {
    name: "paper counted the wrong way",
    headline: "the paper, counted the wrong way",
    told: (term, _v, sheet) => `${gapWords(term, sheet)} Your sum has the paper with the opposite sign.`,
    equation: (f, show) => times("+2 × ", "paper", f.paper, show),
    check: "Did the paper make the value more negative, as it must?",
  },
  facingForgotten: {
    name: "facing left out",
    told: (term, _v, sheet) => `${skinWords(term, sheet)} That is missing from your sum.`,
    equation: (f, show) => times("+", "skin", f.facing, show),
    check: "Did you count how far the touched skin stands over the datum?",
  },
  facingWrongWay: {
    name: "facing counted the wrong way",
    told: (term, _v, sheet) => `${skinWords(term, sheet)} Your sum has it with the opposite sign.`,
    equation: (f, show) => times("+2 × ", "skin", f.facing, show),
    check: "Did the allowance make the value more negative, as it must?",
  },
  leftoverWorkZ: {
    name: "old work Z left in",
    told: ({ mm, register, isAfter }, _v, sheet) => {
      const name = registerWords(register ?? "G54.z");
      const held = say(isAfter ? -mm : mm, sheet);
      return isAfter
        ? `${name} still held ${held} from the job before while the value was taken, so that is counted into it; it was cleared only afterwards.`
        : `${name} still held ${held} from the job before. It adds to what you set.`;
    },
    equation: (f, show) => times("+", "old work offset", f.leftoverWork, show),
    check: "What did the work offset hold before, and does it still?",
  },
  liftMissing: {
    name: "lift missing",
    told: () => "The tool was touched on the plane, but the datum’s height over that plane was never found with it.",
    equation: (f, show) => times("−", "lift", f.lift, show),
    check: "Tools touched on a plane: is the datum’s height over it in work Z?",
  },
  changedSinceTouch: {
    name: "tool changed after it was touched",
    told: ({ mm }, _v, sheet) =>
      `The tool was chipped after it was touched and is ${say(mm, sheet)} shorter now: after a strike nothing is trusted until it is measured again.`,
  },
  blockForgotten: {
    name: "block left out",
    told: (term, _v, sheet) => `${gapWords(term, sheet)} The gauge that stood there is missing from your sum.`,
    equation: (f, show) => times("+", "block", f.block, show),
    check: "Is there a line for the block in your working?",
  },
  blockWrongWay: {
    name: "block counted the wrong way",
    told: (term, _v, sheet) => `${gapWords(term, sheet)} The gauge was counted with the opposite sign.`,
    equation: (f, show) => times("+2 × ", "block", f.block, show),
    check: "Was the block added where it must come off?",
  },
  partHeightMiscounted: {
    name: "part height miscounted",
    equation: (f, show) => times("± ", "part height", f.partHeight, show),
    check: "Is the height of the part in your sum twice, or not at all?",
  },
  leftoverCommonZ: {
    name: "common offset left in",
    told: ({ mm, register, isAfter }, _v, sheet) => {
      const name = registerWords(register ?? "common.z");
      const held = say(isAfter ? -mm : mm, sheet);
      return isAfter
        ? `${name} still held ${held} while the value was taken, and was cleared only afterwards.`
        : `${name} still holds ${held}. It adds to what you set.`;
    },
    equation: (f, show) => times("+", "common offset", f.leftoverCommon, show),
    check: "Does the common offset hold anything?",
  },
  oldWear: {
    name: "old wear left in",
    told: ({ mm, register }, _v, sheet) =>
      `${register ? registerWords(register) : "The wear"} still holds ${say(mm, sheet)} from the job before.`,
    equation: (f, show) => times("+", "old wear", f.oldWear, show),
    check: "Is the wear register of that row zero?",
  },
  neighborRow: {
    name: "neighbor’s row",
    told: ({ tool }) => (tool === undefined ? "That is another tool’s value." : `That is the value of T${tool}.`),
    equation: (f, show) => `a neighbor’s difference ${(f.neighbors ?? []).map(show).join(" or ")}`,
    check: "Read the row beside it: does it hold what this one should?",
  },
  lengthNotCalled: {
    name: "length compensation not called",
    told: () => "Length compensation was not on.",
    equation: (f, show) => times("−", "length", f.lengthInUse, show),
    check: "Was length compensation on, with this tool’s row?",
  },
  spindleGrowth: {
    name: "spindle growth",
    told: ({ mm }, _v, sheet) =>
      `Measured still, used at speed: the spindle draws the tool up by ${say(Math.abs(mm), sheet)}.`,
    equation: (f, show) => times("+", "growth", f.growth, show),
    check: "Measure the tool again at speed: does it come out longer?",
  },
  radiusInDiameter: {
    name: "radius in a diameter register",
    told: () => "This control keeps diameters; that is a radius.",
    equation: (f, show) => times("−½ × ", "cutter", f.cutterDiameter, show),
    check: "Does this control keep diameters or radii?",
  },
  diameterInRadius: {
    name: "diameter in a radius register",
    told: () => "This control keeps radii; that is a diameter.",
    equation: (f, show) => times("+½ × ", "cutter", f.cutterDiameter, show),
    check: "Does this control keep radii?",
  },
  nominalForMeasured: {
    name: "nominal for measured",
    told: () => "That is what is written on the cutter; measured it is another size.",
    equation: (f, show) => `nominal ${show(f.nominalDiameter ?? 0)} − measured ${show(f.cutterDiameter ?? 0)}`,
    check: "Measure the cutter: is it what is written on it?",
  },
  diameterEmpty: {
    name: "diameter left empty",
    equation: (f, show) => times("−", "cutter", f.cutterDiameter, show),
    check: "Is the diameter row empty?",
  },
  wearSignTurned: {
    name: "wear with its sign turned",
    told: () => "The difference from the nominal size went in with its sign turned.",
    equation: (f, show) => times("−2 × ", "wear", f.oldWear, show),
    check: "Part too large outside: did the correction go minus?",
  },
  wholeInWear: {
    name: "whole diameter as the difference",
    told: () => "The register holds the difference from the nominal size, and the whole diameter went in.",
    equation: (f, show) => times("+", "nominal", f.nominalDiameter, show),
    check: "Does this program call for the whole diameter, or for what it differs by?",
  },
  schoolsMixed: {
    name: "two schools mixed",
    told: () =>
      "A figure of another school stands in the sum: touches on the part, on a plane and lengths from the gauge line do not mix.",
    equation: (f, show) => times("± ", "tool length", f.toolLength, show),
    check: "Are lengths from the setter used with a work Z from a touched tool, or the reverse?",
  },
  probeLengthWrong: {
    name: "wrong probe length",
    told: ({ mm }, _v, sheet) =>
      `The probe is not as long as its card says: by ${say(Math.abs(mm), sheet)}. It comes out whole where setter and work Z do not hang on the same probe.`,
    equation: (f, show) => times("−", "error of the probe’s length", f.probeError, show),
    check: "Measure the probe’s length again: is it what is entered?",
  },
  wearTwice: {
    name: "wear entered twice",
    equation: (f, show) => times("+", "wear", f.oldWear, show),
    check: "Was the correction added to one that stood there already?",
  },
  taperDirt: {
    name: "dirt in the taper",
    told: ({ mm }, _v, sheet) =>
      `The taper was not wiped: the tool hung ${say(Math.abs(mm), sheet)} low while it was measured.`,
  },
  notSeated: {
    name: "part not tapped down",
    told: () => "The part was touched before it was tapped down; it came down afterwards.",
  },
  setterMoved: {
    name: "setter moved, card out of date",
    told: ({ mm }, _v, sheet) =>
      `The setter does not stand where its card says: every length from it is off by ${say(Math.abs(mm), sheet)}. Touching it with the bare nose would have shown it.`,
  },
  presetterOff: {
    name: "presetter out of date",
    told: ({ mm }, _v, sheet) =>
      `The presetter reads ${say(Math.abs(mm), sheet)} ${mm > 0 ? "long" : "short"}: a known tool measured again would have shown it.`,
  },
  chipOnTip: {
    name: "chip on the tip",
    told: ({ mm }, _v, sheet) =>
      `Something hung on the tip in the beam and was measured with it: ${say(Math.abs(mm), sheet)}.`,
  },
  gaugeDirt: {
    name: "block not wiped",
    told: ({ mm }, _v, sheet) =>
      `The block was not wiped: ${say(Math.abs(mm), sheet)} of dirt stood in the gap with it.`,
  },
  gaugeHit: {
    name: "gauge moved by a hit",
    told: ({ mm }, _v, sheet) =>
      `The gauge had been hit and stood ${say(Math.abs(mm), sheet)} off its place; it does not tell.`,
  },
  measuredOnCenter: {
    name: "face mill measured on center",
    told: ({ mm }, _v, sheet) =>
      `The face mill was measured on center: its recessed middle met the plunger, and it came out ${say(Math.abs(mm), sheet)} short. It wants an offset of nearly its radius.`,
  },
  measuredStill: {
    name: "measured standing on a tooth",
    told: ({ mm }, _v, sheet) =>
      `It was measured standing still, beside its highest tooth: ${say(Math.abs(mm), sheet)} short.`,
  },
  measuredBesideTip: {
    name: "measured beside its tip",
    told: ({ mm }, _v, sheet) =>
      `The setter met the tool beside its tip: ${say(Math.abs(mm), sheet)} ${mm < 0 ? "short" : "long"}.`,
  },
  oneSideMeasured: {
    name: "measured from one side only",
    told: ({ mm }, _v, sheet) =>
      `Measured from one side the setter’s own center is in the diameter, ${say(Math.abs(mm), sheet)}; from both sides it cancels.`,
  },
  coarseInstrument: {
    name: "instrument too coarse for it",
    told: ({ mm }, _v, sheet) => `The caliper read ${say(Math.abs(mm), sheet)} off: it is not fit for this tolerance.`,
  },
} satisfies Partial<Record<CauseId, CauseWords>>;
