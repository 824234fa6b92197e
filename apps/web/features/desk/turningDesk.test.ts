import { describe, expect, it } from "vitest";
import { clearanceView, heightView, insertView, plainNumber, speedView, stackView } from "./turningDesk";

describe("the turning desk", () => {
  it("0.2 off center, set at 40, sent to 2: by hand 2·√((1 − a)² + 0.04) with a = 20 − √(400 − 0.04)", () => {
    const view = heightView({ unit: "mm", height: "-0.2", touch: "40", at: "2" });
    if (view === null || view === "over") throw new Error("no view");
    const a = 20 - Math.sqrt(400 - 0.04);
    expect(view.at?.cutMm).toBeCloseTo(2 * Math.hypot(1 - a, 0.2), 9);
    expect(view.pipMm).toBe(0.4);
    expect(view.points.at(-1)?.errorMm).toBeCloseTo(0, 9);
    // the smaller the diameter, the larger the error
    for (const [n, { errorMm }] of view.points.entries())
      if (n > 0) expect(errorMm).toBeLessThan(view.points[n - 1]?.errorMm ?? 0);
  });
  it("says when figures are missing, and when the tool passes over the bar", () => {
    expect(heightView({ unit: "mm", height: "", touch: "40", at: "" })).toBeNull();
    expect(heightView({ unit: "mm", height: "30", touch: "40", at: "" })).toBe("over");
    expect(heightView({ unit: "mm", height: "0.1", touch: "40", at: "x" })).toMatchObject({ at: null });
  });
  it("stacks, with a worn pair and a block on loan", () => {
    expect(stackView({ set: "metric-88", size: "111.2545", wear: "", loan: "" })).toMatchObject({
      possible: true,
      total: 111.2545,
    });
    expect(stackView({ set: "metric-88", size: "20", wear: "2", loan: "" })).toMatchObject({
      possible: true,
      wear: [2, 2],
    });
    expect(stackView({ set: "metric-88", size: "20", wear: "", loan: "3.3" })).toBe("unknown");
    expect(stackView({ set: "metric-88", size: "1.0003", wear: "", loan: "" })).toMatchObject({ possible: false });
    expect(stackView({ set: "metric-88", size: "", wear: "", loan: "" })).toBeNull();
  });
  it("reads designations, clearance from a designation's first letter, and speeds", () => {
    expect(insertView({ code: "CNMG 12 04 08", system: "metric" })).toMatchObject({
      noseAngle: 80,
      noseRadius: 0.8,
      circle: 12.7,
    });
    expect(insertView({ code: "XXXX", system: "metric" })).toBe("shape");
    expect(clearanceView({ lead: "93", nose: "VBMT 160404" })).toEqual({ leadDeg: 93, noseDeg: 35, fallDeg: 52 });
    expect(clearanceView({ lead: "93", nose: "" })).toBeNull();
    // 1000·120/(π·40) = 954.93, feed 0.2 a turn
    expect(
      speedView({ system: "metric", surface: "120", diameter: "40", teeth: "1", feed: "0,2", most: "" })?.speed,
    ).toBeCloseTo(954.93, 2);
    expect(
      speedView({ system: "metric", surface: "120", diameter: "4", teeth: "1", feed: "0.2", most: "3000" }),
    ).toEqual({ speed: 3000, feed: 600, clamped: true });
    expect(plainNumber("−1,5")).toBe(-1.5);
    expect(plainNumber("1.2.3")).toBeNull();
  });
});
