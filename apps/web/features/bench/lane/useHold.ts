import { useCallback, useEffect, useRef } from "react";

/** A held key waits this long, and then goes on at this pace, ms. */
const FIRST_MS = 350;
const HELD_PACE_MS = 110;

/**
 * A key that repeats while it is held. `stopsAt` is what eyes, ears and fingers have now: at the first change of it the
 * hand stops, and goes on only when the key is pressed anew.
 */
export function useHold(press: (isTen: boolean, isRepeat: boolean) => void, stopsAt: string) {
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const latest = useRef(press);
  useEffect(() => {
    latest.current = press;
  });
  const release = useCallback(() => {
    if (timer.current !== null) clearTimeout(timer.current);
    timer.current = null;
  }, []);
  useEffect(() => release, [release, stopsAt]);
  const hold = (isTen: boolean) => {
    release();
    latest.current(isTen, false);
    const again = () => {
      latest.current(isTen, true);
      timer.current = setTimeout(again, HELD_PACE_MS);
    };
    timer.current = setTimeout(again, FIRST_MS);
  };
  return { hold, release };
}
