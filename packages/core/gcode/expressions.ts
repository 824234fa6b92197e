import { type Cursor } from "./cursor";
import { Wrong } from "./diagnostics";

/**
 * number  := product { ("+" | "−") product }
 * product := factor { ("*" | "/" | MOD) factor }
 * factor  := sign factor | number | "#" (digits | "#"… | "[" number "]") | NAME "[" number "]" | "[" number "]"
 * truth   := both { OR both };  both := claim { AND claim };  claim := "[" truth "]" | number COMPARISON number
 */
type Named = "SIN" | "COS" | "TAN" | "SQRT" | "ABS" | "ROUND" | "FIX" | "FUP" | "ATAN";
type Comparison = "EQ" | "NE" | "GT" | "GE" | "LT" | "LE";

export type Expression =
  | number
  | { readonly op: "variable"; readonly of: Expression }
  | { readonly op: "negative"; readonly of: Expression }
  | { readonly op: Named; readonly of: Expression }
  | { readonly op: "+" | "-" | "*" | "/" | "MOD" | "ATAN2"; readonly a: Expression; readonly b: Expression };

type Compared = { readonly op: Comparison; readonly a: Expression; readonly b: Expression };
export type Truth =
  | Compared
  | { readonly op: "AND"; readonly a: Truth; readonly b: Truth }
  | { readonly op: "OR"; readonly a: Truth; readonly b: Truth };

/** The value of a variable; null where it is empty. Throws `Wrong("value")` where there is no such variable. */
export type Variables = (index: number) => number | null;

const NAMED: readonly Named[] = ["SIN", "COS", "TAN", "SQRT", "ABS", "ROUND", "FIX", "FUP", "ATAN"];
const COMPARISONS: readonly Comparison[] = ["EQ", "NE", "GT", "GE", "LT", "LE"];

/** Brackets within brackets, and signs before signs: deeper than any program needs. */
const DEEPEST = 40;

function close(cursor: Cursor): void {
  if (!cursor.take("]")) throw new Wrong(Number.isNaN(cursor.next()) ? "bracket" : "expression", cursor.at);
}

function bracketed(cursor: Cursor, depth: number): Expression {
  if (!cursor.take("[")) throw new Wrong("expression", cursor.at);
  const inner = sum(cursor, depth + 1);
  close(cursor);
  return inner;
}

function named(cursor: Cursor, depth: number): Expression {
  const name = NAMED.find((one) => cursor.takeWord(one));
  if (!name) throw new Wrong("expression", cursor.at, cursor.text.slice(cursor.at, cursor.at + 6));
  const of = bracketed(cursor, depth);
  if (name !== "ATAN") return { op: name, of };
  const back = cursor.at;
  if (cursor.take("/") && cursor.next() === "[".charCodeAt(0))
    return { op: "ATAN2", a: of, b: bracketed(cursor, depth) };
  cursor.at = back;
  return { op: "ATAN", of };
}

function factor(cursor: Cursor, depth: number): Expression {
  if (depth > DEEPEST) throw new Wrong("expression", cursor.at);
  const code = cursor.next();
  if (Number.isNaN(code)) throw new Wrong("expression", cursor.at);
  const char = String.fromCharCode(code);
  if (char === "+" || char === "-") {
    const isNegative = cursor.sign() < 0;
    const of = factor(cursor, depth + 1);
    return isNegative ? { op: "negative", of } : of;
  }
  if (char === "[") return bracketed(cursor, depth);
  if (char === "#") return variable(cursor, depth);
  if (/[\d.]/.test(char)) return cursor.number();
  return named(cursor, depth);
}

/** `#12`, `##3` or `#[…]`: the variable itself, without its value. */
function variable(cursor: Cursor, depth: number): Expression {
  cursor.take("#");
  const code = cursor.next();
  const char = String.fromCharCode(code);
  if (depth > DEEPEST || Number.isNaN(code)) throw new Wrong("expression", cursor.at);
  if (char === "#") return { op: "variable", of: variable(cursor, depth + 1) };
  if (char === "[") return { op: "variable", of: bracketed(cursor, depth) };
  if (!/\d/.test(char)) throw new Wrong("expression", cursor.at);
  return { op: "variable", of: cursor.number() };
}

function product(cursor: Cursor, depth: number): Expression {
  let left = factor(cursor, depth);
  for (;;) {
    if (cursor.take("*")) left = { op: "*", a: left, b: factor(cursor, depth) };
    else if (cursor.take("/")) left = { op: "/", a: left, b: factor(cursor, depth) };
    else if (cursor.takeWord("MOD")) left = { op: "MOD", a: left, b: factor(cursor, depth) };
    else return left;
  }
}

function sum(cursor: Cursor, depth: number): Expression {
  let left = product(cursor, depth);
  for (;;) {
    if (cursor.take("+")) left = { op: "+", a: left, b: product(cursor, depth) };
    else if (cursor.take("-")) left = { op: "-", a: left, b: product(cursor, depth) };
    else return left;
  }
}

/** A whole sum, as on the right of an assignment. */
export const readSum = (cursor: Cursor): Expression => sum(cursor, 0);

/** What stands behind a letter, or behind GOTO: a variable or a bracket, its sign before it. */
export function readValue(cursor: Cursor): Expression {
  const isNegative = cursor.sign() < 0;
  const code = cursor.next();
  const isSum = code === "#".charCodeAt(0) || code === "[".charCodeAt(0);
  if (!isSum) return isNegative ? -cursor.number() || 0 : cursor.number();
  const of = factor(cursor, 0);
  return isNegative ? { op: "negative", of } : of;
}

/** The variable to which something is assigned: its number. The cursor stands before `#`. */
export function readTarget(cursor: Cursor): Expression {
  const target = variable(cursor, 0);
  return typeof target === "object" && target.op === "variable" ? target.of : target;
}

function claim(cursor: Cursor, depth: number): Truth {
  if (depth > DEEPEST) throw new Wrong("expression", cursor.at);
  const back = cursor.at;
  if (cursor.take("[")) {
    // a bracket opens a claim of its own, or only a sum: which one shows at its end
    try {
      const inner = truth(cursor, depth + 1);
      if (cursor.take("]") && !COMPARISONS.some((word) => peekWord(cursor, word)) && !isOperator(cursor.next()))
        return inner;
    } catch (error) {
      if (!(error instanceof Wrong) || error.code === "bracket") throw error;
    }
    cursor.at = back;
  }
  const a = sum(cursor, depth + 1);
  const op = COMPARISONS.find((word) => cursor.takeWord(word));
  if (!op) throw new Wrong(Number.isNaN(cursor.next()) ? "bracket" : "expression", cursor.at);
  return { op, a, b: sum(cursor, depth + 1) };
}

const isOperator = (code: number): boolean => !Number.isNaN(code) && "+-*/".includes(String.fromCharCode(code));

function peekWord(cursor: Cursor, word: string): boolean {
  const back = cursor.at;
  const is = cursor.takeWord(word);
  cursor.at = back;
  return is;
}

function both(cursor: Cursor, depth: number): Truth {
  let left = claim(cursor, depth);
  while (cursor.takeWord("AND")) left = { op: "AND", a: left, b: claim(cursor, depth) };
  return left;
}

function truth(cursor: Cursor, depth: number): Truth {
  let left = both(cursor, depth);
  while (cursor.takeWord("OR")) left = { op: "OR", a: left, b: both(cursor, depth) };
  return left;
}

/** `[…]` behind IF or WHILE. */
export function readTruth(cursor: Cursor): Truth {
  if (!cursor.take("[")) throw new Wrong("expression", cursor.at);
  const inner = truth(cursor, 0);
  close(cursor);
  return inner;
}

const RAD = Math.PI / 180;
/** Nearer to a right angle than this the tangent is no number that a machine could go to. */
const RIGHT_ANGLE = 1e-9;

const named1: Record<Named, (value: number) => number> = {
  SIN: (v) => Math.sin(v * RAD),
  COS: (v) => Math.cos(v * RAD),
  TAN: (v) => {
    if (Math.abs(Math.cos(v * RAD)) < RIGHT_ANGLE) throw new Wrong("value");
    return Math.tan(v * RAD);
  },
  SQRT: (v) => {
    if (v < 0) throw new Wrong("value");
    return Math.sqrt(v);
  },
  ABS: Math.abs,
  ROUND: (v) => Math.sign(v) * Math.floor(Math.abs(v) + 0.5),
  FIX: Math.trunc,
  FUP: (v) => Math.sign(v) * Math.ceil(Math.abs(v)),
  ATAN: (v) => Math.atan(v) / RAD,
};

function divided(a: number, b: number, isRest: boolean): number {
  if (b === 0) throw new Wrong("division-by-zero");
  return isRest ? a % b : a / b;
}

function two(op: "+" | "-" | "*" | "/" | "MOD" | "ATAN2", a: number, b: number): number {
  switch (op) {
    case "+":
      return a + b;
    case "-":
      return a - b;
    case "*":
      return a * b;
    case "/":
      return divided(a, b, false);
    case "MOD":
      return divided(a, b, true);
    case "ATAN2": {
      const angle = Math.atan2(a, b) / RAD;
      return angle < 0 ? angle + 360 : angle;
    }
  }
}

/**
 * The value of a sum; null where it is an empty variable and nothing else (a word with it is as if not written). In
 * sums an empty one counts 0. Throws `Wrong` with `value` or `division-by-zero`.
 */
export function evaluate(expression: Expression, variables: Variables): number | null {
  if (typeof expression === "number") return expression;
  const of = (inner: Expression): number => evaluate(inner, variables) ?? 0;
  if (expression.op === "variable") return variables(of(expression.of));
  if (expression.op === "negative") {
    const value = evaluate(expression.of, variables);
    return value === null ? null : -value || 0;
  }
  const value =
    "of" in expression
      ? named1[expression.op](of(expression.of))
      : two(expression.op, of(expression.a), of(expression.b));
  if (!Number.isFinite(value)) throw new Wrong("value");
  return value;
}

const compare: Record<Comparison, (a: number | null, b: number | null) => boolean> = {
  EQ: (a, b) => a === b,
  NE: (a, b) => a !== b,
  GT: (a, b) => (a ?? 0) > (b ?? 0),
  GE: (a, b) => (a ?? 0) >= (b ?? 0),
  LT: (a, b) => (a ?? 0) < (b ?? 0),
  LE: (a, b) => (a ?? 0) <= (b ?? 0),
};

/** Whether a comparison holds: EQ and NE tell an empty variable from 0, the others count it as 0. */
export function holds(claimed: Truth, variables: Variables): boolean {
  if (claimed.op === "AND") return holds(claimed.a, variables) && holds(claimed.b, variables);
  if (claimed.op === "OR") return holds(claimed.a, variables) || holds(claimed.b, variables);
  return compare[claimed.op](evaluate(claimed.a, variables), evaluate(claimed.b, variables));
}
