/* The fit of a sweep over antennas that it does not know: 1,000 sweeps for each class of beamwidth, and what one fit takes. */
import { adviseSweep, aimModel } from "../src/core/aim";
import { madeSweep, sheetPattern } from "../src/core/aim/testing/sweeps";

const CASES = Number(process.argv[2] ?? 1000);
const CLASSES = [
  ["dish", 3],
  ["dish", 7],
  ["panel", 12],
  ["panel", 19],
  ["panel", 30],
] as const;
const MOST_MORE = 3;
const share = (part: number, of: number): string => `${((100 * part) / Math.max(1, of)).toFixed(1)} %`;

for (const [form, beamwidthDeg] of CLASSES) {
  const model = aimModel(sheetPattern(form, beamwidthDeg), "azimuth", 0.1 * beamwidthDeg);
  const n = {
    all: 0,
    silent: 0,
    notSure: 0,
    sure: 0,
    right: 0,
    turns: 0,
    near: 0,
    within: 0,
    under: 0,
    underAsSide: 0,
    byPlan: 0,
    after: 0,
  };
  const tookMs: number[] = [];
  for (let seed = 0; seed < CASES; seed++) {
    const made = madeSweep(3_000_000 + beamwidthDeg * 100_000 + seed, beamwidthDeg, -20);
    const expectation = {
      levelDbm: made.plannedDbm,
      sigmaDb: made.plannedSigmaDb,
      leastHeardDbm: made.leastHeardDbm,
      readingSigmaDb: 1,
      restIsAimed: true,
      startSigmaDeg: 1.5 * beamwidthDeg,
    };
    const readings = [...made.readings];
    const began = performance.now();
    let advice = adviseSweep(model, readings, expectation, made.plannedDbm - 3);
    tookMs.push(performance.now() - began);
    if (!("fit" in advice)) {
      n.silent++;
      continue;
    }
    n.all++;
    const heard = made.readings.filter((r) => r.levelDbm !== null);
    const best = heard.reduce((x, r) => (r.levelDbm! > x.levelDbm! ? r : x));
    const onMain = made.isMain(best.angleDeg);
    const truth = onMain ? "main" : made.peakDeg > best.angleDeg ? "plus" : "minus";
    if (best.levelDbm! > made.plannedDbm - 2 * made.plannedSigmaDb === onMain) n.byPlan++;
    const { fit } = advice;
    if (made.under && onMain) {
      n.under++;
      if (fit.chance.main < 0.1) n.underAsSide++;
    }
    if (fit.chance[fit.lobe] >= 0.9) {
      n.sure++;
      if (fit.lobe === truth) n.right++;
    }
    if (advice.kind === "unsure") n.notSure++;
    else if (advice.kind !== "side") {
      n.turns++;
      if (Math.abs(fit.peakDeg - made.peakDeg) <= 0.3 * beamwidthDeg) n.near++;
      if (Math.abs(fit.peakDeg - made.peakDeg) <= fit.peakPlusMinusDeg) n.within++;
    }
    // Then as it is advised: a few readings more, each where it asks for it.
    for (let more = 0; more < MOST_MORE && (advice.kind === "unsure" || advice.kind === "side"); more++) {
      readings.push(made.read(advice.readAtDeg));
      advice = adviseSweep(model, readings, expectation, made.plannedDbm - 3);
    }
    if ((advice.kind === "turn" || advice.kind === "peak") && Math.abs(advice.fit.peakDeg - made.peakDeg) <= 0.3 * beamwidthDeg) n.after++;
  }
  tookMs.sort((a, b) => a - b);
  console.log(
    `${form} ${beamwidthDeg}°: ${n.all} sweeps (${n.silent} heard too little); lobe right ${share(n.right, n.sure)} of those it is sure of; not sure ${share(n.notSure, n.all)}; ` +
      `turn within 0.3 of the beam ${share(n.near, n.turns)}; its ± holds ${share(n.within, n.turns)}; main lobe under plan called a false peak ${n.underAsSide} of ${n.under}; ` +
      `after at most ${MOST_MORE} readings where it asks: within 0.3 ${share(n.after, n.all)}; best reading against plan alone ${share(n.byPlan, n.all)}; ` +
      `one fit ${tookMs[Math.floor(tookMs.length / 2)]!.toFixed(1)} ms, 95 in 100 ${tookMs[Math.floor(tookMs.length * 0.95)]!.toFixed(1)} ms`,
  );
}
