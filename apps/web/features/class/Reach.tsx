import { useQuery } from "@tanstack/react-query";
import { Fragment } from "react";
import { reading } from "../../app/queries";
import { Panel } from "../../ui";

/** Where students find this: to be typed, or scanned off a projector. */
export function Reach() {
  const { data } = useQuery(reading("/reach", {}));
  if (!data) return null;
  const { isShared, addresses, fingerprint } = data;
  return (
    <Panel title="Where they find it" bodyClassName="flex flex-col gap-3 p-4">
      {isShared ? null : (
        <p>
          This was started for this machine alone: no other device reaches it. Started with{" "}
          <code className="figures">./start --lan</code> it is open to the network, in secret, and the address stands
          here.
        </p>
      )}
      {addresses.map(({ url, code }) => (
        <div key={url} className="flex flex-wrap items-center gap-4">
          <img
            src={`data:image/svg+xml,${encodeURIComponent(code)}`}
            alt={`Code to scan: opens ${url}/join`}
            className="size-36 rounded-[3px] border border-rule bg-white"
          />
          <p className="figures min-w-0 text-lg font-semibold break-all" data-testid="address">
            {url}
          </p>
        </div>
      ))}
      {isShared && fingerprint ? (
        <p className="text-ink2">
          A browser that does not know this machine’s own certificate asks before it goes on. What it then shows as
          SHA-256 fingerprint must be this:{" "}
          <span className="figures block text-xs text-ink" data-testid="fingerprint">
            {fingerprint.split(":").map((pair, at) => (
              <Fragment key={at}>
                {at > 0 ? ":" : null}
                <wbr />
                {pair}
              </Fragment>
            ))}
          </span>
        </p>
      ) : null}
    </Panel>
  );
}
