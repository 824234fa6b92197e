import type { Command, Observation } from "@probe-lane/core/bench";
import {
  captureLength,
  captureOffset,
  lengthRows,
  readRegister,
  registerAxis,
  registerKind,
  workOffsetNames,
  type Axis,
  type RegisterId,
} from "@probe-lane/core/registers";
import { parseLengthMm, scales, showCounts, showLength, toCounts } from "@probe-lane/core/units";
import { refusalWords, registerName, registerWords, toolKindWords, turretKindWords } from "@probe-lane/core/words";
import { useImperativeHandle, useRef, useState, type FormEvent, type Ref } from "react";
import { Button, FigureInput, Panel } from "../../ui";
import type { OpenDialog } from "./dialogs";
import type { LinkView } from "./laneLink";
import { TipCodes } from "./TipCodes";
import { turretCapture } from "./turningView";

export interface RegisterPanelHandle {
  openCapture(axis: Axis): void;
  openTyping(): void;
}
type Mode = "capture" | "type";
type Where = "minus" | "plus";

const AXES: readonly Axis[] = ["x", "y", "z"];

/** Registers to choose from, what the exercise is about first. */
function choicesOf({ sheet }: Observation): { name: string; ids: RegisterId[] }[] {
  if (sheet.lathe) {
    const rows = sheet.lathe.tools.map(({ number }) => number);
    const of = (...letters: ("X" | "Z" | "XW" | "ZW" | "R" | "Q" | "LX" | "LZ" | "Y")[]) =>
      rows.flatMap((row) => letters.map((letter): RegisterId => `${letter}${row}`));
    if (sheet.lathe.control === "readout")
      return [
        { name: "zero of the readout", ids: ["G54.x", "G54.z"] },
        { name: "library", ids: of("LX", "LZ") },
      ];
    if (sheet.lathe.control === "gang")
      return [
        { name: "tools", ids: of("X", "Y") },
        { name: "work offset", ids: ["G54.x", "G54.z"] },
        { name: "wear", ids: of("XW") },
      ];
    return [
      { name: "tools", ids: of("X", "Z") },
      { name: "work offset", ids: ["G54.x", "G54.z"] },
      { name: "nose radius, tip code", ids: of("R", "Q") },
      { name: "wear", ids: of("XW", "ZW") },
      { name: "other work offsets", ids: ["G55.x", "G55.z", "G56.x", "G56.z"] },
      { name: "common", ids: ["common.x", "common.z"] },
    ];
  }
  const tools = sheet.tools.map(({ number }) => number);
  const offsets = (names: readonly string[]) =>
    names.flatMap((name) => AXES.map((axis) => `${name}.${axis}` as RegisterId));
  return [
    { name: "work offset", ids: offsets(["G54"]) },
    { name: "lengths", ids: tools.flatMap((row) => [`H${row}`, `HW${row}`] as RegisterId[]) },
    { name: "diameters", ids: tools.flatMap((row) => [`D${row}`, `DW${row}`] as RegisterId[]) },
    { name: "other work offsets", ids: offsets(workOffsetNames.slice(1)) },
    { name: "common", ids: offsets(["common"]) },
    {
      name: "other rows",
      ids: lengthRows
        .filter((row) => !tools.includes(row))
        .flatMap((row) => [`H${row}`, `HW${row}`, `D${row}`, `DW${row}`] as RegisterId[]),
    },
  ];
}

/** Registers that no place of the tool can tell. */
const TYPED_ONLY: Record<string, string> = {
  R: "A nose radius is no place: the insert’s designation says it. Type it.",
  Q: "A tip code is one of 0 to 9, by where the tip stands from the nose. Type it.",
  L: "The library takes what is typed: what the corner reads with this tool, its sign turned. Type it.",
  Y: "Center height is half of the pip, plus where it stands. Type it.",
};

/** What an X or Y is counted from, by where the drawing has its zero. */
function faceWords({ sheet }: Observation, axis: "x" | "y"): { from: string; that: string } {
  if (sheet.datum.kind === "middle") return { from: "the middle of the blank", that: "that middle" };
  if (sheet.datum.kind === "feature")
    return {
      from:
        sheet.feature?.kind === "pocket"
          ? "the middle of the pocket"
          : `the axis of the ${sheet.feature?.kind ?? "feature"}`,
      that: "that",
    };
  return { from: axis === "x" ? "the left or right edge" : "the front or back edge", that: "that edge" };
}

/** What a capture would store, in the same arithmetic as the bench; null while a box is empty or unreadable. */
function preview(
  seen: Observation,
  shown: LinkView["shown"],
  register: RegisterId,
  asMm: number | null,
): number | null {
  const { registers, modal, sheet } = seen;
  if (asMm === null || registerKind(register) === "diameter" || /^([RQY]|L[XZ])/.test(register)) return null;
  if (seen.lathe) return turretCapture(seen, shown.machine, register, asMm);
  const as = toCounts(asMm, scales[sheet.unit]);
  if (register.startsWith("HW")) return shown.machine.z - as;
  if (registerKind(register) === "length") {
    return captureLength(registers, Number(register.slice(1)), sheet.settings.lengthCapture, {
      machineZ: shown.machine.z,
      counterZ: shown.counter.z,
      work: modal.workOffset,
      as,
    });
  }
  return captureOffset(
    registers,
    register,
    shown.machine[registerAxis(register)],
    as,
    modal.workOffset,
    seen.lengthCounts,
  );
}

const CAPTURE_WORDS = {
  machine: "Store the machine Z as it stands as",
  counter: "Store the Z counter as it stands as",
  display: "Make the display read zero here by setting",
} as const;

function useFigure(unit: "mm" | "inch") {
  const [text, setText] = useState("");
  const read = text.trim() === "" ? null : parseLengthMm(text, unit);
  return {
    text,
    setText,
    mm: read?.ok ? read.value : null,
    problem: read && !read.ok ? refusalWords({ code: "text", problem: read.error }) : null,
  };
}

/** Registers as they stand, and one sentence that sets one of them; nothing is filled in beforehand. */
export function RegisterPanel({
  view,
  send,
  isReadOnly,
  open,
  ref,
}: {
  view: LinkView;
  send(command: Command): void;
  isReadOnly: boolean;
  open(dialog: OpenDialog): void;
  ref: Ref<RegisterPanelHandle>;
}) {
  const seen = view.observation;
  const { unit, settings } = seen.sheet;
  const scale = scales[unit];
  const [mode, setMode] = useState<Mode>("capture");
  const [register, setRegister] = useState<RegisterId>(
    seen.sheet.lathe?.control === "readout"
      ? "G54.x"
      : seen.sheet.lathe
        ? `X${seen.sheet.lathe.targets.x[0] ?? 1}`
        : seen.sheet.targets.xy
          ? "G54.x"
          : "H1",
  );
  const [where, setWhere] = useState<Where | "">("");
  const [how, setHow] = useState<"set" | "add">("set");
  const distance = useFigure(unit);
  const edge = useFigure(unit);
  const typed = useFigure(unit);
  const firstBox = useRef<HTMLInputElement>(null);
  const typedBox = useRef<HTMLInputElement>(null);
  const act = useRef<HTMLButtonElement>(null);
  const heldRow = Number(/^tool(\d)$/.exec(seen.holds ?? "")?.[1] ?? seen.sheet.tools[0]?.number ?? 1);
  useImperativeHandle(ref, () => ({
    openCapture: (axis) => {
      setMode("capture");
      setRegister(
        seen.sheet.lathe?.control === "readout"
          ? `G54.${axis}`
          : seen.lathe
            ? `${axis === "x" ? "X" : "Z"}${seen.lathe.station}`
            : axis === "z"
              ? `H${heldRow}`
              : `G54.${axis}`,
      );
      setTimeout(() => (firstBox.current ?? act.current)?.focus());
    },
    openTyping: () => {
      setMode("type");
      setTimeout(() => typedBox.current?.focus());
    },
  }));
  const axis = registerAxis(register);
  const kind = registerKind(register);
  const isLength = kind === "length" && !register.startsWith("HW");
  const isEdge = kind === "offset" && axis !== "z";
  const face = faceWords(seen, axis === "y" ? "y" : "x");
  const held = readRegister(seen.registers, register);
  const needsSide = isEdge && distance.mm !== 0;
  const isTurret = seen.lathe !== null;
  const isNose = /^([RQY]|L[XZ])\d/.test(register);
  const control = seen.sheet.lathe?.control;
  const called = (id: RegisterId) => registerName(id, control);
  const asMm = isTurret
    ? distance.mm
    : isLength
      ? 0
      : distance.mm === null || edge.mm === null || (needsSide && where === "")
        ? null
        : edge.mm + (isEdge ? (where === "minus" ? -distance.mm : distance.mm) : distance.mm);
  const captured = mode === "capture" ? preview(seen, view.shown, register, asMm) : null;
  const target =
    mode === "capture"
      ? captured
      : typed.mm === null
        ? null
        : register.startsWith("Q")
          ? Math.round(typed.mm / (unit === "mm" ? 1 : 25.4)) * scale.countsPerUnit
          : (how === "add" ? held : 0) + toCounts(typed.mm, scale);
  const shown = (counts: number) =>
    register.startsWith("Q") ? String(Math.round(counts / scale.countsPerUnit)) : showCounts(counts, scale);
  const guard =
    view.lastOutcome?.kind === "refused" && view.lastOutcome.refusal.code === "registerGuard" && view.message
      ? view.lastOutcome.refusal
      : null;
  const clear = () => {
    distance.setText("");
    edge.setText("");
    typed.setText("");
    setWhere("");
    (document.activeElement as HTMLElement | null)?.blur();
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (mode === "capture") {
      if (captured === null) return;
      send({ type: "captureRegister", register, asText: showLength(asMm ?? 0, scale) });
      clear();
    } else {
      send({ type: "typeRegister", register, text: typed.text, how, isConfirmed: false });
      if (typed.mm !== null && Math.abs((target ?? 0) - held) <= seen.guardCounts) clear();
    }
  };
  const confirm = () => {
    send({ type: "typeRegister", register, text: typed.text, how, isConfirmed: true });
    clear();
  };
  return (
    <Panel
      title="Registers"
      note={
        <span className="flex items-center gap-2">
          {seen.lastUndo && !isReadOnly ? (
            <Button look="quiet" className="!py-0 text-xs" keyCap="U" onClick={() => send({ type: "undoRegister" })}>
              take back {called(seen.lastUndo.register)}
            </Button>
          ) : null}
          <Button look="quiet" className="!py-0 text-xs" onClick={() => open("exchange")}>
            In and out
          </Button>
        </span>
      }
      className="flex-1"
      bodyClassName="flex flex-col"
    >
      <div className="min-h-0 flex-1 overflow-y-auto">
        <RegisterTable seen={seen} />
      </div>
      {isReadOnly ? null : (
        <form
          onSubmit={submit}
          className="flex shrink-0 flex-col gap-2 border-t border-rule bg-contact-soft p-2.5"
          aria-label="Set a register"
        >
          <div className="flex flex-wrap items-center gap-1.5 text-xs">
            {(["capture", "type"] as const).map((one) => (
              <label
                key={one}
                className={`cursor-pointer rounded-[3px] border px-2 py-0.5 has-focus-visible:outline-2 has-focus-visible:outline-expected ${mode === one ? "border-ink bg-ink font-bold text-panel" : "border-ink3 bg-panel"}`}
              >
                <input
                  type="radio"
                  name="register-mode"
                  className="sr-only"
                  checked={mode === one}
                  onChange={() => setMode(one)}
                />
                {one === "capture" ? "From where it stands" : "Typed value"}{" "}
                <kbd className="figures">{one === "capture" ? "C" : "E"}</kbd>
              </label>
            ))}
            <label className="ml-auto">
              register{" "}
              <select
                aria-label="Register"
                value={register}
                onChange={(event) => setRegister(event.target.value as RegisterId)}
                className="figures rounded-[3px] border border-ink3 bg-field px-1 py-0.5"
              >
                {choicesOf(seen).map(({ name, ids }) => (
                  <optgroup key={name} label={name}>
                    {ids.map((id) => (
                      <option key={id} value={id}>
                        {called(id)}
                      </option>
                    ))}
                  </optgroup>
                ))}
              </select>
            </label>
          </div>
          {mode === "type" ? (
            <div className="leading-8">
              <select
                aria-label="How"
                value={how}
                onChange={(event) => setHow(event.target.value as "set" | "add")}
                className="rounded-[3px] border border-ink3 bg-field px-1 py-0.5"
              >
                <option value="set">Set {called(register)} to</option>
                <option value="add">Add to {called(register)}</option>
              </select>{" "}
              <FigureInput
                ref={typedBox}
                aria-label="Value to type"
                className="w-28"
                value={typed.text}
                onChange={(event) => typed.setText(event.target.value)}
              />{" "}
              {register.startsWith("Q") ? "" : unit === "mm" ? "mm" : "in"}
              {register.startsWith("Q") ? <TipCodes chosen={typed.text.trim()} onChoose={typed.setText} /> : null}
            </div>
          ) : isNose ? (
            <p>{TYPED_ONLY[register.slice(0, 1)]}</p>
          ) : isTurret ? (
            <p className="leading-8">
              Make {axis === "x" ? "X, a diameter," : "Z"} read{" "}
              <FigureInput
                ref={firstBox}
                aria-label="What the display must read here"
                className="w-24"
                value={distance.text}
                onChange={(event) => distance.setText(event.target.value)}
              />{" "}
              where the tip stands now, by <b>{called(register)}</b>.
            </p>
          ) : kind === "diameter" ? (
            <p>A diameter is not a place: measure it, then type it.</p>
          ) : isLength ? (
            <p>
              {CAPTURE_WORDS[settings.lengthCapture]} <b>{registerWords(register)}</b>. What lies between the tip and
              the datum is yours to take off afterwards.
            </p>
          ) : isEdge ? (
            <p className="leading-8">
              The spindle axis stands{" "}
              <FigureInput
                ref={firstBox}
                aria-label="Distance from the spindle axis to the edge"
                className="w-20"
                value={distance.text}
                onChange={(event) => distance.setText(event.target.value)}
              />{" "}
              to the{" "}
              <select
                aria-label="Side"
                value={where}
                onChange={(event) => setWhere(event.target.value as Where)}
                className="rounded-[3px] border border-ink3 bg-field px-1 py-0.5"
              >
                <option value="">which side</option>
                <option value="minus">minus side</option>
                <option value="plus">plus side</option>
              </select>{" "}
              of {face.from}, and {face.that} is {axis.toUpperCase()}{" "}
              <FigureInput
                aria-label="Work coordinate of the edge"
                className="w-20"
                value={edge.text}
                onChange={(event) => edge.setText(event.target.value)}
              />
            </p>
          ) : (
            <p className="leading-8">
              The tip stands{" "}
              <FigureInput
                ref={firstBox}
                aria-label="Height of the tip over the surface"
                className="w-20"
                value={distance.text}
                onChange={(event) => distance.setText(event.target.value)}
              />{" "}
              above a surface that is Z{" "}
              <FigureInput
                aria-label="Work coordinate of the surface"
                className="w-20"
                value={edge.text}
                onChange={(event) => edge.setText(event.target.value)}
              />
            </p>
          )}
          <p className="flex flex-wrap items-center gap-2">
            <Button
              look="act"
              type="submit"
              ref={act}
              disabled={target === null && !(mode === "type" && typed.text !== "")}
            >
              Set {called(register)}
            </Button>
            <span className="figures">
              {shown(held)} → <b>{target === null ? "…" : shown(target)}</b>
            </span>
          </p>
          {(distance.problem ?? edge.problem ?? typed.problem) ? (
            <p role="alert" className="text-xs">
              {distance.problem ?? edge.problem ?? typed.problem}
            </p>
          ) : null}
          {guard ? (
            <p className="flex flex-wrap items-center gap-2 border-t border-rule pt-2" role="alert">
              <span>{refusalWords(guard)}</span>
              <Button autoFocus onClick={confirm}>
                Yes, set it
              </Button>
            </p>
          ) : null}
        </form>
      )}
    </Panel>
  );
}

/** Work offsets and the tool table of a lathe. */
function TurretTable({ seen, sheet }: { seen: Observation; sheet: NonNullable<Observation["sheet"]["lathe"]> }) {
  const { registers, modal } = seen;
  const scale = scales[seen.sheet.unit];
  const show = (counts: number | undefined) => showCounts(counts ?? 0, scale);
  const turret = registers.turret;
  const isReadout = sheet.control === "readout";
  // a readout keeps a library, a gang slide X and height
  const [first, second] = isReadout
    ? ([
        ["LX", turret?.lx],
        ["LZ", turret?.lz],
      ] as const)
    : sheet.control === "gang"
      ? ([
          ["X", turret?.x],
          ["Y", turret?.y],
        ] as const)
      : ([
          ["X", turret?.x],
          ["Z", turret?.z],
        ] as const);
  const rows = Object.entries(registers.work).filter(
    ([name, row]) => name === modal.workOffset || row.x !== 0 || row.z !== 0,
  );
  const cell = "figures py-0.5 pr-1.5 text-right text-[13px]";
  const head = "pr-1.5 font-normal";
  const hasNose = sheet.targets.nose.length > 0;
  const hasWear = sheet.tools.some(({ number }) => (turret?.xw[number] ?? 0) !== 0 || (turret?.zw[number] ?? 0) !== 0);
  return (
    <>
      <table className="w-full">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th />
            <th className={head}>X ⌀</th>
            <th className={head}>Z</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, row]) => (
            <tr key={name} className="border-t border-rule-soft">
              <th scope="row" className="figures pl-2.5 text-left">
                {isReadout ? <span className="font-sans">zero</span> : name}
                {!isReadout && name === modal.workOffset ? (
                  <span className="font-sans text-xs font-normal text-ink2"> in use</span>
                ) : null}
              </th>
              <td data-testid={`${name}.x`} className={cell}>
                {show(row.x)}
              </td>
              <td data-testid={`${name}.z`} className={cell}>
                {show(row.z)}
              </td>
            </tr>
          ))}
          {registers.common.x === 0 && registers.common.z === 0 ? null : (
            <tr className="border-t border-rule-soft">
              <th scope="row" className="pl-2.5 text-left">
                common{sheet.start ? <span className="text-xs font-normal text-ink2"> as declared</span> : null}
              </th>
              <td className={cell}>{show(registers.common.x)}</td>
              <td className={cell}>{show(registers.common.z)}</td>
            </tr>
          )}
        </tbody>
      </table>
      <table className="w-full border-t border-rule">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th className="pl-2.5 text-left font-normal">{isReadout ? "Library" : "Tool"}</th>
            <th className={head}>X ⌀</th>
            <th className={head}>{sheet.control === "gang" ? "Height" : "Z"}</th>
            {hasWear ? (
              <>
                <th className={head}>X wear</th>
                <th className={head}>Z wear</th>
              </>
            ) : null}
            {hasNose ? (
              <>
                <th className={head}>Nose</th>
                <th className={head}>Tip</th>
              </>
            ) : null}
          </tr>
        </thead>
        <tbody>
          {sheet.tools.map(({ number, kind, insert }) => (
            <tr key={number} className={`border-t border-rule-soft ${seen.lathe?.station === number ? "bg-well" : ""}`}>
              <th
                scope="row"
                className="max-w-32 truncate pl-2.5 text-left font-normal"
                title={`${turretKindWords[kind]}, ${insert}`}
              >
                <b className="figures">{number}</b> <span className="text-xs text-ink2">{turretKindWords[kind]}</span>
              </th>
              <td data-testid={`${first[0]}${number}`} className={cell}>
                {show(first[1]?.[number])}
              </td>
              <td data-testid={`${second[0]}${number}`} className={cell}>
                {show(second[1]?.[number])}
              </td>
              {hasWear ? (
                <>
                  <td className={cell}>{show(turret?.xw[number])}</td>
                  <td className={cell}>{show(turret?.zw[number])}</td>
                </>
              ) : null}
              {hasNose ? (
                <>
                  <td data-testid={`R${number}`} className={cell}>
                    {show(turret?.r[number])}
                  </td>
                  <td data-testid={`Q${number}`} className={cell}>
                    {Math.round((turret?.q[number] ?? 0) / scale.countsPerUnit)}
                  </td>
                </>
              ) : null}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function RegisterTable({ seen }: { seen: Observation }) {
  if (seen.sheet.lathe) return <TurretTable seen={seen} sheet={seen.sheet.lathe} />;
  return <MillTable seen={seen} />;
}

function MillTable({ seen }: { seen: Observation }) {
  const { registers, modal, sheet } = seen;
  const scale = scales[sheet.unit];
  const show = (counts: number) => showCounts(counts, scale);
  const rows = Object.entries(registers.work).filter(
    ([name, row]) => name === modal.workOffset || row.x !== 0 || row.y !== 0 || row.z !== 0,
  );
  const { common } = registers;
  const isCommonZero = common.x === 0 && common.y === 0 && common.z === 0;
  const isUsed = (row: number) =>
    [registers.lengthGeometry, registers.lengthWear, registers.diameterGeometry, registers.diameterWear].some(
      (table) => (table[row] ?? 0) !== 0,
    );
  const tools = [...new Set([...sheet.tools.map(({ number }) => number), ...lengthRows.filter(isUsed)])].sort(
    (a, b) => a - b,
  );
  const hasDiameters =
    sheet.targets.diameters.length > 0 ||
    tools.some((row) => (registers.diameterGeometry[row] ?? 0) !== 0 || (registers.diameterWear[row] ?? 0) !== 0);
  const hasLengths = sheet.targets.lengths.length > 0 || !hasDiameters;
  const cell = "figures py-0.5 pr-2 text-right";
  const head = "pr-2 font-normal";
  return (
    <>
      <table className="w-full">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th />
            {AXES.map((axis) => (
              <th key={axis} className={head}>
                {axis.toUpperCase()}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, row]) => (
            <tr key={name} className="border-t border-rule-soft">
              <th scope="row" className="figures pl-2.5 text-left">
                {name.startsWith("P") ? `.1 ${name}` : name}
                {name === modal.workOffset ? (
                  <span className="font-sans text-xs font-normal text-ink2"> in use</span>
                ) : null}
              </th>
              {AXES.map((axis) => (
                <td key={axis} data-testid={`${name}.${axis}`} className={cell}>
                  {show(row[axis])}
                </td>
              ))}
            </tr>
          ))}
          {isCommonZero ? null : (
            <tr className="border-t border-rule-soft">
              <th scope="row" className="pl-2.5 text-left">
                common
              </th>
              {AXES.map((axis) => (
                <td key={axis} className={cell}>
                  {show(common[axis])}
                </td>
              ))}
            </tr>
          )}
        </tbody>
      </table>
      <p className="px-2.5 pb-1 text-xs text-ink2">other work offsets{isCommonZero ? " and common" : ""}: all zero</p>
      <table className="w-full border-t border-rule-soft">
        <thead>
          <tr className="text-right text-xs text-ink2">
            <th className="pl-2.5 text-left font-normal">Tool</th>
            {hasLengths ? (
              <>
                <th className={head}>Length</th>
                <th className={head}>Wear</th>
              </>
            ) : null}
            {hasDiameters ? (
              <>
                <th className={head}>{sheet.settings.diameterMode === "radius" ? "Radius" : "Diameter"}</th>
                <th className={head}>Wear</th>
              </>
            ) : null}
          </tr>
        </thead>
        <tbody>
          {tools.map((row) => {
            const tool = sheet.tools.find(({ number }) => number === row);
            return (
              <tr key={row} className="border-t border-rule-soft">
                <th scope="row" className="max-w-36 truncate pl-2.5 text-left font-normal">
                  <b className="figures">{row}</b>{" "}
                  {tool ? (
                    <span className="text-xs text-ink2">
                      {toolKindWords[tool.kind]} ⌀ {showLength(tool.diameterMm, scale, sheet.unit === "mm" ? 1 : 3)}
                    </span>
                  ) : (
                    <span className="text-xs text-ink2">no tool</span>
                  )}
                </th>
                {hasLengths ? (
                  <>
                    <td data-testid={`H${row}`} className={cell}>
                      {show(registers.lengthGeometry[row] ?? 0)}
                    </td>
                    <td data-testid={`HW${row}`} className={cell}>
                      {show(registers.lengthWear[row] ?? 0)}
                    </td>
                  </>
                ) : null}
                {hasDiameters ? (
                  <>
                    <td data-testid={`D${row}`} className={cell}>
                      {show(registers.diameterGeometry[row] ?? 0)}
                    </td>
                    <td data-testid={`DW${row}`} className={cell}>
                      {show(registers.diameterWear[row] ?? 0)}
                    </td>
                  </>
                ) : null}
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}
