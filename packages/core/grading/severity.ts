import type { IncidentCode } from "../bench";
import type { Marking } from "../exercises";

/** Incidents that endanger people, the spindle or the machine; every other costs a tool, a gauge or stock. */
const GRAVE = new Set<IncidentCode>([
  "paperUnderTurningTool",
  "handAtChuck",
  "noseStruck",
  "jawStruck",
  "changerStruck",
  "ranIntoFixture",
]);

/** What an incident does to the marks, by the class that it is in. */
export const severityOf = (code: IncidentCode, { severity }: Pick<Marking, "severity">): Marking["severity"]["grave"] =>
  severity[GRAVE.has(code) ? "grave" : "tool"];
