import type { MillSeen } from "@probe-lane/core/bench";
import type { AxisCounts } from "@probe-lane/core/registers";
import { useId } from "react";
import { sensationOf } from "./view";
import { FinderPicture } from "./loupe/FinderPicture";
import { MID, SIZE } from "./loupe/lens";
import { ProbePicture } from "./loupe/ProbePicture";
import { SolidPicture } from "./loupe/SolidPicture";
import { SweepPicture } from "./loupe/SweepPicture";
import { TasterPicture } from "./loupe/TasterPicture";

function Picture({ seen, machine }: { seen: MillSeen; machine: AxisCounts }) {
  const { holds, tip } = seen;
  if (tip?.kind === "destroyed" && holds !== "edgeFinder")
    return (
      <path
        d="M60 80l28 12-10 18 26 8M122 74l14 24-20 8 8 24M84 134l24 8"
        stroke="var(--contact)"
        strokeWidth="3"
        fill="none"
      />
    );
  if (holds === "edgeFinder") return <FinderPicture seen={seen} machine={machine} />;
  if (tip?.kind === "dial") return <TasterPicture tip={tip} />;
  if (tip?.kind === "probe") return <ProbePicture seen={seen} machine={machine} isTriggered={tip.isTriggered} />;
  if (holds === "indicator") return <SweepPicture seen={seen} />;
  return <SolidPicture seen={seen} machine={machine} />;
}

/** The working point, magnified: what eye, ear and finger get, and no figure of the gap. */
export function Loupe({ seen, machine }: { seen: MillSeen; machine: AxisCounts }) {
  const clip = useId();
  const { strong, soft, isContact } = sensationOf(seen, machine);
  return (
    <figure className="flex flex-col">
      <figcaption role="status" aria-live="polite" className="mb-1 rounded-[3px] bg-well/75">
        <b data-testid="sensation" className={`block text-lg leading-5 ${isContact ? "text-contact" : ""}`}>
          {strong}
        </b>
        <span className="text-xs text-ink2">{soft}</span>
      </figcaption>
      <svg className="w-full" viewBox={`0 0 ${SIZE} ${SIZE}`} aria-hidden>
        <clipPath id={clip}>
          <circle cx={MID} cy={MID} r={MID - 3} />
        </clipPath>
        <circle cx={MID} cy={MID} r={MID - 3} fill="var(--field)" />
        <g clipPath={`url(#${clip})`}>
          <Picture seen={seen} machine={machine} />
        </g>
        <circle cx={MID} cy={MID} r={MID - 3} fill="none" stroke="var(--ink)" strokeWidth="2.5" />
      </svg>
    </figure>
  );
}
