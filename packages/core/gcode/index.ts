/** Blocks of ISO 6983 words: text → tokens → a checked block. Typed blocks and programs share this reader. */
export { readBlock, type Block, type BlockDiagnostic, type Dialect, type MotionMode } from "./parser";
export { lex, type Token } from "./lexer";
