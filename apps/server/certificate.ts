import { X509Certificate } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { isIP } from "node:net";
import { join } from "node:path";
import { generate } from "selfsigned";

/** Browsers take none that is good for longer. */
const DAYS = 800;
const DAY_MS = 24 * 60 * 60 * 1000;
/** A certificate is made anew so long before its last day. */
const BEFORE_DAYS = 30;

export interface OwnCertificate {
  readonly certPath: string;
  readonly keyPath: string;
  /** False where the one that was there still does. */
  readonly isNew: boolean;
}

const stillDoes = (path: string, names: readonly string[], now: Date): boolean => {
  if (!existsSync(path)) return false;
  const held = new X509Certificate(readFileSync(path));
  const isGood = new Date(held.validTo).getTime() - now.getTime() > BEFORE_DAYS * DAY_MS;
  const stands = (name: string) => (isIP(name) === 0 ? held.checkHost(name) : held.checkIP(name)) !== undefined;
  return isGood && names.every(stands);
};

/**
 * A certificate that this machine signs itself, in a folder: the one that is there, as long as it is good and stands
 * for every name and address; else a new one. Only who owns the folder can read its key.
 */
export async function ownCertificate(folder: string, names: readonly string[], now: Date): Promise<OwnCertificate> {
  const [certPath, keyPath] = [join(folder, "certificate.pem"), join(folder, "key.pem")];
  if (stillDoes(certPath, names, now) && existsSync(keyPath)) return { certPath, keyPath, isNew: false };
  const made = await generate([{ name: "commonName", value: "Probe Lane" }], {
    keyType: "ec",
    algorithm: "sha256",
    notBeforeDate: new Date(now.getTime() - DAY_MS),
    notAfterDate: new Date(now.getTime() + DAYS * DAY_MS),
    extensions: [
      { name: "basicConstraints", cA: false, critical: true },
      { name: "keyUsage", digitalSignature: true, critical: true },
      { name: "extKeyUsage", serverAuth: true },
      {
        name: "subjectAltName",
        altNames: names.map((name) =>
          isIP(name) === 0 ? { type: 2 as const, value: name } : { type: 7 as const, ip: name },
        ),
      },
    ],
  });
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  writeFileSync(certPath, made.cert);
  writeFileSync(keyPath, made.private, { mode: 0o600 });
  return { certPath, keyPath, isNew: true };
}

/** What a browser shows of a certificate, to be held against what the start says. */
export const fingerprintOf = (certificate: string | Buffer): string => new X509Certificate(certificate).fingerprint256;
