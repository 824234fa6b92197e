/**
 * The same setup in another school: k is added to every length and taken from work Z, so every closure stays.
 * `known` (to gauge-line) states one tool's length from the gauge line; `master` names the tool that becomes 0.
 * Null when the named tool is not in the table.
 */
export function convertSchool(
  lengths: Readonly<Record<string, number>>,
  workZ: number,
  to:
    | { school: "gauge-line"; known: { id: string; length: number } }
    | { school: "part-touch" }
    | { school: "master"; master: string },
): { lengths: Record<string, number>; workZ: number } | null {
  let k: number;
  if (to.school === "part-touch") k = workZ;
  else {
    const held = lengths[to.school === "gauge-line" ? to.known.id : to.master];
    if (held === undefined) return null;
    k = (to.school === "gauge-line" ? to.known.length : 0) - held;
  }
  const moved = Object.fromEntries(Object.entries(lengths).map(([id, length]) => [id, length + k]));
  return { lengths: moved, workZ: workZ - k };
}
