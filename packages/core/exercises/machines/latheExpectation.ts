import { NO_BIAS } from "../bias";
import { SETTING_GAUGE_U_MM, STACK_U_MM, turretBias, type MethodBias } from "../bias";
import type { ExpectedLine } from "../bias";
import { latheSchoolFacts, type LatheSchool, type MillLengthSchool } from "../schools";
import type { LatheSheet, TurningDraw, TurningTruth } from "../setup";
import { drawNewTool, farEdgeMm } from "./lathe";

/**
 * A library's rows are the reference's place less each tool's; on a gang slide X is where the tip lies on the axis,
 * height what lifts it there.
 */
function handLines(
  lathe: LatheSheet,
  truth: TurningTruth,
  school: "readout-library" | "gang-bar",
  paperMm: number,
): ExpectedLine[] {
  const { tools = {} } = truth.lathe;
  const of = (number: number) => {
    const old = tools[number] ?? { kxMm: 0, qMm: 0, heightMm: 0 };
    const place = lathe.gang?.changed.indexOf(number) ?? -1;
    if (place < 0) return old;
    // changed in the order of the sheet, at the overhang of the sheet
    const fresh = drawNewTool(truth.seed, number, place);
    return { ...old, kxMm: old.kxMm + fresh.xMm, heightMm: old.heightMm + fresh.heightMm };
  };
  const axis = truth.lathe.axis;
  if (axis)
    return [
      { register: "axisHeight", wantedMm: axis.heightMm, method: "gaugeBlocks", biasMm: 0, uMm: STACK_U_MM },
      { register: "gaugeError", wantedMm: axis.gaugeOffMm, method: "settingGauge", biasMm: 0, uMm: SETTING_GAUGE_U_MM },
    ];
  const [reference] = lathe.targets.x;
  // a row is the reference's reading less the tool's
  const less = (theirs: MethodBias, mine: MethodBias): MethodBias => ({
    biasMm: theirs.biasMm - mine.biasMm,
    uMm: Math.hypot(theirs.uMm, mine.uMm),
  });
  return lathe.tools.flatMap(({ number, kind }): ExpectedLine[] => {
    if (school === "gang-bar") {
      return [
        ...(lathe.targets.x.includes(number)
          ? [
              {
                register: `X${number}` as const,
                wantedMm: of(number).kxMm - (lathe.gang?.workXMm ?? 0),
                method: "paper",
                ...turretBias("paper", paperMm, "x"),
              },
            ]
          : []),
        ...(lathe.targets.height.includes(number)
          ? [
              {
                register: `Y${number}` as const,
                wantedMm: -of(number).heightMm || 0,
                method: "pip",
                biasMm: 0,
                uMm: 0.006,
              },
            ]
          : []),
      ];
    }
    if (number === reference || reference === undefined) return [];
    const z = kind === "threading" ? ("eye" as const) : ("paper" as const);
    return [
      ...(lathe.targets.x.includes(number)
        ? [
            {
              register: `LX${number}` as const,
              wantedMm: of(reference).kxMm - of(number).kxMm,
              method: "paper",
              ...less(turretBias("cut", 0, "x"), turretBias("paper", paperMm, "x")),
            },
          ]
        : []),
      ...(lathe.targets.z.includes(number)
        ? [
            {
              register: `LZ${number}` as const,
              wantedMm: of(reference).qMm - of(number).qMm,
              method: z,
              ...less(turretBias("cut", 0, "z"), turretBias(z, paperMm, "z")),
            },
          ]
        : []),
    ];
  });
}

/**
 * X is where the tip lies on the axis; Z by its school, with the face at its sawn end: facing moves every Z and work Z
 * alike by what it takes off.
 */
export function latheExpectation(
  { setup, truth }: TurningDraw,
  school: MillLengthSchool | LatheSchool | null,
): ExpectedLine[] | null {
  const { lathe } = setup;
  const own = school === null ? lathe.schools[0] : lathe.schools.find((one) => one === school);
  const { tools = {}, skinMm = 0 } = truth.lathe;
  if (own === undefined) return null;
  const by = (kind: string) => {
    if (own === "setter-arm") return "arm" as const;
    return kind === "turning" || kind === "profiling" || kind === "boring" ? ("cut" as const) : ("paper" as const);
  };
  if (own === "readout-library" || own === "gang-bar")
    return handLines(lathe, truth, own, setup.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0);
  const { rowsFrom } = latheSchoolFacts[own];
  const [master] = lathe.targets.z;
  const reach = (number: number) => tools[number]?.qMm ?? 0;
  const zOf = (number: number): number => {
    if (rowsFrom === "face")
      return skinMm + reach(number) - farEdgeMm(lathe.tools.find((one) => one.number === number));
    return reach(number) - (rowsFrom === "master" ? reach(master ?? number) : 0);
  };
  const workMm = rowsFrom === "face" ? 0 : skinMm + (rowsFrom === "master" ? reach(master ?? 0) : 0);
  // a declared position stands in the common offset, of X as well: what the rows hold is the difference from its tool
  const isDeclared = own === "preset";
  const ofMaster = isDeclared ? (tools[master ?? 0]?.kxMm ?? 0) : 0;
  const paperMm = setup.gaps.find(({ kind }) => kind === "paper")?.nominalMm ?? 0;
  const lines = lathe.tools.flatMap(({ number, kind, noseRadiusMm, tipCode }): ExpectedLine[] => [
    ...(lathe.targets.x.includes(number)
      ? [
          {
            register: `X${number}` as const,
            wantedMm: (tools[number]?.kxMm ?? 0) - ofMaster,
            method: by(kind),
            ...turretBias(by(kind), paperMm, "x", kind === "boring" ? -1 : 1),
          },
        ]
      : []),
    ...(lathe.targets.z.includes(number)
      ? [
          {
            register: `Z${number}` as const,
            wantedMm: zOf(number),
            method: own === "setter-arm" ? "arm" : "pin",
            ...turretBias(own === "setter-arm" ? "arm" : "pin", 0, "z"),
          },
        ]
      : []),
    ...(lathe.targets.nose.includes(number)
      ? [
          { register: `R${number}` as const, wantedMm: noseRadiusMm, method: "typed", ...NO_BIAS },
          { register: `Q${number}` as const, wantedMm: tipCode, method: "typed", ...NO_BIAS },
        ]
      : []),
  ]);
  if (isDeclared)
    return [
      ...lines,
      { register: "common.x", wantedMm: ofMaster, method: "cut", ...turretBias("cut", 0, "x") },
      { register: "common.z", wantedMm: workMm, method: "cut", ...turretBias("cut", 0, "z") },
    ];
  return [
    ...lines,
    { register: "G54.x", wantedMm: 0, method: "typed", ...NO_BIAS },
    ...(lathe.targets.z.length > 0
      ? [{ register: "G54.z" as const, wantedMm: workMm, method: own === "part-face" ? "typed" : "cut", ...NO_BIAS }]
      : []),
  ];
}
