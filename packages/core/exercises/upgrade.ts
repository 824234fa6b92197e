/**
 * Named migrations of what was stored by earlier versions. Format 1 had one part in a vise, one tool, edge finder and
 * paper. Format 2 had one shape for all machines, a lathe as an optional group of it.
 */
type Stored = Record<string, unknown>;
const isObject = (value: unknown): value is Stored =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const ONE_TOOL_DRAWER = ["edgeFinder", "pointedTool", "paper"];

/** Exercise files and rows of format 1 → 2. */
export function upgradeExercise(stored: unknown): unknown {
  if (!isObject(stored) || "format" in stored) return stored;
  const { vise, edges, tool1DiameterMm, leftoverWorkZMm, lengthCapture, allowedSchools, ...rest } = stored;
  return {
    ...rest,
    format: 2,
    fixture: { kind: "vise", ...(isObject(vise) ? vise : {}) },
    datum: { kind: "corner", edges },
    tools: [{ number: 1, kind: "endMill", diameterMm: tool1DiameterMm }],
    instruments: ONE_TOOL_DRAWER,
    leftovers: [{ register: "G54.z", mm: leftoverWorkZMm }],
    settings: { lengthCapture },
    lengthSchools: allowedSchools,
    targets: { lengths: [1] },
    tasks: ["dressBurr"],
  };
}

/** The sheet of format 1 → 2. */
function setupOfFormat2(stored: unknown): unknown {
  if (!isObject(stored) || "datum" in stored || "kind" in stored) return stored;
  const { vise, edges, paperMm, tool1DiameterMm, leftoverWorkZMm, lengthCapture, allowedSchools, ...rest } = stored;
  return {
    ...rest,
    unit: "mm",
    advice: "",
    fixture: { kind: "vise", hasStop: false, ...(isObject(vise) ? vise : {}) },
    datum: { kind: "corner", edges },
    feature: null,
    isSkewed: false,
    gaps: [{ id: "paper", kind: "paper", nominalMm: paperMm }],
    tools: [{ number: 1, kind: "endMill", diameterMm: tool1DiameterMm, workingRpm: 2000 }],
    instruments: ONE_TOOL_DRAWER,
    probe: null,
    setter: null,
    lampGaugeMm: 50,
    leftovers: [{ register: "G54.z", mm: leftoverWorkZMm }],
    partBefore: null,
    settings: {
      lengthCapture,
      diameterMode: "diameter",
      resetDropsLength: true,
      rowActs: "atOnce",
      spindleGuard: "refuses",
      captureClearsWear: false,
    },
    lengthSchools: allowedSchools,
    isSchoolPrescribed: false,
    diameterSchool: null,
    targets: { xy: true, rotation: false, lengths: [1], diameters: [] },
    isAtSpeed: false,
    tasks: ["dressBurr"],
    pockets: { 1: 1 },
  };
}

/** The hidden truth of format 1 → 2. */
function truthOfFormat2(stored: unknown): unknown {
  if (!isObject(stored) || "gapsMm" in stored) return stored;
  const { sheetMm, ...rest } = stored;
  return {
    ...rest,
    gapsMm: { paper: sheetMm },
    dirtMm: 0,
    diametersMm: {},
    skewDeg: 0,
    feature: null,
    offStopMm: 0,
    liftMm: 0,
    taperDirtMm: 0,
    taster: { runoutMm: 0, leansTo: 0 },
    probe: { pretravelMm: 0, runoutMm: { x: 0, y: 0 } },
    setter: null,
    presetterErrorMm: 0,
    growthMmPer1000: 0,
    chipsMm: {},
    doubt: null,
    jawSkewDeg: 0,
  };
}

/** What a lathe's sheet and truth took over from the one shape of format 2; the rest belonged to a mill. */
const OF_EVERY_SHEET = [
  "exerciseId",
  "exerciseVersion",
  "title",
  "story",
  "advice",
  "unit",
  "partName",
  "partSizeMm",
  "gaps",
  "instruments",
  "rememberedRpm",
  "leftovers",
  "handover",
  "settings",
  "tasks",
];
const OF_EVERY_TRUTH = ["seed", "gapsMm", "dirtMm", "faults", "eyeOffsetMm"];
const pick = (stored: Stored, names: readonly string[]): Stored =>
  Object.fromEntries(names.filter((name) => stored[name] !== undefined).map((name) => [name, stored[name]]));

/** The sheet of format 2 → 3: it says of which machine it is, and holds what belongs to that one. */
function setupOfFormat3(stored: unknown): unknown {
  if (!isObject(stored) || "kind" in stored) return stored;
  if (!isObject(stored.lathe)) return { kind: "mill", ...stored };
  const { control = "turret", ...lathe } = stored.lathe;
  return { kind: control, ...pick(stored, OF_EVERY_SHEET), lathe };
}

/** The truth of format 2 → 3. */
const truthOfFormat3 = (stored: unknown): unknown =>
  isObject(stored) && isObject(stored.lathe) && "datumMm" in stored
    ? { ...pick(stored, OF_EVERY_TRUTH), lathe: stored.lathe }
    : stored;

/** The sheet in a lane's first event, and in a stored ruling, as it is read now. */
export const upgradeSetup = (stored: unknown): unknown => setupOfFormat3(setupOfFormat2(stored));
/** The hidden truth in a lane's first event, as it is read now. */
export const upgradeTruth = (stored: unknown): unknown => truthOfFormat3(truthOfFormat2(stored));
