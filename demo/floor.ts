import type { FloorEntry, FloorTemplate } from "@probe-lane/core/floor";

const common = {
  readingsNeeded: 1,
  edgeXMm: 0,
  edgeYMm: 0,
  skinMm: 0,
  tipDiameterMm: 10,
  toleranceXyMm: 0.03,
  toleranceZMm: 0.03,
};
const reading = (register: string, mm: number): FloorEntry => ({ type: "reading", register, mm });
const set = (register: string, mm: number): FloorEntry => ({ type: "register", register, mm });

/** Exercises of the demo class at its real machines, newest last; one lane waits for its check. */
export const demoFloor: { template: FloorTemplate; lanes: { login: string; entries: FloorEntry[] }[] }[] = [
  {
    template: {
      ...common,
      title: "Eyepiece ring, first tools",
      machine: "lathe",
      machineNumber: "5",
      school: "part-face",
      asksNose: true,
      unit: "mm",
      datum: "front left",
      tools: 2,
      paperMm: 0.1,
      blockMm: 0.1,
    },
    lanes: [],
  },
  {
    template: {
      ...common,
      title: "Dovetail clamp, first side",
      machine: "mill",
      machineNumber: "2",
      school: "part-touch",
      asksNose: false,
      unit: "mm",
      datum: "front left",
      tools: 2,
      paperMm: 0.08,
      blockMm: 0.08,
    },
    lanes: [
      {
        login: "hollinsworth",
        entries: [
          { type: "cautionsRead" },
          reading("G54.x", -334.666),
          { type: "sum", register: "G54.x", mm: -334.666 },
          reading("G54.y", -196.12),
          { type: "term", register: "G54.y", term: "tipRadius", mm: 5 },
          { type: "sum", register: "G54.y", mm: -191.12 },
          reading("H1", -250.7),
          reading("H2", -231.62),
          set("G54.x", -334.666),
          set("G54.y", -191.12),
          set("H1", -250.7),
          set("H2", -231.62),
        ],
      },
    ],
  },
];
