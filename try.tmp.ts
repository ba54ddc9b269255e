import { generateDemo } from "./demo/generate";
import hw from "./demo/hardware.json";
import { assembleProfile, evaluatePrepared, findings, preparePath, type LinkPlan } from "./src/core/link";
import { cutTile, type TerrainGrid } from "./src/core/terrain";
const t0=performance.now();
const opts = process.argv[2]==="m" ? {mirror:true, anchor:{latDeg:-12,lonDeg:-140}, rename:(n:string)=>n.split("").reverse().join("")}:{};
const demo = generateDemo(opts);
console.log("gen", performance.now()-t0, demo.obstacles.length, demo.obstacles.filter(o=>o.kind==="building").length);
const grids: TerrainGrid[] = demo.grids.map((g,i)=>({id:String(i),name:g.name,kind:"dtm",crs:g.crs,originX:g.originX,originY:g.originY,stepX:g.cellM,stepY:-g.cellM,cols:g.cols,rows:g.rows,cellM:g.cellM,sigmaM:g.sigmaM,tileCells:256,tile:(()=>{const m=new Map<string,Float32Array>();return (r:number,c:number)=>{const k=r+","+c;if(!m.has(k))m.set(k,cutTile(g.values,g.cols,g.rows,256,r,c));return m.get(k)}})()}));
const obstacles = demo.obstacles.map((o,i)=>({...o,id:String(i),surveyedYear:2026}));
for (const l of demo.links) {
  const a=demo.sites.find(s=>s.key===l.near)!, b=demo.sites.find(s=>s.key===l.far)!;
  const t1=performance.now();
  const near = obstacles; 
  const profile = assembleProfile(a.position,b.position,grids,near.filter(o=>true).slice(0,1200),demo.features,2026);
  const t2=performance.now();
  const end=(s:typeof a,i:0|1)=>({name:s.name,mountAglM:s.mountAglM,mountMaxAglM:s.mountMaxAglM,mountSigmaM:.2,feederLossDb:0,txPowerDbm:l.powerDbm[i],radio:hw.radios.find(r=>r.id===l.radio[i])! as never,antenna:null});
  const plan: LinkPlan={near:end(a,0),far:end(b,1),centreMhz:l.centreMhz,widthMhz:l.widthMhz,needToFarMbps:l.needMbps[0],needToNearMbps:l.needMbps[1],trims:{},permissionRecorded:false,
   policy:{clearance:"sixty",kFactor:4/3,trees:"strict",year:2026,horizonYears:5,throughput:"headroom",freeShare:.3,marginDb:10,domain:"FCC-like",use:l.radio[0].startsWith("gannet")?"ptmp":"ptp"},climate:{rainRate001MmH:28,temperatureC:10,pressureHpa:1013,vapourDensityGm3:7.5}};
  const p=preparePath(plan,profile); const r=evaluatePrepared(plan,p); const t3=performance.now(); const f=findings(plan,p,r); const t4=performance.now(); evaluatePrepared(plan,p); const t5=performance.now();
  const w=r.clearance.worst!;
  console.log(l.near,l.far,"|",r.verdict,r.clearance.verdict,r.service.verdict,"| L",profile.pathM.toFixed(1),profile.distanceM.length,"pts | worst",w.ownerName,w.owner.kind,w.atM.toFixed(1),w.side,"share",w.share.toFixed(2),"miss",w.missM.toFixed(2),"p",r.clearance.probability?.toFixed(2),"lost",r.clearance.lostInYear,"| level",r.service.toFar?.levelDbm.toFixed(1),r.service.toNear?.levelDbm.toFixed(1),r.service.toFar?.held?.modulation,"diff",r.service.toFar?.terms.filter(t=>/diff|beside|veg|own/.test(t.id)).map(t=>t.valueDb.toFixed(1)).join("/"),"mbps",r.service.toFar?.plannedMbps.toFixed(0), r.service.airtimeUsedShare?.toFixed(2), "ms",(t2-t1).toFixed(0),(t3-t2).toFixed(1),(t4-t3).toFixed(1),(t5-t4).toFixed(2));
  for(const x of f.slice(0,5))console.log("     -",x.code,x.verdict,x.mends.map(m=>m.code+" "+m.amount.toFixed(2)+"/"+m.amountToday?.toFixed(2)).join("; "));
}
