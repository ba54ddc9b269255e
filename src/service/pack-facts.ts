import {
  type AddressesDto,
  addressedPlaces,
  type HardwareDto,
  isProblem,
  judgeSites,
  type LinkVerdict,
  type PackEnd,
  type PackFacts,
  type PackLevel,
  type PackLink,
  planOf,
  type WiringDto,
} from "../contract";
import { aimCut, aimingTable, type Seen, seenFrom, seenReachM } from "../core/aim";
import { localTime } from "../core/days";
import { bearingsBetween, declination, destination, type LatLon, planeProjection } from "../core/geo";
import {
  antennaNameOf,
  decidingDraws,
  evaluatePrepared,
  findings,
  patternOfEnd,
  polarisationWordsOf,
  preparePath,
  rayOf,
  type Uncertainty,
} from "../core/link";
import { bilinearSampler } from "../core/terrain";
import { partsOf } from "../core/wiring";
import { NotFound, Refused } from "../data/clash";
import { type Db, isUnreachable } from "../data/client";
import { type JobRow, type LinkWithDesign, linksOf, type SiteRow, sitesOf } from "../data/jobs";
import { featuresOf, obstaclesOf } from "../data/obstacles";
import { listRecords } from "../data/records";
import { gridsOver } from "../data/terrain-store";
import { hardwareDto, jobDto, linkDto, partsDto } from "./dto";
import { readKit } from "./kit-read";
import { endPositions, profileOf } from "./profile";
import { keptVerdicts } from "./verdicts";

/* What the pages of a pack rest on, worked out from what is kept: the same core as the sheets, for the day of the visit. */

/** Half of what is looked at from a mount. */
const SEEN_HALF_DEG = 40;
const MOST_BODIES = 1500;
const LATTICE = 12;
const METRES_PER_DEGREE = 111_320;
const CURVE_STEPS = 80;
/** Without a spread that can be told a level is planned this wide (8 in 10, dB). */
const BAND_DB = 4;

/** Heights of the ground before a mount, as far as it looks. */
const groundBefore = async (db: Db, mount: LatLon, aimDeg: number, reachM: number): Promise<(p: LatLon) => number> => {
  const lattice = Array.from({ length: LATTICE + 1 }, (_, r) =>
    Array.from({ length: LATTICE + 1 }, (_, c) =>
      destination(mount, aimDeg - SEEN_HALF_DEG + (2 * SEEN_HALF_DEG * c) / LATTICE, 1 + (reachM * r) / LATTICE),
    ),
  ).flat();
  const { grids } = await gridsOver(db, lattice);
  const samplers = grids.map((g) => ({ projection: planeProjection(g.crs), sample: bilinearSampler(g) }));
  return (p) => {
    for (const { projection, sample } of samplers) {
      const [x, y] = projection.forward(p);
      const h = sample(x, y);
      if (!Number.isNaN(h)) return h;
    }
    return Number.NaN;
  };
};

interface Standing {
  readonly position: LatLon;
  readonly amslM: number;
  readonly name: string;
}

const seenOf = async (
  db: Db,
  job: JobRow,
  sites: readonly SiteRow[],
  own: Standing & { readonly siteId: string },
  other: Standing & { readonly siteId: string },
  kFactor: number,
): Promise<Seen> => {
  const to = bearingsBetween(own.position, other.position);
  const reachM = seenReachM(to.distanceM);
  const latDeg = reachM / METRES_PER_DEGREE;
  const lonDeg = latDeg / Math.max(0.01, Math.cos((own.position.latDeg * Math.PI) / 180));
  const box = {
    westDeg: own.position.lonDeg - lonDeg,
    eastDeg: own.position.lonDeg + lonDeg,
    southDeg: own.position.latDeg - latDeg,
    northDeg: own.position.latDeg + latDeg,
  };
  const [groundAt, obstacles, features] = await Promise.all([
    groundBefore(db, own.position, to.nearDeg, reachM),
    obstaclesOf(db, job.id, box, MOST_BODIES),
    featuresOf(db, job.id),
  ]);
  const middle = (points: readonly LatLon[]): LatLon => points[Math.floor(points.length / 2)]!;
  return seenFrom({
    mount: { ...own.position, amslM: own.amslM },
    aimDeg: to.nearDeg,
    farEnd: { ...other.position, name: other.name, amslM: other.amslM },
    halfDeg: SEEN_HALF_DEG,
    kFactor,
    groundAt,
    bodies: obstacles.rows,
    landmarks: [
      ...sites
        .filter((s) => s.id !== own.siteId && s.id !== other.siteId)
        .map((s) => ({ latDeg: s.latDeg, lonDeg: s.lonDeg, name: s.name, amslM: null })),
      ...features.filter((f) => f.points.length > 0).map((f) => ({ ...middle(f.points), name: f.name, amslM: null })),
    ],
  });
};

const levelsOf = (drawn: Uncertainty | null, result: PackLink["result"]): [PackLevel | null, PackLevel | null] => {
  const { toFar, toNear } = result.service;
  if (toFar === null || toNear === null) return [null, null];
  const of = (d: typeof toFar, spread: { p10: number; p90: number } | undefined): PackLevel => ({
    dbm: d.levelDbm,
    lowDbm: spread?.p10 ?? d.levelDbm - BAND_DB,
    highDbm: spread?.p90 ?? d.levelDbm + BAND_DB,
    leastDbm: Math.min(...d.ladder.map((r) => r.needsDbm)),
  });
  return [of(toNear, drawn?.levelToNearDbm), of(toFar, drawn?.levelToFarDbm)];
};

interface Gathered {
  readonly row: JobRow;
  readonly sites: readonly SiteRow[];
  readonly hardware: HardwareDto;
  readonly kit: Awaited<ReturnType<typeof readKit>>;
  readonly judged: ReturnType<typeof judgeSites>;
  readonly addressed: ReturnType<typeof addressedPlaces>;
  readonly told: readonly LinkVerdict[];
}

/** Pages of one link; the code of what keeps it from having any. */
const packLink = async (db: Db, g: Gathered, link: LinkWithDesign): Promise<PackLink | string> => {
  const [near, far] = [link.nearSiteId, link.farSiteId].map((id) => g.sites.find((s) => s.id === id)!) as [SiteRow, SiteRow];
  const dto = linkDto(link);
  const plan = planOf(jobDto(g.row), near, far, link.design, g.hardware, dto.groundTold);
  if (isProblem(plan)) return plan.code;
  const profile = await profileOf(db, g.row, link, near, far);
  const path = preparePath(plan, profile);
  const result = evaluatePrepared(plan, path);
  const drawn = decidingDraws(plan, path);
  const found = findings(plan, path, result, drawn === null ? null : { serves: drawn.probabilityServes });
  const at = endPositions(link, near, far);
  const levels = levelsOf(drawn, result);
  const day = new Date(`${g.row.visitOn}T12:00:00Z`);
  const kits = g.kit.kitsOf([near.id, far.id]);
  const standing = {
    near: { siteId: near.id, position: at.near, amslM: result.geometry.nearAmslM, name: near.name },
    far: { siteId: far.id, position: at.far, amslM: result.geometry.farAmslM, name: far.name },
  };
  const endOf = async (end: "near" | "far"): Promise<PackEnd> => {
    const site = end === "near" ? near : far;
    const unit = plan[end];
    const level = levels[end === "near" ? 0 : 1];
    const sent = end === "near" ? result.service.toFar : result.service.toNear;
    const bearingDeg = end === "near" ? profile.nearBearingDeg : profile.farBearingDeg;
    const tiltDeg = end === "near" ? result.geometry.nearTiltDeg : result.geometry.farTiltDeg;
    // A sector looks along its axis, whichever of its remotes is read.
    const ownAxis = unit.aim.azimuthDeg !== null || unit.aim.tiltDeg !== null;
    const whole = level === null ? null : patternOfEnd(path, unit);
    const pattern = ownAxis ? null : whole;
    const azimuth = pattern === null || level === null ? null : aimingTable(pattern, "azimuth", level.dbm);
    const reach = azimuth === null ? 0 : azimuth.rows[azimuth.rows.length - 1]!.offDeg;
    return {
      siteId: site.id,
      name: site.name,
      stands: site.stands,
      aglM: unit.mountAglM,
      amslM: standing[end].amslM,
      bearingDeg,
      declinationDeg: declination(at[end], day).declinationDeg,
      tiltDeg,
      lookDeg: unit.aim.azimuthDeg ?? bearingDeg,
      lookTiltDeg: unit.aim.tiltDeg ?? tiltDeg,
      ownAxis,
      beam: whole === null ? null : { wideDeg: whole.azimuthBeamwidthDeg, highDeg: whole.elevationBeamwidthDeg },
      unit: unit.radio.name,
      antenna: antennaNameOf(unit),
      polarisation: level === null ? "" : polarisationWordsOf(unit),
      powerDbm: unit.txPowerDbm,
      eirpDbm: sent?.eirpDbm ?? null,
      exposureM: sent?.exposure?.distanceM ?? null,
      level,
      azimuth,
      tilt: pattern === null || level === null ? null : aimingTable(pattern, "tilt", level.dbm),
      cut: {
        azimuth: pattern === null ? null : aimCut(pattern, "azimuth"),
        tilt: pattern === null ? null : aimCut(pattern, "tilt"),
      },
      curve:
        pattern === null || level === null || azimuth === null
          ? []
          : Array.from({ length: 2 * CURVE_STEPS + 1 }, (_, i) => {
              const offDeg = ((i - CURVE_STEPS) / CURVE_STEPS) * reach;
              return { offDeg, dbm: level.dbm + pattern.relativeDb(offDeg, 0) };
            }),
      seen: await seenOf(db, g.row, g.sites, standing[end], standing[end === "near" ? "far" : "near"], plan.policy.kFactor),
      kit: kits.find((k) => k.siteId === site.id) ?? null,
      wired: g.judged.find((j) => j.siteId === site.id) ?? null,
      addresses: g.addressed.filter((a) => a.siteId === site.id),
      poleMm: g.kit.kit.sites[site.id]?.poleMm ?? null,
      position: at[end],
      access: site.access,
    };
  };
  return {
    link: dto,
    plan,
    path,
    ray: rayOf(plan, path).ray,
    result,
    found,
    told: g.told.find((t) => t.linkId === link.id && t.fresh) ?? null,
    ends: [await endOf("near"), await endOf("far")],
  };
};

/**
 * @param linkId one link; null: all of the job.
 * @param step called before each link with how many are done; what it throws ends the work.
 * @throws NotFound when the job has no such link.
 */
export const packFacts = async (
  db: Db,
  row: JobRow,
  linkId: string | null,
  step: (done: number, all: number) => void = () => undefined,
): Promise<PackFacts> => {
  const [sites, all, hardware, kit, wirings, [addresses], parts] = await Promise.all([
    sitesOf(db, row.id),
    linksOf(db, row.id),
    hardwareDto(db),
    readKit(db, row),
    listRecords(db, row.id, "wiring") as unknown as Promise<WiringDto[]>,
    listRecords(db, row.id, "addresses") as unknown as Promise<AddressesDto[]>,
    partsDto(db),
  ]);
  const chosen = linkId === null ? all : all.filter((l) => l.id === linkId);
  if (linkId !== null && chosen.length === 0) throw new NotFound("link");
  const g: Gathered = {
    row,
    sites,
    hardware,
    kit,
    judged: judgeSites(kit.job, wirings, partsOf(parts, hardware.radios)),
    addressed: addressedPlaces(wirings, addresses!),
    // What is kept: a job of hundreds of links is not judged anew for the pages of one.
    told: (await keptVerdicts(db, [row.id])).get(row.id) ?? [],
  };
  const links: PackLink[] = [];
  const without: { name: string; code: string }[] = [];
  const nameOf = (id: string): string => sites.find((s) => s.id === id)?.name ?? "";
  for (const [i, link] of chosen.entries()) {
    step(i, chosen.length);
    const name = `${nameOf(link.nearSiteId)} to ${nameOf(link.farSiteId)}`;
    try {
      const made = await packLink(db, g, link);
      if (typeof made === "string") without.push({ name, code: made });
      else links.push(made);
    } catch (error) {
      // A lost database is no fault of the link.
      if (isUnreachable(error) || !(error instanceof Refused)) throw error;
      without.push({ name, code: error.code === "link-length" ? "too-far" : "fault" });
    }
  }
  const now = localTime(new Date(), row.timeZone);
  const [hours, minutes] = [Math.floor(now.minutes / 60), Math.floor(now.minutes % 60)].map((n) => String(n).padStart(2, "0"));
  return { job: jobDto(row), contact: kit.brief.contact, madeAt: `${now.day} ${hours}:${minutes}`, links, without };
};
