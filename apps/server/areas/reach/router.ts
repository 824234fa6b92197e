import { Router } from "express";
import { toString as scanned } from "qrcode";
import { requireRole } from "../../guards";
import { reply } from "../../reply";

/** How this server is reached, as it was started. */
export interface Reach {
  /** Others than this machine can reach it. */
  readonly isShared: boolean;
  readonly urls: readonly string[];
  /** Of the certificate, as a browser shows it; null where there is none. */
  readonly fingerprint: string | null;
}

/** Where students find this, for whoever stands before them: as text, and as a code to scan. */
export function reachRouter(reach: () => Reach): Router {
  const router = Router();
  router.get("/reach", requireRole("instructor"), async (_req, res) => {
    const { isShared, urls, fingerprint } = reach();
    const addresses = await Promise.all(
      urls.map(async (url) => ({ url, code: await scanned(`${url}/join`, { type: "svg", margin: 1 }) })),
    );
    reply(res, "/reach", { isShared, fingerprint, addresses: isShared ? addresses : [] });
  });
  return router;
}
