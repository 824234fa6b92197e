/**
 * ISO 6983 words: text → words → blocks → moves, lazily. `readProgram` reads, `interpret` runs; dialects are tables.
 * Typed blocks are read by `readBlock`.
 */
export { readBlock, type Block, type BlockDiagnostic, type MotionMode } from "./parser";
export { lex, type Token } from "./lexer";
export { dialects, type Dialect } from "./dialects";
export { type Diagnostic, type DiagnosticCode } from "./diagnostics";
export { programReaches, toolEnvelopes, type Reach } from "./envelope";
export { programFacts, type ProgramFacts, type ToolCall } from "./facts";
export { type GaugeAxis, type GaugeCall, type GaugeCycle } from "./gauging";
export { interpret, type RunOptions } from "./interpret";
export { listMove, listMoves, type ListedMove } from "./listing";
export { movePoints } from "./chords";
export { type Move, type Step } from "./moves";
export { programPaths, type Stroke } from "./paths";
export { readProgram, type Program } from "./program";
