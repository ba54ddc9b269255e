/* Made-up radios about masts, for tests and timings of the air: nothing of them is sampled from ground. */
import { AirField, type AirJob, type AirLink, type AirPath, type AirRadio, type AirUnit, type Channel } from "../air";
import { patternOf } from "../antenna";
import { LEAST_POWER_DBM, type LinkPlan } from "../link";
import { freeSpaceLossDb } from "../propagation";
import { accessOf, polarisationFromSheet, type Radio } from "../radio";
import { seededRandom } from "../units";
import { end, plan, radio } from "./scene";

const WIDTHS = [20, 40, 80];
const RUNGS: readonly (readonly [string, string, number, number, number])[] = [
  ["BPSK", "1/2", 25, 15, -92],
  ["QPSK", "3/4", 25, 45, -87],
  ["16-QAM", "3/4", 23, 90, -81],
  ["64-QAM", "5/6", 21, 150, -73],
  ["256-QAM", "5/6", 19, 200, -67],
];

/** A radio with all widths, rates in proportion and 3 dB more asked for by each doubling. */
export const wideRadio = (fields: Partial<Radio> = {}): Radio =>
  radio({
    channelWidthsMhz: WIDTHS,
    modulations: RUNGS.map(([modulation, codeRate, maxTxPowerDbm, mbps, dbm], index) => ({
      index,
      modulation,
      codeRate,
      maxTxPowerDbm,
      phyRateMbps: Object.fromEntries(WIDTHS.map((w) => [w, (mbps * w) / 20])),
      sensitivityDbm: Object.fromEntries(WIDTHS.map((w) => [w, dbm + 10 * Math.log10(w / 20)])),
    })),
    ...fields,
  });

export interface MadeLink {
  readonly id: string;
  readonly near: { readonly site: string; readonly eastM: number; readonly northM: number; readonly amslM: number };
  readonly far: { readonly site: string; readonly eastM: number; readonly northM: number; readonly amslM: number };
  readonly channel: Channel;
  readonly powerDbm?: number;
  readonly needMbps?: readonly [number, number];
  readonly passesMbps?: readonly [number, number] | null;
  readonly radio?: Radio;
  readonly locked?: boolean;
  readonly urgent?: boolean;
}

const bearing = (a: MadeLink["near"], b: MadeLink["near"]): number =>
  ((Math.atan2(b.eastM - a.eastM, b.northM - a.northM) * 180) / Math.PI + 360) % 360;

/** A link in the open: free space and the gains of both antennas. */
export const madeLink = (m: MadeLink): { readonly link: AirLink; readonly unit: AirUnit; readonly radios: readonly AirRadio[] } => {
  const r = m.radio ?? wideRadio();
  const powerDbm = Math.max(LEAST_POWER_DBM, m.powerDbm ?? 15);
  const pathM = Math.hypot(m.near.eastM - m.far.eastM, m.near.northM - m.far.northM, m.near.amslM - m.far.amslM);
  const gainDbi = r.antenna.gainDbi ?? 0;
  const lossDb = freeSpaceLossDb(m.channel.centreMhz / 1000, pathM) + 10 * Math.log10(r.chains);
  const tiltDeg = (Math.asin((m.far.amslM - m.near.amslM) / pathM) * 180) / Math.PI;
  const path: AirPath = {
    pathM,
    nearAmslM: m.near.amslM,
    farAmslM: m.far.amslM,
    nearTiltDeg: tiltDeg,
    farTiltDeg: -tiltDeg,
    toFarDb: 2 * gainDbi - lossDb,
    toNearDb: 2 * gainDbi - lossDb,
    marginToFarDb: 10,
    marginToNearDb: 10,
    nearWallDb: 0,
    farWallDb: 0,
  };
  const [toFar, toNear] = m.needMbps ?? [20, 20];
  const planned: LinkPlan = plan(
    end(m.near.site, 10, { radio: r, txPowerDbm: powerDbm }),
    end(m.far.site, 10, { radio: r, txPowerDbm: powerDbm }),
    { ...m.channel, needToFarMbps: toFar, needToNearMbps: toNear },
  );
  const pattern = patternOf({ ...r.antenna, form: r.antenna.form ?? "panel", gainDbi }, m.channel.centreMhz / 1000);
  const at = (which: "near" | "far"): AirRadio => {
    const [own, other] = which === "near" ? [m.near, m.far] : [m.far, m.near];
    return {
      id: `${m.id}/${which}`,
      unitId: m.id,
      siteId: own.site,
      name: `${own.site} to ${other.site}`,
      at: own,
      axis: { azimuthDeg: bearing(own, other), tiltDeg: which === "near" ? tiltDeg : -tiltDeg },
      gainDbi,
      pattern,
      polarisation: polarisationFromSheet(r.polarisation),
      chains: r.chains,
      powerDbm,
      lossDb: 0,
      access: accessOf(r.duplex),
      standard: r.standard,
      family: r.family,
      noiseFigureDb: r.noiseFigureDb,
      maxInputDbm: r.maxOperatingInputDbm,
      beat: null,
      atMhz: m.channel.centreMhz,
    };
  };
  const passes = m.passesMbps === undefined ? ([toFar, toNear] as const) : m.passesMbps;
  const link: AirLink = {
    id: m.id,
    unitId: m.id,
    plan: planned,
    path,
    nearRadioId: `${m.id}/near`,
    farRadioId: `${m.id}/far`,
    urgent: m.urgent ?? false,
    passes: passes === null ? null : { toFarMbps: passes[0], toNearMbps: passes[1] },
  };
  return {
    link,
    unit: { id: m.id, name: m.id, links: [link], channel: m.channel, locked: m.locked ?? false, grant: false },
    radios: [at("near"), at("far")],
  };
};

export const airJob = (links: readonly MadeLink[], more: Partial<AirJob> & { isolationDb?: number | null } = {}): AirJob => {
  const { isolationDb = null, ...rest } = more;
  const made = links.map(madeLink);
  return {
    field: new AirField(
      made.flatMap((m) => m.radios),
      () => ({ isolationDb, excessDb: null }),
    ),
    units: made.map((m) => m.unit),
    others: [],
    heard: new Map(),
    always: false,
    ...rest,
  };
};

/** Links of a town: from a few masts to places about them, with channels drawn from a list and needs of a few cameras or an office. */
export const randomLinks = (seed: number, count: number, channels: readonly Channel[]): MadeLink[] => {
  const u = seededRandom(seed);
  const masts = Array.from({ length: 1 + Math.ceil(count / 4) }, (_, i) => ({ site: `mast-${i}`, eastM: 2600 * u(), northM: 2600 * u() }));
  return Array.from({ length: count }, (_, i) => {
    const mast = masts[Math.floor(u() * masts.length)]!;
    const [angle, distance] = [2 * Math.PI * u(), 250 + 2000 * u()];
    return {
      id: `u${i}`,
      near: { ...mast, amslM: 20 + Math.floor(u() * 6) },
      far: {
        site: `far-${i}`,
        eastM: mast.eastM + distance * Math.sin(angle),
        northM: mast.northM + distance * Math.cos(angle),
        amslM: 8 + 10 * u(),
      },
      channel: channels[Math.floor(u() * channels.length)]!,
      powerDbm: 8 + Math.floor(u() * 12),
      needMbps: [2 + 28 * u(), 2 + 28 * u()] as const,
    };
  });
};
