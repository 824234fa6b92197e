import type { Setup } from "../exercises";
import type { RegisterId } from "../registers";

const LIBRARY = /^L[XZ]\d/;
const HEIGHT = /^Y\d/;
const TOOL_TABLE = /^(L?[XZ]|[XZ]W|[RQY])\d/;
const LATHE_OFFSET = /^(common|G5[4-9])\.[xz]$/;
/** A readout has its zero and its library, and nothing else. */
const READOUT = /^(G54\.[xz]|L[XZ]\d)/;

/**
 * Whether the machine of a sheet has a register: a library is a readout's, a height register a gang slide's, a tool
 * table a lathe's.
 */
export function hasRegister({ lathe }: Pick<Setup, "lathe">, id: RegisterId): boolean {
  if (!lathe) return !TOOL_TABLE.test(id);
  if (lathe.control === "readout") return READOUT.test(id);
  if (LATHE_OFFSET.test(id)) return true;
  return TOOL_TABLE.test(id) && !LIBRARY.test(id) && (lathe.control === "gang" || !HEIGHT.test(id));
}
