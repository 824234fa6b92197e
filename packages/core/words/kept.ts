import type { KeptChangeKind, KeptSetup, KeptThing } from "../exercises";

type Row = KeptSetup["rows"][number];

const THINGS: Record<KeptThing, string> = {
  machine: "machine",
  vise: "vise",
  stop: "stop",
  parallels: "parallels",
  tool: "tool",
  stock: "stock",
  coolant: "coolant",
  setBy: "set by",
};

/** What stood on the card when the setup was kept. */
const THEN: Record<KeptThing, string> = {
  machine: "mill 2",
  vise: "on the table, not taken off since",
  stop: "at the left end of the fixed jaw",
  parallels: "20 high",
  tool: "in its holder, not taken out since",
  stock: "sawn from bar 14",
  coolant: "1 to 18",
  setBy: "",
};

/** What stands there today where it is not as it was. */
const TODAY: Record<KeptChangeKind, string> = {
  viseMoved: "off for cleaning, and on the table again",
  stopMoved: "moved for another part, and set by eye",
  otherParallels: "25 high: the others are lent out",
  newCutter: "a new cutter in the same holder",
  setDeeper: "the same cutter, set again in its holder",
};
const UNLIKE: Partial<Record<KeptThing, string>> = {
  stock: "sawn from bar 15, of the same size",
  coolant: "1 to 20, filled up this morning",
  setBy: "you",
};

/** How much a kept setup has worked since it was proven. */
export const partsSinceWords = (parts: number): string => `Since then ${parts} parts were cut by it.`;

/** One line of the card: what it is about, how it stood then, and how it stands today. */
export function keptRowWords(
  { thing, tool, change }: Row,
  initials: string,
): { what: string; then: string; today: string } {
  const then = thing === "setBy" ? initials : THEN[thing];
  const unlike = change === "unlike" ? UNLIKE[thing] : null;
  const today = change === null || change === "unlike" ? (unlike ?? then) : TODAY[change];
  return { what: tool === undefined ? THINGS[thing] : `${THINGS[thing]} ${tool}`, then, today };
}
