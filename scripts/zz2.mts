import { findDemoExercise } from "../demo";
import { LaneDriver, workLane } from "@probe-lane/students";
import { traceLane } from "@probe-lane/core/diagnosis";
import { rule } from "@probe-lane/core/grading";
const { exercise, marking } = findDemoExercise("knob-cone-neutral");
for (let k=0;k<5;k++){
const lane = new LaneDriver(exercise, "c"+k); workLane(lane, {cone:"noseLeftOut"});
const t = traceLane(lane.log) as any;
console.log(t.turret.filter((c:any)=>c.tool===2&&c.axis==="z").map((c:any)=>[c.seq,c.by,c.on,c.at.x,c.at.z].join(" ")).join(" | "));
console.log(t.changes.map((c:any)=>[c.seq,c.event.register,c.event.how,c.event.from,c.event.to,c.event.as,JSON.stringify(c.event.machine)].join()).join(" | "));
for (const v of rule(lane.log, marking).values) console.log(v.target.id, v.closureMm, JSON.stringify(v.provenance));}
