"use client";
import { useDeferredValue, useMemo, useState } from "react";
import type {
  AddressesDto,
  BriefDto,
  HardwareDto,
  HubDto,
  JobBundle,
  LeadFields,
  NetworkDto,
  PartDto,
  PlaceFields,
  UnitDto,
  WiringDto,
  WiringFields,
} from "@/contract";
import { judgeSites, sectorsShared, wiringSchema } from "@/contract";
import { type Lead, mendsOf, partsOf, type WiringMend } from "@/core/wiring";
import { shown as shownNow } from "../../state/open-record";
import { usePreferences } from "../../state/preferences";
import { useRecord, useRecordState } from "../../state/use-record";
import { led, newLead } from "./joins";
import { decidesOver, missingOf, verdictOver, worstOf } from "./wiring-view";

export interface WiringRead {
  readonly job: JobBundle;
  readonly linkId: string;
  readonly brief: BriefDto;
  readonly network: NetworkDto;
  readonly hubs: readonly HubDto[];
  readonly wirings: readonly WiringDto[];
  readonly units: readonly UnitDto[];
  readonly addresses: AddressesDto;
  readonly parts: readonly PartDto[];
  readonly hardware: HardwareDto;
}

/** Something of one end drawn before it is planned. */
export interface Tried {
  /** Of the finding and its mend: mends are worked out anew whenever the job is read again. */
  readonly key: string;
  readonly siteId: string;
  readonly words: string;
  readonly mend: WiringMend;
}

export type Chosen = { readonly siteId: string; readonly kind: "lead" | "place"; readonly id: string } | null;

const NOT_WIRED = wiringSchema.parse({});

/** One end's record; of a site that nobody wired yet a stand-in that is never edited. */
const useEnd = (jobId: string, siteId: string, row: WiringDto | undefined) => {
  const stand = useMemo(() => ({ ...NOT_WIRED, id: row?.id ?? siteId, version: row?.version ?? 0 }), [row, siteId]);
  const record = useRecord(jobId, "wiring", row ?? stand);
  const { fields, status, setAside } = useRecordState(record);
  return { siteId, exists: row !== undefined, record, fields, status, setAside, now: () => shownNow(record) };
};
export type EndRecord = ReturnType<typeof useEnd>;

/** Both ends of a link as they are wired, under the hand. */
export const useOpenWiring = (read: WiringRead) => {
  const { job, linkId, wirings, parts, hardware } = read;
  const { units } = usePreferences();
  const jobId = job.job.id;
  const link = job.links.find((l) => l.id === linkId)!;
  const near = useEnd(
    jobId,
    link.nearSiteId,
    wirings.find((w) => w.siteId === link.nearSiteId),
  );
  const far = useEnd(
    jobId,
    link.farSiteId,
    wirings.find((w) => w.siteId === link.farSiteId),
  );
  const addresses = useRecord(jobId, "addresses", read.addresses);
  const addressed = useRecordState(addresses);
  const all = useMemo(() => partsOf(parts, hardware.radios), [parts, hardware]);
  const [tried, setTried] = useState<Tried | null>(null);
  const [chosen, setChosen] = useState<Chosen>(null);
  const ends = [near, far] as const;
  const [nearFields, farFields, nearThere, farThere] = [near.fields, far.fields, near.exists, far.exists];
  const { nearSiteId, farSiteId } = link;
  const others = useMemo(() => wirings.filter((w) => w.siteId !== nearSiteId && w.siteId !== farSiteId), [wirings, nearSiteId, farSiteId]);
  const judge = useMemo(
    () => (over: Tried | null) => {
      const mine = [
        ...(nearThere ? [{ ...nearFields, siteId: nearSiteId }] : []),
        ...(farThere ? [{ ...farFields, siteId: farSiteId }] : []),
      ].map((e) =>
        over?.siteId === e.siteId
          ? { ...e, places: over.mend.graph.places as PlaceFields[], leads: over.mend.graph.leads as LeadFields[] }
          : e,
      );
      return judgeSites(job, [...mine, ...others], all).filter((s) => s.siteId === nearSiteId || s.siteId === farSiteId);
    },
    [nearFields, farFields, nearThere, farThere, others, job, all, nearSiteId, farSiteId],
  );
  const own = useMemo(() => judge(null), [judge]);
  const shown = useMemo(() => (tried === null ? own : judge(tried)), [tried, own, judge]);
  const verdict = verdictOver(own);
  const worst = useMemo(() => worstOf(own), [own]);
  const decides = useMemo(() => decidesOver(shown, linkId), [shown, linkId]);
  const sectors = useMemo(() => sectorsShared(job.links, read.hubs), [job.links, read.hubs]);
  const sectorAt = useMemo(
    () =>
      (siteId: string) =>
      (id: string): string | null => {
        const s = sectors.get(id);
        return s?.siteId === siteId ? s.id : null;
      },
    [sectors],
  );
  const [nearSun, farSun] = [nearFields.sun, farFields.sun];
  // Mends are worked out when nothing moves.
  const still = useDeferredValue(own);
  const mends = useMemo(() => {
    const out = new Map<string, readonly WiringMend[]>();
    for (const site of still)
      for (const [i, f] of site.findings.entries()) {
        const sun = site.siteId === nearSiteId ? nearSun : farSun;
        const lat = job.sites.find((s) => s.id === site.siteId)?.latDeg ?? 0;
        out.set(
          `${site.siteId}/${i}`,
          mendsOf(site.judged, f, sun, lat, () => crypto.randomUUID()),
        );
      }
    return out;
  }, [still, job.sites, nearSun, farSun, nearSiteId]);
  const missing = useMemo(
    () => [
      ...(nearThere ? missingOf(job, { ...nearFields, siteId: nearSiteId }, all, sectorAt(nearSiteId)) : []),
      ...(farThere ? missingOf(job, { ...farFields, siteId: farSiteId }, all, sectorAt(farSiteId)) : []),
    ],
    [nearThere, farThere, nearFields, farFields, nearSiteId, farSiteId, job, all, sectorAt],
  );
  const endOf = (siteId: string) => (near.siteId === siteId ? near : far);
  const change = (siteId: string, set: Partial<WiringFields>): void => {
    setTried(null);
    endOf(siteId).record.change(set);
  };
  /** Leads from one port to another: the end of a lead that is there, or a new one. */
  const join = (siteId: string, from: Lead["from"], to: Lead["from"], moving: string | null): void => {
    const { leads } = endOf(siteId).now();
    const site = own.find((s) => s.siteId === siteId);
    if (site === undefined) return;
    const id = moving ?? crypto.randomUUID();
    const next = joined(leads, site.judged.wired, from, to, moving, id);
    change(siteId, { leads: next });
    setChosen({ siteId, kind: "lead", id });
  };
  const joined = (
    leads: readonly LeadFields[],
    w: Parameters<typeof newLead>[0],
    from: Lead["from"],
    to: Lead["from"],
    moving: string | null,
    id: string,
  ): LeadFields[] =>
    moving === null ? [...leads, newLead(w, all, from, to, id)] : leads.map((l) => (l.id === moving ? led(l, from, to) : l));
  return {
    ...read,
    jobId,
    link,
    near,
    far,
    ends,
    endOf,
    all,
    own,
    shown,
    verdict,
    worst,
    decides,
    mends,
    missing,
    sectorAt,
    tried,
    setTried,
    chosen,
    setChosen,
    change,
    join,
    joined,
    fieldUnits: units,
    addressesRecord: addresses,
    addressFields: addressed.fields,
    addressStatus: addressed.status,
    addressAside: addressed.setAside,
    addressNow: () => shownNow(addresses),
  };
};

export type OpenWiring = ReturnType<typeof useOpenWiring>;
