import {
  AirField,
  type AirJob,
  type AirLink,
  type AirRadio,
  type AirUnit,
  type Heard,
  heardBy,
  type OtherRadio,
  type Scan,
  type Spot,
} from "../core/air";
import { patternOf } from "../core/antenna";
import { bearingsBetween } from "../core/geo";
import { patternOfUnit, shapeOfUnit } from "../core/hub";
import type { EndPlan, LinkPlan } from "../core/link";
import { accessOf, polarisationFromSheet } from "../core/radio";
import type { AirFields, OtherRadioFields, ScanFields } from "./air";
import type { HubFields } from "./hub";
import { sectorsShared } from "./load";
import { isProblem, mountPosition, planOf } from "./plan";
import type { HardwareDto, JobBundle, LinkDto, LinkVerdict, SiteDto } from "./types";

/* The records of a job as its radios stand in the air: the same on the server and in the browser. */

/** Loss by ground and bodies beyond free space between two ends, dB, by their keys; what is not in it was not looked at. */
export type AirLosses = ReadonlyMap<string, number>;

/** Ends between which the way is looked at, in a form that is the same from both sides. */
export const lossKey = (a: string, b: string): string => (a < b ? `${a}~${b}` : `${b}~${a}`);

/** Where an end hangs: what a way between two ends depends on. */
export const endKey = (siteId: string, mountId: string | null, aglM: number): string => `${siteId}/${mountId ?? ""}/${aglM}`;

type ScanOf = ScanFields & { readonly siteId: string };

export interface AirRead {
  readonly job: JobBundle;
  readonly hardware: HardwareDto;
  readonly hubs: readonly (HubFields & { readonly id: string; readonly siteId: string })[];
  readonly air: AirFields;
  readonly scans: readonly ScanOf[];
  readonly verdicts: readonly Pick<LinkVerdict, "linkId" | "air" | "nearBearingDeg" | "farBearingDeg">[];
  readonly losses: AirLosses;
  /** What passes each link from the load, Mbps to far and to near; a link that is not in it carries nothing in the tree. */
  readonly passes: ReadonlyMap<string, readonly [number, number]>;
  /** Links that voice or control passes. */
  readonly urgent: ReadonlySet<string>;
}

/** Units that have one channel, each with its links: sectors of hubs, ends set alike, and links by themselves. */
export const airUnitsOf = (job: Pick<JobBundle, "links">, hubs: AirRead["hubs"]): ReadonlyMap<string, readonly LinkDto[]> => {
  const shared = sectorsShared(job.links, hubs);
  const onRecord = new Set(hubs.flatMap((h) => h.sectors.map((s) => `${h.id}/${s.id}`)));
  const first = new Map<string, string>();
  const units = new Map<string, LinkDto[]>();
  for (const link of job.links) {
    const sector = shared.get(link.id)?.id;
    // A sector without a record is named by its first link: its own name changes with its channel.
    const key = sector === undefined ? link.id : onRecord.has(sector) ? sector : (first.get(sector) ?? `with:${link.id}`);
    if (sector !== undefined) first.set(sector, key);
    const list = units.get(key);
    if (list === undefined) units.set(key, [link]);
    else list.push(link);
  }
  return units;
};

interface Made {
  readonly link: AirLink;
  readonly radios: readonly [AirRadio, AirRadio];
}

/** Metres east and north of the job's centre; a job is small enough for a plane. */
const spotsOf = (job: JobBundle["job"]) => {
  const centre = { latDeg: job.centreLatDeg, lonDeg: job.centreLonDeg };
  const kept = new Map<string, { eastM: number; northM: number }>();
  return (at: { readonly latDeg: number; readonly lonDeg: number }): { eastM: number; northM: number } => {
    const key = `${at.latDeg}|${at.lonDeg}`;
    let found = kept.get(key);
    if (found === undefined) {
      const { distanceM, nearDeg } = bearingsBetween(centre, at);
      const a = (nearDeg * Math.PI) / 180;
      found = { eastM: distanceM * Math.sin(a), northM: distanceM * Math.cos(a) };
      kept.set(key, found);
    }
    return found;
  };
};

const radioOf = (
  id: string,
  unitId: string,
  name: string,
  siteId: string,
  end: EndPlan,
  plan: LinkPlan,
  at: Spot,
  looks: { readonly bearingDeg: number; readonly tiltDeg: number },
  wallDb: number,
): AirRadio => {
  const { radio } = end;
  const unit = { radio, antenna: end.antenna };
  const words = (radio.antenna.kind === "connectorised" ? end.antenna?.polarisation : undefined) ?? radio.polarisation;
  const synchronised = /scheduled/.test(radio.duplex) && /synchronised/.test(radio.duplex);
  return {
    id,
    unitId,
    siteId,
    name,
    at,
    axis: { azimuthDeg: end.aim.azimuthDeg ?? looks.bearingDeg, tiltDeg: end.aim.tiltDeg ?? looks.tiltDeg },
    gainDbi: shapeOfUnit(unit)?.gainDbi ?? 0,
    pattern: patternOfUnit(unit, plan.centreMhz),
    polarisation: polarisationFromSheet(words),
    chains: radio.chains,
    powerDbm: end.txPowerDbm,
    lossDb: end.feederLossDb + end.connectorLossDb + wallDb,
    access: accessOf(radio.duplex),
    standard: radio.standard,
    family: radio.family,
    noiseFigureDb: radio.noiseFigureDb,
    maxInputDbm: radio.maxOperatingInputDbm,
    beat: synchronised ? `${radio.family}|${plan.frameShareToFar ?? ""}` : null,
    atMhz: plan.centreMhz,
  };
};

/** Gain times the square of the beam: a plain antenna of such a beam. */
const BEAM_AREA_DEG2 = 30_000;

const otherOf = (o: OtherRadioFields, site: SiteDto, at: Spot): AirRadio => {
  const whole = o.bearingDeg === null || o.beamwidthDeg >= 360;
  // What it radiates is known, its antenna by the width of its beam: what is left is sent into it.
  const gainDbi = whole ? 2 : Math.max(2, 10 * Math.log10(BEAM_AREA_DEG2 / (o.beamwidthDeg * o.beamwidthDeg)));
  return {
    id: `other:${o.id}`,
    unitId: `other:${o.id}`,
    siteId: site.id,
    name: o.name,
    at,
    axis: whole ? null : { azimuthDeg: o.bearingDeg!, tiltDeg: 0 },
    gainDbi,
    pattern: whole
      ? null
      : patternOf(
          { form: "panel", gainDbi, azimuthBeamwidthDeg: o.beamwidthDeg, elevationBeamwidthDeg: o.beamwidthDeg },
          o.centreMhz / 1000,
        ),
    polarisation: polarisationFromSheet(""),
    chains: 1,
    powerDbm: o.eirpDbm - gainDbi,
    lossDb: o.wallDb,
    access: "contention",
    standard: "wifi",
    family: "",
    noiseFigureDb: 6,
    maxInputDbm: 0,
    beat: null,
    atMhz: o.centreMhz,
  };
};

/** Fainter than this nobody hears: 20 dB under the noise of 20 MHz. */
const FAINT_DBM = -115;

export interface AirBuilt {
  readonly job: AirJob;
  /** Links that are not judged: their radios do not pair, or their path is not worked out yet. */
  readonly left: readonly string[];
  /** Units that were left aside. */
  readonly aside: readonly string[];
  /** Link and end of each radio of the field. */
  readonly endOf: ReadonlyMap<string, { readonly linkIds: readonly string[]; readonly siteId: string }>;
  /** Between which keys the way is asked for, each once. */
  readonly ways: readonly { readonly a: string; readonly b: string }[];
}

/** @returns the job in the air, and what of it could not be judged. */
export const airJobOf = (read: AirRead): AirBuilt => {
  const { job } = read;
  const sites = new Map(job.sites.map((s) => [s.id, s]));
  const verdicts = new Map(read.verdicts.map((v) => [v.linkId, v]));
  const spot = spotsOf(job.job);
  const left: string[] = [];
  const aside: string[] = [];
  const radios = new Map<string, AirRadio>();
  const keys = new Map<string, string>();
  const endOf = new Map<string, { linkIds: string[]; siteId: string }>();
  const units: AirUnit[] = [];
  for (const [unitId, links] of airUnitsOf(job, read.hubs)) {
    if (read.air.aside.includes(unitId)) {
      aside.push(unitId);
      continue;
    }
    const made: Made[] = [];
    const hub = read.hubs.find((h) => unitId.startsWith(`${h.id}/`));
    for (const l of links) {
      const [near, far] = [sites.get(l.nearSiteId), sites.get(l.farSiteId)];
      const v = verdicts.get(l.id);
      const path = v?.air ?? null;
      const plan = near === undefined || far === undefined ? null : planOf(job.job, near, far, l.design, read.hardware, l.groundTold);
      if (near === undefined || far === undefined || v === undefined || path === null || plan === null || isProblem(plan)) {
        left.push(l.id);
        continue;
      }
      const end = (which: "near" | "far"): AirRadio => {
        const [own, other, e] = which === "near" ? [near, far, plan.near] : [far, near, plan.far];
        const shared = links.length > 1 && l.design[`${which}AimAzimuthDeg`] !== null;
        const id = shared ? `${unitId}|${own.id}` : `${l.id}/${which}`;
        const looks =
          which === "near"
            ? { bearingDeg: v.nearBearingDeg, tiltDeg: path.nearTiltDeg }
            : { bearingDeg: v.farBearingDeg, tiltDeg: path.farTiltDeg };
        const mountId = l.design[`${which}MountId`];
        const at = { ...spot(mountPosition(own, mountId)), amslM: which === "near" ? path.nearAmslM : path.farAmslM };
        const found = radios.get(id);
        const known = endOf.get(id);
        if (known === undefined) endOf.set(id, { linkIds: [l.id], siteId: own.id });
        else known.linkIds.push(l.id);
        if (found !== undefined) return found;
        const name = shared ? `${own.name}, sector to ${other.name}` : `${own.name} to ${other.name}`;
        const r = radioOf(id, unitId, name, own.id, e, plan, at, looks, which === "near" ? path.nearWallDb : path.farWallDb);
        radios.set(id, r);
        keys.set(id, endKey(own.id, mountId, l.design[`${which}MountAglM`]));
        return r;
      };
      const both = [end("near"), end("far")] as const;
      const passes = read.passes.get(l.id);
      const needed = l.design.needToFarMbps !== null || l.design.needToNearMbps !== null;
      made.push({
        radios: both,
        link: {
          id: l.id,
          unitId,
          plan,
          path,
          nearRadioId: both[0].id,
          farRadioId: both[1].id,
          urgent: read.urgent.has(l.id),
          passes:
            passes !== undefined
              ? { toFarMbps: passes[0], toNearMbps: passes[1] }
              : needed
                ? { toFarMbps: l.design.needToFarMbps ?? 0, toNearMbps: l.design.needToNearMbps ?? 0 }
                : null,
        },
      });
    }
    const first = made[0];
    if (first === undefined) continue;
    const [a, b] = [sites.get(links[0]!.nearSiteId)!, sites.get(links[0]!.farSiteId)!];
    const sector = hub?.sectors.findIndex((s) => unitId === `${hub.id}/${s.id}`) ?? -1;
    const hubSite = hub === undefined ? undefined : sites.get(hub.siteId);
    units.push({
      id: unitId,
      name: hubSite !== undefined && sector >= 0 ? `${hubSite.name} sector ${sector + 1}` : `${a.name} to ${b.name}`,
      links: made.map((m) => m.link),
      channel: { centreMhz: first.link.plan.centreMhz, widthMhz: first.link.plan.widthMhz },
      locked: read.air.locks.includes(unitId),
      grant: hub?.grant ?? false,
    });
  }
  const amslAt = new Map<string, number>();
  for (const r of radios.values()) {
    const aglM = Number(keys.get(r.id)!.split("/").at(-1));
    if (r.siteId !== null) amslAt.set(r.siteId, r.at.amslM - aglM);
  }
  const others: OtherRadio[] = [];
  for (const o of read.air.others) {
    const site = sites.get(o.siteId);
    if (site === undefined) continue;
    const made = otherOf(o, site, { ...spot(site), amslM: (amslAt.get(site.id) ?? 0) + o.aglM });
    radios.set(made.id, made);
    keys.set(made.id, endKey(site.id, null, o.aglM));
    others.push({ radioId: made.id, channel: { centreMhz: o.centreMhz, widthMhz: o.widthMhz }, activity: o.activity });
  }
  const pairs: { readonly from: string; readonly into: string; readonly a: string; readonly b: string }[] = [];
  const list = [...radios.values()];
  const field = new AirField(list, (from, into) => {
    const [a, b] = [keys.get(from.id)!, keys.get(into.id)!];
    const key = lossKey(a, b);
    if (from.siteId !== into.siteId) pairs.push({ from: from.id, into: into.id, a, b });
    return {
      isolationDb: from.siteId === into.siteId && from.siteId !== null ? (read.air.isolations[from.siteId] ?? null) : null,
      excessDb: read.losses.get(key) ?? null,
    };
  });
  // A way is looked at only where something could be heard over it in the open.
  const ways = new Map<string, { a: string; b: string }>();
  for (const { from, into, a, b } of pairs) {
    const [i, k] = [field.indexOf.get(from)!, field.indexOf.get(into)!];
    if (field.couplingDb(i, k) + field.radios[i]!.powerDbm > FAINT_DBM) ways.set(lossKey(a, b), a < b ? { a, b } : { a: b, b: a });
  }
  const scans: Scan[] = read.scans.filter((s) => s.counts).map(({ siteId, linkId, gainDbi, rows }) => ({ siteId, linkId, gainDbi, rows }));
  const heard = new Map<string, Heard[]>();
  for (const [id, { linkIds, siteId }] of endOf)
    if (scans.some((s) => s.siteId === siteId)) heard.set(id, heardBy(radios.get(id)!, linkIds[0]!, scans));
  return { job: { field, units, others, heard, always: read.air.always }, left, aside, endOf, ways: [...ways.values()] };
};
