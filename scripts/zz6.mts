import { demoExercises } from "../demo";
import { LaneDriver, workLane, type Habits } from "@probe-lane/students";
import { rule } from "@probe-lane/core/grading";
const H: [string, Habits, string[]][] = [
 ["radius x f",{radius:{x:"forgotten"}},["radiusForgotten"]],["radius x t",{radius:{x:"turned"}},["radiusSignTurned"]],["radius y d",{radius:{y:"diameter"}},["diameterForRadius"]],
 ["ew x f",{edgeWork:{x:"forgotten"}},["edgeWorkForgotten"]],["ew y t",{edgeWork:{y:"turned"}},["edgeWorkSignTurned"]],
 ["motion radius f",{way:"motion",backsOffFirst:{x:29}} as any,["capturedAfterLeaving"]],
 ["add radius t",{way:"add",radius:{x:"turned"}} as any,["radiusSignTurned"]],["add ew f",{way:"add",edgeWork:{y:"forgotten"}} as any,["edgeWorkForgotten"]],
 ["backs x",{backsOffFirst:{x:35}},["capturedAfterLeaving"]],["burr",{keepsBurr:true},["burr"]],["overtravel",{overTravels:true},["bentFinder"]],
 ["paper f",{paper:"forgotten"},["paperForgotten","feelerForgotten","blockForgotten"]],["paper w",{paper:"wrongWay"},["paperWrongWay","feelerForgotten","blockWrongWay"]],
 ["facing f",{facing:"forgotten"},["facingForgotten"]],["facing w",{facing:"wrongWay"},["facingWrongWay"]],
 ["oldW",{leavesOldWorkZ:true},["leftoverWorkZ"]],["otherRow y",{otherRow:"y",skipsLook:true},["otherRegister"]],
 ["dial",{dialTurnShort:"x"},["dialTurnShort"]],["oneside r",{radiusOnOneSide:"y"},["radiusOnOneSide"]],["oneface",{oneFaceOnly:"x"},["oneSideOnly"]],
 ["turn",{forgetsTurn:true},["turnForgotten"]],["neighbor",{neighborRow:true},["neighborRow"]],["blockout",{leavesBlockOut:true},["blockForgotten"]],
 ["radD",{radiusForDiameter:1},["radiusInDiameter"]],["nomD",{nominalForMeasured:5},["nominalForMeasured"]],["nothing new",{touchesNothingNew:true},["neverSet"]],
 ["trust",{trustsCard:true},["setterMoved","presetterOff","probeLengthWrong"]],["dirt",{keepsDirt:true},["taperDirt"]],["chips",{keepsChips:true},["chipOnTip"]],["still",{measuresStill:true},["spindleGrowth","measuredStill"]],
 ["radX",{radiusForX:true},["diameterAsRadius"]],["movesX",{movesBeforeX:9},["capturedAfterLeaving"]],["movesZ",{movesBeforeZ:7},["capturedAfterLeaving"]],["thin",{skimsThin:true},["notCleanedUp","touchedRunout"]],
 ["once",{feelerOnce:true},["feelerOnce"]],["gap",{gapForgotten:true},["gapForgotten"]],["raw",{touchesRaw:true},["touchedRunout"]],["faces",{facesAgain:true},["faceCutAgain"]],["blade",{otherBladeEdge:true},["otherBladeEdge"]],
 ["inactive",{offsetNotCalled:true},["toolNotActive"]],["shift",{shiftMissing:true},["shiftMissing"]],["oldrow",{leavesOldRow:true},["masterNotCleared","leftoverWorkZ"]],
 ["libsign",{librarySign:true},["librarySign"]],["some",{feelerOnSome:true},["feelerOnSome"]],["overpaper",{zeroOverPaper:true},["feelerOnSome","feelerForgotten"]],["lean",{leansOnPost:true},["leanedOnPost"]],["corner",{cornerReads:"40"},["cornerNotZero"]],
 ["clamp",{toolToRegister:true,tightensOneSide:true},["clampShifted"]],["built",{toolToRegister:true,leavesRegister:true},["registerBuiltIn"]],
 ["face only",{cone:"faceOnly"},["plateMetEarly"]],["nose",{cone:"noseLeftOut"},["coneNoseLeftOut"]],["shims w",{shims:"wrongWay"},["heightWrongWay"]],["shims whole",{shims:"whole"},["wholePip"]],["sweeponly",{sweepsOnly:true},["notOverMiddle"]],
 ["pin none",{axisPin:"none"},["halfPinForgotten"]],["pin whole",{axisPin:"whole"},["wholePinAdded"]],["tail",{atTailstock:true},["tailstockTaken"]],["gauge nz",{gauge:"notZeroed"},["gaugeNotZeroed"]],["gauge above",{gauge:"fromAbove"},["gaugeFromAbove"]],
 ["decl else",{declaresAgain:"elsewhere"},["declaredElsewhere"]],["decl other",{declaresAgain:"withOther"},["declaredElsewhere"]],["decl never",{declaresAgain:"never"},["declarationLost"]],
 ["sweepwrong",{sweepWrongWay:true} as any,["notOverMiddle"]],["wrongsize",{wrongSizeMm:1.5} as any,[]],["coarse",{coarseLastClick:{x:true}} as any,["coarseClick"]],["notrue",{skipsTrue:true} as any,["tasterNotTrued"]],
 ["bore paper forg",{boreByPaper:true,paper:"forgotten"},["feelerForgotten"]],["bore paper once",{boreByPaper:true,feelerOnce:true},["feelerOnce"]],["feedUp",{feedUp:true},[]],["firstOff",{firstLengthOffMm:0.4} as any,["otherFigure","wrongSum","carriedOver"]],
 ["pl+paper",{school:"plane-lift",paper:"forgotten"} as any,["paperForgotten","blockForgotten"]],["master+paper",{school:"master",paper:"forgotten"} as any,["paperForgotten","blockForgotten"]],["pt+paper",{school:"part-touch",paper:"wrongWay"} as any,["paperWrongWay"]],["biw",{school:"block-in-wear",leavesBlockOut:true} as any,["blockForgotten"]],
 ["pt free",{school:"part-touch"} as any,[]],["pl free",{school:"plane-lift"} as any,[]],["m free",{school:"master"} as any,[]],["biw free",{school:"block-in-wear"} as any,[]],["gl free",{school:"gauge-line"} as any,[]],
];
const seeds = Number(process.argv[2]??2); const onlyH = process.argv[3];
let tot=0, good=0; const rows: Record<string,[number,number]> = {};
for (const {exercise, marking} of demoExercises) { if (exercise.handover) continue; for (const [name,h,ok] of H) { if (onlyH && name!==onlyH) continue; for (let k=0;k<seeds;k++){
  const lane = new LaneDriver(exercise, `h${k}`);
  try { workLane(lane, h); } catch(e){ continue; }
  const r = rule(lane.log, marking);
  for (const v of r.values) { const p=v.provenance; if(p){ const sum=p.terms.reduce((s,t)=>s+t.mm,p.ownMm); if (Math.abs(sum-v.closureMm)>0.0031) console.log("SUM",name,exercise.id,k,v.target.id,v.closureMm,sum,JSON.stringify(p)); }
    if (Math.abs(v.closureMm)<=v.toleranceMm) continue; if (["nose","tipCode","fit"].includes(v.target.kind)) continue;
    const c=v.cause as any; const ids = c.kind==="proven"?c.terms.map((x:any)=>x.id):c.kind==="inferred"?["?",...c.ranked[0].ids]:[c.kind]; const first = ids[0]==="?"?ids[1]:ids[0]; tot++; const t=rows[name]??=[0,0]; t[0]++; if (ok.includes(first)) {good++; t[1]++;} else console.log(name,"|",exercise.id,k,v.target.id,v.closureMm.toFixed(3),ids.join("+"), (c.terms??[]).map((x:any)=>x.id+":"+x.mm.toFixed(3)+(x.figure?`[${x.figure.saidMm.toFixed(3)}|${x.figure.belongsMm.toFixed(3)}]`:"")).join(" "), "own",p?.ownMm.toFixed(4)); }
}}}
console.log(tot,good, JSON.stringify(Object.entries(rows).filter(([,[a,b]])=>a!==b)));
