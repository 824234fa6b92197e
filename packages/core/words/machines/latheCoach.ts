import type { TurningSeen } from "../../bench";
import type { CoachStep } from "../../lane";
import type { latheCoachCodes } from "../../machines/lathe/coach";
import { scales, showLength } from "../../units";
import { turretKindWords } from "../names";

const toolWord = (step: CoachStep) => `tool ${step.tool ?? 1}`;

/** What a tool on the post of a hand-wound lathe still wants: the reference zeroes the corner, the others read it. */
function readoutAdvice(n: number, isHere: boolean, { sheet, lathe }: TurningSeen): string {
  if (!isHere) return `Wind the slide well clear, stop the spindle, open the guard and put tool ${n} on the post.`;
  const isReference = n === sheet.lathe.targets.x[0];
  const { xTouched = {}, zTouched = {}, isWorkSet = false } = lathe.evidence ?? {};
  if (isReference) {
    if ((zTouched[n] ?? 0) === 0)
      return "Face with the reference tool, no row recalled. Wind back in X only: Z stands at the face.";
    if (!isWorkSet) return "Z stands at the face: make it read 0 there. From now on the readout counts from that face.";
    if ((xTouched[n] ?? 0) === 0)
      return "Skim a band until it has cleaned up all round, and wind back in Z only: X stands on the band.";
    return "Make X read 0 there. Face and band are the corner that every other tool reads.";
  }
  const isPointed = sheet.lathe.tools.find(({ number }) => number === n)?.kind === "threading";
  if ((xTouched[n] ?? 0) === 0)
    return `Touch the band with tool ${n}, no row recalled, and read X. A feeler in between counts, on a diameter twice, unless the corner was zeroed over the same one. Keep your other hand off the post: it gives.`;
  if ((zTouched[n] ?? 0) === 0)
    return isPointed
      ? `The point of tool ${n} cannot meet the face: sight it over the edge by eye, and read Z.`
      : `Touch the face with tool ${n} and read Z.`;
  return `Row ${n} is what makes the corner read 0 again: the readings with their sign turned. Type it, recall it, and look.`;
}

/**
 * What a tool on a gang slide still wants: height from the pip first, then X on the bar, because height moves the
 * diameter.
 */
function gangAdvice(n: number, isHere: boolean, { sheet, lathe }: TurningSeen): string {
  if (!isHere) return `Bring tool ${n} over the bar, the slide backed off to bar and twice the clearance.`;
  const { pipsSeen = {}, isHeightSet = {}, xTouched = {} } = lathe.evidence ?? {};
  if (sheet.lathe.targets.height.includes(n) && isHeightSet[n] !== true) {
    return (pipsSeen[n] ?? 0) === 0
      ? `Turn the feed down, call the offset of tool ${n} and face past the middle: what it leaves there tells its height.`
      : `Measure the pip and put half of it into the height register of tool ${n}: plus when it stands, minus when it is rubbed. Face again with the row called.`;
  }
  if ((xTouched[n] ?? 0) === 0)
    return `X of tool ${n}: either bring it down onto the bar with paper in between and set its register; or zero its register, send the slide to where the edge should meet the bar, loosen the clamp and slide the tool there.`;
  return `Set X of tool ${n} from where it stands: bar, and the paper on BOTH sides.`;
}

/** The tool that a declared position is declared with: what its face and its skim say of the start point. */
function presetAdvice(n: number, isHere: boolean, { lathe }: TurningSeen): string {
  if (!isHere) return `Bring tool ${n} into the working position: the position is declared with it.`;
  const { xTouched = {}, zTouched = {} } = lathe.evidence ?? {};
  if ((zTouched[n] ?? 0) === 0) return `Face with tool ${n} and take the machine’s Z there into the ledger.`;
  if ((xTouched[n] ?? 0) === 0)
    return "Skim, retract in Z only, and measure: machine X less the diameter is where the tip would lie on the axis.";
  return "Go to the start point in the machine’s frame. How far is it from there to the axis and to the face? Declare just that: G50 X… Z… . Its own row stays zero.";
}

/** Z of a tool whose edge leans under a square, by the cone. */
function coneAdvice(n: number, { lathe, sheet }: TurningSeen): string {
  const [known] = sheet.lathe.alreadySet ?? [];
  const passes = lathe.evidence.conePasses;
  const isTouched = (lathe.evidence.coneTouched[n] ?? 0) > 0;
  if (isTouched && lathe.evidence.isZSet[n] !== true)
    return `The nose lies on the cone. Add what the counter moved to Z of tool ${n}, or work it out from what the display reads here.`;
  if (lathe.evidence.isZSet[n] !== true)
    return `A rough Z for tool ${n} first, on the safe side: where anything of it meets the face the nose stands off, never deep.`;
  if (known !== undefined && (passes[known] ?? 0) === 0)
    return `Turn the cone with tool ${known}, which is right: offset called, spindle on, the cone’s pass.`;
  return `Run the cone’s pass with tool ${n} and hold it halfway: it stands off. Stop the spindle, zero the Z counter, bring the nose onto the cone at the finest click, and add what the counter reads to Z of tool ${n}.`;
}

/** What a tool of the turret still wants, in the order in which it is done. */
function turretAdvice(step: CoachStep, seen: TurningSeen): string {
  const tool = seen.sheet.lathe.tools.find(({ number }) => number === step.tool);
  const { evidence, station } = seen.lathe;
  if (!tool) return "Choose a tool of the turret and set it.";
  const n = tool.number;
  const { cone, start } = seen.sheet.lathe;
  const wants = (list: readonly number[] | undefined) => list?.includes(n) === true;
  const { targets: wanted } = seen.sheet.lathe;
  if (!wants(wanted?.x) && !wants(wanted?.z) && !wants(wanted?.height))
    return `Nose radius and tip code of tool ${n}, ${tool.insert}: the designation says the radius, the picture where the tip stands from the middle of the nose. Type both.`;
  if (seen.kind === "readout") return readoutAdvice(n, station === n, seen);
  if (seen.kind === "gang") return gangAdvice(n, station === n, seen);
  if (start && n === seen.sheet.lathe.targets.z[0]) return presetAdvice(n, station === n, seen);
  if (station !== n)
    return `Bring tool ${n}, the ${turretKindWords[tool.kind]}, into the working position, well clear of the part.`;
  if (seen.sheet.lathe.targets.height.includes(n) && seen.sheet.lathe.hasHeightGauge && evidence.isShimmed[n] !== true)
    return "Lower the tool past the mark of the setting gauge, raise it to touch, and lock it. Then face past the middle: no pip proves it.";
  if (seen.sheet.lathe.targets.height.includes(n) && seen.lathe.pip !== "none") {
    if ((evidence.pipsSeen[n] ?? 0) === 0)
      return "Face past the middle with this tool and look what it leaves there: below center a pip stands, above center it is rubbed.";
    return "A pip as wide as twice the error of height: measure it with the caliper, shim the holder by half of it, up when it stands, down when it is rubbed, and face again.";
  }
  if (tool.kind === "drill" && (evidence.xTouched[n] ?? 0) === 0)
    return "Bring the drill near the axis and carry the indicator round its shank, chuck and all. The TOOL moves, not the axis: by plus the error, and on a diameter by twice that. Sweep again.";
  if (seen.sheet.lathe.schools.every((school) => school === "setter-arm")) {
    const open = (["X", "Z"] as const).filter(
      (axis) => ((axis === "X" ? evidence.xTouched : evidence.zTouched)[n] ?? 0) === 0,
    );
    if (open.length > 0)
      return `Swing the arm down and bring tool ${n} onto its ${open[0]} plane: slow inside the last three millimetres, by clicks of a hundredth at most. The axis stops by itself and the reading stands in the list.`;
    return `Both planes of the arm are read for tool ${n}. Take each reading into the ledger, take the plane off, and type the row. The arm goes away before anything turns.`;
  }
  if (cone && tool.isUnderSquare && (evidence.xTouched[n] ?? 0) > 0) return coneAdvice(n, seen);
  const wantsZ = seen.sheet.lathe.targets.z.includes(n) === true;
  if (wantsZ && tool.sideMm !== undefined && (evidence.zTouched[n] ?? 0) === 0)
    return `Z of tool ${n} is its side’s: bring the point deep enough for the side to stand over the face, spindle still, and touch the face with the side, paper in between. Where along the thread the point stands matters little: a few tenths are near enough.`;
  if (wantsZ && (evidence.zTouched[n] ?? 0) === 0)
    return `Find Z of tool ${n} at the face: spindle still for paper, pin or straight edge; or cut the face with it.`;
  if (wantsZ && evidence.isZSet[n] !== true)
    return `Z of tool ${n} stands at the face, or one gap away from it: set it now, before Z moves.`;
  if ((evidence.xTouched[n] ?? 0) === 0) {
    if (tool.kind === "boring")
      return "Skim the bore, retract in Z only, stop the spindle, and measure the bore with the gauge.";
    return tool.kind === "turning" || tool.kind === "profiling"
      ? "Skim the diameter until it has cleaned up all round, retract in Z only, stop the spindle, and measure twice, a quarter turn apart."
      : "Bring the tip down onto a diameter that has been turned and measured, with paper in between, spindle still.";
  }
  const isXDone = !wants(wanted.x) || evidence.isXSet[n] === true;
  if (isXDone && wants(wanted.nose))
    return `Nose radius and tip code of tool ${n}, ${tool.insert}, are wanted too: both, from the designation and the picture.`;
  return `Set X of tool ${n} from where it stands: the diameter, and if something lay in between, that on BOTH sides, because X counts diameters.`;
}

/** What proves a setup here, by its machine and school. */
const CHECKS = {
  any: "Before you hand in, check what you set in a way that you did not use: Z with a rule close before the face, X by a skim and the micrometer or by the display at a measured diameter. Say what you expect before you go there, look, and say whether it is so.",
  readout:
    "Prove the library: say first what X ought to read at the corner, then stand there with a tool, recall its row, and look.",
  gang: "Prove it: call the tool’s offset, send it to bar and twice the clearance, say first how much daylight there ought to be, and look.",
  cone: "Prove it: run the cone’s pass once more with the tool that you set. It must just skim.",
  arm: "Prove the arm: say first what work Z and the row of a tool that it set add up to, then touch the face with that tool. The machine must stand there, plus the gap: look.",
} as const;
/** What proves a setup on a lathe, by its machine and school. */
export function latheCheckWords({ kind, sheet: { lathe } }: TurningSeen): string {
  if (kind !== "turret") return CHECKS[kind];
  if (lathe.cone) return CHECKS.cone;
  return lathe.schools.every((school) => school === "setter-arm") ? CHECKS.arm : CHECKS.any;
}

/** What the coach says on a lathe. */
export const latheCoachWords: Record<(typeof latheCoachCodes)[number], (step: CoachStep, seen: TurningSeen) => string> =
  {
    faceFirst: () =>
      "Face the part first: the sawn end is no datum. Door shut, spindle on at a stated speed, the turning tool a little behind the face, then X inward past the middle. Afterwards retract in X only, so that Z still stands at the face.",
    changeTool: (step, { sheet }) =>
      sheet.lathe.freshInsert?.includes(step.tool ?? 0)
        ? `Bring ${toolWord(step)} clear of the part, spindle still, door open, and change its insert. The holder stays; another edge sits a few hundredths elsewhere, so X and Z of this one tool are touched anew.`
        : `Back the slide off, bring ${toolWord(step)} over the bar, spindle still, door open, and change it. Overhang by rule as its neighbors have it, ${showLength(sheet.lathe.gang?.overhangMm ?? 0, scales[sheet.unit], 1)}.`,
    startAgain: (_step, { sheet, isHomed, lathe }) => {
      if ((lathe.starts ?? 0) === 0)
        return "A declared position is lost when the machine is switched off, and every start declares it anew. Try it: switch off and on.";
      return !isHomed
        ? "Switched on again it knows nothing: reference return first."
        : `Nothing is declared any more. Bring ${turretKindWords[sheet.lathe.tools[0]?.kind ?? "turning"]} 1 to the start point of the sheet, and there run the same G50 again. Anywhere else, or with another tool, it shifts the whole part.`;
    },
    findAxis: (_step, { sheet }) =>
      `Put the ground pin of ${showLength(sheet.lathe.axis?.pinMm ?? 0, scales[sheet.unit])} into the spindle and build a stack that just goes under it: the rule says about ${showLength((sheet.lathe.axis?.aboutMm ?? 0) - (sheet.lathe.axis?.pinMm ?? 0) / 2, scales[sheet.unit], 0)}. The axis stands at stack and half the pin. The headstock is the reference, not the tailstock.`,
    compareGauge: () =>
      "Zero the setting gauge on the slide, bring it past the crest of the pin from below and raise it to the mark. What it reads, less half the pin, against your axis height is its error.",
    sayFit: () =>
      "Say of each tool whether it does for the part: 180 less lead angle less nose angle must clear the steepest fall with degrees to spare, and a blade must reach the groove’s bottom.",
    setTurretTool: turretAdvice,
    setWorkZ: () =>
      "With a tool whose offset is called, stand at the face and set work Z there. Without the offset active it would be wrong by that tool’s whole Z.",
    readTool: (step) =>
      `Read tool ${step.tool ?? 1} on the part: the turned band for X, measured first, and the face for Z. Say beforehand what each ought to be, geometry, wear and work offset together.`,
  };
