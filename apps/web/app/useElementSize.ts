import { useLayoutEffect, useRef, useState } from "react";

/** The size of an element in px, kept current. */
export function useElementSize(): { ref: React.RefObject<HTMLDivElement | null>; width: number; height: number } {
  const ref = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return undefined;
    const observer = new ResizeObserver(() =>
      setSize({ width: Math.floor(element.clientWidth), height: Math.floor(element.clientHeight) }),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { ref, ...size };
}
