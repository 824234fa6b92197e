/**
 * Named migrations of what was stored by earlier versions. Format 1 had one part in a vise, one tool, edge finder and
 * paper.
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

/** The sheet in a lane's first event, and in a stored ruling, of format 1 → 2. */
export function upgradeSetup(stored: unknown): unknown {
  if (!isObject(stored) || "datum" in stored) return stored;
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

/** The hidden truth in a lane's first event of format 1 → 2. */
export function upgradeTruth(stored: unknown): unknown {
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
