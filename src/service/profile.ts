import type { ProfileDto } from "../contract";
import { groundToldSchema, mountPosition } from "../contract";
import { declination, type LatLon, pathFrame } from "../core/geo";
import { assembleProfile, LONGEST_LINK_M, type PathProfile, SHORTEST_LINK_M } from "../core/link";
import { Refused } from "../data/clash";
import type { Db } from "../data/client";
import type { JobRow, LinkWithDesign, SiteRow } from "../data/jobs";
import { featuresOf, obstaclesAlong } from "../data/obstacles";
import { gridsAlong } from "../data/terrain-store";

/** Longest wavelength of any band offered (2.4 GHz): the corridor holds its first zone and half as much again. */
const WIDEST_WAVELENGTH_M = 0.125;
const CORRIDOR_SHARE = 1.5;
const CORRIDOR_EXTRA_M = 30;
const BOX_M = 400;
const METRES_PER_DEGREE = 111_320;

/** Where the two ends of a link stand: at their sites, or at mounting points of them. */
export const endPositions = (link: LinkWithDesign, nearSite: SiteRow, farSite: SiteRow) => ({
  near: mountPosition(nearSite, link.design.nearMountId),
  far: mountPosition(farSite, link.design.farMountId),
});

/** Samples the ground, or takes what was told of it, and gathers what stands beside the path of a link. */
export const profileOf = (db: Db, job: JobRow, link: LinkWithDesign, nearSite: SiteRow, farSite: SiteRow): Promise<PathProfile> => {
  const { near, far } = endPositions(link, nearSite, farSite);
  return profileBetween(db, job, near, far, link.groundTold ?? null);
};

/** The same between any two positions. @param groundTold ground told by hand, as kept with a link. */
export const profileBetween = async (db: Db, job: JobRow, near: LatLon, far: LatLon, groundTold: unknown): Promise<PathProfile> => {
  const told = groundToldSchema.nullable().safeParse(groundTold);
  const frame = pathFrame(near, far);
  if (frame.lengthM < SHORTEST_LINK_M || frame.lengthM > LONGEST_LINK_M) {
    throw new Refused("link-length", "farSiteId", { distanceM: frame.lengthM, leastM: SHORTEST_LINK_M, mostM: LONGEST_LINK_M });
  }
  const pieces = Math.max(1, Math.ceil(frame.lengthM / BOX_M));
  const points = Array.from({ length: pieces + 1 }, (_, i) => frame.at((frame.lengthM * i) / pieces));
  const reachM = (CORRIDOR_SHARE * Math.sqrt(WIDEST_WAVELENGTH_M * frame.lengthM)) / 2 + CORRIDOR_EXTRA_M;
  const latDeg = reachM / METRES_PER_DEGREE;
  const lonDeg = latDeg / Math.max(0.01, Math.cos((near.latDeg * Math.PI) / 180));
  const [grids, obstacles, features] = await Promise.all([
    told.data == null ? gridsAlong(db, points) : Promise.resolve([]),
    obstaclesAlong(db, job.id, points, { latDeg, lonDeg }),
    featuresOf(db, job.id),
  ]);
  return assembleProfile(near, far, grids, obstacles, features, Number(job.visitOn.slice(0, 4)), told.data ?? null);
};

export const profileDto = (profile: PathProfile, job: JobRow, near: LatLon, far: LatLon): ProfileDto => {
  const day = new Date(`${job.visitOn}T12:00:00Z`);
  const atNear = declination(near, day);
  const atFar = declination(far, day);
  return {
    ...profile,
    // Rounded they stay apart (a millimetre is the least gap), and the last is the path's own length.
    distanceM: Array.from(profile.distanceM, (x, i) => (i === profile.distanceM.length - 1 ? profile.pathM : Math.round(x * 1e4) / 1e4)),
    groundAmslM: Array.from(profile.groundAmslM, (h) => (Number.isNaN(h) ? null : Math.round(h * 1e4) / 1e4)),
    datasetIndex: Array.from(profile.datasetIndex),
    side:
      profile.side == null
        ? null
        : {
            offsetsM: Array.from(profile.side.offsetsM),
            groundAmslM: profile.side.groundAmslM.map((line) =>
              Array.from(line, (h) => (Number.isNaN(h) ? null : Math.round(h * 1e3) / 1e3)),
            ),
          },
    nearDeclinationDeg: atNear.declinationDeg,
    farDeclinationDeg: atFar.declinationDeg,
    declinationInModelYears: atNear.inModelYears,
    declinationModel: atNear.modelName,
  };
};
