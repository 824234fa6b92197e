/** One file each: what an instrument senses, what it shows, what breaks it. */
export * from "./beamSetter";
export * from "./edgeFinder";
export * from "./gap";
export * from "./handMeasures";
export * from "./lampGauge";
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
  INDICATOR_ARM_MM,
  instrumentNames,
  isThing,
  MOST_TOOLS,
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
