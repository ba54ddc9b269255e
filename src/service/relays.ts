import type { z } from "zod";
import type { RelayDto, RelayLegDto, relaysSchema, SectionSketch, Streamed } from "../contract";
import { effectiveRadiusM, inverse, type LatLon, pointsAlong } from "../core/geo";
import { AIMED, evaluatePrepared, type LinkPlan, LONGEST_LINK_M, type PathProfile, preparePath, SHORTEST_LINK_M } from "../core/link";
import type { Db } from "../data/client";
import { featuresOf } from "../data/obstacles";
import { type Asked, askedOf } from "./asked-link";
import { profileBetween } from "./profile";

const SKETCH_POINTS = 160;

/** A path in few points: of each stretch its highest ground, and the highest that stands on it. */
const sketchOf = (plan: LinkPlan, profile: PathProfile, nearAmslM: number, farAmslM: number): SectionSketch => {
  const path = preparePath(plan, profile);
  const { distanceM, groundAmslM, pathM } = profile;
  const n = Math.min(SKETCH_POINTS, distanceM.length);
  const x: number[] = [];
  const ground: (number | null)[] = [];
  const top: (number | null)[] = [];
  for (let s = 0; s < n; s++) {
    const from = Math.floor((s * distanceM.length) / n);
    const to = Math.max(from + 1, Math.floor(((s + 1) * distanceM.length) / n));
    let best = from;
    for (let i = from; i < to; i++) if (groundAmslM[i]! > groundAmslM[best]!) best = i;
    const at = distanceM[best]!;
    const g = groundAmslM[best]!;
    let t = g;
    for (const b of path.bodies) {
      if (b.stretches.some((k) => k.toM >= distanceM[from]! && k.fromM <= distanceM[to - 1]!))
        t = Math.max(t, b.topAt(plan.policy.year)(at));
    }
    x.push(Math.round(at * 10) / 10);
    ground.push(Number.isNaN(g) ? null : Math.round(g * 10) / 10);
    top.push(Number.isNaN(t) ? null : Math.round(t * 10) / 10);
  }
  return {
    pathM,
    nearAmslM,
    farAmslM,
    effectiveRadiusM: effectiveRadiusM(plan.policy.kFactor),
    wavelengthM: path.wavelengthM,
    distanceM: x,
    groundAmslM: ground,
    topAmslM: top,
  };
};

const legOf = async (db: Db, a: Asked, plan: LinkPlan, from: LatLon, to: LatLon): Promise<RelayLegDto | null> => {
  const { distanceM } = inverse(from, to);
  if (distanceM < SHORTEST_LINK_M || distanceM > LONGEST_LINK_M) return null;
  const profile = await profileBetween(db, a.link.job, from, to, null);
  const { clearance, service, geometry } = evaluatePrepared(plan, preparePath(plan, profile));
  const { toFar, toNear } = service;
  return {
    pathM: profile.pathM,
    verdict: clearance.verdict,
    missM: clearance.worst?.missM ?? null,
    worstName: clearance.worst?.ownerName ?? null,
    levelDbm: toFar === null || toNear === null ? null : Math.min(toFar.levelDbm, toNear.levelDbm),
    sketch: sketchOf(plan, profile, geometry.nearAmslM, geometry.farAmslM),
  };
};

/** A named thing this near the spot gives it a name. */
const NAMED_WITHIN_M = 1500;

/** Both legs of a relay at each spot, over exact profiles with all that stands there, with this link's own gear. */
export async function* relaysAt(db: Db, linkId: string, q: z.output<typeof relaysSchema>): AsyncGenerator<Streamed<RelayDto>> {
  const a = await askedOf(db, linkId);
  const features = await featuresOf(db, a.link.job.id);
  for (let i = 0; i < q.spots.length; i++) {
    const spot = q.spots[i]!;
    const relay = { mountAglM: spot.aglM, mountMaxAglM: null, barrier: null, interferenceDbm: null, aim: AIMED };
    const near = await legOf(db, a, { ...a.plan, far: { ...a.plan.far, ...relay, name: "Relay" } }, a.near, spot);
    const far = await legOf(db, a, { ...a.plan, near: { ...a.plan.near, ...relay, name: "Relay" } }, spot, a.far);
    let name: string | null = null;
    let bestM = NAMED_WITHIN_M;
    for (const f of features) {
      const awayM = Math.min(...pointsAlong(f.points, false, 25, 200).map((p) => inverse(p, spot).distanceM));
      if (awayM < bestM) {
        bestM = awayM;
        name = f.name;
      }
    }
    yield {
      kind: "row",
      row: {
        latDeg: spot.latDeg,
        lonDeg: spot.lonDeg,
        aglM: spot.aglM,
        siteId: spot.siteId,
        name,
        near,
        far,
      },
    };
    yield { kind: "progress", done: i + 1, total: q.spots.length };
  }
}
