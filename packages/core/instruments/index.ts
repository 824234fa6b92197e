/** One file each: what an instrument senses, what it shows, what breaks it. */
export * from "./beamSetter";
export * from "./edgeFinder";
export * from "./gap";
export * from "./handMeasures";
export * from "./paper";
export * from "./plungerSetter";
export * from "./probe";
export * from "./sweep";
export * from "./taster";
export {
  EDGE_FINDER_TIP_HEIGHT_MM,
  FACE_MILL_RECESS_MM,
  FACE_MILL_RING_MM,
  handInstruments,
  heldAs,
  INDICATOR_ARM_MM,
  instrumentName,
  instrumentNames,
  isThing,
  MOST_TOOLS,
  neverTurns,
  shapes,
  spindleInstruments,
  toolKinds,
  toolName,
  toolNumber,
  type HandInstrument,
  type InstrumentName,
  type Shape,
  type Thing,
  type ToolKind,
  type ToolName,
} from "./things";
