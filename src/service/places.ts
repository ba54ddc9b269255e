import { mountPosition, type PlaceDto, type PlacesQuestion, type Streamed } from "../contract";
import { compassWord, insideOutline, inverse, type LatLon, pointsAlong } from "../core/geo";
import { LONGEST_LINK_M, SHORTEST_LINK_M } from "../core/link";
import { placeOutcome } from "../core/solve";
import { NotFound, Refused } from "../data/clash";
import type { Db } from "../data/client";
import type { SiteRow } from "../data/jobs";
import { featuresOf, obstaclesOf } from "../data/obstacles";
import { type Asked, askedOf } from "./asked-link";
import { profileBetween } from "./profile";

/** Spots tried along a roof's edge or a line, and the least step between them. */
/** Buildings looked at about an end: the box is that of one roof. */
const MOST_NEAR = 5000;

const MOST_SPOTS = 60;
const STEP_M = 1;
/** A building this near the site's position carries it. */
const ROOF_REACH_DEG = 0.0005;
const EDGE_M = 2;

export interface Spot {
  readonly at: LatLon;
  readonly mountId: string | null;
  readonly name: string;
  /** Height above the spot's own ground, or AMSL where a roof carries it. */
  readonly aglM: number | null;
  readonly amslM: number | null;
}

/** Where a spot lies seen from the site, in words. */
const seenFrom = (site: LatLon, at: LatLon): string => {
  const v = inverse(site, at);
  if (v.distanceM < 1) return "at the site's position";
  return `${v.distanceM.toFixed(v.distanceM < 10 ? 1 : 0)} m ${compassWord(v.azimuthAtADeg)}`;
};

const distanceToOutlineM = (at: LatLon, outline: readonly LatLon[]): number =>
  Math.min(...pointsAlong(outline, true, 0.5, 400).map((p) => inverse(at, p).distanceM));

/** The outline of the building that carries a site, or null. */
const roofOf = async (db: Db, jobId: string, site: LatLon): Promise<readonly LatLon[] | null> => {
  const box = {
    westDeg: site.lonDeg - 2 * ROOF_REACH_DEG,
    eastDeg: site.lonDeg + 2 * ROOF_REACH_DEG,
    southDeg: site.latDeg - ROOF_REACH_DEG,
    northDeg: site.latDeg + ROOF_REACH_DEG,
  };
  const buildings = (await obstaclesOf(db, jobId, box, MOST_NEAR)).rows.filter((o) => o.kind === "building");
  const inside = buildings.find((o) => insideOutline(site, o.outline));
  return (inside ?? buildings.find((o) => distanceToOutlineM(site, o.outline) <= EDGE_M))?.outline ?? null;
};

export interface SpotsQuestion {
  readonly jobId: string;
  readonly site: SiteRow;
  readonly aglM: number;
  /** Ground under the mount as it stands, for what stays as high over the sea; NaN where it is unknown. */
  readonly groundAmslM: () => Promise<number>;
  readonly along: PlacesQuestion["along"];
}

/** Spots about a site: its mounting points, the edge of the roof that carries it, or a drawn line. */
export const spotsAbout = async (db: Db, { jobId, site, aglM, groundAmslM, along }: SpotsQuestion): Promise<Spot[]> => {
  if (along === "points") {
    const own: Spot = { at: site, mountId: null, name: "The site's own mount", aglM: site.mountAglM, amslM: null };
    return [
      own,
      ...site.mountingPoints.map((m): Spot => ({ at: mountPosition(site, m.id), mountId: m.id, name: m.name, aglM: m.aglM, amslM: null })),
    ];
  }
  if (along === "roof") {
    const outline = await roofOf(db, jobId, site);
    if (outline === null) throw new Refused("no-roof", "end", { name: site.name });
    // A bracket moved along its roof stays as high over the sea.
    const groundM = await groundAmslM();
    const amslM = Number.isNaN(groundM) ? null : groundM + aglM;
    return pointsAlong(outline, true, STEP_M, MOST_SPOTS).map((at) => ({
      at,
      mountId: null,
      name: `Roof edge, ${seenFrom(site, at)}`,
      aglM: amslM === null ? aglM : null,
      amslM,
    }));
  }
  const feature = (await featuresOf(db, jobId)).find((f) => f.id === along.featureId);
  if (feature === undefined) throw new NotFound("feature");
  return pointsAlong(feature.points, false, STEP_M, MOST_SPOTS).map((at) => ({
    at,
    mountId: null,
    name: `${feature.name}, ${seenFrom(site, at)}`,
    aglM,
    amslM: null,
  }));
};

const spotsOf = (db: Db, a: Asked, q: PlacesQuestion): Promise<Spot[]> => {
  const design = a.link.link.design;
  return spotsAbout(db, {
    jobId: a.link.job.id,
    site: a.link[q.end],
    aglM: q.end === "near" ? design.nearMountAglM : design.farMountAglM,
    along: q.along,
    groundAmslM: async () => {
      const { groundAmslM: g } = await profileBetween(db, a.link.job, a.near, a.far, a.link.link.groundTold ?? null);
      return q.end === "near" ? g[0]! : g[g.length - 1]!;
    },
  });
};

/** What the link comes to from each spot, in the order of the line; told as it is worked out. */
export async function* placesAlong(db: Db, linkId: string, q: PlacesQuestion): AsyncGenerator<Streamed<PlaceDto>> {
  const a = await askedOf(db, linkId);
  const spots = await spotsOf(db, a, q);
  const site: LatLon = a.link[q.end];
  const other = q.end === "near" ? a.far : a.near;
  for (let i = 0; i < spots.length; i++) {
    const { at, mountId, name, aglM, amslM } = spots[i]!;
    const { distanceM } = inverse(at, other);
    if (distanceM >= SHORTEST_LINK_M && distanceM <= LONGEST_LINK_M) {
      const [near, far] = q.end === "near" ? [at, a.far] : [a.near, at];
      const profile = await profileBetween(db, a.link.job, near, far, a.link.link.groundTold ?? null);
      const ground = q.end === "near" ? profile.groundAmslM[0]! : profile.groundAmslM[profile.groundAmslM.length - 1]!;
      const mountAglM = Math.max(0, Math.round((aglM ?? amslM! - (Number.isNaN(ground) ? 0 : ground)) * 100) / 100);
      const from = inverse(site, at);
      const azimuth = (from.azimuthAtADeg * Math.PI) / 180;
      yield {
        kind: "row",
        row: {
          latDeg: at.latDeg,
          lonDeg: at.lonDeg,
          eastM: from.distanceM * Math.sin(azimuth),
          northM: from.distanceM * Math.cos(azimuth),
          mountId,
          name,
          ...placeOutcome(a.plan, profile, q.end, mountAglM),
        },
      };
    }
    yield { kind: "progress", done: i + 1, total: spots.length };
  }
}
