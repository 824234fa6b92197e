/** What is calibrated, and by what: the ball in a ring, the stylus on a known block, the setter by a known length. */
export const calibrated = ["probeRadius", "probeLength", "setter"] as const;
export type Calibrated = (typeof calibrated)[number];
export const masters = ["ring", "block", "probe", "nose"] as const;
export type Master = (typeof masters)[number];
/** What each can be calibrated by. */
export const mastersOf: Readonly<Record<Calibrated, readonly Master[]>> = {
  probeRadius: ["ring"],
  probeLength: ["block"],
  setter: ["probe", "nose"],
};
