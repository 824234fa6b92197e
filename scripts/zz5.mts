import { demoExercises } from "../demo";
import { LaneDriver, workLane, WanderingBench } from "@probe-lane/students";
import { rule } from "@probe-lane/core/grading";
let n=0, acc=0, full=0, lanes=0;
for (const {exercise, marking} of demoExercises) for (let k=0;k<Number(process.argv[2]??6);k++){
  const lane = new LaneDriver(exercise, `w${k}`); 
  try { workLane(new WanderingBench(lane, k*31+7) as any, {}); } catch(e){ console.log(exercise.id,k, "WORK", String(e).slice(0,200)); continue; }
  const r = rule(lane.log, marking); lanes++;
  if (r.total>100-1e-6) full++; else console.log("MARKS", exercise.id,k,r.total, JSON.stringify(r.strands.map(s=>[s.name,s.marks,s.outOf])), r.findings.filter((f:any)=>f.marks<(f.outOf??0)).map((f:any)=>f.step??(f.register+":"+f.fault)).join());
  for (const v of r.values){ n++; const p=v.provenance; if(!p) continue; const sum=p.terms.reduce((s,t)=>s+t.mm,p.ownMm);
    if (Math.abs(sum-v.closureMm)>0.0031) console.log("SUM",exercise.id,k,v.target.id,"closure",v.closureMm.toFixed(4),"sum",sum.toFixed(4),JSON.stringify(p));
    else if (p.terms.some(t=>t.id!=="rounding"&&Math.abs(t.mm)>=0.009) && Math.abs(v.closureMm)<0.5*v.toleranceMm) { console.log("CLEAN?",exercise.id,k,v.target.id,"closure",v.closureMm.toFixed(4),JSON.stringify(p)); }
    if (v.cause.kind!=="none") {acc++; console.log("ACCUSED",exercise.id,k,v.target.id,v.closureMm.toFixed(4),JSON.stringify(v.cause)); }}
}
console.log({lanes,full,n,acc});
