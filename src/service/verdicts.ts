import { isProblem, type LinkVerdict, planOf } from "../contract";
import { evaluatePrepared, findings, preparePath } from "../core/link";
import type { Db } from "../data/client";
import { type JobRow, linksOf, sitesOf } from "../data/jobs";
import { hardwareDto, jobDto, linkDto } from "./dto";
import { profileOf } from "./profile";

interface Held {
  readonly revision: number;
  readonly links: readonly LinkVerdict[];
}
const held = new Map<string, Held>();
const MOST_JOBS_HELD = 200;

/** Verdicts of all links of a job with their present designs; kept until the job changes. */
export const verdictsOf = async (db: Db, job: JobRow): Promise<readonly LinkVerdict[]> => {
  const known = held.get(job.id);
  if (known !== undefined && known.revision === job.revision) return known.links;
  const [links, sites, hardware] = await Promise.all([linksOf(db, job.id), sitesOf(db, job.id), hardwareDto(db)]);
  const out: LinkVerdict[] = [];
  for (const link of links) {
    const near = sites.find((s) => s.id === link.nearSiteId);
    const far = sites.find((s) => s.id === link.farSiteId);
    if (near === undefined || far === undefined) continue;
    const profile = await profileOf(db, job, link, near, far);
    const plan = planOf(jobDto(job), near, far, link.design, hardware, linkDto(link).groundTold);
    const changed = link.design.updatedAt > link.updatedAt ? link.design.updatedAt : link.updatedAt;
    const base = {
      linkId: link.id,
      number: link.number,
      nearName: near.name,
      farName: far.name,
      label: link.label,
      stage: link.stage,
      pathM: profile.pathM,
      nearBearingDeg: profile.nearBearingDeg,
      farBearingDeg: profile.farBearingDeg,
      changedAt: changed.toISOString(),
    };
    if (isProblem(plan)) {
      out.push({
        ...base,
        gear: plan.id,
        verdict: "unknown",
        clearanceVerdict: "unknown",
        serviceVerdict: "unknown",
        worst: null,
        trouble: plan.code,
        levelDbm: null,
      });
      continue;
    }
    const path = preparePath(plan, profile);
    const result = evaluatePrepared(plan, path);
    const worst = result.clearance.worst;
    const { toFar, toNear } = result.service;
    const first = findings(plan, path, result)[0];
    out.push({
      ...base,
      gear: plan.near.radio.id === plan.far.radio.id ? plan.near.radio.name : `${plan.near.radio.name}, ${plan.far.radio.name}`,
      verdict: result.verdict,
      clearanceVerdict: result.clearance.verdict,
      serviceVerdict: result.service.verdict,
      worst:
        worst === null
          ? null
          : {
              name: worst.ownerName,
              missM: worst.missM,
              atM: worst.atM,
              kind: worst.owner.kind === "ground" ? "ground" : worst.owner.bodyKind,
            },
      trouble: first === undefined || first.verdict === "clear" ? null : first.code,
      levelDbm: toFar === null || toNear === null ? null : Math.min(toFar.levelDbm, toNear.levelDbm),
    });
  }
  if (held.size >= MOST_JOBS_HELD) held.delete(held.keys().next().value!);
  held.set(job.id, { revision: job.revision, links: out });
  return out;
};
