import { keyOf } from "../../app/queries";
import {
  floorCorners,
  floorDatumWords,
  floorDiameters,
  floorFairness,
  floorFromTemplate,
  floorMiddles,
  floorSchools,
  isByFirstTool,
  isFloorCorner,
  templateFigures,
  type FloorTemplate,
} from "@probe-lane/core/floor";
import { floorSchoolWords } from "@probe-lane/core/words";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent, type ReactNode } from "react";
import { api, type ApiError } from "../../app/api";
import { Button, FigureInput, Notice, Panel } from "../../ui";
import { lengthsOf } from "./show";
import { inUnit, START, templateOf, toolsOf, withTool, type Form, type TextName } from "./template";

const SELECT = "block min-h-10 w-full rounded-[3px] border border-ink3 bg-field px-2 font-normal";

const DIAMETERS: Record<(typeof floorDiameters)[number], string> = {
  none: "not asked for",
  measured: "the register holds the diameter as measured",
  difference: "its wear holds measured less nominal",
};

/** What each tool is called on the sheet, and how large it is where a diameter is asked for. */
function ToolList({ form, onChange }: { form: Form; onChange(change: Partial<Form>): void }) {
  const tools = toolsOf(form);
  const hasDiameters = form.machine === "mill" && form.diameters !== "none";
  if (tools.length === 0) return null;
  return (
    <fieldset className="rounded-[3px] border border-rule px-3 pb-3 sm:col-span-2">
      <legend className="px-1 font-bold">Tools as the sheet has them</legend>
      {hasDiameters ? <p className="text-ink2">With the nominal ⌀ of those whose diameter is to be set.</p> : null}
      {tools.map((tool) => (
        <div key={tool} className="mt-1.5 flex items-center gap-2">
          <span className="figures w-6 text-ink2">{tool}</span>
          <input
            aria-label={`Name of tool ${tool}`}
            className="min-h-9 min-w-0 flex-1 rounded-[3px] border border-ink3 bg-field px-2 placeholder:text-ink2"
            placeholder="a number is enough"
            maxLength={24}
            value={form.toolNames[tool - 1] ?? ""}
            onChange={({ target }) => onChange({ toolNames: withTool(form.toolNames, tool, target.value) })}
          />
          {hasDiameters ? (
            <FigureInput
              aria-label={`Nominal diameter of tool ${tool}`}
              className="min-h-9 w-24"
              placeholder="⌀"
              value={form.nominals[tool - 1] ?? ""}
              onChange={({ target }) => onChange({ nominals: withTool(form.nominals, tool, target.value) })}
            />
          ) : null}
        </div>
      ))}
    </fieldset>
  );
}

/** A floor exercise from a template; it says at once when a tolerance is narrower than a careful touch. */
export function FloorAuthor() {
  const [form, setForm] = useState<Form>(START);
  const client = useQueryClient();
  const answer = templateOf(form);
  const exercise = "template" in answer ? floorFromTemplate(answer.template) : null;
  const unfair = exercise ? floorFairness(exercise) : [];
  const make = useMutation<unknown, ApiError, FloorTemplate>({
    mutationFn: (template) => api.post("/floor/exercises", template),
    onSuccess: async () => {
      setForm(START);
      await client.invalidateQueries({ queryKey: keyOf("/floor", {}) });
    },
  });
  const set = (name: TextName) => (event: { target: { value: string } }) =>
    setForm((held) => ({ ...held, [name]: event.target.value }));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if ("template" in answer) make.mutate(answer.template);
  };
  const field = (name: TextName, label: ReactNode) => (
    <label className="font-bold">
      {label}
      <FigureInput className="block min-h-10 w-full font-normal" value={form[name]} onChange={set(name)} />
    </label>
  );
  const isMill = form.machine === "mill";
  const figures = templateFigures(form);
  const { show } = lengthsOf(form);
  return (
    <Panel title="Make a floor exercise" note="given to the class at once" className="self-start">
      <form onSubmit={submit} className="grid gap-3 p-4 sm:grid-cols-2">
        <label className="font-bold sm:col-span-2">
          Title
          <input
            className="block min-h-10 w-full rounded-[3px] border border-ink3 bg-field px-2 font-normal"
            maxLength={80}
            placeholder="Dovetail clamp, first side"
            value={form.title}
            onChange={set("title")}
          />
        </label>
        <label className="font-bold">
          Machine
          <select
            className={SELECT}
            value={form.machine}
            onChange={(event) => {
              const machine = event.target.value as FloorTemplate["machine"];
              setForm((held) => ({ ...held, machine, school: floorSchools[machine][0] }));
            }}
          >
            <option value="mill">mill</option>
            <option value="lathe">lathe</option>
          </select>
        </label>
        {field("machineNumber", "Its number")}
        {field("drawingNumber", "Drawing number")}
        <label className="font-bold">
          Unit
          <select
            className={SELECT}
            value={form.unit}
            onChange={(event) => {
              const unit = event.target.value as FloorTemplate["unit"];
              setForm((held) => inUnit(held, unit));
            }}
          >
            <option value="mm">mm</option>
            <option value="inch">inch</option>
          </select>
        </label>
        <label className="font-bold sm:col-span-2">
          School
          <select className={SELECT} value={form.school} onChange={set("school")}>
            {floorSchools[form.machine].map((one) => (
              <option key={one} value={one}>
                {floorSchoolWords[one]}
              </option>
            ))}
          </select>
        </label>
        {isMill ? (
          <>
            <label className="font-bold">
              Zero of X and Y
              <select className={SELECT} value={form.datum} onChange={set("datum")}>
                {[...floorCorners, ...floorMiddles].map((one) => (
                  <option key={one} value={one}>
                    {floorDatumWords(one)}
                  </option>
                ))}
              </select>
            </label>
            {form.datum.startsWith("swept") ? null : field("tipDiameter", "Edge finder tip ⌀")}
            {isFloorCorner(form.datum) ? (
              <>
                {field("edgeX", "That X edge is X")}
                {field("edgeY", "That Y edge is Y")}
              </>
            ) : null}
          </>
        ) : null}
        {isMill ? null : (
          <label className="font-bold sm:col-span-2">
            Nose radius and tip code
            <select className={SELECT} value={form.asksNose} onChange={set("asksNose")}>
              <option value="no">not asked for</option>
              <option value="yes">asked for with each tool</option>
            </select>
          </label>
        )}
        {isMill ? (
          <label className="font-bold sm:col-span-2">
            Diameters
            <select className={SELECT} value={form.diameters} onChange={set("diameters")}>
              {floorDiameters.map((one) => (
                <option key={one} value={one}>
                  {DIAMETERS[one]}
                </option>
              ))}
            </select>
          </label>
        ) : null}
        {field("tools", isByFirstTool(form.school) ? "Tools beside tool 1" : "Tools to set")}
        {field("readingsNeeded", "Readings for each")}
        <ToolList form={form} onChange={(change) => setForm((held) => ({ ...held, ...change }))} />
        {figures.includes("paper")
          ? field("paper", isMill ? "Paper or feeler" : "Feeler on the diameter, 0: skimmed")
          : null}
        {figures.includes("block")
          ? field("block", isMill ? "Block under the tool" : "Pin or gap before the face")
          : null}
        {figures.includes("skin") ? field("skin", isMill ? "Touched top is Z" : "Touched face is Z") : null}
        {field("toleranceXy", isMill ? "Tolerance X, Y ±" : "Tolerance X (diameter) ±")}
        {field("toleranceZ", "Tolerance Z ±")}
        <div className="flex flex-col gap-2 sm:col-span-2" role="status" aria-live="polite">
          {exercise ? (
            <p className="text-ink2">Sets {exercise.registers.map(({ label }) => label).join(", ")}.</p>
          ) : null}
          {unfair.length > 0 ? (
            <Notice kind="stop">
              Narrower than a careful touch can hold:{" "}
              {unfair.map(({ label, leastFairMm }) => `${label} (at least ±${show(leastFairMm)})`).join(", ")}. Widen
              it, or expect right work to fail.
            </Notice>
          ) : null}
          {"problem" in answer && form.title !== "" ? <p className="text-ink2">{answer.problem}</p> : null}
          {make.error ? (
            <Notice kind="stop" role="alert">
              {make.error.message}
            </Notice>
          ) : null}
        </div>
        <p className="sm:col-span-2">
          <Button look="act" type="submit" className="min-h-10" disabled={exercise === null || make.isPending}>
            Give it to the class
          </Button>
        </p>
      </form>
    </Panel>
  );
}
