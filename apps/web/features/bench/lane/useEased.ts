import { useEffect, useRef, useState } from "react";

const isStill = (): boolean => window.matchMedia("(prefers-reduced-motion: reduce)").matches;
/** Begins at once and arrives softly. */
const eased = (share: number): number => 1 - (1 - share) ** 3;

/**
 * Figures that follow others in time: the picture's, never a readout's. `msFor` says how long the farthest of them is
 * under way; where motion is not wanted all are there at once.
 */
export function useEased(target: readonly number[], msFor: (way: number) => number): readonly number[] {
  const [shown, setShown] = useState(target);
  const now = useRef(target);
  const key = target.join(" ");
  useEffect(() => {
    const to = key.split(" ").map(Number);
    const from = now.current;
    const show = (figures: readonly number[]) => {
      now.current = figures;
      setShown(figures);
    };
    const ms = msFor(Math.max(...to.map((figure, place) => Math.abs(figure - (from[place] ?? figure)))));
    let frame = 0;
    const start = performance.now();
    const step = (at: number) => {
      const share = ms === 0 || isStill() ? 1 : Math.min(1, Math.max(0, at - start) / ms);
      show(to.map((figure, place) => (from[place] ?? figure) + (figure - (from[place] ?? figure)) * eased(share)));
      if (share < 1) frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [key, msFor]);
  return shown;
}

/** A rapid of any length is over in this time, ms; a click takes a frame or two. */
const LONGEST_MS = 600;
const MS_PER_MM = 4;
export const easeMs = (wayMm: number): number => Math.min(LONGEST_MS, 50 + wayMm * MS_PER_MM);
