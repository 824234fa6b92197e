import { scales, showLength } from "@probe-lane/core/units";
import { schoolWords, touchingWords, turretKindWords } from "@probe-lane/core/words";
import { turningFacts, type LatheDialogProps } from "../view";

/** The exercise in words: stock, tools, school of Z and what is to be set. */
export function LatheSheet({ seen }: LatheDialogProps) {
  const { sheet, kind } = seen;
  const { lathe } = sheet;
  const wanted = (list: readonly number[]) => list.map((number) => `T${number}`).join(", ");
  const rows: [string, string][] = [
    ...turningFacts(seen),
    ...touchingWords(sheet).map((words): [string, string] => ["at a touch", words]),
    ...lathe.tools.map((tool): [string, string] => [
      `T${tool.number}, ${turretKindWords[tool.kind]}`,
      tool.sideMm === undefined
        ? tool.insert
        : `${tool.insert}, Z by its side, the point trails by ${showLength(tool.sideMm, scales[sheet.unit])}`,
    ]),
    ...(lathe.targets.x.length > 0 ? [["X is wanted of", wanted(lathe.targets.x)] as [string, string]] : []),
    ...(lathe.targets.z.length > 0 ? [["Z is wanted of", wanted(lathe.targets.z)] as [string, string]] : []),
    ...(lathe.targets.height.length > 0
      ? [["center height is wanted of", wanted(lathe.targets.height)] as [string, string]]
      : []),
    ...(lathe.targets.nose.length > 0
      ? [["nose radius and tip code of", wanted(lathe.targets.nose)] as [string, string]]
      : []),
  ];
  return (
    <div className="flex flex-col gap-3">
      <p>{sheet.story}</p>
      {seen.isCoachOn && sheet.advice ? (
        <p className="border-l-4 border-expected bg-expected-soft px-3 py-2">{sheet.advice}</p>
      ) : null}
      <dl className="grid gap-x-8 sm:grid-cols-2">
        {rows.map(([name, value]) => (
          <div key={name + value} className="flex justify-between gap-3 border-t border-rule-soft py-1">
            <dt className="text-ink2">{name}</dt>
            <dd className="figures text-right">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="text-xs text-ink2">
        {kind === "turret" ? "School of Z" : "School"}:{" "}
        {lathe.schools.map((school) => schoolWords[school]).join("; or ")}. X registers and displays are diameters;{" "}
        {kind === "readout" ? "X plus is away from the axis" : "tools stand behind the axis, X plus is away from it"}, Z
        plus away from the chuck.{" "}
        {kind === "readout"
          ? "The library is added to what the readout shows."
          : `A reset ${sheet.settings.resetDropsLength ? "drops" : "keeps"} the offset that was called.`}
      </p>
    </div>
  );
}
