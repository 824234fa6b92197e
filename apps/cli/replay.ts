import { targetsOf } from "@probe-lane/core/exercises";
import { readRegister } from "@probe-lane/core/registers";
import { observe, upgradeEvent } from "@probe-lane/core/bench";
import { markingSchema } from "@probe-lane/core/exercises";
import { rule } from "@probe-lane/core/grading";
import { traceLane } from "@probe-lane/core/diagnosis";
import { causeWords, findingWords, gateWords } from "@probe-lane/core/words";
import { scales, showCounts } from "@probe-lane/core/units";
import { z } from "zod";
import type { Console } from "./console";

const recordSchema = z.object({
  format: z.literal("probe-lane/lane"),
  version: z.literal(1),
  marking: markingSchema,
  events: z.array(z.object({ seq: z.number().int(), atMs: z.number(), event: z.unknown() })).min(1),
});

/** Folds an exported lane and prints its state and ruling. 0 done, 2 when the file is not a lane record. */
export function replayLane(text: string, { print, complain }: Console): number {
  let record: z.infer<typeof recordSchema>;
  try {
    record = recordSchema.parse(JSON.parse(text));
  } catch {
    complain("replay: the file is not a lane record: export one from the wall with “Record”");
    return 2;
  }
  const log = record.events.map(({ seq, atMs, event }) => ({ seq, atMs, event: upgradeEvent(event) }));
  const { final } = traceLane(log);
  const seen = observe(final, "instructor");
  print(`${seen.sheet.title}: ${log.length} entries${seen.isHandedIn ? ", handed in" : ", open"}`);
  const show = (counts: number) => showCounts(counts, scales[seen.sheet.unit]);
  print(`machine  X ${show(seen.machine.x)}  Y ${show(seen.machine.y)}  Z ${show(seen.machine.z)}`);
  const { G54 } = seen.registers.work;
  const rows = targetsOf(seen.sheet)
    .flatMap(({ registers }) => registers.filter((id) => !id.includes(".")))
    .map((id) => `${id} ${show(readRegister(seen.registers, id))}`)
    .join("  ");
  print(`G54      X ${show(G54.x)}  Y ${show(G54.y)}  Z ${show(G54.z)}   ${rows}`);
  print(`gates    ${seen.gates.map((gate) => `${gate.isPassed ? "✓" : "·"} ${gateWords(gate)}`).join("   ")}`);
  const ruling = rule(log, record.marking);
  print(
    `total    ${ruling.total.toFixed(1)} of ${ruling.outOf}   ${ruling.strands.map(({ name, marks, outOf }) => `${name} ${marks.toFixed(1)}/${outOf}`).join("   ")}`,
  );
  for (const value of ruling.values) {
    const { headline, body, proof } = causeWords(value, ruling.sheet);
    print([headline, body, proof].filter(Boolean).join(" "));
  }
  for (const finding of ruling.findings)
    if (finding.code !== "stepDone") print(`${finding.code}: ${findingWords(finding)}`);
  return 0;
}
