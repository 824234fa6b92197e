import type { Observation } from "@probe-lane/core/bench";
import type { Dialect, Stroke } from "@probe-lane/core/gcode";
import { linesSeen } from "@probe-lane/core/machines/program";
import { useEffect, useState } from "react";

/** Dashes by tool, in the order in which a program calls them. */
const DASHES = ["", "9 3", "3 2", "10 3 2 3", "14 3", "6 2 1 2"] as const;
/** The most moves that are drawn over a machine's picture. */
const MOST_MOVES = 4000;

const NONE: readonly Stroke[] = [];

/** The ways of the program that is held, as they are programmed; none until what reads it is there. */
export function useWays(seen: Observation, dialect: Dialect): readonly Stroke[] {
  const { program, sheet } = seen;
  const { unit } = sheet;
  const text = program?.number == null ? "" : linesSeen(program, sheet.programs).join("\n");
  const [found, setFound] = useState<{ readonly of: string; readonly strokes: readonly Stroke[] }>({
    of: "",
    strokes: NONE,
  });
  useEffect(() => {
    if (text === "") return undefined;
    let isWanted = true;
    void import("@probe-lane/core/gcode").then(({ programPaths }) => {
      const { strokes } = programPaths(
        text,
        dialect,
        { startUnits: unit, figures: "mm", isExpanding: true },
        MOST_MOVES,
      );
      if (isWanted) setFound({ of: text, strokes });
    });
    return () => {
      isWanted = false;
    };
  }, [text, dialect, unit]);
  return found.of === text ? found.strokes : NONE;
}

function widthOf(isRapid: boolean, isCalled: boolean): number {
  if (isRapid) return 0.8;
  return isCalled ? 2 : 1.2;
}

/**
 * Ways of a program over a picture of the machine, through the student's own zero: `at` places a programmed place on
 * the drawing, null where it has none. The tool that is called stands out; rapids are dotted.
 */
export function Ways({
  strokes,
  called,
  at,
}: {
  strokes: readonly Stroke[];
  called: number | null;
  at(place: readonly number[], stroke: Stroke): readonly [number, number] | null;
}) {
  const tools = [...new Set(strokes.map(({ tool }) => tool))];
  return (
    <g data-part="ways" fill="none">
      {strokes.map((stroke, i) => {
        const places = stroke.points.map((place) => at(place, stroke));
        if (places.some((one) => one === null)) return null;
        const isCalled = stroke.tool === called;
        return (
          <path
            key={i}
            d={places
              .map(
                (place, n) => `${n === 0 ? "M" : "L"}${(place?.[0] ?? 0).toFixed(1)} ${(place?.[1] ?? 0).toFixed(1)}`,
              )
              .join("")}
            stroke={isCalled ? "var(--contact)" : "var(--ink)"}
            strokeWidth={widthOf(stroke.isRapid, isCalled)}
            strokeDasharray={stroke.isRapid ? "1 3" : DASHES[tools.indexOf(stroke.tool) % DASHES.length]}
          />
        );
      })}
    </g>
  );
}
