import type { PatternLane } from "@probe-lane/contract";
import { TextLink } from "../../ui";

/** The lanes by their students, each a way to its ruling. */
function Who({ hrefs, lanes }: { hrefs: readonly string[]; lanes: readonly PatternLane[] }) {
  return (
    <ul className="flex flex-wrap gap-x-4 gap-y-0.5 pt-1 text-xs">
      {hrefs.map((href) => {
        const lane = lanes.find((one) => one.href === href);
        return (
          <li key={href}>
            <TextLink to={href}>{lane?.studentName ?? "a lane"}</TextLink>{" "}
            <span className="text-ink2">
              {lane?.title}
              {(lane?.attempt ?? 1) > 1 ? `, attempt ${lane?.attempt}` : ""}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

/** One thing that lanes have, as a bar of all that there are: what is sure, then what is only likely. */
export function CountedRow({
  name,
  sure,
  likely = [],
  lanes,
}: {
  name: string;
  sure: readonly string[];
  likely?: readonly string[];
  lanes: readonly PatternLane[];
}) {
  const share = (count: number): string => `${(100 * count) / Math.max(1, lanes.length)}%`;
  const both = sure.length + likely.length;
  return (
    <li className="border-t border-rule-soft px-4 py-1.5 first:border-t-0">
      <details>
        <summary className="grid cursor-pointer grid-cols-[minmax(0,1fr)_minmax(6rem,1fr)_auto] items-center gap-4">
          <span className="first-letter:uppercase">{name}</span>
          <span aria-hidden className="flex h-3 bg-well">
            <span className="bg-contact" style={{ width: share(sure.length) }} />
            {likely.length === 0 ? null : (
              <span className="border border-contact bg-contact-soft" style={{ width: share(likely.length) }} />
            )}
          </span>
          <span className="w-28 text-right text-xs text-ink2">
            <b className="figures text-base text-ink">{both}</b> of {lanes.length}
            {likely.length === 0 ? "" : sure.length === 0 ? ", all likely" : `, ${likely.length} likely`}
          </span>
        </summary>
        <Who hrefs={[...sure, ...likely]} lanes={lanes} />
      </details>
    </li>
  );
}
