import { gaugeSets, type GaugeSet, type InsertRefusal } from "@probe-lane/core/desk";
import { scales, showLength, type LengthUnit } from "@probe-lane/core/units";
import { useId, useState, type ReactNode } from "react";
import { FigureInput, Panel } from "../../ui";
import { HeightPlot } from "./HeightPlot";
import { clearanceView, heightView, insertView, speedView, stackView, type SpeedForm } from "./turningDesk";

const SELECT = "min-h-9 rounded-[3px] border border-ink3 bg-field px-2";
type Unit = { unit: LengthUnit };

function Field({
  label,
  value,
  onChange,
  unit = "",
  isWide = false,
}: {
  label: string;
  value: string;
  onChange(text: string): void;
  unit?: string;
  isWide?: boolean;
}) {
  const id = useId();
  return (
    <div className="flex items-center justify-between gap-3">
      <label htmlFor={id}>{label}</label>
      <span className="flex items-center gap-1">
        <FigureInput
          id={id}
          className={isWide ? "w-40" : "w-24"}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
        <span className="w-12 text-xs text-ink2">{unit}</span>
      </span>
    </div>
  );
}

const Answer = ({ children }: { children: ReactNode }) => (
  <div role="status" className="mt-auto border-t border-rule-soft pt-2">
    {children}
  </div>
);
const Missing = ({ children }: { children: ReactNode }) => <p className="text-ink2">{children}</p>;
const short = (unit: LengthUnit): string => (unit === "mm" ? "mm" : "in");

function Height({ unit }: Unit) {
  const [form, setForm] = useState({ height: "0.2", touch: "40", at: "3" });
  const set = (change: Partial<typeof form>) => setForm((held) => ({ ...held, ...change }));
  const view = heightView({ unit, ...form });
  const show = (mm: number) => showLength(mm, scales[unit]);
  return (
    <Panel
      title="A tool off center, and what it cuts"
      className="lg:col-span-2 xl:col-span-3"
      bodyClassName="grid gap-4 p-3 lg:grid-cols-[21rem_1fr]"
    >
      <div className="flex flex-col gap-2">
        <Field
          label="Off center by, above or below"
          value={form.height}
          onChange={(height) => set({ height })}
          unit={short(unit)}
        />
        <Field label="Set where it cut ⌀" value={form.touch} onChange={(touch) => set({ touch })} unit={short(unit)} />
        <Field label="Sent to ⌀" value={form.at} onChange={(at) => set({ at })} unit={short(unit)} />
        <Answer>
          {view === null ? (
            <Missing>Type how far the tip is off the axis, and the diameter at which it was set.</Missing>
          ) : view === "over" ? (
            <Missing>So far off center the tool passes over the bar: it cannot have been set there.</Missing>
          ) : (
            <>
              {view.at ? (
                <p>
                  ⌀ <b className="figures">{show(view.at.commandedMm)}</b> comes out{" "}
                  <b className="figures">{show(view.at.cutMm)}</b>, larger by{" "}
                  <b className="figures">{show(view.at.errorMm)}</b>.
                </p>
              ) : null}
              <p>
                Facing leaves a pip of ⌀ <b className="figures">{show(view.pipMm)}</b>: below center it stands, above it
                is rubbed.
              </p>
              <p className="pt-1 text-xs text-ink2">
                a = d₁/2 − √(d₁²/4 − h²); cut ⌀ = 2·√((d₂/2 − a)² + h²). Raise or lower by half of the pip, then touch X
                again: height moves the diameter.
              </p>
            </>
          )}
        </Answer>
      </div>
      {view !== null && view !== "over" ? <HeightPlot view={view} unit={unit} /> : null}
    </Panel>
  );
}

function StackAnswer({ view, unit }: { view: ReturnType<typeof stackView>; unit: string }) {
  if (view === null) return <Missing>Type a size. Sizes are plain numbers in the set’s unit.</Missing>;
  if (view === "unknown") return <Missing>A block on loan is none of this set: check the figure.</Missing>;
  if (view.possible)
    return (
      <p className="figures text-lg">
        {[...view.wear, ...view.blocks].join(" + ")} = <b>{view.total}</b>
      </p>
    );
  return (
    <p>
      No stack makes that. Nearest: {view.below === null ? "none below" : <b className="figures">{view.below}</b>} and{" "}
      {view.above === null ? "none above" : <b className="figures">{view.above}</b>} {unit}.
    </p>
  );
}

function Stack() {
  const [set, setSet] = useState<GaugeSet>("metric-88");
  const [form, setForm] = useState({ size: "111.2545", wear: "", loan: "" });
  const view = stackView({ set, ...form });
  const unit = set === "metric-88" ? "mm" : "in";
  return (
    <Panel title="Gauge stack" bodyClassName="flex flex-col gap-2 p-3">
      <label className="flex items-center justify-between gap-3">
        Set{" "}
        <select
          value={set}
          onChange={(event) => setSet(gaugeSets.find((one) => one === event.target.value) ?? "metric-88")}
          className={SELECT}
        >
          {gaugeSets.map((one) => (
            <option key={one} value={one}>
              {one === "metric-88" ? "metric, 88 blocks" : "inch, 81 blocks"}
            </option>
          ))}
        </select>
      </label>
      <Field label="Size" value={form.size} onChange={(size) => setForm((held) => ({ ...held, size }))} unit={unit} />
      <Field
        label="Two wear blocks of"
        value={form.wear}
        onChange={(wear) => setForm((held) => ({ ...held, wear }))}
        unit={unit}
      />
      <Field
        label="On loan, with spaces between"
        value={form.loan}
        onChange={(loan) => setForm((held) => ({ ...held, loan }))}
        isWide
      />
      <Answer>
        <StackAnswer view={view} unit={unit} />
      </Answer>
    </Panel>
  );
}

const INSERT_WORDS: Record<InsertRefusal, string> = {
  letters: "A designation begins with four letters, such as CCMT.",
  shape: "No shape has that first letter.",
  clearance: "No clearance angle has that second letter.",
  digits: "The digits after the four letters are missing or cannot be read.",
  edge: "No standard circle has an edge of that length.",
  thickness: "No thickness has that code.",
};

function Insert() {
  const [code, setCode] = useState("CNMG 12 04 08");
  const [system, setSystem] = useState<"metric" | "inch">("metric");
  const [lead, setLead] = useState("95");
  const view = insertView({ code, system });
  const clear = clearanceView({ lead, nose: code });
  const unit = system === "metric" ? "mm" : "in";
  return (
    <Panel title="Insert, and the slope that it clears" bodyClassName="flex flex-col gap-2 p-3">
      <Field label="Designation" value={code} onChange={setCode} isWide />
      <label className="flex items-center justify-between gap-3">
        Written in{" "}
        <select
          value={system}
          onChange={(event) => setSystem(event.target.value === "inch" ? "inch" : "metric")}
          className={SELECT}
        >
          <option value="metric">metric digits</option>
          <option value="inch">inch digits</option>
        </select>
      </label>
      <Field label="Lead angle of its holder" value={lead} onChange={setLead} unit="degrees" />
      <Answer>
        {view === null ? (
          <Missing>Type a designation.</Missing>
        ) : typeof view === "string" ? (
          <Missing>{INSERT_WORDS[view]}</Missing>
        ) : (
          <>
            <p>
              Nose radius <b className="figures">{view.noseRadius}</b> {unit}, nose angle{" "}
              <b className="figures">{view.noseAngle === null ? "round" : `${view.noseAngle}°`}</b>, clearance{" "}
              <b className="figures">{view.clearanceAngle}°</b>, circle <b className="figures">{view.circle}</b> {unit},
              thickness <b className="figures">{Math.round(view.thickness * 1e4) / 1e4}</b> {unit}.
            </p>
            {clear ? (
              <p className="pt-1">
                180 − {clear.leadDeg} − {clear.noseDeg} = <b className="figures">{clear.fallDeg}°</b>:{" "}
                {clear.fallDeg > 0
                  ? "the steepest fall that its trailing edge clears, two or three degrees less in practice."
                  : "no falling slope clears."}
              </p>
            ) : null}
          </>
        )}
      </Answer>
    </Panel>
  );
}

function Speed() {
  const [form, setForm] = useState<SpeedForm>({
    system: "metric",
    surface: "120",
    diameter: "40",
    teeth: "1",
    feed: "0.2",
    most: "3000",
  });
  const set = (change: Partial<SpeedForm>) => setForm((held) => ({ ...held, ...change }));
  const view = speedView(form);
  const isMetric = form.system === "metric";
  return (
    <Panel title="Speed and feed" bodyClassName="flex flex-col gap-2 p-3">
      <label className="flex items-center justify-between gap-3">
        Figures in{" "}
        <select
          value={form.system}
          onChange={(event) => set({ system: event.target.value === "inch" ? "inch" : "metric" })}
          className={SELECT}
        >
          <option value="metric">m/min and mm</option>
          <option value="inch">ft/min and inch</option>
        </select>
      </label>
      <Field
        label="Cutting speed"
        value={form.surface}
        onChange={(surface) => set({ surface })}
        unit={isMetric ? "m/min" : "ft/min"}
      />
      <Field
        label="Diameter"
        value={form.diameter}
        onChange={(diameter) => set({ diameter })}
        unit={isMetric ? "mm" : "in"}
      />
      <Field label="Teeth; 1 for a turning tool" value={form.teeth} onChange={(teeth) => set({ teeth })} />
      <Field
        label="Feed of a tooth"
        value={form.feed}
        onChange={(feed) => set({ feed })}
        unit={isMetric ? "mm" : "in"}
      />
      <Field label="Spindle goes no faster than" value={form.most} onChange={(most) => set({ most })} unit="rev/min" />
      <Answer>
        {view === null ? (
          <Missing>Type speed, diameter, teeth and feed, all above zero.</Missing>
        ) : (
          <p>
            <b className="figures text-lg">{Math.round(view.speed)}</b> rev/min
            {view.clamped ? ", held at the spindle’s limit" : ""}, feed{" "}
            <b className="figures text-lg">{(Math.round(view.feed * 100) / 100).toString()}</b> {isMetric ? "mm" : "in"}
            /min.{" "}
            <span className="text-xs text-ink2">
              {isMetric ? "n = 1000·Vc/(π·D)" : "n = 12·Vc/(π·D)"}, feed = n·z·fz. The maker’s sheet and the shop’s
              rules go before this.
            </span>
          </p>
        )}
      </Answer>
    </Panel>
  );
}

/** Calculators of the lathe that show their working; nothing is stored. */
export function TurningDeskPage() {
  const [unit, setUnit] = useState<LengthUnit>("mm");
  return (
    <div className="mx-auto flex max-w-6xl flex-col gap-4 p-4">
      <p className="flex flex-wrap items-center gap-3">
        <span className="text-ink2">Figures are read as people write them: 3/64, .0478, 12,4.</span>
        <label className="ml-auto flex items-center gap-2">
          Lengths without a unit are{" "}
          <select
            value={unit}
            onChange={(event) => setUnit(event.target.value === "inch" ? "inch" : "mm")}
            className={SELECT}
          >
            <option value="mm">mm</option>
            <option value="inch">inch</option>
          </select>
        </label>
      </p>
      <div className="grid gap-4 lg:grid-cols-2 xl:grid-cols-3">
        <Height unit={unit} />
        <Speed />
        <Stack />
        <Insert />
      </div>
    </div>
  );
}
