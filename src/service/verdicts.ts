import { isProblem, type LinkVerdict, planOf } from "../contract";
import { airPathOf } from "../core/air";
import { bearingsBetween } from "../core/geo";
import {
  decidingDraws,
  evaluatePrepared,
  type LinkPlan,
  observe,
  type PathProfile,
  pathStateOf,
  preparePath,
  verdictOf,
} from "../core/link";
import { carriedOf, carriedOnWidths } from "../core/load";
import { NotFound, Refused } from "../data/clash";
import { type Db, isUnreachable } from "../data/client";
import { partsKey } from "../data/hardware";
import { getLink, type JobRow, type LinkWithDesign, type SiteRow } from "../data/jobs";
import { askFor, keepJudgement, type Stale, tellVerdicts, type VerdictRow, verdictRows } from "../data/verdict-store";
import { hardwareDto, jobDto, linkDto } from "./dto";
import { profileOf } from "./profile";
import { withShared } from "./shared-verdicts";

/*
 * Verdicts of links, kept in the database. Its triggers say which of them a change has made stale; workers work those out,
 * and everybody who asks reads what is kept.
 */

/** What is kept of a link: everything but its words, which are read with it. */
type Judgement = Pick<
  LinkVerdict,
  | "verdict"
  | "clearanceVerdict"
  | "serviceVerdict"
  | "worst"
  | "trouble"
  | "levelDbm"
  | "gear"
  | "pathM"
  | "nearBearingDeg"
  | "farBearingDeg"
  | "carries"
  | "widths"
  | "air"
>;
type Judged = Omit<Judgement, "gear" | "pathM" | "nearBearingDeg" | "farBearingDeg">;

const judge = (plan: LinkPlan, profile: PathProfile): Judged => {
  const path = preparePath(plan, profile);
  const state = pathStateOf(plan, path, false);
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
    carries: carriedOf(plan, result.service),
    widths: carriedOnWidths(plan, state),
    air: airPathOf(plan, state, result.service),
  };
};

const unjudged = (trouble: string): Judged => ({
  verdict: "unknown",
  clearanceVerdict: "unknown",
  serviceVerdict: "unknown",
  worst: null,
  trouble,
  levelDbm: null,
  carries: null,
  widths: [],
  air: null,
});

/** One link judged alone: whatever is wrong with it is its own fault and hides no other. */
const judgementOf = async (db: Db, job: JobRow, link: LinkWithDesign, near: SiteRow, far: SiteRow): Promise<Judgement> => {
  const plan = planOf(jobDto(job), near, far, link.design, await hardwareDto(db), linkDto(link).groundTold);
  const straight = bearingsBetween(near, far);
  const base = {
    pathM: straight.distanceM,
    nearBearingDeg: straight.nearDeg,
    farBearingDeg: straight.farDeg,
    gear: isProblem(plan)
      ? plan.id
      : plan.near.radio.id === plan.far.radio.id
        ? plan.near.radio.name
        : `${plan.near.radio.name}, ${plan.far.radio.name}`,
  };
  if (isProblem(plan)) return { ...base, ...unjudged(plan.code) };
  try {
    const profile = await profileOf(db, job, link, near, far);
    const { pathM, nearBearingDeg, farBearingDeg } = profile;
    return { ...base, pathM, nearBearingDeg, farBearingDeg, ...judge(plan, profile) };
  } catch (error) {
    // A lost database is no fault of the link.
    if (isUnreachable(error)) throw error;
    return { ...base, ...unjudged(error instanceof Refused && error.code === "link-length" ? "too-far" : "fault") };
  }
};

/** Works out verdicts of links and keeps each as soon as it is there. @param program who worked them out. */
export const judgeLinks = async (db: Db, links: readonly Pick<Stale, "linkId" | "want">[], program: string): Promise<void> => {
  const jobs = new Set<string>();
  for (const stale of links) {
    const found = await getLink(db, stale.linkId).catch((error: unknown) => {
      if (error instanceof NotFound) return null;
      throw error;
    });
    // A link that is away has no verdict until it is brought back: that makes it stale again.
    if (found === null) {
      await keepJudgement(db, stale, null, program);
      continue;
    }
    await keepJudgement(db, stale, await judgementOf(db, found.job, found.link, found.near, found.far), program);
    jobs.add(found.job.id);
  }
  for (const jobId of jobs) await tellVerdicts(db, jobId);
};

const NOT_CARRIED = { carries: null, widths: [], air: null };
const NOT_YET = { ...unjudged("working"), gear: "" };

const verdictOfRow = (r: VerdictRow): LinkVerdict => {
  // What another program kept may lack what this one asks for, until it is worked out anew.
  const kept = r.judgement === null ? null : { ...NOT_CARRIED, ...(r.judgement as Judgement) };
  const straight =
    kept === null ? bearingsBetween({ latDeg: r.near_lat, lonDeg: r.near_lon }, { latDeg: r.far_lat, lonDeg: r.far_lon }) : null;
  return {
    linkId: r.link_id,
    number: r.number,
    nearName: r.near_name,
    farName: r.far_name,
    label: r.label,
    stage: r.stage,
    changedAt: new Date(r.changed_at).toISOString(),
    fresh: r.have === r.want,
    chain: null,
    inAir: null,
    wiring: null,
    alone: kept?.verdict ?? "unknown",
    ...(kept ?? { ...NOT_YET, pathM: straight!.distanceM, nearBearingDeg: straight!.nearDeg, farBearingDeg: straight!.farDeg }),
  };
};

/**
 * What is kept of the verdicts of jobs, by job; nothing is worked out here. What is stale says so, and is asked for.
 * @returns also the jobs that have stale ones.
 */
export const keptVerdicts = async (db: Db, jobIds: readonly string[]): Promise<ReadonlyMap<string, readonly LinkVerdict[]>> => {
  const out = new Map<string, VerdictRow[]>(jobIds.map((id) => [id, []]));
  const stale = new Set<string>();
  for (const r of await verdictRows(db, jobIds)) {
    out.get(r.job_id)?.push(r);
    if (r.have !== r.want) stale.add(r.job_id);
  }
  if (stale.size > 0) await askFor(db, [...stale]);
  const whole = new Map<string, readonly LinkVerdict[]>();
  const parts = await partsKey(db);
  for (const [jobId, rows] of out) whole.set(jobId, await chained(db, jobId, rows, parts));
  return whole;
};

/** What is kept of one job's verdicts, each by itself. */
export const verdictsOfKept = async (db: Db, jobId: string): Promise<readonly LinkVerdict[]> =>
  (await verdictRows(db, [jobId])).map(verdictOfRow);

/** @param parts says whether the sheets of what is wired are those they were. */
const chained = (db: Db, jobId: string, rows: readonly VerdictRow[], parts: string): Promise<readonly LinkVerdict[]> =>
  withShared(db, jobId, rows.map(verdictOfRow), `${rows[0]?.revision}|${parts}|${rows.map((r) => r.have).join()}`);

/** Verdicts of all links of a job, the stale ones worked out here and kept: for whoever has no worker beside it. */
export const verdictsOf = async (db: Db, job: JobRow): Promise<readonly LinkVerdict[]> => {
  const stale = (await verdictRows(db, [job.id])).filter((r) => r.have !== r.want);
  await judgeLinks(
    db,
    stale.map((r) => ({ linkId: r.link_id, want: Number(r.want) })),
    "",
  );
  return chained(db, job.id, await verdictRows(db, [job.id]), await partsKey(db));
};
