"use client";
import { useMemo, useRef, useState } from "react";
import type { HardwareDto, HubDto, HubFields, HubSector, JobBundle, LinkVerdict, ProfileDto } from "@/contract";
import { type Verdict, worseVerdict } from "@/core/link";
import { shown as shownNow } from "../../state/open-record";
import { usePreferences } from "../../state/preferences";
import { useRecord, useRecordState } from "../../state/use-record";
import { type JudgedHub, MOST_TURNED, openHubJudge } from "./hub-judge";
import { betterSectors } from "./other-sector";
import { useHubSearch } from "./use-hub-search";

/** What the open hub was read with. */
export interface HubRead {
  readonly job: JobBundle;
  readonly hub: HubDto;
  readonly hardware: HardwareDto;
  readonly profiles: ReadonlyMap<string, ProfileDto>;
}

/** Something that is drawn before it is planned. */
export interface Drawn {
  readonly id: string;
  readonly words: string;
  readonly fields: Partial<HubFields>;
}

/** The hub under the hand: its record, what it comes to, which sector and which remote are looked at. */
export const useOpenHub = ({ job, hub, hardware, profiles }: HubRead, listed: readonly LinkVerdict[] | undefined) => {
  const { units } = usePreferences();
  const jobId = job.job.id;
  const record = useRecord(jobId, "hub", hub);
  const { fields, status, setAside, drag } = useRecordState(record);
  const judge = useRef<ReturnType<typeof openHubJudge> | null>(null);
  judge.current ??= openHubJudge();
  // What is drawn before it is planned stands over the hub until it is planned, left, or something is changed.
  const [drawn, setDrawn] = useState<Drawn | null>(null);
  const shown = useMemo(() => (drawn === null ? fields : { ...fields, ...drawn.fields }), [drawn, fields]);
  const quick = useMemo(
    () => judge.current!.judge(job, hub.siteId, shown, hardware, profiles),
    [job, hub.siteId, shown, hardware, profiles],
  );
  const judged = useMemo(
    () => (drag || drawn !== null || status.kind !== "saved" ? quick : withSections(quick, listed ?? [])),
    [quick, listed, drag, drawn, status.kind],
  );
  const plannedJudged = useMemo(
    () => (drawn === null ? quick : judge.current!.judge(job, hub.siteId, fields, hardware, profiles)),
    [drawn, quick, job, hub.siteId, fields, hardware, profiles],
  );
  const [askedSector, setSector] = useState<number | null>(null);
  const worstSector = Math.max(
    0,
    judged.sectors.reduce((w, s, i) => (s !== null && (w < 0 || rank(s.verdict) > rank(judged.sectors[w]!.verdict)) ? i : w), -1),
  );
  const sector = Math.min(askedSector ?? worstSector, Math.max(0, shown.sectors.length - 1));
  const [askedRemote, setRemote] = useState<string | null>(null);
  const remotes = judged.sectors[sector]?.remotes ?? [];
  // Who is worst off is looked at until somebody else is chosen.
  const worst = useMemo(
    () => [...remotes].sort((a, b) => rank(b.verdict) - rank(a.verdict) || b.place.byDeg - a.place.byDeg)[0] ?? null,
    [remotes],
  );
  const chosen = remotes.find((r) => r.linkId === askedRemote) ?? worst;
  const verdict = judged.sectors.reduce<Verdict>(
    (v, s) => (s === null ? worseVerdict(v, "unknown") : worseVerdict(v, s.verdict)),
    judged.unjudged.length > 0 ? "unknown" : "clear",
  );
  const site = job.sites.find((s) => s.id === hub.siteId);
  const change = (set: Partial<HubFields>): void => {
    setDrawn(null);
    record.change(set);
  };
  const now = (): HubFields => shownNow(record);
  const changeSector = (index: number, set: Partial<HubSector>): void =>
    change({ sectors: now().sectors.map((s, i) => (i === index ? { ...s, ...set } : s)) });
  const chooseRemote = (linkId: string): void => {
    setRemote(linkId);
    const at = shown.remotes.find((r) => r.linkId === linkId)?.sectorId;
    const index = shown.sectors.findIndex((s) => s.id === at);
    if (index >= 0) setSector(index);
  };
  const policy = useMemo(
    () => ({
      school: job.job.throughputSchool,
      freeShare: job.job.freeShare,
      grant: shown.grant,
      hearEachOther: shown.hearEachOther,
    }),
    [job.job, shown.grant, shown.hearEachOther],
  );
  const search = useHubSearch({
    fields,
    remotes: plannedJudged.remotes,
    aims: plannedJudged.aims,
    sector: Math.min(sector, Math.max(0, fields.sectors.length - 1)),
    policy,
    hardware,
    profiles,
    still: !drag && drawn === null,
  });
  // Looked for when nothing moves: every remote that is not well is tried on every other sector, each time with the whole hub.
  const still = !drag && drawn === null && fields.remotes.length <= MOST_TURNED;
  const better = useMemo(
    () =>
      still
        ? betterSectors(fields, plannedJudged, (remotes) =>
            judge.current!.judge(job, hub.siteId, { ...fields, remotes }, hardware, profiles),
          )
        : [],
    [still, fields, plannedJudged, job, hub.siteId, hardware, profiles],
  );
  return {
    better,
    search,
    drawn,
    setDrawn,
    plannedJudged,
    job,
    jobId,
    hub,
    hardware,
    units,
    record,
    fields: shown,
    status,
    setAside,
    drag,
    judged,
    sector,
    setSector,
    chosen,
    chooseRemote,
    verdict,
    change,
    changeSector,
    now,
    siteName: site?.name ?? "a site that is gone",
    title: fields.name === "" ? (site?.name ?? "") : fields.name,
  };
};

const rank = (v: Verdict): number => ["clear", "tight", "unknown", "short"].indexOf(v);

/** What only a link's own section looks at (doubt, permissions, ports) counts here, too, once it is worked out. */
export const withSections = (judged: JudgedHub, listed: readonly Pick<LinkVerdict, "linkId" | "alone" | "fresh">[]): JudgedHub => ({
  ...judged,
  sectors: judged.sectors.map((s) => {
    if (s === null) return null;
    const remotes = s.remotes.map((r) => {
      const own = listed.find((l) => l.linkId === r.linkId);
      return own?.fresh === true ? { ...r, verdict: worseVerdict(r.verdict, own.alone) } : r;
    });
    return { ...s, remotes, verdict: remotes.reduce<Verdict>((v, r) => worseVerdict(v, r.verdict), s.airVerdict) };
  }),
});

export type OpenHub = ReturnType<typeof useOpenHub>;
