import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { lex, readBlock } from ".";

const modal = { motion: "rapid", feedMmPerMin: null, tool: null } as const;
const codes = (text: string) => readBlock(text, modal).diagnostics.map(({ code }) => code);

describe("reading a block", () => {
  it("sorts its words by meaning", () => {
    expect(readBlock("N10 G0 G54 G90 X0 Y-1.5 (over zero) M3 S650 ; and wait", modal)).toMatchObject({
      block: {
        motion: "rapid",
        workOffset: "G54",
        distance: "absolute",
        axesMm: { x: 0, y: -1.5 },
        spindle: "forward",
        spindleRpm: 650,
      },
      diagnostics: [],
    });
    expect(readBlock("g43 h1 z5.", modal).block).toMatchObject({ lengthComp: "on", lengthRow: 1, axesMm: { z: 5 } });
    expect(readBlock("G53G0Z0", modal).block).toMatchObject({ isMachineFrame: true, axesMm: { z: 0 } });
  });
  it.each([
    ["", "blockEmpty"],
    ["(only words)", "blockEmpty"],
    ["G0 X1 R5", "wordUnknown"],
    ["G2 X1", "codeOfProgram"],
    ["M8", "codeOfProgram"],
    ["G201 X1", "wordUnknown"],
    ["G54.1", "extendedMissing"],
    ["G54.1 P7", "wordOutOfRange"],
    ["P2", "wordUnknown"],
    ["G68", "rotationAngleMissing"],
    ["G68 X1 R2", "rotationHasAxes"],
    ["X1 X2", "wordTwice"],
    ["G0 G1 X1 F100", "groupTwice"],
    ["G54 G55", "groupTwice"],
    ["S12.5 M3", "wordNeedsWhole"],
    ["T-1 M6", "wordOutOfRange"],
    ["G43 Z5", "lengthRowMissing"],
    ["G1 X5", "feedMissing"],
    ["M6", "changeWithoutTool"],
    ["hello", "blockUnreadable"],
    ["X1e9999", "wordUnknown"],
    ["X99999", "wordOutOfRange"],
    ["X".repeat(300), "blockTooLong"],
  ])("%j is answered with %s", (text, code) => expect(codes(text)).toContain(code));
  it("names an unknown word and where it stands", () => {
    expect(readBlock("G0 X1 R5", modal).diagnostics).toEqual([{ code: "wordUnknown", word: "R5", span: [6, 8] }]);
  });
  it("tells all that is wrong, not the first", () =>
    expect(codes("G0 X1 R5 Q2 ??")).toEqual(["wordUnknown", "wordUnknown", "blockUnreadable"]));
  it("reads extended offsets, a turn, and inches", () => {
    expect(readBlock("G54.1 P3 G0 X1", modal).block).toMatchObject({ workOffset: "P3", axesMm: { x: 1 } });
    expect(readBlock("G68 R-0.75", modal).block).toMatchObject({ rotation: "on", rotationDeg: -0.75 });
    expect(readBlock("G69", modal).block.rotation).toBe("off");
    expect(readBlock("G1 X2 F10", modal, "inch").block).toMatchObject({ axesMm: { x: 50.8 }, feedMmPerMin: 254 });
  });
  it("reads a lathe's steps, and refuses them beside the axis that they step along", () => {
    const lathe = (text: string) => readBlock(text, modal, "mm", "lathe");
    expect(lathe("G0 U-4 W1.5").block).toMatchObject({ stepsMm: { x: -4, z: 1.5 }, axesMm: {} });
    expect(lathe("X40 U2").diagnostics[0]).toMatchObject({ code: "groupTwice", first: "X", second: "U" });
    expect(lathe("G91 X1").diagnostics[0]).toMatchObject({ code: "wordUnknown", word: "G91" });
  });
  it("takes any minus sign", () => expect(readBlock("X−5 Y–2", modal).block.axesMm).toEqual({ x: -5, y: -2 }));
  it("survives any text, and its spans cover the text without overlap", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 120 }), (text) => {
        readBlock(text, modal);
        let end = 0;
        for (const { span } of lex(text)) {
          expect(span[0]).toBeGreaterThanOrEqual(end);
          expect(span[1]).toBeGreaterThan(span[0]);
          end = span[1];
        }
        expect(end).toBeLessThanOrEqual(text.length);
      }),
    );
  });
});

it("a line's end ends a block: what stands below it is another one, and neither is run", () => {
  for (const text of ["G0 X1\nG0 X2", "G0 X1\r\nM3 S500", "G0 X1\u2028M5"])
    expect(readBlock(text, modal).diagnostics).toEqual([{ code: "blockHasLines" }]);
  expect(readBlock("G0 X1\n", modal).diagnostics).toEqual([]);
});
