import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readProgram } from "../gcode";
import { type MillWorld, proveLathe, proveMill } from ".";
import { firstInBox, placeOn } from "./solids";
import { MillStock } from "./millStock";
import { bodiesOf } from "./millTool";

const tool = {
  length: 100,
  diameter: 10,
  shape: "flat" as const,
  fluteLength: 25,
  shankDiameter: 10,
  holder: { diameter: 40, length: 50 },
};
const world: MillWorld = {
  datum: [-300, -200, -400],
  tools: new Map([[1, tool]]),
  stock: { min: [0, 0, -20], max: [80, 50, 0] },
  solids: [{ id: "jaw", min: [-10, 50, -60], max: [90, 70, -8] }],
  travel: { min: [-600, -400, -500], max: [0, 0, 0] },
  home: [0, 0, 0],
};
const registers = (z = 0, x = 0) => ({
  common: [0, 0, 0] as const,
  work: new Map([["G54", [-300 + x, -200, -400 + z] as const]]),
  lengths: new Map([[1, 100]]),
});
const slot = (y: number, depth: number) =>
  `T1 M6\nG54 G0 X-12 Y${y} M3 S2000\nG43 H1 Z40\nZ2\nG1 Z${-depth} F200\nX92\nG0 Z40\nM30`;
const proved = (text: string, z = 0, x = 0) => proveMill(readProgram(text, "mill"), registers(z, x), world, "mm");

describe("a mill", () => {
  it("lets a slot pass that stays clear of the jaw", () => {
    expect(proved(slot(25, 5))).toBeNull();
  });
  it("names the jaw where an edge runs into it: tip 12 deep, the jaw 8 below the top, 5 of radius", () => {
    // at Y47 the edge reaches Y52, and the jaw begins at Y50; going down it is met 8 below, less the slack
    expect(proved(slot(47, 12))).toMatchObject({
      line: 5,
      kind: "tool-in-fixture",
      with: "jaw",
      at: [-12, 47, expect.closeTo(-8.1, 3) as number],
    });
  });
  it("a length too long by 6 drives the rapid to Z2 into the part, and says so before the feed", () => {
    const at = proved(`T1 M6\nG54 G0 X20 Y25 M3\nG43 H1 Z40\nZ2\nM30`, -6);
    expect(at).toMatchObject({ line: 4, kind: "rapid-in-stock", with: "stock" });
  });
  it("tells a spindle that stands from one that turns the wrong way", () => {
    expect(proved(slot(25, 5).replace("M3", ""))).toMatchObject({ kind: "fed-with-spindle-stopped", line: 6 });
    expect(proved(slot(25, 5).replace("M3", "M4"))).toMatchObject({ kind: "wrong-direction", line: 6 });
  });
  it("runs beside what is programmed by the radius of its row: to the left it meets the jaw, to the right it does not", () => {
    // along Y44 toward X plus, 12 deep: 5 to the left the axis stands at Y49 and the edge at Y54, over the jaw's side
    const along = (side: string) =>
      `T1 M6\nG54 G0 X-30 Y30 M3 S2000\nG43 H1 Z40\nZ-12\nG1 ${side} X-20 Y44 F200\nX92\nG40 Y0\nG0 Z40\nM30`;
    const run = (side: string, radius: number) =>
      proveMill(readProgram(along(side), "mill"), { ...registers(), radii: new Map([[1, radius]]) }, world, "mm");
    expect(run("G41 D1", 5)).toMatchObject({ line: 6, kind: "tool-in-fixture", with: "jaw" });
    expect(run("G42 D1", 5)).toBeNull();
    // a row that holds nothing runs on the line itself
    expect(run("G41 D1", 0)).toBeNull();
    expect(run("G41 D1", 0)).toEqual(run("", 0));
  });
  it("tells an inside arc that its radius does not fit into, at its line", () => {
    const text = "T1 M6\nG54 G0 X0 Y25 M3 S2000\nG43 H1 Z20\nG1 G41 D1 X4 F100\nG3 X4 Y25 I-4 J0\nG40 X0\nM30";
    const found = proveMill(readProgram(text, "mill"), { ...registers(), radii: new Map([[1, 5]]) }, world, "mm");
    expect(found).toEqual({ wrong: expect.objectContaining({ line: 5, code: "arc-too-small" }) as unknown });
  });
  it("past its travel it stops where the travel ends", () => {
    expect(proved("T1 M6\nG54 G0 X320\nM30")).toMatchObject({ line: 2, kind: "past-travel", with: "x" });
  });
  it("turning program and setup together changes nothing", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 8, max: 49 }),
        fc.integer({ min: 1, max: 15 }),
        fc.integer({ min: -40, max: 40 }),
        (y, depth, shift) => {
          const here = proved(slot(y, depth));
          const shifted = proveMill(
            readProgram(slot(y, depth), "mill"),
            { ...registers(), work: new Map([["G54", [-300 + shift, -200, -400] as const]]) },
            { ...world, datum: [-300 + shift, -200, -400] },
            "mm",
          );
          expect(shifted && "kind" in shifted ? [shifted.kind, shifted.line] : shifted).toEqual(
            here && "kind" in here ? [here.kind, here.line] : here,
          );
        },
      ),
      { numRuns: 30 },
    );
  });
});

describe("what lies under it", () => {
  it("a cylinder meets a box where stepping along its way finds it too", () => {
    const number = fc.integer({ min: -30, max: 30 });
    fc.assert(
      fc.property(number, number, number, number, number, number, (x0, y0, z0, x1, y1, z1) => {
        const box = { min: [-5, -8, -4], max: [6, 3, 7] } as const;
        const cylinder = { radius: 3, low: 0, high: 5 };
        const way = { from: [x0, y0, z0], to: [x1, y1, z1] } as const;
        const first = firstInBox(way, cylinder, box);
        const isIn = (share: number) => {
          const [x, y, z] = placeOn(way, share);
          const dx = Math.max(box.min[0] - x, 0, x - box.max[0]);
          const dy = Math.max(box.min[1] - y, 0, y - box.max[1]);
          return Math.hypot(dx, dy) < 3 && z + 5 > box.min[2] && z < box.max[2];
        };
        const stepped = Array.from({ length: 2001 }, (_, i) => i / 2000).find(isIn);
        if (stepped === undefined) return;
        expect(first).not.toBeNull();
        expect(Math.abs((first ?? 0) - stepped)).toBeLessThan(0.0011);
      }),
    );
  });
  it("what was cut is gone, what stands over short flutes is not", () => {
    const stock = new MillStock(world.stock);
    const short = bodiesOf({ ...tool, fluteLength: 4 });
    const way = { from: [-12, 25, -10], to: [40, 25, -10] } as const;
    stock.cut(way, short);
    expect(stock.firstMeeting(way, { radius: 4.8, low: 0.1, high: 4 })).toBeNull();
    expect(stock.firstMeeting(way, { radius: 4.8, low: 4.1, high: 9 })).not.toBeNull();
  });
});

describe("a lathe", () => {
  const lathe = {
    tools: new Map([[1, { kx: -240, kz: -370, noseRadius: 0.8, tipCode: 3 as const, width: 16 }]]),
    stock: { diameter: 50, length: 70, face: 0, bore: 0 },
    chuck: { z: -45, diameter: 120 },
    travel: { min: [-420, -700] as const, max: [2, 2] as const },
    home: [0, 0] as const,
  };
  const held = (z = 0) => ({
    common: [0, 0] as const,
    work: new Map([["G54", [0, 0] as const]]),
    rows: new Map([[1, [-240, -370 + z] as const]]),
  });
  const turn = (z: number) => `T0101\nG97 S900 M3\nG0 X54 Z2\nX46\nG1 Z${z} F.2\nX54\nG28 U0 W0\nM30`;
  const at = (text: string, z = 0) => proveLathe(readProgram(text, "lathe"), held(z), lathe, "mm");

  it("turns to 30 and touches nothing, to 46 and meets the chuck at 45 less the slack", () => {
    expect(at(turn(-30))).toBeNull();
    expect(at(turn(-46))).toMatchObject({
      line: 5,
      kind: "tool-in-chuck",
      at: [46, expect.closeTo(-45.1, 3) as number],
    });
  });
  it("a Z that is 20 too low turns a harmless program into a rapid in the bar, 18 behind its face", () => {
    expect(at(turn(-30), -20)).toMatchObject({ line: 4, kind: "rapid-in-stock" });
  });
  it("a rapid back through what stands is told, through what was turned it is not", () => {
    expect(at("T0101\nM3\nG0 X54 Z2\nX46\nG1 Z-30 F.2\nG0 Z2\nM30")).toBeNull();
    expect(at("T0101\nM3\nG0 X54 Z2\nX46\nZ-30\nM30")).toMatchObject({ line: 5, kind: "rapid-in-stock" });
  });

  it("under G42 the nose's center goes beside: by hand 0.8 further toward the chuck, and a chuck there is met", () => {
    const beside = `T0101\nM3\nG0 X54 Z2\nG42 X46\nG1 Z-30 F.2\nG40 X54\nM30`;
    const near = { ...lathe, chuck: { z: -30.5, diameter: 120 } };
    const run = (text: string, noseRadius: number, world = near) =>
      proveLathe(
        readProgram(text, "lathe"),
        { ...held(), noses: new Map([[1, { noseRadius, tipCode: 3 as const }]]) },
        world,
        "mm",
      );
    // the nose, 0.1 smaller, comes to -30.7 with its center at -30; the control point ends 0.8 before that
    expect(run(beside, 0.8)).toMatchObject({ line: 5, kind: "tool-in-chuck", with: "chuck" });
    expect(run(beside, 0)).toBeNull();
    expect(run(turn(-30), 0.8)).toBeNull();
    expect(run(beside, 0.8, lathe)).toBeNull();
  });
  it("a roughing cycle is cut pass by pass: its first rapid is over the bar, a wrong Z puts it in it", () => {
    const rough =
      "T0101\nG97 S900 M3\nG0 X54 Z2\nG71 U2 R.5\nG71 P10 Q30 U.5 W.1 F.2\nN10 G0 X30\nN20 G1 Z-25\nN30 X52\nG70 P10 Q30\nM30";
    expect(at(rough)).toBeNull();
    expect(at(rough, -10)).toMatchObject({ line: 5, kind: "rapid-in-stock" });
  });
});
