import type { Moment } from "@probe-lane/core/review";
import { describe, expect, it } from "vitest";
import { clockOf, indexOfSeq, jumpTo, stayMs } from "./reviewView";

const at = (seq: number, atMs: number, kind: Moment["kind"] = "move"): Moment => ({
  seq,
  atMs,
  kind,
  label: "",
  change: {},
});
const moments = [at(1, 0), at(2, 800), at(3, 1000, "capture"), at(5, 61_000), at(6, 61_010, "incident")];
const kinds = new Set<Moment["kind"]>(["capture", "incident"]);

describe("the replay", () => {
  it("keeps the student's pace, cut where one would wait and stretched where nothing would be seen", () => {
    expect(stayMs(moments, 0, 1)).toBe(800);
    expect(stayMs(moments, 0, 4)).toBe(200);
    expect(stayMs(moments, 2, 1)).toBe(1500);
    expect(stayMs(moments, 3, 1)).toBe(40);
    expect(stayMs(moments, 4, 1)).toBe(0);
  });
  it("jumps to registers, incidents and notes, both ways", () => {
    expect(jumpTo(moments, [], 0, 1, kinds)).toBe(2);
    expect(jumpTo(moments, [], 2, 1, kinds)).toBe(4);
    expect(jumpTo(moments, [], 4, 1, kinds)).toBeNull();
    expect(jumpTo(moments, [], 4, -1, kinds)).toBe(2);
    expect(jumpTo(moments, [{ id: "n", seq: 2, text: "", by: "", at: "" }], 0, 1, kinds)).toBe(1);
  });
  it("finds an entry by its number, or the one before it", () => {
    expect(indexOfSeq(moments, 5)).toBe(3);
    expect(indexOfSeq(moments, 4)).toBe(2);
    expect(indexOfSeq(moments, 0)).toBe(0);
    expect(indexOfSeq(moments, 999)).toBe(4);
    expect(indexOfSeq(moments, Number.NaN)).toBe(0);
  });
  it("tells the time since the lane was opened", () => {
    expect(clockOf(moments, 0)).toBe("0:00");
    expect(clockOf(moments, 3)).toBe("1:01");
  });
});
