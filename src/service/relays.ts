import type { z } from "zod";
import type { RelayDto, RelayLegDto, relaysSchema, Streamed } from "../contract";
import { compassWord, inverse, type LatLon, pointsAlong } from "../core/geo";
import {
  AIMED,
  clearanceUnder,
  evaluatePrepared,
  type FeatureInput,
  type LinkPlan,
  LONGEST_LINK_M,
  type PathProfile,
  type PreparedPath,
  preparePath,
  SHORTEST_LINK_M,
  sketchOf,
} from "../core/link";
import type { Db } from "../data/client";
import { featuresOf } from "../data/obstacles";
import { type Asked, askedOf } from "./asked-link";
import { profileBetween } from "./profile";

interface Leg {
  readonly plan: LinkPlan;
  readonly profile: PathProfile;
  readonly path: PreparedPath;
  readonly relayEnd: "near" | "far";
}

const legOf = async (db: Db, a: Asked, kept: "near" | "far", relay: LatLon): Promise<Leg | null> => {
  const [from, to] = kept === "near" ? [a.near, relay] : [relay, a.far];
  const { distanceM } = inverse(from, to);
  if (distanceM < SHORTEST_LINK_M || distanceM > LONGEST_LINK_M) return null;
  const relayEnd = kept === "near" ? "far" : "near";
  const open = { name: "Relay", mountMaxAglM: null, barrier: null, interferenceDbm: null, aim: AIMED };
  const plan = { ...a.plan, [relayEnd]: { ...a.plan[relayEnd], ...open } };
  const profile = await profileBetween(db, a.link.job, from, to, null);
  return { plan, profile, path: preparePath(plan, profile), relayEnd };
};

const atHeight = (leg: Leg, aglM: number): LinkPlan => ({ ...leg.plan, [leg.relayEnd]: { ...leg.plan[leg.relayEnd], mountAglM: aglM } });

const legDto = (leg: Leg, aglM: number): RelayLegDto => {
  const plan = atHeight(leg, aglM);
  const { clearance, service, geometry } = evaluatePrepared(plan, leg.path);
  const { toFar, toNear } = service;
  return {
    pathM: leg.profile.pathM,
    verdict: clearance.verdict,
    missM: clearance.worst?.missM ?? null,
    worstName: clearance.worst?.ownerName ?? null,
    levelDbm: toFar === null || toNear === null ? null : Math.min(toFar.levelDbm, toNear.levelDbm),
    sketch: sketchOf(plan, leg.path, geometry.nearAmslM, geometry.farAmslM),
  };
};

/**
 * A leg that is clear with the errors of ground and mounts counted, or that only the kept end's own building holds back:
 * no mast of the relay mends that.
 */
const isSure = (leg: Leg, aglM: number): boolean => {
  const { verdict, worst } = clearanceUnder(atHeight(leg, aglM), leg.path);
  if (verdict === "clear") return true;
  const owner = worst?.owner;
  const own = owner?.kind === "body" ? leg.profile.bodies.find((b) => b.id === owner.id) : undefined;
  return worst !== null && worst.missM <= 0 && own !== undefined && own.carries !== null && own.carries !== leg.relayEnd;
};

/** Least mast in whole metres that makes both legs sure; as given when none up to the most does. */
const sureMast = (legs: readonly Leg[], aglM: number, mostAglM: number): number => {
  for (let h = aglM; h <= mostAglM; h++) if (legs.every((leg) => isSure(leg, h))) return h;
  return aglM;
};

/** A named thing this near the spot gives it a name. */
const NAMED_WITHIN_M = 1500;

/** On what is named within this, else so far from it. */
const ON_IT_M = 250;

/** Where a spot lies by the named ground nearest to it, or null. */
const nameOf = (spot: LatLon, features: readonly FeatureInput[]): string | null => {
  let name: string | null = null;
  let bestM = NAMED_WITHIN_M;
  for (const f of features) {
    for (const p of pointsAlong(f.points, false, 25, 200)) {
      const to = inverse(p, spot);
      if (to.distanceM >= bestM) continue;
      bestM = to.distanceM;
      name = bestM <= ON_IT_M ? f.name : `${(bestM / 1000).toFixed(1)} km ${compassWord(to.azimuthAtADeg)} of ${f.name}`;
    }
  }
  return name;
};

/** Both legs of a relay at each spot, over exact profiles with all that stands there, with this link's own gear. */
export async function* relaysAt(db: Db, linkId: string, q: z.output<typeof relaysSchema>): AsyncGenerator<Streamed<RelayDto>> {
  const a = await askedOf(db, linkId);
  const features = await featuresOf(db, a.link.job.id);
  for (let i = 0; i < q.spots.length; i++) {
    const spot = q.spots[i]!;
    const near = await legOf(db, a, "near", spot);
    const far = await legOf(db, a, "far", spot);
    const aglM = spot.siteId === null && near !== null && far !== null ? sureMast([near, far], spot.aglM, q.mostAglM) : spot.aglM;
    yield {
      kind: "row",
      row: {
        latDeg: spot.latDeg,
        lonDeg: spot.lonDeg,
        aglM,
        siteId: spot.siteId,
        name: nameOf(spot, features),
        sure: near !== null && far !== null && isSure(near, aglM) && isSure(far, aglM),
        near: near === null ? null : legDto(near, aglM),
        far: far === null ? null : legDto(far, aglM),
      },
    };
    yield { kind: "progress", done: i + 1, total: q.spots.length };
  }
}
