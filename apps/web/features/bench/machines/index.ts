import type { Machine } from "@probe-lane/core/exercises";
import type { BenchKit } from "../lane/kit";
import { latheKits } from "./lathe/kit";
import { millKit } from "./mill/kit";

const kits = { mill: millKit, ...latheKits } satisfies Record<Machine, unknown>;

/**
 * The kit of an observation's machine. An observation goes only to the kit of its own kind, so one cast says so here.
 */
export const benchKitFor = (kind: Machine): BenchKit => kits[kind] as unknown as BenchKit;
