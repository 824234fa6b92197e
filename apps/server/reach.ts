import { isIP } from "node:net";
import { hostname, networkInterfaces } from "node:os";

const LOOPBACK = new Set(["127.0.0.1", "::1", "localhost"]);

/** Whether an address that is listened on can be reached by this machine only. */
export const isLoopback = (host: string): boolean => LOOPBACK.has(host) || host.startsWith("127.");

/** Listened on by every address of the machine: of version 4 alone, or of both. */
const ANYWHERE: Readonly<Record<string, readonly number[]>> = { "0.0.0.0": [4], "::": [4, 6] };

/** Addresses of this machine by which others in its networks find it; those of version 4 first. */
function machineAddresses(): string[] {
  const found = Object.values(networkInterfaces())
    .flatMap((each) => each ?? [])
    .filter(({ internal, family, address }) => !internal && (family === "IPv4" || !address.startsWith("fe80")));
  const four = found.filter(({ family }) => family === "IPv4");
  return [...four, ...found.filter(({ family }) => family !== "IPv4")].map(({ address }) => address);
}

/** Names and addresses that a certificate of this machine's own stands for. */
export const ownNames = (): string[] => ["localhost", hostname(), "127.0.0.1", ...machineAddresses()];

/** Where a browser finds a server that listens on `host`. */
export function urlsOf({ host, port, isSecure }: { host: string; port: number; isSecure: boolean }): string[] {
  const versions = ANYWHERE[host];
  const found = versions ? machineAddresses().filter((one) => versions.includes(isIP(one))) : [host];
  // a machine in no network finds itself at least
  return (found.length > 0 ? found : ["127.0.0.1"]).map(
    (one) => `${isSecure ? "https" : "http"}://${isIP(one) === 6 ? `[${one}]` : one}${port === 443 ? "" : `:${port}`}`,
  );
}
