import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { lintGutter, setDiagnostics, type Diagnostic as EditorMark } from "@codemirror/lint";
import { EditorSelection, EditorState, StateEffect, StateField } from "@codemirror/state";
import {
  Decoration,
  type DecorationSet,
  drawSelection,
  EditorView,
  highlightActiveLine,
  keymap,
  lineNumbers,
} from "@codemirror/view";
import type { Diagnostic } from "@probe-lane/core/gcode";
import { programWords } from "@probe-lane/core/words";
import { useEffect, useImperativeHandle, useRef, type Ref } from "react";
import { programLanguage } from "./highlight";

export interface EditorHandle {
  goTo(line: number, column: number): void;
}

const LOOK = EditorView.theme({
  "&": { height: "100%", fontSize: "14px", backgroundColor: "var(--field)", color: "var(--ink)" },
  "&.cm-focused": { outline: "2px solid var(--expected)", outlineOffset: "-2px" },
  ".cm-scroller": { fontFamily: "'Atkinson Hyperlegible Mono Variable', monospace", lineHeight: "1.45" },
  ".cm-gutters": { backgroundColor: "var(--panel)", color: "var(--ink2)", borderRight: "1px solid var(--rule)" },
  ".cm-activeLine, .cm-activeLineGutter": { backgroundColor: "var(--contact-soft)" },
  ".running-line": {
    backgroundColor: "var(--contact-soft)",
    boxShadow: "inset 4px 0 var(--contact)",
    fontWeight: "700",
  },
  ".cm-cursor": { borderLeftColor: "var(--ink)" },
  ".cm-selectionBackground, &.cm-focused .cm-selectionBackground": {
    backgroundColor: "var(--expected-soft) !important",
  },
  ".cm-lintRange-error": {
    backgroundImage: "none",
    textDecoration: "underline wavy var(--contact)",
    textUnderlineOffset: "3px",
  },
  ".cm-lint-marker-error": {
    content: '""',
    width: "0",
    height: "0",
    margin: "4px 2px",
    borderLeft: "8px solid var(--contact)",
    borderTop: "5px solid transparent",
    borderBottom: "5px solid transparent",
  },
  ".cm-diagnostic-error": { borderLeft: "4px solid var(--contact)" },
  ".cm-tooltip": { backgroundColor: "var(--panel)", color: "var(--ink)", border: "1px solid var(--contact)" },
});

/** The line that is chosen in a program that is only read: cool, so that the one that runs stands out. */
const CHOSEN = EditorView.theme({
  ".cm-activeLine, .cm-activeLineGutter": { backgroundColor: "var(--expected-soft)" },
  ".cm-activeLine.running-line": { backgroundColor: "var(--contact-soft)" },
});

const setRunning = StateEffect.define<number | null>();
const RUNNING = Decoration.line({ class: "running-line" });

/** The line that runs, or that is next, marked in its text. */
const runningLine = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update: (marks, { effects, state, docChanged, changes }) => {
    for (const effect of effects)
      if (effect.is(setRunning)) {
        const line = effect.value;
        return line === null || line < 1 || line > state.doc.lines
          ? Decoration.none
          : Decoration.set([RUNNING.range(state.doc.line(line).from)]);
      }
    return docChanged ? marks.map(changes) : marks;
  },
  provide: (field) => EditorView.decorations.from(field),
});

/** A program being written, with what is wrong underlined where it stands. */
export function ProgramEditor({
  text,
  diagnostics,
  onChange,
  onLine,
  isReadOnly = false,
  running = null,
  ref,
}: {
  text: string;
  diagnostics: readonly Diagnostic[];
  onChange?(text: string): void;
  /** A line was chosen, by its number and text. */
  onLine?(line: number, text: string): void;
  isReadOnly?: boolean;
  /** The line that runs, or that is next. */
  running?: number | null;
  ref?: Ref<EditorHandle>;
}) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const told = useRef({ onChange, onLine });
  useEffect(() => {
    told.current = { onChange, onLine };
  });
  // an editor is for writing or for reading as long as it stands
  const isForReading = useRef(isReadOnly);
  useEffect(() => {
    if (!place.current) return undefined;
    const editor = new EditorView({
      parent: place.current,
      state: EditorState.create({
        doc: "",
        extensions: [
          lineNumbers(),
          history(),
          drawSelection(),
          highlightActiveLine(),
          lintGutter(),
          keymap.of([...defaultKeymap, ...historyKeymap]),
          programLanguage,
          // before the look that it differs from
          ...(isForReading.current ? [CHOSEN] : []),
          LOOK,
          runningLine,
          EditorState.readOnly.of(isForReading.current),
          EditorView.contentAttributes.of({
            "aria-label": "Program",
            tabindex: "0",
            spellcheck: "false",
            autocapitalize: "characters",
          }),
          EditorView.updateListener.of(({ docChanged, selectionSet, state }) => {
            if (docChanged) told.current.onChange?.(state.doc.toString());
            if (!selectionSet) return;
            const line = state.doc.lineAt(state.selection.main.head);
            told.current.onLine?.(line.number, line.text);
          }),
        ],
      }),
    });
    view.current = editor;
    return () => {
      view.current = null;
      editor.destroy();
    };
  }, []);
  useEffect(() => {
    const editor = view.current;
    if (!editor || editor.state.doc.toString() === text) return;
    editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: text } });
  }, [text]);
  useEffect(() => {
    const editor = view.current;
    if (!editor) return;
    const { doc } = editor.state;
    const marks = diagnostics
      .filter(({ line }) => line >= 1 && line <= doc.lines)
      .map(({ line, column, code, said }): EditorMark => {
        const at = doc.line(line);
        const from = Math.min(at.from + column - 1, at.to);
        const to = said === "" ? at.to : Math.min(from + said.length, at.to);
        return { from, to: Math.max(from, to), severity: "error", message: programWords({ code, said }) };
      });
    editor.dispatch(setDiagnostics(editor.state, marks));
  }, [diagnostics]);
  useEffect(() => {
    const editor = view.current;
    if (!editor) return;
    const line = running !== null && running >= 1 && running <= editor.state.doc.lines ? running : null;
    editor.dispatch({
      effects: [
        setRunning.of(line),
        ...(line === null ? [] : [EditorView.scrollIntoView(editor.state.doc.line(line).from, { y: "center" })]),
      ],
    });
  }, [running, text]);
  useImperativeHandle(ref, () => ({
    goTo: (line, column) => {
      const editor = view.current;
      if (!editor) return;
      const at = editor.state.doc.line(Math.min(Math.max(line, 1), editor.state.doc.lines));
      const place = Math.min(at.from + column - 1, at.to);
      editor.dispatch({
        selection: EditorSelection.cursor(place),
        effects: EditorView.scrollIntoView(place, { y: "center" }),
      });
      editor.focus();
    },
  }));
  return <div ref={place} className="h-full min-h-0 overflow-hidden" data-testid="program" />;
}
