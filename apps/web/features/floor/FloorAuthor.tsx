import { keyOf } from "../../app/queries";
import {
  floorCorners,
  floorDatumWords,
  floorFairness,
  floorFromTemplate,
  floorMiddles,
  floorSchools,
  isFloorCorner,
  type FloorTemplate,
} from "@probe-lane/core/floor";
import { floorSchoolWords } from "@probe-lane/core/words";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent, type ReactNode } from "react";
import { api, type ApiError } from "../../app/api";
import { Button, FigureInput, Notice, Panel } from "../../ui";
import { lengthsOf } from "./show";
import { inUnit, START, templateOf, type Form } from "./template";

const SELECT = "block min-h-10 w-full rounded-[3px] border border-ink3 bg-field px-2 font-normal";

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
  const set = (name: keyof Form) => (event: { target: { value: string } }) =>
    setForm((held) => ({ ...held, [name]: event.target.value }));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if ("template" in answer) make.mutate(answer.template);
  };
  const field = (name: keyof Form, label: ReactNode) => (
    <label className="font-bold">
      {label}
      <FigureInput className="block min-h-10 w-full font-normal" value={form[name]} onChange={set(name)} />
    </label>
  );
  const isMill = form.machine === "mill";
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
        {field("tools", form.school === "readout" ? "Tools beside tool 1" : "Tools to set")}
        {field("readingsNeeded", "Readings for each")}
        {field("paper", isMill ? "Paper or feeler" : "Feeler, pin or gap")}
        {field("skin", isMill ? "Touched top is Z" : "Touched face is Z")}
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
