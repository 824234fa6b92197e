import { type Draft } from "../../lane/draft";
import { type LaneRules } from "../../lane/rules";
import { startSpindle } from "../../lane/spindle";
import { spindleRanges } from "../../lane/travel";
import { type LaneBase } from "../../lane/state";
import { type AxisCounts } from "../../registers";
import { drawBetween } from "../../random";
import { accept, refuse } from "../../result";
import { parseLengthMm, toCounts, toMm } from "../../units";
import { type Act, type Decides, type Decision } from "../act";
import { type CommandOf } from "../commands";
import { type EventOf } from "../events";
import { courseOf, placeAlong, struckBy, type Piece } from "./course";
import { isSameAsk, unsigned, withdrawn, type ProgramDesk } from "../../lane/programDesk";
import { gaugeAlarms, LIFT_MM, type AskKind } from "../../lane/programNames";
import { answerTo, asksOf, deepestMm, matteringTools, readHeld } from "./lookups";
import { notFollowed } from "./notFollowed";
import { type ProgramPorts } from "./ports";
import { cutsOf, partAct } from "./parts";
import { canBeRead } from "./readable";
import { renumbered } from "./renumber";
import type * as schema from "./schema";

/** How fast the axes go in rapid, mm/min, and how many pieces one command runs through at most. */
const RAPID_MM_PER_MIN = 12_000;
const MOST_PIECES = 60;
/** What a machine runs on by after something was met, mm. */
const OVERRUN_MM = { low: 0.2, high: 2 };
const MS_PER_MIN = 60_000;
/** The display stands at a height when it is so near, mm. */
const STANDS_WITHIN_MM = 0.5;
/** What hangs on units and work offset, wherever in the program they are said. */
const ABOUT_ALL: ReadonlySet<AskKind> = new Set(["units", "offset", "deepest"]);
const END_OF_LINE = /\r\n|\r|\n/;

/** How fast a probe goes to what it is to touch, mm/min. */
const GAUGE_MM_PER_MIN = 600;
type GaugePiece = Extract<Piece, { type: "gauge" }>;

const tidy = (mm: number): number => Math.round(mm * 1e4) / 1e4 || 0;

/** What is made of a move's feed, mm/min; a rapid goes by its own override. */
function speedOf(state: LaneBase, { move, lengthMm }: Extract<Piece, { type: "move" }>): number {
  const { pace, run } = state.program;
  if (move.kind === "rapid") return (RAPID_MM_PER_MIN * pace.rapidPercent) / 100;
  const { value = 0, per = "min" } = move.feed ?? {};
  const rpm = state.spindle.isOn ? state.spindle.rpm : 0;
  const perMin = { min: value, rev: value * rpm, inverse: value * lengthMm }[per];
  return run ? (perMin * pace.feedPercent) / 100 : 0;
}

/** The act of programs, on a machine that says this of itself. */
export function programAct<S extends LaneBase>(
  ports: ProgramPorts<S>,
  rules: Pick<LaneRules<S>, "spindleStarted">,
): Act<S, typeof schema> & { reset(lane: Decides<S, "reset">["reset"]): Decides<S, "reset">["reset"] } {
  const isLathe = ports.dialect === "lathe";

  function loadProgram({ state }: Draft<S>, { number, as, isConfirmed }: CommandOf<"loadProgram">): Decision {
    const there = state.setup.programs?.find((one) => one.number === number);
    if (!there) return refuse({ code: "programNotHere", number });
    if (state.program.held && !isConfirmed) return refuse({ code: "programHeld", number: state.program.held.number });
    return accept([{ type: "programLoaded", number, ...(as === undefined || as === number ? {} : { as }) }]);
  }

  function takeProgram({ state }: Draft<S>, { text, isConfirmed }: CommandOf<"takeProgram">): Decision {
    if (!state.isCoachOn) return refuse({ code: "ownProgramInPractice" });
    if (state.program.held && !isConfirmed) return refuse({ code: "programHeld", number: state.program.held.number });
    return accept([{ type: "programLoaded", number: 0, text }]);
  }

  function mendLine({ state }: Draft<S>, { line, text }: CommandOf<"mendLine">): Decision {
    const { held } = state.program;
    const stands = held?.lines[line - 1];
    if (!held || stands === undefined) return refuse({ code: "noProgram" });
    if (END_OF_LINE.test(text)) return refuse({ code: "oneLineOnly" });
    return text === stands ? refuse({ code: "nothingChanges" }) : accept([{ type: "lineMended", line, text }]);
  }

  function lookUp({ state }: Draft<S>, { ask, tool, text, isSound }: CommandOf<"lookUp">): Decision {
    const said = text.trim();
    const answer = answerTo(ports, state, { ask, tool: tool ?? null });
    if (!answer) return refuse({ code: "noProgram" });
    if (!canBeRead(ask, said, state.setup.unit)) return refuse({ code: "answerUnreadable", ask, tool: tool ?? null });
    return accept([
      {
        type: "lookedUp",
        ask,
        tool,
        said,
        isSound,
        reads: [...answer.reads],
        lines: [...answer.lines],
        isRight: answer.isRight(said),
        isAsItShould: answer.isAsItShould,
      },
    ]);
  }

  function judgeDeepest({ state }: Draft<S>, { tool, outcome }: CommandOf<"judgeDeepest">): Decision {
    const read = readHeld(ports, state);
    const answer = answerTo(ports, state, { ask: "deepest", tool });
    const held = answerTo(ports, state, { ask: "held", tool });
    const deepest = read && deepestMm(read, tool);
    if (!answer || deepest === null) return refuse({ code: "noProgram" });
    if (ports.hangs(state) !== ports.brings(state, tool)) return refuse({ code: "toolFirst", tool });
    return accept([
      {
        type: "deepestJudged",
        tool,
        outcome,
        reads: [...(held?.reads ?? []), `${state.modal.workOffset}.z`, "common.z"],
        // of a program of one's own nothing is marked, and it may be of any length
        really: state.program.held?.number !== 0 && struckBy(ports, state, tool) ? "wouldHit" : "clear",
        isMattering: isMattering(state, tool),
        isStood: Math.abs(ports.displayMm(state) - deepest) <= STANDS_WITHIN_MM,
      },
    ]);
  }

  /** Where no tool comes over what holds the part, any may be looked at. */
  function isMattering(state: S, tool: number): boolean {
    const tools = matteringTools(ports, state);
    return tools.size === 0 || tools.has(tool);
  }

  function startCycle({ state }: Draft<S>, { fromTool, isUnread }: CommandOf<"startCycle">): Decision {
    const read = readHeld(ports, state);
    if (!read) return refuse({ code: "noProgram" });
    const [wrong] = read.program.diagnostics;
    if (wrong) return refuse({ code: "programWrong", line: wrong.line, problem: wrong.code, said: wrong.said });
    const left = notFollowed(read.program);
    if (left) return refuse({ code: "programNotFollowed", ...left });
    if (!state.isHomed) return refuse({ code: "notHomed" });
    if (state.isDoorOpen) return refuse({ code: "doorOpenMotion" });
    const problem = ports.startProblem(state);
    if (problem) return refuse(problem);
    if (wantsSignature(state) && state.program.signature.state !== "given") return refuse({ code: "notSigned" });
    if (fromTool === undefined) return accept([{ type: "cycleStarted", fromLine: 0 }]);
    const block = read.program.blocks.find(({ letters, values }) =>
      [...letters].some((letter, at) => letter === "T" && toolOfWord(values[at]) === fromTool),
    );
    return block
      ? accept([{ type: "cycleStarted", fromLine: block.line, ...(isUnread ? { isUnread } : {}) }])
      : refuse({ code: "toolNotCalled", tool: fromTool });
  }
  const toolOfWord = (value: unknown): number | null => {
    if (typeof value !== "number") return null;
    return isLathe ? Math.trunc(value / 100) : value;
  };

  const countsAt = (state: S, place: readonly number[]): AxisCounts => {
    const at = { ...state.position } as Record<"x" | "y" | "z", number>;
    ports.axes.forEach((axis, i) => (at[axis] = toCounts(place[i] ?? 0, state.scale)));
    return at;
  };

  /** Spindle as a move wants it; false where it cannot turn, and the machine stands. */
  function turn(draft: Draft<S>, piece: Extract<Piece, { type: "move" }>): boolean {
    const { spindle, setup, rememberedRpm } = draft.state;
    const { move } = piece;
    if (move.spindle === "stopped") {
      if (spindle.isOn) draft.emit({ type: "spindleStopped" });
      return true;
    }
    const { lowestRpm, highestRpm } = spindleRanges[setup.kind];
    const asked = move.speed && !move.speed.isSurface ? Math.round(move.speed.value) : rememberedRpm;
    const rpm = Math.min(highestRpm, Math.max(lowestRpm, asked));
    if (spindle.isOn && spindle.direction === move.spindle && spindle.rpm === rpm) return true;
    startSpindle(rules, draft, { direction: move.spindle, rpm, isStated: move.speed !== null });
    return !draft.state.isStopped;
  }

  /** Where along a piece the machine stands after something was met on it, mm. */
  function haltedAt(state: S, met: { readonly alongMm: number; readonly kind: string }, lengthMm: number): number {
    if (met.kind === "past-travel") return met.alongMm;
    const { low, high } = OVERRUN_MM;
    return Math.min(
      lengthMm,
      met.alongMm + drawBetween(low, high, state.truth.seed, "overrun", state.incidents.length),
    );
  }

  function ended(draft: Draft<S>, end: Omit<EventOf<"runEnded">, "type">): void {
    draft.emit({ type: "runEnded", ...end });
  }

  /** A run that is stopped after it met something, and before that was noticed: it is noticed now. */
  function haltIfMet(draft: Draft<S>): boolean {
    const { run } = draft.state.program;
    const met = run && courseOf(ports, run).contact(run.piece);
    // what has not begun has met nothing
    if (!run || !met || run.alongMm === 0 || met.alongMm > run.alongMm) return false;
    ports.struck(draft, met.kind);
    ended(draft, { why: "contact", line: run.line, met: met.kind, with: met.with });
    return true;
  }

  /** Goes on along one move for so long, min; what is left of the time. */
  function goOn(draft: Draft<S>, number: number, piece: Extract<Piece, { type: "move" }>, minutes: number): number {
    if (!turn(draft, piece)) {
      ended(draft, { why: "wrong", line: piece.line, code: "spindle-stands" });
      return 0;
    }
    ports.sync(draft, piece.move);
    const { state } = draft;
    const { run } = state.program;
    const course = run && courseOf(ports, run);
    if (!run || !course) return 0;
    const speed = speedOf(state, piece);
    const remaining = piece.lengthMm - run.alongMm;
    const wanted = speed * minutes;
    const met = course.contact(number);
    const alongMm = Math.min(piece.lengthMm, run.alongMm + wanted);
    const reads = readsOf(piece);
    const to = (mm: number) => ({
      type: "ran" as const,
      piece: number,
      alongMm: tidy(mm),
      line: piece.line,
      to: countsAt(state, placeAlong(piece.path, mm, isLathe)),
      isRapid: piece.move.kind === "rapid",
      reads,
    });
    // it is noticed a little late, and it runs on till then: where it was met stands nowhere, however small the steps
    const haltMm = met ? haltedAt(state, met, piece.lengthMm) : Infinity;
    if (met && haltMm <= alongMm) {
      draft.emit(to(haltMm));
      ports.struck(draft, met.kind);
      ended(draft, { why: "contact", line: piece.line, met: met.kind, with: met.with });
      return 0;
    }
    draft.emit(to(alongMm));
    if (alongMm < piece.lengthMm || speed <= 0) return 0;
    return minutes - remaining / speed;
  }

  /** Goes on along the way of a probe for so long, min; what is left of the time. */
  function goGauging(draft: Draft<S>, number: number, piece: GaugePiece, minutes: number): number {
    if (draft.state.spindle.isOn) draft.emit({ type: "spindleStopped" });
    const { run, pace } = draft.state.program;
    if (!run) return 0;
    const speed = (GAUGE_MM_PER_MIN * pace.feedPercent) / 100;
    const alongMm = Math.min(piece.lengthMm, run.alongMm + speed * minutes);
    const { line, path } = piece;
    const to = countsAt(draft.state, placeAlong(path, alongMm, isLathe));
    draft.emit({ type: "ran", piece: number, alongMm: tidy(alongMm), line, to, isRapid: false, reads: [] });
    if (alongMm < piece.lengthMm) return 0;
    const remaining = piece.lengthMm - run.alongMm;
    tellGauged(draft, piece);
    return remaining === 0 ? minutes : minutes - remaining / speed;
  }

  /** What a gauging came to: printed, written, or the run stopped. */
  function tellGauged(draft: Draft<S>, { line, gauged }: GaugePiece): void {
    const { call, outcome, readsMm, reallyMm, targetMm, written } = gauged;
    const { program, scale, position } = draft.state;
    draft.emit({
      type: "gauged",
      part: program.parts.current,
      cut: cutsOf(draft.state) + 1,
      line,
      axis: call.axis,
      mm: readsMm,
      targetMm,
      outcome,
      register: written?.register ?? null,
      changeMm: written && tidy(toMm(written.to - written.from, scale)),
      reallyMm,
    });
    if (outcome === "written" && written)
      draft.emit({ type: "registerChanged", ...written, how: "byProgram", machine: position });
    if (gaugeAlarms.has(outcome)) ended(draft, { why: "alarm", line, code: outcome });
  }

  const readsOf = ({ move }: Extract<Piece, { type: "move" }>) =>
    move.isMachineFrame || (move.isReturn && move.named === 0)
      ? []
      : ports.axes.flatMap((axis, at) =>
          (move.named & (1 << at)) === 0
            ? []
            : [
                `common.${axis}` as const,
                ...(/^G5[4-9]$/.test(move.frame) ? [`${move.frame}.${axis}` as `G54.x`] : []),
                ...(axis === "z" && move.row !== null ? ports.rowRegisters(move.row) : []),
              ],
        );

  /** After a piece is done: the next one, unless the run stands still here. */
  function stepped(draft: Draft<S>, number: number, piece: Piece): void {
    const { run, pace } = draft.state.program;
    if (!run) return;
    const next = courseOf(ports, run).piece(number + 1);
    if (piece.type === "stop" && (!piece.isOptional || pace.stopsAtOptional))
      draft.emit({ type: "runHeld", why: piece.isOptional ? "optional" : "stop", line: piece.line });
    else if (pace.isSingle && next && next.line !== piece.line)
      draft.emit({ type: "runHeld", why: "block", line: next.line });
  }

  function runOn(draft: Draft<S>, { ms }: CommandOf<"runOn">): Decision {
    if (!draft.state.program.run) return refuse({ code: "cycleNotStarted" });
    if (draft.state.program.run.held) return refuse({ code: "cycleHeld" });
    let minutes = ms / MS_PER_MIN;
    for (let turns = 0; turns < MOST_PIECES; turns++) {
      const { run } = draft.state.program;
      if (!run || run.held || draft.state.isStopped) break;
      const piece = courseOf(ports, run).piece(run.piece);
      if (!piece || piece.type === "end") {
        if (draft.state.spindle.isOn) draft.emit({ type: "spindleStopped" });
        ended(draft, { why: "end", line: piece?.line ?? run.line });
        break;
      }
      if (piece.type === "wrong") {
        ended(draft, { why: "wrong", line: piece.line, code: piece.code });
        break;
      }
      if (piece.type === "move") {
        minutes = goOn(draft, run.piece, piece, minutes);
        const now = draft.state.program.run;
        if (!now || now.alongMm < piece.lengthMm - 1e-3) break;
      } else if (piece.type === "gauge") {
        minutes = goGauging(draft, run.piece, piece, minutes);
        const now = draft.state.program.run;
        if (!now || now.alongMm < piece.lengthMm - 1e-3) break;
      } else if (piece.type === "write") {
        for (const { register, from, to } of piece.written)
          draft.emit({ type: "registerChanged", register, from, to, how: "byProgram", machine: draft.state.position });
      } else if (piece.type === "tool") {
        if (draft.state.spindle.isOn) draft.emit({ type: "spindleStopped" });
        const stands = ports.changeTool(draft, piece.tool);
        if (stands !== null) {
          ended(draft, { why: "wrong", line: piece.line, code: stands });
          break;
        }
        if (draft.state.isStopped) {
          ended(draft, { why: "contact", line: piece.line, met: "changer", with: "changer" });
          break;
        }
      }
      draft.emit({ type: "pieceDone", piece: run.piece + 1, line: piece.line });
      stepped(draft, run.piece, piece);
      if (minutes <= 0) break;
    }
    return accept(draft.events);
  }

  /** Before the first cut where the exercise has it so; in the air, and in practice, nobody signs. */
  const wantsSignature = ({ setup, isCoachOn, registers, scale }: S): boolean =>
    setup.signsOff === true && !isCoachOn && registers.common.z < toCounts(LIFT_MM, scale);

  function sayGap({ state }: Draft<S>, { text, isAlike }: CommandOf<"sayGap">): Decision {
    const { run } = state.program;
    if (!run) return refuse({ code: "cycleNotStarted" });
    if (!run.held) return refuse({ code: "holdFirst" });
    const read = parseLengthMm(text, state.setup.unit);
    if (!read.ok) return refuse({ code: "text", problem: read.error });
    const displayMm = ports.displayMm(state);
    return accept([
      {
        type: "gapSaid",
        mm: tidy(read.value),
        displayMm: tidy(displayMm),
        offMm: tidy(ports.reallyMm(state) - displayMm),
        tool: ports.hangs(state),
        isAlike,
      },
    ]);
  }

  const on = (state: S, change: Partial<ProgramDesk>): S => ({ ...state, program: { ...state.program, ...change } });

  /** What there is to be looked up of the program as it stands now; of what it no longer calls nothing is kept. */
  function asked(state: S): S {
    const asks = asksOf(ports, state);
    const isThere = (one: (typeof asks)[number]) => asks.some((ask) => isSameAsk(ask, one));
    const { looked, withdrawn: gone } = state.program;
    return on(state, { asks, looked: looked.filter(isThere), withdrawn: gone.filter(isThere) });
  }

  const parts = partAct(ports);

  return {
    reset: (lane) => (draft, command) => {
      // the machine stops as after any strike, and is reset after that
      return haltIfMet(draft) ? accept(draft.events) : lane(draft, command);
    },
    decide: {
      loadProgram,
      takeProgram,
      mendLine,
      lookUp,
      judgeDeepest,
      askSignature: ({ state }) => {
        if (!state.program.held) return refuse({ code: "noProgram" });
        if (state.program.signature.state === "given") return refuse({ code: "signedAlready" });
        return accept([{ type: "signatureAsked" }, ...(state.isHandUp ? [] : [{ type: "handRaised" } as const])]);
      },
      startCycle,
      runOn,
      sayGap,
      holdCycle: (draft) => {
        const { program } = draft.state;
        if (!program.run) return refuse({ code: "cycleNotStarted" });
        if (!program.run.held && haltIfMet(draft)) return accept(draft.events);
        return program.run.held
          ? refuse({ code: "cycleHeld" })
          : accept([{ type: "runHeld", why: "hand", line: program.run.line }]);
      },
      resumeCycle: ({ state: { program } }) =>
        program.run?.held ? accept([{ type: "runResumed" }]) : refuse({ code: "cycleNotStarted" }),
      ...parts.decide,
      setPace: (_draft, { type: _type, ...pace }) => accept([{ type: "paceSet", ...pace }]),
    },
    evolve: {
      programLoaded: (state, { number, as, text }) => {
        const there = text ?? state.setup.programs?.find((one) => one.number === number)?.text ?? "";
        const isAll = () => true;
        return asked(
          on(state, {
            ...withdrawn(state.program, isAll, 0, isAll),
            signature: unsigned(state.program.signature, 0),
            held: { number, as: as ?? number, lines: renumbered(there.split(END_OF_LINE), as), mended: [] },
            last: null,
          }),
        );
      },
      lineMended: (state, { line, text }) => {
        const { held } = state.program;
        if (!held) return state;
        const lines = held.lines.with(line - 1, text);
        const isAboutAll = /G\s*(2[01]|5[4-9])\b/i.test(`${held.lines[line - 1]} ${text}`);
        const after = withdrawn(
          state.program,
          (one) => one.lines.includes(line) || (isAboutAll && ABOUT_ALL.has(one.ask)),
          line,
          () => true,
        );
        const signature = unsigned(state.program.signature, line);
        return asked(on(state, { ...after, signature, held: { ...held, lines, mended: [...held.mended, line] } }));
      },
      lookedUp: (state, { ask, tool, said, isSound, isRight, reads, lines }) => {
        const one = { ask, tool: tool ?? null, said, isSound, isRight, reads, lines };
        return on(state, {
          looked: [...state.program.looked.filter((other) => !isSameAsk(other, one)), one],
          withdrawn: state.program.withdrawn.filter((other) => !isSameAsk(other, one)),
        });
      },
      deepestJudged: (state, { tool, outcome, reads }) =>
        on(state, {
          deepest: [...state.program.deepest.filter((one) => one.tool !== tool), { tool, outcome, reads }],
        }),
      signatureAsked: (state) => on(state, { signature: { state: "asked" } }),
      signatureGiven: (state, { by }) => on(state, { signature: { state: "given", by } }),
      signatureSentBack: (state, { by, word }) => on(state, { signature: { state: "sentBack", by, word } }),
      paceSet: (state, { type: _type, ...pace }) => on(state, { pace: { ...state.program.pace, ...pace } }),
      cycleStarted: (state, { fromLine, isUnread = false }) =>
        on(state, {
          run: { before: state, fromLine, isUnread, piece: 0, alongMm: 0, line: fromLine, held: null },
          last: null,
        }),
      ran: (state, { piece, alongMm, line, to }) => {
        const { run } = state.program;
        return { ...on(state, { run: run && { ...run, piece, alongMm, line } }), position: to };
      },
      pieceDone: (state, { piece, line }) => {
        const { run } = state.program;
        return on(state, { run: run && { ...run, piece, alongMm: 0, line } });
      },
      runHeld: (state, { why, line }) => {
        const { run } = state.program;
        return on(state, { run: run && { ...run, held: why, line } });
      },
      runResumed: (state) => {
        const { run } = state.program;
        return on(state, { run: run && { ...run, held: null } });
      },
      runEnded: (state, { type: _type, ...last }) => {
        const { run, done, parts } = state.program;
        return on(state, {
          run: null,
          last,
          done: run ? [...done, { run, why: last.why }] : done,
          parts: { ...parts, isWarm: true },
        });
      },
      ...parts.evolve,
      gauged: (state, { type: _type, ...one }) => on(state, { gauged: [...state.program.gauged, one] }),
      gapSaid: (state, { mm, displayMm, isAlike }) =>
        on(state, { gaps: [...state.program.gaps, { mm, displayMm, isAlike }] }),
    },
    needsPower: ["startCycle", "runOn", "resumeCycle"],
    whileStopped: ["loadProgram", "takeProgram", "mendLine", "lookUp", "setPace", "askSignature"],
  };
}
