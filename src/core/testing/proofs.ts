/* What tests hold and the bench prints of whole evaluations: the chance against more draws, links told from the other end. */
import { chanceOfClearance, evaluateLink, evaluatePrepared, type LinkPlan, type LinkResult, pathStateOf, preparePath } from "../link";
import { sceneOf } from "./random-scene";
import { reversed } from "./reverse";

/** Chance that the policy is met by so many draws of another seed. */
export const drawnChance = (p: LinkPlan, path: ReturnType<typeof preparePath>, draws: number, seed: number): number => {
  const { conditions, clearance } = pathStateOf(p, path);
  return chanceOfClearance(p, path, conditions, true, -clearance.worst!.missM, clearance.sigmaM!, draws, seed).met;
};

/** The verdict's chance on a seeded scene, and that of 4,000 draws of another seed. */
export const chanceOnScene = (seed: number): { readonly told: number; readonly drawn: number } => {
  const s = sceneOf(seed, seed % 4, seed % 3 === 0 ? 6 : 1, [0.15, 1.5, 4][seed % 3]!);
  const path = preparePath(s.plan, s.profile);
  return { told: evaluatePrepared(s.plan, path).clearance.probability!, drawn: drawnChance(s.plan, path, 4000, 99) };
};

const figuresOf = (x: LinkResult, turned: boolean): number[] => {
  const ways = [x.service.toFar!, x.service.toNear!];
  return [
    ...(turned ? ways.reverse() : ways).flatMap((d) => [
      d.levelDbm,
      d.bandLowDbm,
      d.bandHighDbm,
      d.plannedMbps,
      d.outage!.percent ?? -1,
      d.staircase!.at999Mbps,
    ]),
    x.clearance.worst?.missM ?? 0,
    x.clearance.probability ?? 0,
    x.clearance.probabilityOfSurvey ?? 0,
    x.clearance.sigmaM ?? 0,
    x.multipath.occurrencePercent,
  ];
};

/** What differs when a seeded link is told from its other end; nothing should. */
export const mirrorFaults = (seed: number): string[] => {
  const s = sceneOf(seed, seed % 4, seed % 2 ? 3 : 0);
  const p = { ...s.plan, needToFarMbps: 20 };
  const r = reversed(p, s.profile);
  const [a, b] = [evaluateLink(p, s.profile), evaluateLink(r.plan, r.profile)];
  const mirrored = figuresOf(b, true);
  const wrong = figuresOf(a, false).flatMap((v, i) =>
    Math.abs(v - mirrored[i]!) > 1e-6 * Math.max(1, Math.abs(v)) ? [`seed ${seed}, figure ${i}: ${v} and ${mirrored[i]}`] : [],
  );
  return a.verdict === b.verdict ? wrong : [...wrong, `seed ${seed}: ${a.verdict} and ${b.verdict}`];
};
