import { demoExercises } from "../demo";
import { LaneDriver, workLane, settingsOf, slipKinds, SlippingBench } from "@probe-lane/students";
import { rule } from "@probe-lane/core/grading";
const only = process.argv[2]; const kindOnly = process.argv[3];
const OK: Record<string,string[]> = { digitsSwapped:["digitsSwapped"], digitMistyped:["digitMistyped"], signTurned:["wholeSignTurned"], decimalShifted:["decimalShifted"], inchForMm:["inchForMm"], offFigure:["otherFigure","wrongSum"], leftFirst:["capturedAfterLeaving","notOverMiddle","dialNotAtZero"], otherOffset:["otherRegister"], notSet:["neverSet"], undone:["takenBack"], addedAgain:["otherFigure"]};
const tally: Record<string,[number,number,number]> = {};
for (const {exercise, marking} of demoExercises) { if (only && !exercise.id.includes(only)) continue; if (exercise.handover) continue;
  const base = new LaneDriver(exercise, "s0"); const rec = settingsOf(base); try { workLane(rec as any, {}); } catch(e) { console.log(exercise.id, String(e).slice(0,200)); continue; }
  const count = new Map<string, number>(); for (const r of rec.made) count.set(r, (count.get(r)??0)+1);
  const clean = rule(base.log, marking);
  for (const [register, n] of count) for (const kind of slipKinds) { if (kindOnly && kind!==kindOnly) continue;
    for (let nth=0; nth<n; nth++) for (let turn=0;turn<3;turn++) {
      const lane = new LaneDriver(exercise, "s0"); const b = new SlippingBench(lane, {kind, register: register as any, nth, turn});
      try { workLane(b as any, {}); } catch (e) { continue; }
      if (!b.isMade) continue;
      const r = rule(lane.log, marking);
      const off = r.values.filter(v=>Math.abs(v.closureMm)>v.toleranceMm);
      for (const v of r.values) { const p=v.provenance; if (!p) continue; const sum=p.terms.reduce((s,t)=>s+t.mm,p.ownMm); if (Math.abs(sum-v.closureMm)>0.0031) console.log("SUM",exercise.id,kind,register,nth,turn,v.target.id,v.closureMm,sum,JSON.stringify(p.terms)); }
      if (/^[RQ]\d/.test(register)) continue;
      const own = off.filter(v=>v.target.registers.includes(register as any));
      const t = tally[kind] ??= [0,0,0];
      for (const v of own.length?own:off) { t[0]++; const c=v.cause as any; const ids = c.kind==="proven"?c.terms.map((x:any)=>x.id):c.kind==="inferred"?["?",...c.ranked[0].ids]:[c.kind]; const good = OK[kind].includes(ids[0]) || (ids[0]==="?"&&OK[kind].includes(ids[1])); if (good) t[1]++; else { t[2]++; console.log(kind, exercise.id, register, nth, turn, v.target.id, v.closureMm.toFixed(3), ids.join("+"), (c.terms??[]).map((x:any)=>x.id+":"+x.mm.toFixed(3)+(x.figure?`[${x.figure.saidMm.toFixed(3)}|${x.figure.belongsMm.toFixed(3)}]`:"")).join(" ")); } }
    } }
}
console.log(tally);
