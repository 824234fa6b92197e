import { useState } from "react";

/** Where the machine was when something was struck: kept as long as the bench is open, as the dent in the steel is. */
export function useStruckAt<P>(isStopped: boolean, place: P): P | null {
  const [struck, setStruck] = useState<{ readonly at: P | null; readonly wasStopped: boolean }>({
    at: isStopped ? place : null,
    wasStopped: isStopped,
  });
  if (struck.wasStopped !== isStopped) setStruck({ at: isStopped ? place : struck.at, wasStopped: isStopped });
  return struck.at;
}

/** The dent that a strike leaves, px. */
export const Witness = ({ x, y }: { x: number; y: number }) => (
  <path
    data-part="witness"
    transform={`translate(${x} ${y})`}
    d="M-9 0L-4 -2L-7 -7L-2 -4L0 -10L2 -4L7 -7L4 -2L9 0L4 2L6 6L1 3L0 7L-2 3L-6 6L-4 2Z"
    fill="var(--contact)"
    stroke="var(--panel)"
    strokeWidth="1"
    aria-hidden
  />
);
