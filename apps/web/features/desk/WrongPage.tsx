import {
  methods,
  type Explanation,
  type FigureName,
  type Figures,
  type Method,
  type MistakeId,
} from "@probe-lane/core/diagnosis";
import { formatMm } from "@probe-lane/core/units";
import { figureWords, methodWords, mistakeWords, causeName } from "@probe-lane/core/words";
import { useId, useState, type ReactNode } from "react";
import { Button, FigureInput, Panel } from "../../ui";
import { KeepForm } from "./KeepForm";
import { deskView, emptyForm, methodFigures, type DeskForm, type Unit } from "./deskView";

const INCH_MM = 25.4;
const show =
  (unit: Unit) =>
  (mm: number): string =>
    unit === "mm" ? formatMm(mm) : formatMm(mm / INCH_MM, 4);
const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
const SELECT = "min-h-11 sm:min-h-10 w-full rounded-[3px] border border-ink3 bg-field px-2";

/** A number on a register, and the mistake behind it. Needs no lane; nothing is stored. */
export function WrongPage() {
  const [form, setForm] = useState<DeskForm>(emptyForm);
  const set = (change: Partial<DeskForm>) => setForm((held) => ({ ...held, ...change }));
  const view = deskView(form);
  const figure = show(form.unit);
  return (
    <div className="mx-auto grid max-w-5xl gap-4 lg:grid-cols-[1fr_1.1fr]">
      <form aria-label="What you have" className="flex flex-col gap-4" onSubmit={(event) => event.preventDefault()}>
        <Panel title="The register" bodyClassName="grid gap-3 p-3 sm:grid-cols-2">
          <label className="sm:col-span-2">
            <span className="font-bold">What was set, and where</span>
            <select
              className={SELECT}
              value={form.method}
              onChange={(event) => set({ method: event.target.value as Method, figures: {} })}
            >
              {methods
                .filter((method) => method !== "lathe-tip")
                .map((method) => (
                  <option key={method} value={method}>
                    {methodWords[method]}
                  </option>
                ))}
            </select>
          </label>
          <Figure
            name="held"
            label="The register holds"
            value={form.held}
            onChange={(held) => set({ held })}
            problem={view.problems["held"]}
          />
          <label>
            <span className="font-bold">Unit</span>
            <select
              className={SELECT}
              value={form.unit}
              onChange={(event) => set({ unit: event.target.value as Unit })}
            >
              <option value="mm">mm</option>
              <option value="inch">inch</option>
            </select>
          </label>
          <Figure
            name="wanted"
            label="It should hold"
            value={form.wanted}
            onChange={(wanted) => set({ wanted })}
            problem={view.problems["wanted"]}
          />
          <Figure
            name="reading"
            label={
              form.method === "lathe-readout" ? "or the reading at the corner" : "or the machine stood at, in contact"
            }
            value={form.reading}
            onChange={(reading) => set({ reading })}
            problem={view.problems["reading"]}
          />
        </Panel>
        <Panel
          title="What is in the shop"
          note="leave out what you do not know"
          bodyClassName="grid gap-3 p-3 sm:grid-cols-2"
        >
          {form.method === "mill-edge" ? (
            <label>
              <span className="font-bold">{capital(figureWords.approach)}</span>
              <select
                className={SELECT}
                value={form.approach}
                onChange={(event) => set({ approach: event.target.value as DeskForm["approach"] })}
              >
                <option value="">not known</option>
                <option value="plus">plus, onto the low side</option>
                <option value="minus">minus, onto the high side</option>
              </select>
            </label>
          ) : null}
          {form.method === "lathe-x" ? (
            <label>
              <span className="font-bold">{capital(figureWords.outside)}</span>
              <select
                className={SELECT}
                value={form.outside}
                onChange={(event) => set({ outside: event.target.value as DeskForm["outside"] })}
              >
                <option value="outside">outside</option>
                <option value="bore">in a bore</option>
              </select>
            </label>
          ) : null}
          {form.method === "lathe-x" || form.method === "lathe-z" ? (
            <Figure
              name="tipCode"
              label={`${figureWords.tipCode}, 0 to 9`}
              value={form.tipCode}
              onChange={(tipCode) => set({ tipCode })}
            />
          ) : null}
          {methodFigures[form.method].map((name) => (
            <Figure
              key={name}
              name={name}
              label={figureWords[name]}
              value={form.figures[name] ?? ""}
              problem={view.problems[name]}
              onChange={(text) => set({ figures: { ...form.figures, [name]: text } })}
              isAsked={view.explained?.wouldHelp === name}
            />
          ))}
          <p className="sm:col-span-2">
            <Button
              className="min-h-11 sm:min-h-10"
              onClick={() => setForm({ ...emptyForm, method: form.method, unit: form.unit })}
            >
              Clear all fields
            </Button>
          </p>
        </Panel>
      </form>
      <Panel
        title="What explains it"
        className="self-start"
        bodyClassName="p-4"
        note={
          view.closureMm === null ? null : (
            <span className="figures">
              off by {figure(view.closureMm)} {form.unit}
            </span>
          )
        }
      >
        <div role="status" aria-live="polite" className="flex flex-col gap-4">
          {view.needs === "held" ? (
            <p>Type what the register holds. Figures are read as people write them: 3/64, .0478, 12,4 mm.</p>
          ) : null}
          {view.needs === "wanted" ? (
            <p>
              Type what it should hold, or where the machine stood in contact
              {form.method === "mill-edge"
                ? `, with “${capital(figureWords.tipRadius)}” and “${capital(figureWords.approach)}”`
                : form.method === "lathe-x"
                  ? `, with “${capital(figureWords.touchDiameter)}”`
                  : ""}
              .
            </p>
          ) : null}
          {view.isReadingItself ? (
            <p className="border-l-[5px] border-contact pl-3">
              <b className="text-lg">The register holds the reading itself.</b> Nothing was taken to it: where the
              drawing has this edge at zero, the tip’s radius was left out, and the axis is off by just that.
            </p>
          ) : null}
          {view.either.map(({ approach, closureMm, explained }) => (
            <div key={approach} className="flex flex-col gap-2">
              <p className="font-bold text-expected">
                If the tip moved {approach}, it is off by <span className="figures">{figure(closureMm)}</span>:
              </p>
              <Answer explained={explained} figures={view.figures} figure={figure} />
            </div>
          ))}
          {view.explained && (!view.explained.unexplained || view.either.length === 0) ? (
            <Answer explained={view.explained} figures={view.figures} figure={figure} />
          ) : null}
          {view.explained?.unexplained && form.method === "mill-edge" && view.figures.tipRadius === undefined ? (
            <p className="text-ink2">
              A tip of ⌀ <b className="figures">{figure(Math.abs(2 * (view.closureMm ?? 0)))}</b> has just this radius:
              if yours is one, the radius was left out or taken the wrong way.
            </p>
          ) : null}
        </div>
        {view.explained && view.closureMm !== null ? (
          <div className="mt-4">
            <KeepForm
              key={form.held + form.wanted + form.reading}
              text={summary(
                view.explained.ranked[0],
                `${methodWords[form.method]}: off by ${figure(view.closureMm)} ${form.unit}`,
              )}
            />
          </div>
        ) : null}
      </Panel>
    </div>
  );
}

function Figure({
  name,
  label,
  value,
  onChange,
  problem,
  isAsked = false,
}: {
  name: string;
  label: string;
  value: string;
  onChange(text: string): void;
  problem?: string | undefined;
  isAsked?: boolean;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className={`block font-bold first-letter:uppercase ${isAsked ? "text-expected" : ""}`}>
        {label}
      </label>
      <FigureInput
        id={id}
        name={name}
        className={`min-h-11 sm:min-h-10 w-full text-base ${isAsked ? "!border-2 !border-expected" : ""}`}
        value={value}
        aria-invalid={problem !== undefined}
        aria-describedby={problem ? `${id}-problem` : undefined}
        onChange={(event) => onChange(event.target.value)}
      />
      {problem ? (
        <p id={`${id}-problem`} className="text-xs">
          {problem}
        </p>
      ) : null}
    </div>
  );
}

/** The answer in one line, as it is kept. */
const summary = (first: Explanation | undefined, lead: string): string => {
  if (!first) return `${lead}. No known mistake explains it.`;
  return first.classes.length === 0
    ? `${lead}. Nothing is wrong.`
    : `${lead}. ${first.classes.map((members) => members.map(causeName).join(" or ")).join(" and ")}, ${chance(first.probability)}.`;
};

const firstOf = (explanation: Explanation): MistakeId[] =>
  explanation.classes.flatMap((members) => members.slice(0, 1));
const chance = (probability: number): string =>
  probability > 0.995 ? "over 99 in 100" : `${Math.max(1, Math.round(probability * 100))} in 100`;

function Answer({
  explained,
  figures,
  figure,
}: {
  explained: NonNullable<ReturnType<typeof deskView>["explained"]>;
  figures: Figures;
  figure(mm: number): string;
}) {
  const { ranked, unexplained, wouldHelp } = explained;
  const [first, second] = ranked;
  return (
    <>
      {unexplained ? (
        <p className="text-lg font-bold">No known mistake explains this number, so none is named.</p>
      ) : null}
      {first?.classes.length === 0 ? (
        <p className="text-lg font-bold">Nothing is wrong: the difference is what a careful touch leaves.</p>
      ) : null}
      <ol className="flex flex-col gap-4">
        {ranked
          .filter(({ classes }) => classes.length > 0)
          .map((explanation, index) => (
            <li
              key={firstOf(explanation).join()}
              className={`border-l-[5px] pl-3 ${index === 0 ? "border-contact" : "border-rule"}`}
            >
              <Headline explanation={explanation} isFirst={index === 0} />
              <p className="figures mt-1">
                {firstOf(explanation)
                  .map((id) => mistakeWords[id].equation(figures, figure))
                  .join("  and  ")}
              </p>
              <p className="text-ink2">
                leaves {figure(explanation.predicted)} · {chance(explanation.probability)}
              </p>
              <Alike explanation={explanation} />
            </li>
          ))}
      </ol>
      {first && first.classes.length > 0 ? <Decide first={first} second={second} /> : null}
      {wouldHelp ? <Help name={wouldHelp} isOpen={unexplained} /> : null}
    </>
  );
}

function Headline({ explanation, isFirst }: { explanation: Explanation; isFirst: boolean }) {
  const words = explanation.classes.map((members) => members.map(causeName).join(", or ")).join("; and ");
  return (
    <p className={isFirst ? "text-lg font-bold first-letter:uppercase" : "font-bold first-letter:uppercase"}>{words}</p>
  );
}

/** Mistakes that leave the same number are named together, with what would tell them apart. */
function Alike({ explanation }: { explanation: Explanation }) {
  const alike = explanation.classes.filter((members) => members.length > 1).flat();
  if (alike.length === 0) return null;
  return (
    <p className="mt-1 text-ink2">
      The number cannot tell these apart. {alike.map((id) => mistakeWords[id].check).join(" ")}
    </p>
  );
}

function Decide({ first, second }: { first: Explanation; second: Explanation | undefined }): ReactNode {
  const ids = [...firstOf(first), ...(second ? firstOf(second) : [])];
  const checks = [...new Set(ids)].map((id) => mistakeWords[id].check);
  return (
    <div className="border-l-[5px] border-expected bg-expected-soft p-3">
      <p className="font-bold">
        {second && second.classes.length > 0 ? "To decide between the first two" : "To make sure"}
      </p>
      {checks.map((check) => (
        <p key={check}>{check}</p>
      ))}
    </div>
  );
}

function Help({ name, isOpen }: { name: FigureName; isOpen: boolean }) {
  return (
    <p className="text-ink2">
      {isOpen ? "One more figure may open it: " : "One more figure would help most: "}
      <b className="text-expected">{capital(figureWords[name])}</b>.
    </p>
  );
}
