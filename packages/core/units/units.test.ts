import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { countsFromMm, formatCounts, formatMm, formatSignedCounts, formatUm, mmFromCounts, parseLengthMm } from ".";

describe("counts", () => {
  it("rounds half away from zero, once", () => {
    expect(countsFromMm(1.0005)).toBe(1001);
    expect(countsFromMm(-1.0005)).toBe(-1001);
    expect(Object.is(countsFromMm(-0.0001), 0)).toBe(true);
    expect(() => countsFromMm(NaN)).toThrow(/finite/);
  });
  it("counts survive the way to mm and back", () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e9, max: 1e9 }), (counts) => countsFromMm(mmFromCounts(counts)) === counts),
    );
  });
  it("prints a true minus sign, trailing zeros and no negative zero", () => {
    expect(formatCounts(-329_670)).toBe("−329.670");
    expect(formatMm(-0.0001)).toBe("0.000");
    expect(formatSignedCounts(5000)).toBe("+5.000");
    expect([formatUm(0.0061), formatUm(-0.008), formatUm(0.0001)]).toEqual(["+6", "−8", "0"]);
  });
});

describe("lengths as people type them", () => {
  it.each([
    ["12.4", 12.4],
    ["12,4 mm", 12.4],
    [".0478", 0.0478],
    ["3/64 in", 1.190625],
    ["1 1/8 in", 28.575],
    ["−329.672", -329.672],
    ["–5", -5],
    ["+0.5", 0.5],
    ['1/2"', 12.7],
    ["- 2", -2],
  ])("%s", (text, mm) => {
    const read = parseLengthMm(text);
    expect(read.ok && read.value).toBeCloseTo(mm, 9);
  });
  it("a plain number is in the stated unit", () => {
    const read = parseLengthMm("3/64", "inch");
    expect(read.ok && read.value).toBeCloseTo(1.190625, 9);
    expect(parseLengthMm("1 mm", "inch")).toMatchObject({ ok: true, value: 1 });
  });
  it.each([
    ["", "lengthEmpty"],
    ["  ", "lengthEmpty"],
    ["abc", "lengthUnreadable"],
    ["1e999", "lengthUnreadable"],
    ["1/0", "lengthDividedByZero"],
    [".", "lengthUnreadable"],
    ["1".repeat(40), "lengthTooLong"],
    ["123456", "lengthOutOfRange"],
    ["1..2", "lengthUnreadable"],
    ["0x10", "lengthUnreadable"],
  ])("refuses %j as %s", (text, code) => {
    expect(parseLengthMm(text)).toMatchObject({ ok: false, error: { code } });
  });
  it("reads back what it prints, and survives any text", () => {
    fc.assert(
      fc.property(fc.integer({ min: -9_999_999, max: 9_999_999 }), (counts) => {
        const read = parseLengthMm(formatCounts(counts));
        return read.ok && countsFromMm(read.value) === counts;
      }),
    );
    fc.assert(
      fc.property(fc.string(), (text) => {
        const read = parseLengthMm(text);
        return !read.ok || Number.isFinite(read.value);
      }),
    );
  });
});
