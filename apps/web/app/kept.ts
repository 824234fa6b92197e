/** Where the service worker keeps what the server said last of the floor. */
export const KEPT_CACHE = "floor";

/** Forgets what this device keeps of somebody: they signed out, or somebody else did sign in. */
export const forgetKept = (): void => {
  // only where the browser trusts the address is anything kept at all
  if ("caches" in globalThis) void caches.delete(KEPT_CACHE);
};
