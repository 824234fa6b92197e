/**
 * Tool length from a setter, gauge line to tip: L = Zc − Zn, with Zn the nose's trigger, or a master's less its length.
 */
export function setterLength(
  toolTrigger: number,
  reference: { noseTrigger: number } | { master: { length: number; trigger: number } },
): number {
  const nose = "noseTrigger" in reference ? reference.noseTrigger : reference.master.trigger - reference.master.length;
  return toolTrigger - nose;
}
