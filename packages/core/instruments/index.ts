/** One file each: what an instrument senses, what it shows, what breaks it. */
export * from "./edgeFinder";
export * from "./paper";
export { EDGE_FINDER_TIP_HEIGHT_MM, shapes, thingNames, type Shape, type Thing } from "./things";
