import { isOfProgram, programMoment } from "./proving";
import type { LaneEvent } from "../bench";
import type { Setup } from "../exercises";
import type { Axis } from "../registers";
import { scales, showCounts, showLength, showSignedCounts, type Scale } from "../units";
import {
  axisNames,
  calibratedWords,
  checkWords,
  edgeFeelWords,
  feelWords,
  figureName,
  gapKindWords,
  incidentWords,
  instrumentWords,
  outcomeWords,
  readingWords,
  masterWords,
  registerWords,
  surfaceWords,
  turnedFaceWords,
  taskWords,
  termWords,
  thingWords,
  wobbleWords,
  inShopWords,
} from "./names";
import { schoolWords } from "./firstNames";
import { refusalWords } from "./refusals";

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
const REGISTER_HOW = {
  captured: "captured",
  typed: "typed",
  added: "added to",
  undone: "put back",
  takenIn: "taken in from a list",
  cleared: "cleared",
  declared: "declared",
  byCycle: "written by the control",
  takenBack: "taken back from the kept setup",
  byProgram: "written by the program",
} as const;
const PASSES = { cuts: "it cut", skims: "it just skimmed", air: "it stood off" } as const;
const LINE_KIND = { reading: "reading", term: "term", sum: "sum" } as const;

const thingName = (id: string, { gaps }: Pick<Setup, "gaps">): string => {
  const gap = gaps.find((one) => one.id === id);
  return gap ? gapKindWords[gap.kind] : instrumentWords("straightEdge");
};

/**
 * One entry of a log in a line that a student and an instructor read beside the replay. Lengths in the machine's unit.
 */
export const momentWords = (event: LaneEvent, sheet: Pick<Setup, "kind" | "unit" | "gaps">): string =>
  inShopWords(words(event, sheet), sheet.kind);

function words(event: LaneEvent, sheet: Pick<Setup, "unit" | "gaps">): string {
  const scale = scales[sheet.unit];
  if (isOfProgram(event)) return programMoment(event, sheet.unit);
  const place = (axis: Axis, counts: number) => `${axisNames[axis]} ${showCounts(counts, scale)}`;
  switch (event.type) {
    case "laneOpened":
      return "Lane opened.";
    case "homed":
      return "Machine homed.";
    case "taskDone":
      return `${capital(taskWords[event.task].done)}.`;
    case "jogged":
      return `${axisNames[event.axis]} moved by hand to ${showCounts(event.to[event.axis], scale)}.`;
    case "moved":
      return `Moved ${event.isRapid ? "at rapid" : "at feed"} to ${(["x", "y", "z"] as const).map((axis) => place(axis, event.to[axis])).join(", ")}.`;
    case "loaded":
      return `Took the ${thingWords(event.thing)}${event.isByChanger ? " by the changer" : ""}.`;
    case "finderReplaced":
      return "Edge finder replaced.";
    case "instrumentReplaced":
      return `${capital(thingWords(event.thing))} replaced.`;
    case "unloaded":
      return "Spindle emptied.";
    case "pocketsSwapped":
      return `Tools ${event.a} and ${event.b} put back in their own places.`;
    case "spindleStarted":
      return `Spindle on, ${event.direction}, ${event.rpm} rev/min${event.isStated ? "" : ", speed not stated"}.`;
    case "spindleStopped":
      return "Spindle stopped.";
    case "spindleTurned":
      return `Spindle turned by hand to ${event.quarter * 90}°.`;
    case "speedSet":
      return `Speed set to ${event.rpm} rev/min.`;
    case "doorSet":
      return event.isOpen ? "Door opened." : "Door shut.";
    case "lookedFrom":
      return `Looked from the ${event.side}${event.isOverZero ? ", standing over the zero" : ""}.`;
    case "setWobbling":
      return "Tip set wobbling.";
    case "approachBegan":
      return "Tip met the face.";
    case "approachEnded":
      return "Tip left the face.";
    case "wobbleChanged":
      return `Tip: ${wobbleWords[event.wobble]}.`;
    case "kicked":
      return `Tip kicked out at ${place(event.axis, event.atCounts)}${event.isSeen ? "" : ", not to be seen from that side"}.`;
    case "tasterTrued":
      return "Taster trued.";
    case "touchBegan":
      return `The ${instrumentWords(event.by)} met something at ${place(event.axis, event.at[event.axis])}.`;
    case "touchEnded":
      return `The ${instrumentWords(event.by)} came free.`;
    case "touchedHard":
      return `Metal touched metal on the ${surfaceWords(event.on)}.`;
    case "leftHard":
      return "Contact opened.";
    case "paperPlaced":
      return `${capital(gapKindWords[sheet.gaps.find(({ id }) => id === event.id)?.kind ?? "paper"])} laid on the ${surfaceWords(event.on)}: ${feelWords[event.feel]}.`;
    case "paperFelt":
      return `Felt at ${place("z", event.machineZ)}: ${feelWords[event.feel]}.`;
    case "paperPulled":
      return "Gauge or paper taken out.";
    case "blockTried":
      return `${capital(thingName(event.id, sheet))} tried in the gap at ${place("z", event.machineZ)}: ${event.goes ? "it goes" : "it does not go"}.`;
    case "blockPulled":
      return "Gauge taken out of the gap.";
    case "blocksWiped":
      return "Gauges and faces wiped.";
    case "lampStood":
      return `Height gauge stood on the ${surfaceWords(event.on)}.`;
    case "lampTaken":
      return "Height gauge taken away.";
    case "tipBlown":
      return `Tip of ${thingWords(event.thing)} blown clean.`;
    case "readingShown":
      return `The ${instrumentWords(event.instrument)} shows the ${readingWords(event.what, event.tool)}: ${
        event.outcome && event.outcome !== "found"
          ? outcomeWords[event.outcome]
          : Object.entries(event.values)
              .map(
                ([name, value]) =>
                  `${figureName(name, event.what)} ${name.endsWith("Deg") ? `${value.toFixed(3)}°` : name === "rpm" ? String(value) : showLength(value, scale)}`,
              )
              .join(", ")
      }.`;
    case "burrDressed":
      return "Burr dressed.";
    case "pointKept":
      return `Point kept on ${axisNames[event.axis]}, from ${event.approach === 1 ? "the low" : "the high"} side, at ${showLength(event.atMm, scale)}.`;
    case "calibrated":
      return `${capital(calibratedWords[event.what])} calibrated by ${masterWords[event.by]}: ${showLength(event.mm, scale)}.`;
    case "staleNamed":
      return event.registers.length === 0
        ? "Said of the kept setup: nothing is to be touched again."
        : `Said of the kept setup: to be touched again, ${event.registers.map((one) => registerWords(one)).join(", ")}.`;
    case "setupTakenBack":
      return "The kept setup taken back, with its program.";
    case "parallelsChanged":
      return `Parallels changed: the part stands ${event.raisedMm === 0 ? "as at first" : `${showLength(Math.abs(event.raisedMm), scale)} ${event.raisedMm > 0 ? "higher" : "lower"} than at first`}.`;
    case "partTapped":
      return "Part tapped.";
    case "counterZeroed":
      return `${axisNames[event.axis]} counter set to zero.`;
    case "registerChanged":
      return `${registerWords(event.register)} ${REGISTER_HOW[event.how]}: ${showCounts(event.from, scale)} to ${showCounts(event.to, scale)}.`;
    case "modalChanged":
      return modalWords(event, scale);
    case "blockRan":
      return `Ran ${event.text}`;
    case "incidentHappened":
      return `${capital(incidentWords[event.code])}.`;
    case "machineReset":
      return "Machine reset.";
    case "lineWritten":
      return `Ledger, ${registerWords(event.register)}: ${event.term ? termWords[event.term] : LINE_KIND[event.kind]} ${event.kind === "term" ? showSignedCounts(event.counts, scale) : showCounts(event.counts, scale)}.`;
    case "lineStruck":
      return "Ledger: a line struck out.";
    case "checkExpected":
      return `${checkWords[event.check].name}: ${showLength(event.mm, scale)} expected.`;
    case "checkLooked":
      return event.seenMm === null
        ? "Looked: nothing to be seen there."
        : `Looked: about ${showLength(event.seenMm, scale, 1)} seen.`;
    case "turretIndexed":
      return `Tool ${event.station} in the working position, ${event.row === null ? "no offset called" : `offset ${event.row} called`}.`;
    case "turned":
      return `${event.kind === "bore" ? "Bored" : event.axis === "z" ? "Turned along Z" : "Cut along X"} at ${place(event.axis === "z" ? "x" : "z", event.axis === "z" ? event.at.x : event.at.z)}.`;
    case "turnedAslant":
      return `A slope cut to ${place("x", event.at.x)}, ${place("z", event.at.z)}.`;
    case "scratched":
      return event.looks === "scrapes"
        ? `Scraped at the ${turnedFaceWords[event.on]}, the chuck turning.`
        : `Heel first over the ${turnedFaceWords[event.on]}: the chuck turns the wrong way for this edge.`;
    case "coneDug":
      return `Nose driven ${showLength(event.depthMm, scale)} into the cone.`;
    case "insertChanged":
      return `Insert of tool ${event.tool} changed.`;
    case "toolRaised":
      return event.from === "below"
        ? `Tool ${event.tool} lowered past the setting gauge, raised to touch it, and locked.`
        : `Tool ${event.tool} let down onto the setting gauge, and locked.`;
    case "toolShimmed":
      return `Tool ${event.tool} shimmed by ${showLength(event.byMm, scale)}.`;
    case "turretGapPlaced":
      return `${capital(thingName(event.id, sheet))} held at the ${turnedFaceWords[event.on]}.`;
    case "turretFelt":
      return `${capital(thingName(event.id, sheet))}: ${(event.id === "straightEdge" ? edgeFeelWords : feelWords)[event.feel]}.`;
    case "turretTried":
      return `${capital(thingName(event.id, sheet))} ${event.goes ? "goes" : "does not go"}.`;
    case "turretGapPulled":
      return "Pulled out of the gap.";
    case "chuckTurned":
      return `Chuck turned by hand to ${event.quarter * 90}°.`;
    case "armSwung":
      return event.isDown ? "Setter arm swung down." : "Setter arm folded away.";
    case "armTripped":
      return `Arm tripped at ${place(event.axis, event.at[event.axis])}; the axis stopped by itself.`;
    case "armLeft":
      return "Came off the arm.";
    case "metalTouched":
      return `Tip touched the ${turnedFaceWords[event.on]}, nothing in between.`;
    case "metalLeft":
      return "Came off the part.";
    case "edgeSighted":
      return `Point sighted over the edge: it looks to stand ${event.looks} it.`;
    case "toolChanged":
      return `Tool ${event.tool} changed for a new one, standing out ${showLength(event.overhangMm, scale, 1)} by rule.`;
    case "toolLoosened":
      return `Clamp of tool ${event.tool} loosened, the tool pushed back in it.`;
    case "toolSlid":
      return `Tool ${event.tool} slid in its clamp until it rested on the bar.`;
    case "toolTightened":
      return `Clamp of tool ${event.tool} tightened, ${event.how === "inTurn" ? "its screws in turn" : "one screw right down first"}.`;
    case "fitStated":
      return `Said of tool ${event.tool}: it ${event.fits ? "fits" : "does not fit"} the part.`;
    case "stackTried":
      return `Stack of ${event.blocks.map((mm) => showLength(mm, scale)).join(" + ")} under the pin in the ${event.under}: ${event.goes ? "goes" : "does not go"}.`;
    case "gaugeZeroed":
      return "Setting gauge zeroed on the slide.";
    case "gaugeRead":
      return `Setting gauge brought to the crest of the pin from ${event.from}.`;
    case "heightStated":
      return `${event.what === "axisHeight" ? "Said: the axis stands over the slide by" : "Said: the setting gauge reads too high by"} ${showLength(event.mm, scale)}.`;
    case "switchedOff":
      return "Machine switched off and on again: it forgets where it is, and what was declared.";
    case "feedTurned":
      return event.isLow ? "Feed turned down." : "Feed turned up.";
    case "coneRan":
      return `Pass along the cone with tool ${event.tool}${event.isHeld ? ", held halfway" : ""}: ${PASSES[event.looks]}.`;
    case "setupJudged":
      return event.isSound ? "Said: the setup is sound." : "Said: the setup is faulty.";
    case "checkJudged":
      return event.isAsExpected ? "Judged: as expected." : "Judged: not as expected.";
    case "handRaised":
      return "Hand raised.";
    case "handLowered":
      return "Hand lowered.";
    case "commandRefused":
      return `Refused: ${refusalWords(event.refusal, sheet.unit)}`;
    case "handedIn":
      return event.school ? `Handed in; school named: ${schoolWords[event.school]}.` : "Handed in.";
  }
}

function modalWords(event: Extract<LaneEvent, { type: "modalChanged" }>, scale: Scale): string {
  const said = [
    event.workOffset ? `work offset ${event.workOffset}` : "",
    event.lengthRow === null
      ? "length compensation off"
      : event.lengthRow === undefined
        ? ""
        : `length compensation H${event.lengthRow}`,
    event.distance ? `${event.distance} figures` : "",
    event.motion ? `${event.motion} motion` : "",
    event.tool === undefined ? "" : `tool ${event.tool} called`,
    event.feedMmPerMin === undefined
      ? ""
      : `feed ${showLength(event.feedMmPerMin, scale, 1)} ${scale.unit === "mm" ? "mm" : "in"}/min`,
    event.rotationDeg === undefined ? "" : `turned ${event.rotationDeg.toFixed(3)}°`,
  ].filter(Boolean);
  return said.length > 0 ? `In force now: ${said.join(", ")}.` : "Nothing new in force.";
}
