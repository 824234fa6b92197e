import { demoExercises, findDemoExercise } from "../demo";
import { LaneDriver, workLane, NonsenseBench } from "@probe-lane/students";
import { traceLane } from "@probe-lane/core/diagnosis";
import { offsetProvenance } from "../packages/core/diagnosis/machines";
import { rule } from "@probe-lane/core/grading";
const { exercise, marking } = findDemoExercise("lathe-handed-over"); const k=1;
const lane = new LaneDriver(exercise, `n${k}`); try { workLane(new NonsenseBench(lane, k+1, 0.02+0.03*(k%5)) as any, {});} catch {}
const t = traceLane(lane.log) as any;
console.log(t.changes.map((c:any)=>[c.seq,c.event.register,c.event.how,c.event.from,c.event.to,c.event.as,JSON.stringify(c.event.machine)].join()).join("\n"));
for (const v of rule(lane.log, marking).values) console.log(v.target.id, v.closureMm, v.held, JSON.stringify(v.provenance), v.cause.kind);
