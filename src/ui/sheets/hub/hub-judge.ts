import {
  designUnder,
  type HardwareDto,
  type HubFields,
  type HubSector,
  isProblem,
  type JobBundle,
  type LinkDto,
  type ProfileDto,
  planOf,
  profileFromDto,
} from "@/contract";
import { type AntennaShape, type Pattern, patternOf } from "@/core/antenna";
import {
  type AirPolicy,
  askedOf,
  type FoundSectors,
  findSectors,
  type HubRemote,
  type JudgedSector,
  judgeSector,
  onAxisOf,
  promisedDbOf,
  type SectorAim,
  seenFromHub,
  shapeOfUnit,
} from "@/core/hub";
import { type LinkPlan, type PathProfile, type PathState, type PreparedPath, pathStateOf, preparePath } from "@/core/link";
import { hubIsNear } from "./hub-start";

/* A hub judged as it stands under the hand: paths are made ready once, only what a sector moves is worked out again. */

/** Where a sector looks: as it is set, else at its one remote. */
const aimOf = (s: Pick<HubSector, "azimuthDeg" | "tiltDeg">, remotes: readonly HubRemote[]): SectorAim => {
  const [first] = remotes;
  const seen = first === undefined ? null : seenFromHub(first);
  return { azimuthDeg: s.azimuthDeg ?? seen?.bearingDeg ?? 0, tiltDeg: s.tiltDeg ?? seen?.elevationDeg ?? 0 };
};

export interface JudgedHub {
  /** Where each sector looks. */
  readonly aims: readonly SectorAim[];
  /** By sector, in the hub's order; null for a sector that carries nothing that can be judged. */
  readonly sectors: readonly (JudgedSector | null)[];
  readonly remotes: readonly (readonly HubRemote[])[];
  readonly patterns: readonly (Pattern | null)[];
  /** Remotes that could not be judged: their path is not there, or a radio of theirs is gone. */
  readonly unjudged: readonly string[];
}

const MOST_KEPT_PATHS = 200;

const shapeOf = (s: Pick<HubSector, "radioId" | "antennaId">, hardware: HardwareDto): AntennaShape | null => {
  const radio = hardware.radios.find((r) => r.id === s.radioId);
  return radio === undefined ? null : shapeOfUnit({ radio, antenna: hardware.antennas.find((a) => a.id === s.antennaId) ?? null });
};

export interface HubJudge {
  readonly judge: (
    job: JobBundle,
    siteId: string,
    hub: HubFields,
    hardware: HardwareDto,
    profiles: ReadonlyMap<string, ProfileDto>,
  ) => JudgedHub;
}

interface Asked {
  readonly job: JobBundle;
  readonly siteId: string;
  readonly hub: HubFields;
  readonly hardware: HardwareDto;
  readonly of: ReadonlyMap<string, ProfileDto>;
}

/** @returns a judge that keeps the paths that it made ready. */
export const openHubJudge = (): HubJudge => {
  const profiles = new WeakMap<ProfileDto, PathProfile>();
  const patterns = new Map<string, Pattern>();
  const paths = new Map<string, { readonly of: PathProfile; readonly path: PreparedPath }>();
  const states = new Map<string, { readonly of: PreparedPath; readonly state: PathState }>();
  const profileOf = (dto: ProfileDto): PathProfile => {
    let found = profiles.get(dto);
    if (found === undefined) {
      found = profileFromDto(dto);
      profiles.set(dto, found);
    }
    return found;
  };
  /** What does not change while a sector is turned, tilted or given other power. */
  const stateOf = (linkId: string, plan: LinkPlan, profile: PathProfile): PathState => {
    const pathKey = `${linkId}|${JSON.stringify([plan.centreMhz, plan.policy.kFactor, plan.policy.year, plan.climate, plan.trims])}`;
    let p = paths.get(pathKey);
    if (p?.of !== profile) {
      if (paths.size >= MOST_KEPT_PATHS) paths.clear();
      p = { of: profile, path: preparePath(plan, profile) };
      paths.set(pathKey, p);
    }
    const ends = [plan.near, plan.far].map((e) => [e.mountAglM, e.radio.id, e.antenna?.id]);
    const key = `${pathKey}|${JSON.stringify([ends, plan.policy])}`;
    let s = states.get(key);
    if (s?.of !== p.path) {
      if (states.size >= MOST_KEPT_PATHS) states.clear();
      s = { of: p.path, state: pathStateOf(plan, p.path, false) };
      states.set(key, s);
    }
    return s.state;
  };
  const patternFor = (s: HubSector, hardware: HardwareDto): Pattern | null => {
    const shape = shapeOf(s, hardware);
    if (shape === null) return null;
    const key = `${s.radioId}|${s.antennaId}|${s.centreMhz}`;
    let found = patterns.get(key);
    if (found === undefined) {
      found = patternOf(shape, s.centreMhz / 1000);
      patterns.set(key, found);
    }
    return found;
  };

  const remoteUnder = ({ job, siteId, hub, hardware, of }: Asked, sector: HubSector, link: LinkDto): HubRemote | null => {
    const [near, far] = [link.nearSiteId, link.farSiteId].map((id) => job.sites.find((x) => x.id === id));
    const dto = of.get(link.id);
    if (near === undefined || far === undefined || dto === undefined) return null;
    const isNear = hubIsNear(link, siteId);
    const design = { ...link.design, ...designUnder(hub, sector, isNear) };
    const plan = planOf(job.job, near, far, design, hardware, link.groundTold);
    if (isProblem(plan)) return null;
    return {
      linkId: link.id,
      name: (isNear ? far : near).name,
      plan,
      state: stateOf(link.id, plan, profileOf(dto)),
      hubIsNear: isNear,
    };
  };
  return {
    judge: (job, siteId, hub, hardware, of) => {
      const asked: Asked = { job, siteId, hub, hardware, of };
      const unjudged: string[] = [];
      const policy: AirPolicy = {
        school: job.job.throughputSchool,
        freeShare: job.job.freeShare,
        grant: hub.grant,
        hearEachOther: hub.hearEachOther,
      };
      const remotes = hub.sectors.map((sector) =>
        hub.remotes
          .filter((r) => r.sectorId === sector.id)
          .flatMap(({ linkId }) => {
            const link = job.links.find((l) => l.id === linkId);
            // A link that was taken away hangs here no more.
            if (link === undefined) return [];
            const remote = remoteUnder(asked, sector, link);
            if (remote === null) unjudged.push(linkId);
            return remote === null ? [] : [remote];
          }),
      );
      const aims = hub.sectors.map((s, i) => aimOf(s, remotes[i]!));
      const made = hub.sectors.map((s) => patternFor(s, hardware));
      return {
        aims,
        remotes,
        patterns: made,
        unjudged,
        sectors: hub.sectors.map((s, i) =>
          made[i] === null ? null : judgeSector(remotes[i]!, made[i]!, aims[i]!, policy, s.frameShareToRemotes),
        ),
      };
    },
  };
};

/** More remotes on one sector are not searched for on the page: the time grows with every set of them. */
export const MOST_TURNED = 16;

/** The same sector turned and tilted so that the worst of its remotes is best off; null where it has none that could be served. */
export const turnedBest = (
  remotes: readonly HubRemote[],
  pattern: Pattern,
  mayUse: number,
): { readonly found: FoundSectors; readonly azimuthDeg: number; readonly tiltDeg: number } | null => {
  // Each may take of the air what it asks of all that is asked: whatever of them hang together, it is enough.
  const asked = remotes.reduce((n, r) => n + askedOf(r), 0);
  if (asked === 0 || remotes.length > MOST_TURNED) return null;
  const axis = remotes.map((r) => onAxisOf(r, (mayUse * askedOf(r)) / asked));
  const found = findSectors(
    remotes.map(seenFromHub),
    [
      {
        id: "this",
        priceEur: 0,
        relativeDb: pattern.relativeDb,
        promisedDb: promisedDbOf(pattern),
        marginDb: axis.map((a) => a.marginDb),
        airShare: axis.map((a) => a.airShare),
      },
    ],
    { mostSectors: 1, mayUse, tiltFromDeg: -20, tiltToDeg: 5 },
  );
  const [sector] = found.sectors;
  return sector === undefined ? null : { found, azimuthDeg: sector.azimuthDeg, tiltDeg: sector.tiltDeg };
};
