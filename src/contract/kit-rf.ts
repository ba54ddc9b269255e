import { exposureDistance } from "../core/radio";
import type { HardwareDto, JobBundle } from "./types";
import type { SiteWiring } from "./wiring-job";

/* How near anybody may come in front of the radios of a site: at the most that they can send, and as planned. */

export interface RfDistance {
  readonly name: string;
  readonly mostM: number;
  readonly plannedM: number;
}

/** So small a face that its near field never shortens the distance: cautious. */
const SMALL_FACE_M = 0.01;
const ALWAYS_ON = 1;

/** Of each radio of a site whose link stands, the distance before it (ICNIRP 2020, general public) always sending. */
export const rfDistances = (job: Pick<JobBundle, "links">, wiring: SiteWiring, hardware: HardwareDto): RfDistance[] =>
  wiring.places.flatMap((p): RfDistance[] => {
    const link = job.links.find((l) => l.id === p.linkId);
    const radio = hardware.radios.find((r) => r.id === p.partId);
    if (p.kind !== "radio" || link === undefined || radio === undefined) return [];
    const isNear = link.nearSiteId === wiring.siteId;
    const { design } = link;
    const antenna = hardware.antennas.find((a) => a.id === (isNear ? design.nearAntennaId : design.farAntennaId));
    const gainDbi = antenna?.gainDbi ?? radio.antenna.gainDbi;
    if (gainDbi === undefined) return [];
    const mostDbm = Math.max(...radio.modulations.map((m) => m.maxTxPowerDbm));
    const plannedDbm = Math.min(mostDbm, isNear ? design.nearPowerDbm : design.farPowerDbm);
    const away = (powerDbm: number): number =>
      exposureDistance(powerDbm, gainDbi, SMALL_FACE_M, design.centreMhz / 1000, ALWAYS_ON).distanceM;
    return [{ name: p.name, mostM: away(mostDbm), plannedM: away(plannedDbm) }];
  });
