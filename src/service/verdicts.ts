import { createHash } from "node:crypto";
import { sql } from "drizzle-orm";
import { isProblem, type LinkVerdict, planOf } from "../contract";
import { bearingsBetween } from "../core/geo";
import { decidingDraws, evaluatePrepared, type LinkPlan, observe, type PathProfile, preparePath, verdictOf } from "../core/link";
import { ruleRows } from "../core/radio";
import { Refused } from "../data/clash";
import { type Db, isUnreachable } from "../data/client";
import { type JobRow, type LinkWithDesign, linksOf, type SiteRow, sitesOf } from "../data/jobs";
import { hardwareDto, jobDto, linkDto } from "./dto";
import { profileOf } from "./profile";

interface Held {
  /** What the whole job's verdicts rest on. */
  readonly key: string;
  readonly links: readonly LinkVerdict[];
  /** Judgements by what each link rests on: plan, sheets, rules and sampled path. */
  readonly judged: ReadonlyMap<string, Judgement>;
}
type Judgement = Pick<LinkVerdict, "verdict" | "clearanceVerdict" | "serviceVerdict" | "worst" | "trouble" | "levelDbm">;

const held = new Map<string, Held>();
const MOST_JOBS_HELD = 200;

const RULES_KEY = createHash("sha256").update(JSON.stringify(ruleRows)).digest("hex").slice(0, 16);

/** Everything outside the job that its verdicts rest on: datasets, data sheets, rules. */
const worldKey = async (db: Db): Promise<string> => {
  const r = await db.execute<{ key: string }>(sql`
    SELECT md5(
      coalesce((SELECT string_agg(id::text || coalesce(deleted_at::text, '') || updated_at::text, ',' ORDER BY id) FROM terrain_dataset), '') || '|' ||
      coalesce((SELECT string_agg(md5(sheet::text), ',' ORDER BY id) FROM radio), '') || '|' ||
      coalesce((SELECT string_agg(md5(sheet::text), ',' ORDER BY id) FROM antenna), '')
    ) AS key`);
  return `${r.rows[0]?.key ?? ""}|${RULES_KEY}`;
};

const bytesOf = (a: Float64Array | Uint8Array): Uint8Array => new Uint8Array(a.buffer, a.byteOffset, a.byteLength);

/** What one link's verdict rests on. */
const linkKey = (plan: LinkPlan, { distanceM, groundAmslM, datasetIndex, side, ...rest }: PathProfile): string => {
  const hash = createHash("sha256").update(RULES_KEY).update(JSON.stringify(plan)).update(JSON.stringify(rest));
  for (const a of [distanceM, groundAmslM, datasetIndex, ...(side == null ? [] : [side.offsetsM, ...side.groundAmslM])])
    hash.update(bytesOf(a));
  return hash.digest("hex");
};

const judge = (plan: LinkPlan, profile: PathProfile): Judgement => {
  const path = preparePath(plan, profile);
  const result = evaluatePrepared(plan, path);
  const { worst } = result.clearance;
  const { toFar, toNear, kept } = result.service;
  // Only a need that is kept as planned can be one that is not sure to be.
  const drawn = kept !== null && kept.multiple >= 1 ? decidingDraws(plan, path) : null;
  const growthOf = (id: string): number => profile.bodies.find((b) => b.id === id)?.growthMPerYear ?? 0;
  const found = observe(plan, result, growthOf, drawn === null ? null : { serves: drawn.probabilityServes });
  const first = found[0];
  return {
    verdict: verdictOf(found),
    clearanceVerdict: result.clearance.verdict,
    serviceVerdict: verdictOf(found, "service"),
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
  };
};

const unjudged = (trouble: string): Judgement => ({
  verdict: "unknown",
  clearanceVerdict: "unknown",
  serviceVerdict: "unknown",
  worst: null,
  trouble,
  levelDbm: null,
});

type Known = Held["judged"];

/** One link judged alone: whatever is wrong with it is its own fault and hides no other. */
const verdictOfLink = async (
  db: Db,
  job: JobRow,
  link: LinkWithDesign,
  near: SiteRow,
  far: SiteRow,
  hardware: Awaited<ReturnType<typeof hardwareDto>>,
  known: Known,
  judged: Map<string, Judgement>,
): Promise<LinkVerdict> => {
  const plan = planOf(jobDto(job), near, far, link.design, hardware, linkDto(link).groundTold);
  const changed = link.design.updatedAt > link.updatedAt ? link.design.updatedAt : link.updatedAt;
  const straight = bearingsBetween(near, far);
  const base = {
    linkId: link.id,
    number: link.number,
    nearName: near.name,
    farName: far.name,
    label: link.label,
    stage: link.stage,
    pathM: straight.distanceM,
    nearBearingDeg: straight.nearDeg,
    farBearingDeg: straight.farDeg,
    changedAt: changed.toISOString(),
    gear: isProblem(plan)
      ? plan.id
      : plan.near.radio.id === plan.far.radio.id
        ? plan.near.radio.name
        : `${plan.near.radio.name}, ${plan.far.radio.name}`,
  };
  if (isProblem(plan)) return { ...base, ...unjudged(plan.code) };
  try {
    const profile = await profileOf(db, job, link, near, far);
    const key = linkKey(plan, profile);
    const judgement = known.get(key) ?? judge(plan, profile);
    judged.set(key, judgement);
    return { ...base, pathM: profile.pathM, nearBearingDeg: profile.nearBearingDeg, farBearingDeg: profile.farBearingDeg, ...judgement };
  } catch (error) {
    // A lost database is no fault of the link.
    if (isUnreachable(error)) throw error;
    return { ...base, ...unjudged(error instanceof Refused && error.code === "link-length" ? "too-far" : "fault") };
  }
};

/** Verdicts of all links of a job with their present designs; kept while nothing that they rest on changes. */
export const verdictsOf = async (db: Db, job: JobRow): Promise<readonly LinkVerdict[]> => {
  const key = `${job.revision}|${await worldKey(db)}`;
  const known = held.get(job.id);
  if (known !== undefined && known.key === key) return known.links;
  const [links, sites, hardware] = await Promise.all([linksOf(db, job.id), sitesOf(db, job.id), hardwareDto(db)]);
  const judged = new Map<string, Judgement>();
  const out: LinkVerdict[] = [];
  for (const link of links) {
    const near = sites.find((s) => s.id === link.nearSiteId);
    const far = sites.find((s) => s.id === link.farSiteId);
    if (near === undefined || far === undefined) continue;
    out.push(await verdictOfLink(db, job, link, near, far, hardware, known?.judged ?? new Map(), judged));
  }
  if (held.size >= MOST_JOBS_HELD) held.delete(held.keys().next().value!);
  held.set(job.id, { key, links: out, judged });
  return out;
};
