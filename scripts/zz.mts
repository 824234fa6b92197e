import { demoExercises, findDemoExercise } from "../demo";
import { LaneDriver, workLane } from "@probe-lane/students";
import { rule } from "@probe-lane/core/grading";
let bad=0,n=0;
for (const {exercise, marking} of demoExercises) for (let k=0;k<3;k++){
  const lane = new LaneDriver(exercise, `c${k}`);
  try { workLane(lane, {}); } catch(e){ console.log(exercise.id, "WORK", String(e).slice(0,200)); continue; }
  let r; try { r = rule(lane.log, marking);} catch(e){ console.log(exercise.id,"RULE",(e as Error).stack!.slice(0,600)); bad++; continue; }
  for (const v of r.values){ n++; const p=v.provenance; if(!p) continue; const sum=p.terms.reduce((s,t)=>s+t.mm,p.ownMm);
    if (Math.abs(sum-v.closureMm)>0.0016) { bad++; console.log(exercise.id,k,v.target.id,"closure",v.closureMm.toFixed(4),"sum",sum.toFixed(4),JSON.stringify(p)); }
    else if (p.terms.some(t=>Math.abs(t.mm)>=0.009) && Math.abs(v.closureMm)<0.5*v.toleranceMm) { console.log("CLEAN?",exercise.id,k,v.target.id,"closure",v.closureMm.toFixed(4),JSON.stringify(p)); }
    if (v.cause.kind!=="none") console.log("ACCUSED",exercise.id,k,v.target.id,v.closureMm.toFixed(4),JSON.stringify(v.cause)); }
}
console.log(n,"values bad",bad);
