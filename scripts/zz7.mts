import { demoExercises } from "../demo";
import { LaneDriver, workLane, NonsenseBench } from "@probe-lane/students";
import { rule } from "@probe-lane/core/grading";
let n=0,bad=0,lanes=0,done=0,big=0; const own: any[]=[];
const from=Number(process.argv[3]??0);
for (const {exercise, marking} of demoExercises) for (let k=from;k<from+Number(process.argv[2]??12);k++){
  const lane = new LaneDriver(exercise, `n${k}`);
  try { workLane(new NonsenseBench(lane, k+1, 0.02+0.03*(k%5)) as any, {}); done++; } catch(e){ }
  let r; try { r = rule(lane.log, marking);} catch(e){ bad++; console.log("RULE",exercise.id,k,(e as Error).stack!.slice(0,500)); continue; } lanes++;
  for (const v of r.values){ const p=v.provenance; if(!p) continue; n++; const sum=p.terms.reduce((s,t)=>s+t.mm,p.ownMm);
    if (Math.abs(sum-v.closureMm)>0.0026) { bad++; console.log("SUM",exercise.id,k,v.target.id,"closure",v.closureMm.toFixed(4),"sum",sum.toFixed(4),JSON.stringify(p).slice(0,600)); }
    if (Math.abs(p.ownMm-v.biasMm)>6*v.uMm+0.003 && Math.abs(v.closureMm)>v.toleranceMm) { big++; own.push([exercise.id,k,v.target.id,"own",p.ownMm.toFixed(4),"bias",v.biasMm,"u",v.uMm.toFixed(4),JSON.stringify(p.terms).slice(0,200)].join(" ")); }
  }
}
console.log({lanes,done,n,bad,big}); for (const o of own.slice(0,25)) console.log(o);
