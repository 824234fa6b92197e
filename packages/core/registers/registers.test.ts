import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  addToRegister,
  captureLength,
  circleFromContacts,
  cornerFromContacts,
  captureOffset,
  captureWork,
  centerFromContacts,
  closureMill,
  convertSchool,
  displayCounts,
  edgeFromContact,
  emptyMillRegisters,
  isRegisterId,
  latheSchool,
  lengthsBySchool,
  lengthSum,
  machineFromDisplay,
  millRegisterIds,
  readoutLibrary,
  readRegister,
  rewriteSetup,
  setterLength,
  skewFromContacts,
  sweepError,
  writeRegister,
} from ".";

const length = fc.integer({ min: -400_000, max: 400_000 });

describe("registers", () => {
  it("holds what was written, and nothing else changes", () => {
    for (const id of millRegisterIds) {
      const written = writeRegister(emptyMillRegisters(), id, 1234);
      for (const other of millRegisterIds) expect(readRegister(written, other)).toBe(other === id ? 1234 : 0);
    }
    expect(isRegisterId("G60.x")).toBe(false);
    expect(() => writeRegister(emptyMillRegisters(), "G54.x", 0.5)).toThrow(/whole counts/);
  });
  it("after a capture as v the display reads v, and the display and the machine are inverse", () => {
    fc.assert(
      fc.property(length, length, length, length, (common, wear, machine, as) => {
        let registers = writeRegister(writeRegister(emptyMillRegisters(), "common.z", common), "HW1", wear);
        registers = writeRegister(registers, "G55.z", captureWork(registers, "z", machine, as, 1));
        const display = displayCounts(registers, { x: 0, y: 0, z: machine }, "G55", 1);
        return display.z === as && machineFromDisplay(registers, "z", as, "G55", 1) === machine;
      }),
    );
  });
  it("after a capture into the common offset the display reads v too", () => {
    fc.assert(
      fc.property(length, length, length, length, (common, work, machine, as) => {
        let registers = writeRegister(writeRegister(emptyMillRegisters(), "common.x", common), "G56.x", work);
        registers = writeRegister(registers, "common.x", captureOffset(registers, "common.x", machine, as, "G56", 0));
        return displayCounts(registers, { x: machine, y: 0, z: 0 }, "G56", 0).x === as;
      }),
    );
  });
  it("a length capture solved for the display is right whatever was left over; stored as machine Z it keeps the leftover", () => {
    const registers = addToRegister(writeRegister(emptyMillRegisters(), "G54.z", -12_000), "G54.z", -350);
    const at = { machineZ: -250_000, counterZ: 42_000, work: "G54", as: 80 } as const;
    const solved = writeRegister(registers, "H1", captureLength(registers, 1, "display", at));
    expect(displayCounts(solved, { x: 0, y: 0, z: -250_000 }, "G54", lengthSum(solved, 1)).z).toBe(80);
    expect(captureLength(registers, 1, "machine", at)).toBe(-250_000);
    expect(captureLength(registers, 1, "counter", at)).toBe(42_000);
  });
});

describe("edge and center", () => {
  it("by hand: kick at −334.666 on the left edge, tip radius 5: the edge is at −329.666", () => {
    expect(edgeFromContact(-334.666, 1, 5)).toEqual({ edge: -329.666, captureAs: -5, work: -329.666 });
  });
  it("the three schools of an edge give one register", () => {
    fc.assert(
      fc.property(
        length,
        fc.constantFrom(1 as const, -1 as const),
        fc.integer({ min: 0, max: 10_000 }),
        length,
        length,
        (contact, s, r, o, common) => {
          const registers = writeRegister(emptyMillRegisters(), "common.x", common);
          const byCapture = captureWork(registers, "x", contact, o - s * r, 0);
          const byMotion = captureWork(registers, "x", contact + s * r, o, 0);
          const byAdding = captureWork(registers, "x", contact, 0, 0) + s * r - o;
          expect([byMotion, byAdding, edgeFromContact(contact, s, r, o, common).work]).toEqual([
            byCapture,
            byCapture,
            byCapture,
          ]);
        },
      ),
    );
  });
  it("mirroring the part mirrors the edge", () => {
    fc.assert(
      fc.property(
        length,
        fc.integer({ min: 0, max: 10_000 }),
        length,
        (contact, r, o) => edgeFromContact(-contact, -1, r, -o).work === -edgeFromContact(contact, 1, r, o).work,
      ),
    );
  });
  it("the radius cancels in the middle of two faces, and the size tells when it cannot be", () => {
    expect(centerFromContacts([-10, 30], 5, "outside")).toEqual({ center: 10, work: 10, size: 30 });
    expect(centerFromContacts([30, -10], 5, "inside")?.size).toBe(50);
    expect(centerFromContacts([0, 8], 5, "outside")).toBeNull();
  });
});

describe("schools of Z on a lathe", () => {
  const tools = [
    { id: "1", machineZ: -180.25, gap: 0.1 },
    { id: "2", machineZ: -172.4 },
    { id: "3", machineZ: -190, gap: 0.25 },
  ];
  it("touched on the face: each holds where it lies on it, and work Z is zero", () => {
    const answer = latheSchool({ school: "part-face", tools });
    expect(answer?.workZ).toBe(0);
    expect(answer?.geometryZ["1"]).toBeCloseTo(-180.35, 9);
    expect(answer?.geometryZ["2"]).toBe(-172.4);
  });
  it("against a master: it holds zero, the shift is where it lies on the face", () => {
    const answer = latheSchool({ school: "master-shift", tools, master: "2" });
    expect(answer?.geometryZ["2"]).toBe(0);
    expect(answer?.geometryZ["1"]).toBeCloseTo(-7.95, 9);
    expect(answer?.geometryZ["3"]).toBeCloseTo(-17.85, 9);
    expect(answer?.workZ).toBe(-172.4);
    expect(latheSchool({ school: "master-shift", tools, master: "9" })).toBeNull();
  });
  it("by the setter arm: from its plane, and work Z with the tool that stands at the face", () => {
    const triggers = [
      { id: "1", trigger: -95.5 },
      { id: "2", trigger: -88.125 },
    ];
    const [one, two] = tools as [(typeof tools)[0], (typeof tools)[1]];
    const answer = latheSchool({ school: "setter-arm", plane: -60, tools: triggers, active: one });
    expect(answer?.geometryZ).toEqual({ "1": -35.5, "2": -28.125 });
    // -180.35 less -35.5: the sum is where the tip stands, whichever way it is split
    expect(answer?.workZ).toBeCloseTo(-144.85, 9);
    expect(answer?.sumCheck).toBeCloseTo(-180.35, 9);
    expect(latheSchool({ school: "setter-arm", plane: -60, tools: triggers, active: two })?.workZ).toBeCloseTo(
      -144.275,
      9,
    );
    expect(
      latheSchool({ school: "setter-arm", plane: -60, tools: triggers, active: { id: "3", machineZ: 0 } }),
    ).toBeNull();
  });
  it("a readout's library keeps what a tool reads at the reference's corner, with the sign turned", () => {
    expect(
      readoutLibrary("1", [
        { tool: "2", x: 12.5, z: -3 },
        { tool: "3", x: 0, z: 0.02 },
      ]),
    ).toEqual({
      "1": [0, 0],
      "2": [-12.5, 3],
      "3": [0, -0.02],
    });
  });
});

describe("schools of length", () => {
  const tools = [
    { id: "T1", length: 80.5 },
    { id: "T2", length: 112.25 },
    { id: "T3", length: 64.125 },
  ];
  const datumZ = -345.5;
  const [zs, t, plane] = [0.7, 0.08, -430];
  const contacts = tools.map(({ id, length: l }) => ({ id, contact: datumZ + l + zs + t }));
  const onPlane = tools.map(({ id, length: l }) => ({ id, contact: plane + l + t }));
  const closures = (answer: ReturnType<typeof lengthsBySchool>) => {
    if (!answer) throw new Error("no answer");
    return tools.map(
      ({ id, length: l }) =>
        closureMill(
          [0, 0, datumZ],
          [0, 0, 0],
          [0, 0, answer.workZByTool?.[id] ?? answer.workZ ?? 0],
          [{ id, length: l, geometry: answer.lengths[id] ?? 0, wear: answer.wear?.[id] ?? 0 }],
        ).z[id] ?? NaN,
    );
  };
  it.each([
    [
      "gauge-line",
      {
        school: "gauge-line" as const,
        tools,
        workTouch: { contact: datumZ + 80.5 + zs + t, length: 80.5, feeler: t, surfaceWork: zs },
      },
    ],
    ["part-touch", { school: "part-touch" as const, tools: contacts, feeler: t, surfaceWork: zs }],
    [
      "plane-lift",
      {
        school: "plane-lift" as const,
        tools: onPlane,
        feeler: t,
        workTouch: { tool: "T2", contact: datumZ + 112.25 + zs + t, feeler: t, surfaceWork: zs },
      },
    ],
    ["master", { school: "master" as const, master: "T3", tools: contacts, feeler: t, surfaceWork: zs }],
    ["offset-per-tool", { school: "offset-per-tool" as const, tools: contacts, feeler: t, surfaceWork: zs }],
    [
      "block-in-wear",
      {
        school: "block-in-wear" as const,
        tools: contacts.map(({ id, contact }) => ({ id, contact: contact - t + 25 })),
        block: 25,
        surfaceWork: zs,
      },
    ],
  ])("%s closes to zero", (_name, input) => {
    for (const closure of closures(lengthsBySchool(input))) expect(closure).toBeCloseTo(0, 9);
  });
  it("a feeler forgotten on the plane cancels when work Z is touched with a tool set there the same way", () => {
    const answer = lengthsBySchool({
      school: "plane-lift",
      tools: onPlane,
      workTouch: { tool: "T1", contact: datumZ + 80.5 + zs + t, feeler: t, surfaceWork: zs },
    });
    for (const closure of closures(answer)) expect(closure).toBeCloseTo(0, 9);
  });
  it("converting keeps every closure, there and back", () => {
    const from = lengthsBySchool({ school: "part-touch", tools: contacts, feeler: t, surfaceWork: zs });
    const gauge = convertSchool(from?.lengths ?? {}, 0, { school: "gauge-line", known: { id: "T2", length: 112.25 } });
    expect(gauge?.workZ).toBeCloseTo(datumZ, 9);
    expect(gauge?.lengths["T3"]).toBeCloseTo(64.125, 9);
    const back = convertSchool(gauge?.lengths ?? {}, gauge?.workZ ?? 0, { school: "part-touch" });
    for (const { id } of tools) expect(back?.lengths[id]).toBeCloseTo(from?.lengths[id] ?? NaN, 9);
    expect(convertSchool({ T1: 1 }, 0, { school: "master", master: "T9" })).toBeNull();
  });
  it("a setter against nose and master agree", () => {
    expect(setterLength(-424.428, { noseTrigger: -511.709 })).toBeCloseTo(87.281, 9);
    expect(setterLength(-382.037, { master: { length: 84.137, trigger: -415.653 } })).toBeCloseTo(117.753, 9);
  });
});

describe("circle, skew, corner and sweep", () => {
  it("by hand: contacts at 12, 3, 6 and 9 o'clock of a circle of radius 8 about (2, −1), tip radius 3", () => {
    const answer = circleFromContacts(
      [
        [10, -1],
        [-6, -1],
        [2, 7],
        [2, -9],
      ],
      3,
      "bore",
    );
    expect(answer?.center[0]).toBeCloseTo(2, 12);
    expect(answer?.center[1]).toBeCloseTo(-1, 12);
    expect(answer?.diameter).toBeCloseTo(22, 12);
    expect(
      circleFromContacts(
        [
          [10, -1],
          [-6, -1],
          [2, 7],
          [2, -9],
        ],
        3,
        "boss",
      )?.diameter,
    ).toBeCloseTo(10, 12);
    expect(
      circleFromContacts(
        [
          [0, 0],
          [1, 1],
          [2, 2],
        ],
        1,
        "bore",
      ),
    ).toBeNull();
    expect(
      circleFromContacts(
        [
          [0, 0],
          [1, 0],
        ],
        1,
        "bore",
      ),
    ).toBeNull();
  });
  it("a circle moved moves its center, and exact contacts leave no residual", () => {
    const real = fc.double({ min: -200, max: 200, noNaN: true });
    fc.assert(
      fc.property(
        real,
        real,
        fc.double({ min: 2, max: 60, noNaN: true }),
        fc.uniqueArray(fc.integer({ min: 0, max: 35 }), { minLength: 3, maxLength: 8 }),
        (cx, cy, radius, places) => {
          const spread = Math.max(...places) - Math.min(...places);
          if (spread < 9 || spread > 33) return true;
          const points = places.map(
            (place) =>
              [
                cx + radius * Math.cos((place * 10 * Math.PI) / 180),
                cy + radius * Math.sin((place * 10 * Math.PI) / 180),
              ] as const,
          );
          const answer = circleFromContacts(points, 0, "bore");
          return (
            answer !== null &&
            Math.abs(answer.center[0] - cx) < 1e-6 &&
            Math.abs(answer.center[1] - cy) < 1e-6 &&
            answer.rms < 1e-6
          );
        },
      ),
    );
  });
  it("by hand: 1 up over 100 along is 0.573 degrees, whichever contact came first; the corner of a turned square part", () => {
    expect(skewFromContacts([0, 0], [100, 1], "x")).toBeCloseTo(0.572939, 6);
    expect(skewFromContacts([100, 1], [0, 0], "x")).toBeCloseTo(0.572939, 6);
    expect(skewFromContacts([0, 0], [-1, 100], "y")).toBeCloseTo(0.572939, 6);
    expect(skewFromContacts([3, 3], [3, 3], "x")).toBeNull();
    expect(cornerFromContacts([10, -3], [90, -3], [-3, 20], 3, [1, 1])).toEqual({ corner: [0, 0], angle: 0 });
  });
  it("a corner turned about any place turns with it", () => {
    fc.assert(
      fc.property(fc.double({ min: -20, max: 20, noNaN: true }), (angleDeg) => {
        const [c, s] = [Math.cos((angleDeg * Math.PI) / 180), Math.sin((angleDeg * Math.PI) / 180)];
        const at = ([x, y]: [number, number]): [number, number] => [c * x - s * y + 7, s * x + c * y - 4];
        const answer = cornerFromContacts(at([10, -3]), at([90, -3]), at([-3, 20]), 3, [1, 1]);
        return (
          answer !== null &&
          Math.abs(answer.corner[0] - 7) < 1e-9 &&
          Math.abs(answer.corner[1] + 4) < 1e-9 &&
          Math.abs(answer.angle - angleDeg) < 1e-9
        );
      }),
    );
  });
  it("by hand: in a bore right 0.10 and left 0.02 stand the axis 0.04 to the right; on a boss to the left", () => {
    expect(sweepError([0.1, 0, 0.02, 0], "bore")).toEqual({ error: [0.04, 0], move: [-0.04, 0], totalReading: 0.08 });
    expect(sweepError([0.1, 0, 0.02, 0], "boss").error).toEqual([-0.04, 0]);
  });
});

describe("ideal touches in any school and any order", () => {
  const mm = fc.integer({ min: -400_000, max: 400_000 }).map((um) => um / 1000);
  const tools = fc.uniqueArray(
    fc.record({
      id: fc.constantFrom("1", "2", "3", "4", "5"),
      length: fc.integer({ min: 40_000, max: 160_000 }).map((um) => um / 1000),
    }),
    { selector: ({ id }) => id, minLength: 2, maxLength: 5 },
  );
  it("closure is zero", () => {
    fc.assert(
      fc.property(
        mm,
        mm,
        tools,
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 0, max: 2000 }),
        (datumZ, planeZ, list, paperUm, allowanceUm) => {
          const [t, zs] = [paperUm / 1000, allowanceUm / 1000];
          const onPart = list.map(({ id, length: l }) => ({ id, contact: datumZ + l + zs + t }));
          const onPlane = list.map(({ id, length: l }) => ({ id, contact: planeZ + l + t }));
          const first = list[0]?.id ?? "";
          const made = [
            lengthsBySchool({ school: "part-touch", tools: onPart, feeler: t, surfaceWork: zs }),
            lengthsBySchool({
              school: "plane-lift",
              tools: onPlane,
              feeler: t,
              workTouch: { tool: first, contact: onPart[0]?.contact ?? 0, feeler: t, surfaceWork: zs },
            }),
            lengthsBySchool({ school: "master", master: first, tools: onPart, feeler: t, surfaceWork: zs }),
            lengthsBySchool({
              school: "gauge-line",
              tools: list,
              workTouch: { contact: datumZ + zs + t, length: 0, feeler: t, surfaceWork: zs },
            }),
            lengthsBySchool({ school: "offset-per-tool", tools: onPart, feeler: t, surfaceWork: zs }),
            lengthsBySchool({
              school: "block-in-wear",
              tools: list.map(({ id, length: l }) => ({ id, contact: datumZ + l + zs + 25 })),
              block: 25,
              surfaceWork: zs,
            }),
          ];
          for (const answer of made) {
            for (const { id, length: l } of list) {
              const work = answer?.workZByTool?.[id] ?? answer?.workZ ?? 0;
              const { z } = closureMill(
                [0, 0, datumZ],
                [0, 0, 0],
                [0, 0, work],
                [{ id, length: l, geometry: answer?.lengths[id] ?? 0, wear: answer?.wear?.[id] ?? 0 }],
              );
              if (Math.abs(z[id] ?? 1) > 1e-6) return false;
            }
          }
          return true;
        },
      ),
    );
  });
  it("writing a setup in another school, and back, keeps what every tool adds up to", () => {
    fc.assert(
      fc.property(tools, mm, mm, (list, workZ, known) => {
        const rows = list.map(({ id, length: l }, place) => ({ id, geometry: l, wear: place / 100, workZ }));
        const sums = rows.map(({ geometry, wear, workZ: z }) => geometry + wear + z);
        const id = list[0]?.id ?? "";
        for (const to of [
          { school: "part-touch" as const },
          { school: "offset-per-tool" as const },
          { school: "master" as const, master: id },
          { school: "plane-lift" as const, known: { id, value: known } },
          { school: "gauge-line" as const, known: { id, value: known } },
          { school: "block-in-wear" as const, block: 25, surfaceWork: 0.7 },
        ]) {
          const after = rewriteSetup(rows, to);
          const back = after && rewriteSetup(after, { school: "part-touch" });
          for (const table of [after, back])
            if (
              !table?.every(
                ({ geometry, wear, workZ: z }, place) => Math.abs(geometry + wear + z - (sums[place] ?? 0)) < 1e-6,
              )
            )
              return false;
        }
        return true;
      }),
    );
  });
});
