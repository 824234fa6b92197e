import type { Habits } from "@probe-lane/students";

/** One lane of the demo class: who, which exercise, with which habits, begun how many minutes ago. */
interface DemoLane {
  exerciseId: string;
  habits: Habits;
  minutesAgo: number;
  isCoachOn?: boolean;
  raisesHand?: boolean;
}
export interface DemoStudent {
  login: string;
  name: string;
  lanes: DemoLane[];
}

const FOCUSER = "focuser-plate-lower-left";
/** Done by most of the class in the lesson before: what it gets wrong stands beside one another. */
const TOUCHED = "five-tools-part-touch";
const ROLLER = "roller-bracket-back-right";

/** The Tuesday evening class: made-up people in every state that a screen has to show. */
export const demoClass = {
  school: "Fernhollow Instrument School",
  name: "Tuesday Evening Setup",
  instructor: { login: "marrow", name: "Corin Marrowfield" },
  students: [
    {
      login: "brandvold",
      name: "Ottilie Brandvold",
      lanes: [
        { exerciseId: TOUCHED, habits: { leavesOldWorkZ: true }, minutesAgo: 402 },
        { exerciseId: FOCUSER, habits: { radius: { x: "forgotten" } }, minutesAgo: 190, isCoachOn: true },
        { exerciseId: FOCUSER, habits: { stopsAfter: "x" }, minutesAgo: 14, isCoachOn: true },
      ],
    },
    {
      login: "quillfeather",
      name: "Jasper Quillfeather",
      lanes: [
        { exerciseId: TOUCHED, habits: {}, minutesAgo: 396 },
        { exerciseId: FOCUSER, habits: {}, minutesAgo: 150 },
        { exerciseId: ROLLER, habits: { way: "motion" }, minutesAgo: 90 },
        { exerciseId: "five-tools-gauge-line", habits: {}, minutesAgo: 48 },
        { exerciseId: "handed-over-evening", habits: {}, minutesAgo: 25 },
        { exerciseId: "knob-first-tool", habits: {}, minutesAgo: 15 },
      ],
    },
    {
      login: "tamblin",
      name: "Ysolde Tamblin",
      lanes: [
        { exerciseId: TOUCHED, habits: { paper: "forgotten" }, minutesAgo: 391 },
        { exerciseId: ROLLER, habits: { radius: { y: "turned" }, edgeWork: { x: "forgotten" } }, minutesAgo: 120 },
        { exerciseId: "clamp-corner-taster", habits: { dialTurnShort: "x" }, minutesAgo: 52 },
        { exerciseId: "collar-five-tools-face", habits: { feelerOnce: true, otherBladeEdge: true }, minutesAgo: 40 },
      ],
    },
    {
      login: "okonjo",
      name: "Theodric Okonjo-Vale",
      lanes: [
        { exerciseId: TOUCHED, habits: { facing: "forgotten" }, minutesAgo: 385 },
        { exerciseId: FOCUSER, habits: { paper: "forgotten", oneKick: true }, minutesAgo: 100 },
        { exerciseId: "setter-in-doubt", habits: { trustsCard: true }, minutesAgo: 41 },
        { exerciseId: "handed-over-morning", habits: { believes: "tools" }, minutesAgo: 20 },
      ],
    },
    {
      login: "fennimore",
      name: "Pelham Fennimore",
      lanes: [
        { exerciseId: TOUCHED, habits: { paper: "forgotten" }, minutesAgo: 380 },
        { exerciseId: FOCUSER, habits: { startsAtRememberedSpeed: true, backsOffFirst: { x: 35 } }, minutesAgo: 80 },
        { exerciseId: "plate-skewed", habits: { forgetsTurn: true }, minutesAgo: 37 },
      ],
    },
    {
      login: "lindqvare",
      name: "Sunniva Lindqvare",
      lanes: [{ exerciseId: ROLLER, habits: { stopsAfter: "y" }, minutesAgo: 22, raisesHand: true }],
    },
    {
      login: "ashgrove",
      name: "Bertram Ashgrove",
      lanes: [
        { exerciseId: TOUCHED, habits: { facing: "forgotten", paper: "wrongWay" }, minutesAgo: 374 },
        { exerciseId: FOCUSER, habits: { driveIntoPart: true }, minutesAgo: 31 },
      ],
    },
    {
      login: "merriwick",
      name: "Calla Merriwick",
      lanes: [
        { exerciseId: TOUCHED, habits: { paper: "wrongWay" }, minutesAgo: 369 },
        { exerciseId: ROLLER, habits: { leavesOldWorkZ: true, facing: "forgotten" }, minutesAgo: 70 },
        { exerciseId: "clamp-middle-probe", habits: { wrongSizeMm: -30 }, minutesAgo: 18 },
      ],
    },
    {
      login: "dunmarrow",
      name: "Ivo Dunmarrow",
      lanes: [
        { exerciseId: TOUCHED, habits: { paper: "forgotten" }, minutesAgo: 361 },
        { exerciseId: FOCUSER, habits: { keepsBurr: true, paperUnderTurningTool: true, way: "add" }, minutesAgo: 60 },
      ],
    },
    {
      login: "hollinsworth",
      name: "Wilhelmina Hollinsworth-Abernethy",
      lanes: [{ exerciseId: ROLLER, habits: { stopsAfter: "z", school: "plane-lift" }, minutesAgo: 9 }],
    },
    {
      login: "peverill",
      name: "Aldous Peverill",
      lanes: [{ exerciseId: FOCUSER, habits: { stopsAfter: "homed" }, minutesAgo: 6, isCoachOn: true }],
    },
    { login: "sorrel", name: "Nessa Sorrelby", lanes: [] },
  ] satisfies DemoStudent[],
} as const;
