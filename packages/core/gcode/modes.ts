import { Wrong } from "./diagnostics";
import { type Feed, type Move, type Plane, type Turning } from "./moves";
import { type Said } from "./said";

const MM_PER_INCH = 25.4;
const MILL_FEEDS: Readonly<Record<number, Feed["per"]>> = { 93: "inverse", 94: "min", 95: "rev" };
const LATHE_FEEDS: Readonly<Record<number, Feed["per"]>> = { 98: "min", 99: "rev" };
const SIDES: Readonly<Record<number, Move["compensation"]>> = { 40: "none", 41: "left", 42: "right" };

/** Axes by bit, whose places are counted from elsewhere after a change: all of a mill, its Z, both of a lathe. */
const [ALL, ONLY_Z, BOTH, NONE] = [7, 4, 3, 0] as const;

/** What stays in force from block to block, but for where it stands and how it moves. */
export class Modes {
  plane: Plane;
  frame = "G54";
  row: number | null = null;
  rowSign: 1 | -1 = 1;
  compensation: Move["compensation"] = "none";
  diameterRow: number | null = null;
  /** The side of compensation was changed, and nothing was moved in the plane since. */
  isSideNew = false;
  isIncremental = false;
  returnsToInitial = true;
  feed: Feed | null = null;
  tool: number | null = null;
  spindle: Turning = "stopped";
  speed: Move["speed"] = null;
  /** Figures in one written unit. */
  scale: number;
  private feedPer: Feed["per"];
  private nextTool: number | null = null;
  private isSurfaceSpeed = false;

  /** `unitMm` is the length of a unit of the figures, mm; `startMm` that of the unit in which the program starts. */
  constructor(
    private readonly said: Said,
    private readonly isLathe: boolean,
    startPlane: Plane,
    private readonly unitMm: number,
    startMm: number,
  ) {
    this.plane = startPlane;
    this.feedPer = isLathe ? "rev" : "min";
    this.scale = startMm / unitMm;
  }

  /** Words are written in inches now. */
  get isInch(): boolean {
    return this.scale * this.unitMm > 1;
  }

  /** Units, kinds of feed and speed, plane, distances, the way back of cycles. */
  private takeWays(): void {
    const { said } = this;
    const units = said.of("units");
    if (units !== null) this.scale = (units === 20 ? MM_PER_INCH : 1) / this.unitMm;
    const feed = said.of("feed");
    if (feed !== null) {
      const per = (this.isLathe ? LATHE_FEEDS : MILL_FEEDS)[feed] ?? "min";
      if (per !== this.feedPer) this.feed = null;
      this.feedPer = per;
    }
    const plane = said.of("plane");
    if (plane !== null) this.plane = plane as Plane;
    const surface = said.of("surface");
    if (surface !== null) this.isSurfaceSpeed = surface === 96;
    const distance = said.of("distance");
    if (distance !== null) this.isIncremental = distance === 91;
    const back = said.of("return");
    if (back !== null) this.returnsToInitial = back === 98;
  }

  /** What a block says before it moves, up to feed and speed. */
  takeFeed(): void {
    const { said } = this;
    if (said.hasCodes) this.takeWays();
    const speed = said.value("S");
    // beside G50 it is a limit
    if (speed !== null && said.of("once") !== 50) this.speed = { value: speed, isSurface: this.isSurfaceSpeed };
    const value = said.value("F");
    if (value !== null) this.feed = { value: value * (this.feedPer === "inverse" ? 1 : this.scale), per: this.feedPer };
  }

  /** The tool that was changed to; null where none was. Axes that are counted anew are given to `forget`. */
  takeTool(forget: (axes: number) => void): { readonly tool: number; readonly row: number | null } | null {
    const value = this.said.value("T");
    if (this.isLathe) return value === null ? null : this.turnTo(value, forget);
    if (value !== null) this.nextTool = value;
    if (this.said.of("change") === null) return null;
    if (this.nextTool === null) throw new Wrong("tool-missing");
    this.tool = this.nextTool;
    this.spindle = "stopped";
    return { tool: this.tool, row: null };
  }

  /** A lathe's tool word: the tool before its last two digits, the row in them. */
  private turnTo(word: number, forget: (axes: number) => void): { tool: number; row: number | null } {
    const row = word % 100 || null;
    this.tool = Math.trunc(word / 100) || this.tool;
    const isAnother = row !== this.row;
    this.row = row;
    forget(isAnother ? BOTH : NONE);
    return { tool: this.tool ?? 0, row };
  }

  /** Spindle, work offset, length and compensation, in this order. */
  takeOffsets(forget: (axes: number) => void): void {
    const spindle = this.said.of("spindle");
    if (spindle === 3) this.spindle = "forward";
    if (spindle === 4) this.spindle = "reverse";
    this.takeFrame(forget);
    this.takeLength(forget);
    this.takeSide();
  }

  private takeFrame(forget: (axes: number) => void): void {
    const code = this.said.of("frame");
    if (code === null) return;
    const extended = this.said.value("P");
    if (code === 54.1 && extended === null) throw new Wrong("word-missing");
    const frame = code === 54.1 ? `P${extended}` : `G${code}`;
    const isAnother = frame !== this.frame;
    this.frame = frame;
    forget(isAnother ? ALL : NONE);
  }

  private takeLength(forget: (axes: number) => void): void {
    const code = this.said.of("length");
    if (code === null) return;
    const row = code === 49 ? null : this.said.value("H");
    if (code !== 49 && row === null) throw new Wrong("offset-row-missing");
    const sign = code === 44 ? -1 : 1;
    const isAnother = (row || null) !== this.row || sign !== this.rowSign;
    this.row = row || null;
    this.rowSign = sign;
    forget(isAnother ? ONLY_Z : NONE);
  }

  private takeSide(): void {
    if (this.said.has("D") && !this.isLathe) this.diameterRow = this.said.value("D");
    const code = this.said.of("compensation");
    if (code === null) return;
    const side = SIDES[code] ?? "none";
    if (side !== "none" && !this.isLathe && this.diameterRow === null) throw new Wrong("offset-row-missing");
    if (side !== this.compensation) this.isSideNew = true;
    this.compensation = side;
  }

  /** After the block has moved: an inverse feed held for it alone, and M5 stops the spindle. */
  settle(): void {
    if (this.feedPer === "inverse") this.feed = null;
    if (this.said.of("spindle") === 5) this.spindle = "stopped";
  }

  /** A feed whose F is a lead, whatever the mode. */
  lead(): Feed | null {
    return this.feed && { value: this.feed.value, per: "rev" };
  }
}
