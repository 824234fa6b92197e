import type { Gate } from "../lane";
import type { LatheGateKind } from "../machines/lathe/gates";
import type { MillGateKind } from "../machines/mill/gates";
import { registerWords } from "./names";

const GATES: Record<MillGateKind | LatheGateKind, (gate: Pick<Gate, "tool" | "shutBy">) => string> = {
  machineReady: () => "Machine ready",
  stockSeated: () => "Stock seated",
  xSet: () => "X",
  ySet: () => "Y",
  turnSet: () => "Turn",
  tool: ({ tool }) => `Tool ${tool ?? ""}`,
  workZ: () => "Work Z",
  diameter: ({ tool }) => `D${tool ?? ""}`,
  verified: ({ shutBy }) => (shutBy === undefined ? "Checked" : `Check again: ${registerWords(shutBy)}`),
  placeRead: () => "Zero read",
  toolRead: ({ tool }) => `Tool ${tool ?? ""} read`,
  workRead: () => "Work Z read",
  judged: () => "Judged",
  faced: () => "Faced",
  toolChanged: ({ tool }) => `Tool ${tool ?? ""} in`,
  secondStart: () => "Second start",
  axisFound: () => "Axis height",
  gaugeCompared: () => "Gauge compared",
  fit: () => "Fit",
  staleNamed: () => "Compared",
  takenBack: () => "Taken back",
  touchedAgain: () => "Touched again",
  programHeld: () => "Program",
  proved: () => "Proved",
  ran: () => "Run",
  partJudged: () => "First part",
  partAgain: () => "Next part",
  handIn: () => "Hand in",
};
/** What a gate of the lane is called. */
export const gateWords = (gate: Pick<Gate, "kind" | "tool" | "shutBy">): string =>
  GATES[gate.kind as keyof typeof GATES](gate);
