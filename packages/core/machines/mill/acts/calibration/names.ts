/**
 * What is calibrated, and by what: the ball in a ring, the stylus on a known block, the setter (plunger or beam) by a
 * known length.
 */
export const calibrated = ["probeRadius", "probeLength", "setter"] as const;
export type Calibrated = (typeof calibrated)[number];
export const masters = ["ring", "block", "probe", "nose", "pin"] as const;
export type Master = (typeof masters)[number];
/** What each can be calibrated by. */
export const mastersOf: Readonly<Record<Calibrated, readonly Master[]>> = {
  probeRadius: ["ring"],
  probeLength: ["block"],
  setter: ["probe", "nose", "pin"],
};
/** What each setter can be calibrated by: a bare nose has no tip that a beam would find. */
export const setterMasters = {
  plungerSetter: ["probe", "nose", "pin"],
  beamSetter: ["probe", "pin"],
} as const satisfies Record<string, readonly Master[]>;
/** The setter of a bench: a bench has one at most. */
export const setterOf = (instruments: readonly string[]): keyof typeof setterMasters | null =>
  (["plungerSetter", "beamSetter"] as const).find((one) => instruments.includes(one)) ?? null;
