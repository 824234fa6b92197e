import { SETTING_GAUGE_U_MM, turretBias } from "../bias";
import type { Weigh } from "../bias";
import type { Exercise } from "../schema";

/** What a lathe's exercise allows: cuts, paper on a diameter, the indicator, pins at the face, the arm, a gauge. */
export function latheFairness({ lathe, instruments, paperMm: papers, gaps }: Exercise, weigh: Weigh): void {
  if (!lathe) return;
  const { targets: wanted, tools } = lathe;
  const paperMm = Math.max(...papers);
  const isTouched = (number: number) =>
    !["turning", "profiling", "boring"].includes(tools.find((tool) => tool.number === number)?.kind ?? "") ||
    number !== wanted.x[0];
  if (wanted.x.length > 0) weigh("x", "cut", turretBias("cut", 0, "x"));
  if (
    instruments.includes("paper") &&
    !lathe.schools.every((school) => school === "setter-arm") &&
    wanted.x.some(
      (number, place) =>
        place > 0 &&
        isTouched(number) &&
        !["boring", "drill"].includes(tools.find((tool) => tool.number === number)?.kind ?? ""),
    )
  )
    weigh("x", "paper", turretBias("paper", paperMm, "x"));
  if (tools.some(({ kind, number }) => kind === "drill" && wanted.x.includes(number)))
    weigh("x", "indicator", turretBias("indicator", 0, "x"));
  if (wanted.z.length > 0)
    for (const pin of gaps.filter(({ kind }) => kind === "pin"))
      weigh("z", "pin", turretBias("pin", pin.nominalMm, "z"));
  if (lathe.axis) weigh("z", "settingGauge", { biasMm: 0, uMm: SETTING_GAUGE_U_MM });
  if (lathe.arm) for (const axis of ["x", "z"] as const) weigh(axis, "setterArm", turretBias("arm", 0, axis));
}
