import type { CauseId } from "../../diagnosis";
import { say, times, type CauseWords } from "./telling";

/** Mistakes of turning tools, their rows and their height. */
export const turning = {
  feelerOnce: {
    name: "feeler counted once",
    told: ({ mm }, _v, sheet) =>
      `Between tip and diameter the feeler lies on BOTH sides of what X counts: twice its thickness, not once. The other ${say(Math.abs(mm), sheet)} is missing, and every diameter comes out by that much ${mm > 0 ? "larger" : "smaller"}.`,
    equation: (f, show) => `${f.outside === -1 ? "−" : "+"}feeler ${show(f.paper ?? 0)}`,
    check: "X is a diameter: is the feeler in your sum twice?",
  },
  feelerForgotten: {
    name: "feeler left out",
    told: ({ mm }, _v, sheet) =>
      `The feeler is missing altogether: X counts diameters, so it belongs in twice, ${say(Math.abs(mm), sheet)}.`,
    equation: (f, show) => `${f.outside === -1 ? "−" : "+"}2 × feeler ${show(f.paper ?? 0)}`,
    check: "Is there a line for the feeler in your working?",
  },
  diameterAsRadius: {
    name: "diameter entered as radius",
    told: () => "Half of the diameter was entered: X of this machine counts diameters.",
    equation: (f, show) => times("+½ × ", "diameter", f.touchDiameter, show),
    check: "Did you enter the radius where the control wants the diameter?",
  },
  workXNotZero: {
    name: "work X not zero",
    told: ({ mm }, _v, sheet) => `Work X holds ${say(mm, sheet)}; the axis of rotation is the zero, so it must be 0.`,
    equation: (f, show) => times("+", "work X", f.leftoverWork, show),
    check: "Is work X zero, as it must be on a lathe?",
  },
  noseCenterX: {
    name: "nose center set as the tip",
    equation: (f, show) => `2 × nose radius ${show(f.noseRadius ?? 0)}, by tip code ${f.tipCode ?? "?"}`,
    check: "Was the center of the nose set instead of the tip?",
  },
  gapForgotten: {
    name: "gap left out",
    told: ({ mm }, _v, sheet) =>
      `The tip stood one gap, ${say(Math.abs(mm), sheet)}, off the face, and that was not counted.`,
    equation: (f, show) => times("+", "gap", f.block, show),
    check: "Is there a line for the pin or block in the gap?",
  },
  gapWrongWay: {
    name: "gap counted the wrong way",
    told: () =>
      "The gap was counted the wrong way round: the tip stands off the face by it, so the display must read it.",
    equation: (f, show) => times("+2 × ", "gap", f.block, show),
    check: "Was the gap counted to the wrong side?",
  },
  faceForgotten: {
    name: "face’s own Z left out",
    equation: (f, show) => times("+", "face", f.facing, show),
    check: "Did you call the touched face zero, or its own Z?",
  },
  otherBladeEdge: {
    name: "other edge of the blade",
    told: ({ mm }, _v, sheet) =>
      `That is the other edge of the blade, ${say(Math.abs(mm), sheet)} away from the one that finishes the part.`,
    equation: (f, show) => times("± ", "blade", f.bladeWidth, show),
    check: "Which edge of the blade finishes the part, and which one did you set?",
  },
  toolNotActive: {
    name: "tool not active",
    told: ({ mm }, _v, sheet) =>
      `Work Z was taken while the tool’s offset was not called, so it holds that tool’s Z of ${say(mm, sheet)} as well.`,
    equation: (f, show) => times("+", "tool’s Z", f.lengthInUse, show),
    check: "Was the tool’s offset called when work Z was taken?",
  },
  shiftMissing: {
    name: "shift missing",
    told: () => "The shift was never put into work Z: the rows hold only differences from the master.",
    equation: (f, show) => times("−", "shift", f.shift, show),
    check: "Is the shift of the master in work Z?",
  },
  masterNotCleared: {
    name: "master’s row not cleared",
    told: ({ mm }, _v, sheet) =>
      `The row that belongs at zero still held ${say(Math.abs(mm), sheet)} from the job before; it has to be zero before anything is taken.`,
    equation: (f, show) => times("−", "master’s row", f.masterOld, show),
    check: "Was the master’s row zero when the others were taken?",
  },
  noseCenterZ: {
    name: "nose center set as the tip",
    equation: (f, show) => `nose radius ${show(f.noseRadius ?? 0)}, by tip code ${f.tipCode ?? "?"}`,
    check: "Was the center of the nose set instead of the tip?",
  },
  librarySign: {
    name: "sign of the library",
    told: ({ mm }, _v, sheet) =>
      `The library is ADDED to what the readout shows, so it takes the reading with its sign turned. With the sign as it was read the corner reads ${say(mm, sheet)} when the row is recalled: twice the difference.`,
    equation: (f, show) => times("+2 × ", "reading", f.reading, show),
    check: "Recall the tool at the corner: does it read zero, or twice the difference?",
  },
  feelerOnSome: {
    name: "feeler on some tools only",
    told: ({ mm }, _v, sheet) =>
      `The feeler was between this tool and the part and not between the reference and the part, or the other way round: ${say(Math.abs(mm), sheet)}. With every tool, or with none.`,
    equation: (f, show) => times("± ", "feeler", f.paper, show),
    check: "Was the same feeler used with every tool?",
  },
  sensorConstant: {
    name: "sensor constant left out",
    told: ({ figure }) =>
      figure?.saidMm === 0
        ? "The plane on the arm’s card was left out: the reading is not the register yet."
        : "The plane on the arm’s card was counted the wrong way.",
    equation: (f, show) => times("± ", "sensor constant", f.sensorConstant, show),
    check: "Touch a part with a tool set by the arm: is every tool off by the same?",
  },
  plateMetEarly: {
    name: "plate met by edge or holder",
    told: ({ mm }, _v, sheet) =>
      `Z was taken where an edge that leans under a square met the face before the nose did: ${say(Math.abs(mm), sheet)} early, so the nose stands off.`,
    equation: (f, show) => times("+", "reach", f.plateReach, show),
    check: "Did the nose meet the plate, or the edge or holder before it?",
  },
  notCleanedUp: {
    name: "band that had not cleaned up",
    told: ({ mm }, _v, sheet) =>
      `The band that was measured still showed the saw somewhere, so the gauge read another diameter than the tool had cut: ${say(Math.abs(mm), sheet)}.`,
  },
  notMeasured: { name: "diameter never measured", told: () => "No diameter was measured that this X could come from." },
  faceCutAgain: {
    name: "face cut again after it was touched",
    told: ({ mm }, _v, sheet) =>
      `The face was cut again after this tool had been touched on it; it has moved by ${say(Math.abs(mm), sheet)}.`,
  },
  touchedRunout: {
    name: "touched where it runs out",
    told: ({ mm }, _v, sheet) =>
      `The tip was touched on a surface that is not as it was measured, by ${say(Math.abs(mm), sheet)} on the diameter: sawn stock runs out, and only the skimmed band counts.`,
  },
  flankMet: {
    name: "flank met the rim",
    told: ({ mm }, _v, sheet) =>
      `The point stood too far out for its side to stand over the face: its flank met the rim, ${say(Math.abs(mm), sheet)} late. Deeper in X, and touch again.`,
  },
  pointForSide: {
    name: "point counted, not the side",
    told: ({ mm }, _v, sheet) =>
      `Z of a threading tool is where its side meets the face; the ${say(Math.abs(mm), sheet)} by which the point trails were counted into it.`,
  },
  armOff: {
    name: "setter arm out of date",
    told: ({ mm }, _v, sheet) =>
      `The setter arm does not stand where its card says: every tool from it is off by ${say(Math.abs(mm), sheet)}. The sum check at the face would have shown it.`,
  },
  leanedOnPost: {
    name: "leaned on the post",
    told: ({ mm }, _v, sheet) =>
      `A hand leaned on the post while the feeler was felt: the tip gave way toward the part, and it was read ${say(Math.abs(mm), sheet)} early.`,
  },
  bandCutAgain: {
    name: "band cut again after it was touched",
    told: ({ mm }, _v, sheet) =>
      `The band was cut again after it had been touched; it is another diameter now, by ${say(Math.abs(mm), sheet)}.`,
  },
  clampShifted: {
    name: "clamp tightened unevenly",
    told: ({ mm }, _v, sheet) =>
      `One screw of the clamp was turned right down before the other: the tool shifted by ${say(Math.abs(mm), sheet)} after it had been put against the bar.`,
  },
  insertChanged: {
    name: "insert changed since it was touched",
    told: ({ mm }, _v, sheet) =>
      `The insert was changed after this tool was touched, and another edge sits elsewhere in its pocket: it came out ${say(Math.abs(mm), sheet)} off by that. Touch it again.`,
  },
  registerBuiltIn: {
    name: "old register built in",
    told: ({ mm }, _v, sheet) =>
      `The tool was put against the bar while its register still held ${say(mm, sheet)} that was not called: that is built into the tool's place now.`,
  },
  coneNoseLeftOut: {
    name: "nose left out of the cone touch",
    told: ({ mm }, _v, sheet) =>
      `The nose touches the cone with its round, not with the imaginary tip: ${say(Math.abs(mm), sheet)} of Z for its radius were left out.`,
  },
  declaredElsewhere: {
    name: "declared from another place or tool",
    told: ({ mm }, _v, sheet) =>
      `The position was declared again ${say(Math.abs(mm), sheet)} away from where it had been, or with another tool: it holds only from the start point and with the tool of the sheet.`,
  },
  declarationLost: {
    name: "declared position lost",
    told: () => "What was declared was lost when the machine was switched off, and was not declared again.",
  },
  halfPinForgotten: {
    name: "half the pin left out",
    told: ({ mm }, _v, sheet) =>
      `The stack ends under the pin; the axis lies half a pin higher, ${say(Math.abs(mm), sheet)}.`,
  },
  wholePinAdded: {
    name: "the whole pin added",
    told: ({ mm }, _v, sheet) =>
      `The whole pin was added to the stack; the axis lies in its middle, ${say(Math.abs(mm), sheet)} lower.`,
  },
  tailstockTaken: {
    name: "measured at the tailstock",
    told: ({ mm }, _v, sheet) =>
      `The stack went under a pin in the tailstock, which stands ${say(Math.abs(mm), sheet)} low by its wear. The headstock is the reference.`,
  },
  gaugeNotZeroed: {
    name: "gauge not zeroed on the slide",
    told: () => "The setting gauge was not zeroed on the slide before it was brought to the pin.",
  },
  gaugeSank: {
    name: "tool let down onto the setting gauge",
    told: ({ mm }, _v, sheet) =>
      `The tool was let down onto the setting gauge: the slack of the screw sank by ${say(Math.abs(mm), sheet)} when it was locked. Lower past, and raise to touch.`,
  },
  gaugeFromAbove: {
    name: "gauge brought down onto the crest",
    told: () =>
      "The setting gauge was brought down onto the crest, so its backlash is in the reading: lower it past the crest, then raise it to the mark.",
  },
  cornerNotZero: {
    name: "corner made to read something else than zero",
    told: ({ mm }, _v, sheet) =>
      `The corner was made to read ${say(-mm, sheet)} and not zero, as the sheet has it. The library does not mind, because it holds differences; whoever counts from the corner does.`,
  },
  otherPlane: {
    name: "the arm’s other plane counted",
    told: () => "The plane of the other axis on the arm’s card was taken off.",
  },
  heightWrongWay: {
    name: "moved the wrong way for the pip",
    told: () =>
      "A pip that stands wants the tool raised by half of it, one that was rubbed wants it lowered: it was moved the other way.",
  },
  wholePip: {
    name: "moved by the whole pip",
    told: () => "It was moved by the whole pip; the tip is off center by half of it.",
  },
} satisfies Partial<Record<CauseId, CauseWords>>;
