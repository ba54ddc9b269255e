/*
 * One sector with the remotes that hang on it: where each lies in the beam, what it holds both ways through the same core as a
 * pair, and the air that all of them share.
 */
import type { Pattern } from "../antenna";
import { AIMED, type Direction, type Kept, type LinkPlan, type PathState, serviceOf, type Verdict, worseVerdict } from "../link";
import { accessOf } from "../radio";
import { type AirPolicy, type AirWay, type RemoteAir, type SectorAir, sectorAir } from "./airtime";
import { type BeamEdges, beamEdges, type PlaceInBeam, placeInBeam, type SectorAim } from "./beam";

/** A link as it is planned under its sector. */
export interface HubRemote {
  readonly linkId: string;
  readonly name: string;
  readonly plan: LinkPlan;
  readonly state: PathState;
  /** The hub is the near end of the link. */
  readonly hubIsNear: boolean;
}

export interface JudgedRemote {
  readonly linkId: string;
  readonly name: string;
  /** As seen from the hub. */
  readonly bearingDeg: number;
  readonly elevationDeg: number;
  readonly distanceM: number;
  readonly place: PlaceInBeam;
  /** Its radios make a link with the sector. */
  readonly joins: boolean;
  /** Null where nothing is asked, or no link is made. */
  readonly kept: Kept | null;
  /** Level per chain at the remote and at the hub, dBm. */
  readonly thereDbm: number | null;
  readonly backDbm: number | null;
  /** Modulations that hold, there and back. */
  readonly modulations: readonly [string | null, string | null];
  readonly clearance: Verdict;
  /** Of its radios alone: what it asks is held in the air by itself. */
  readonly service: Verdict;
  readonly verdict: Verdict;
}

export interface JudgedSector {
  readonly remotes: readonly JudgedRemote[];
  readonly edges: BeamEdges;
  readonly air: SectorAir;
  readonly airVerdict: Verdict;
  readonly verdict: Verdict;
}

/** Beyond this off the axis a sector's own word for its pattern promises nothing. */
const DOUBT_DB = -10;
/** Level of a pattern down to which it may be planned with: measured cuts are what they are. */
export const promisedDbOf = (pattern: Pattern): number => (pattern.kind === "measured cuts" ? Number.NEGATIVE_INFINITY : DOUBT_DB);

const end = (r: HubRemote) => (r.hubIsNear ? r.plan.near : r.plan.far);

/** Direction of a remote from its hub. */
export const seenFromHub = ({ state, hubIsNear }: Pick<HubRemote, "state" | "hubIsNear">) => ({
  bearingDeg: hubIsNear ? state.path.profile.nearBearingDeg : state.path.profile.farBearingDeg,
  elevationDeg: hubIsNear ? state.nearTiltDeg : state.farTiltDeg,
  distanceM: state.rayM,
});

const airWayOf = (d: Direction | null, rungIndex: number | null, needMbps: number | null): AirWay => {
  const index = rungIndex ?? d?.held?.index ?? null;
  const at = index === null ? undefined : d?.rates.find((r) => r.rung.index === index);
  return { needMbps: needMbps ?? 0, rate: at === undefined ? null : { phyMbps: at.rung.phyRateMbps, airtime: at.airtime } };
};

/** What each way of a remote is worked out to under its sector, without terms and availability: quick enough to be dragged. */
const ways = (r: HubRemote) => {
  const { service } = serviceOf(r.plan, r.state, false);
  const [there, back] = r.hubIsNear ? [service.toFar, service.toNear] : [service.toNear, service.toFar];
  const kept = service.kept;
  const [keptThere, keptBack] = kept === null ? [null, null] : r.hubIsNear ? [kept.toFar, kept.toNear] : [kept.toNear, kept.toFar];
  const [needThere, needBack] = r.hubIsNear ? [r.plan.needToFarMbps, r.plan.needToNearMbps] : [r.plan.needToNearMbps, r.plan.needToFarMbps];
  return { kept, there, back, keptThere, keptBack, needThere, needBack };
};

const serviceVerdict = (holds: boolean, place: PlaceInBeam, pattern: Pattern): Verdict => {
  if (!holds) return "short";
  return place.lossDb < promisedDbOf(pattern) ? "tight" : "clear";
};

const judgeRemote = (r: HubRemote, pattern: Pattern, edges: BeamEdges, aim: SectorAim): { judged: JudgedRemote; air: RemoteAir } => {
  const seen = seenFromHub(r);
  const place = placeInBeam(pattern, edges, aim, seen.bearingDeg, seen.elevationDeg);
  const w = ways(r);
  const [there, back] = [w.there?.held ?? null, w.back?.held ?? null];
  // Of which nothing is asked yet, some modulation must hold each way.
  const holds = w.kept === null ? there !== null && back !== null : w.kept.multiple >= 1;
  const service = serviceVerdict(holds, place, pattern);
  const clearance = r.state.clearance.verdict;
  return {
    judged: {
      linkId: r.linkId,
      name: r.name,
      ...seen,
      place,
      joins: w.there !== null && w.back !== null,
      kept: w.kept,
      thereDbm: w.there?.levelDbm ?? null,
      backDbm: w.back?.levelDbm ?? null,
      modulations: [there?.modulation ?? null, back?.modulation ?? null],
      clearance,
      service,
      verdict: worseVerdict(service, clearance),
    },
    air: {
      linkId: r.linkId,
      distanceM: seen.distanceM,
      there: airWayOf(w.there, w.keptThere?.rungIndex ?? null, w.needThere),
      back: airWayOf(w.back, w.keptBack?.rungIndex ?? null, w.needBack),
    },
  };
};

/**
 * @param remotes of one sector, each planned under it; at least one.
 * @param pattern of the sector's antenna on its channel.
 */
export const judgeSector = (
  remotes: readonly HubRemote[],
  pattern: Pattern,
  aim: SectorAim,
  policy: AirPolicy,
  frameShareToRemotes: number | null,
): JudgedSector => {
  const edges = beamEdges(pattern);
  const all = remotes.map((r) => judgeRemote(r, pattern, edges, aim));
  const access = remotes[0] === undefined ? "contention" : accessOf(end(remotes[0]).radio.duplex);
  const air = sectorAir(
    all.map((r) => r.air),
    access,
    policy,
    frameShareToRemotes,
  );
  // A remote that holds nothing is its own trouble: the air is told of the others.
  const heard = sectorAir(
    all.map((r) => r.air).filter((a) => a.there.rate !== null && a.back.rate !== null),
    access,
    policy,
    frameShareToRemotes,
  );
  const airVerdict: Verdict = heard.asked > heard.mayUse + 1e-9 ? "short" : "clear";
  return {
    remotes: all.map((r) => r.judged),
    edges,
    air,
    airVerdict,
    verdict: all.reduce<Verdict>((worst, r) => worseVerdict(worst, r.judged.verdict), airVerdict),
  };
};

/** What a remote has on the axis of its sector: for the search, see sectors.ts. */
export interface OnAxis {
  readonly marginDb: number;
  readonly airShare: number;
}

/** The slowest rung that carries a rate, and what is left above it. */
const onAxisWay = (d: Direction | null, leastMbps: number, needMbps: number, neededDb: number): OnAxis => {
  if (needMbps === 0) return { marginDb: Number.POSITIVE_INFINITY, airShare: 0 };
  const [slowest] = (d?.rates ?? [])
    .filter((r) => r.airtime.airTcpMbps >= leastMbps)
    .sort((a, b) => a.airtime.airTcpMbps - b.airtime.airTcpMbps);
  return slowest === undefined
    ? { marginDb: Number.NEGATIVE_INFINITY, airShare: Number.POSITIVE_INFINITY }
    : { marginDb: slowest.rung.marginDb - neededDb, airShare: needMbps / slowest.airtime.airTcpMbps };
};

/**
 * Margin above the rung that the need takes, the worse way, and the air that it takes there, with the sector's axis on it.
 * @param partOfAir of all the air, that the remote may take both ways together: its rung is the slowest that needs no more (ours).
 */
export const onAxisOf = (r: HubRemote, partOfAir: number): OnAxis => {
  const which = r.hubIsNear ? "near" : "far";
  const w = ways({ ...r, plan: { ...r.plan, [which]: { ...end(r), aim: AIMED } } });
  const needed = (k: typeof w.keptThere): number => k?.neededMarginDb ?? r.plan.policy.marginDb;
  const [there, back] = [w.needThere ?? 0, w.needBack ?? 0];
  const leastMbps = (there + back) / partOfAir;
  const out = onAxisWay(w.there, leastMbps, there, needed(w.keptThere));
  const home = onAxisWay(w.back, leastMbps, back, needed(w.keptBack));
  return { marginDb: Math.min(out.marginDb, home.marginDb), airShare: out.airShare + home.airShare };
};

/** What both ends of a remote ask together, Mbps. */
export const askedOf = ({ plan }: Pick<HubRemote, "plan">): number => (plan.needToFarMbps ?? 0) + (plan.needToNearMbps ?? 0);
