"use client";
import Link from "next/link";
import { Tabs } from "radix-ui";
import { useState } from "react";
import type { BriefDto, JobBundle, LinkVerdict, PhotoDto } from "@/contract";
import { demandOf } from "@/core/infra";
import { bodyOf } from "../../api/client";
import { useBrief, useJob, usePhotos, useRefresh, useVerdicts } from "../../api/queries";
import { ClashNotice } from "../../controls/clash-notice";
import { ScrollRegion } from "../../controls/scroll-region";
import { TypingScope } from "../../controls/typing-scope";
import { useKeys } from "../../controls/use-keys";
import { Sheet } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { UnitsButton } from "../../frame/units-button";
import { useJobHistory } from "../../state/job-history";
import { useJobNews } from "../../state/job-news";
import { usePreferences } from "../../state/preferences";
import { useRecord, useRecordState } from "../../state/use-record";
import { errorSentence } from "../../wording/errors";
import { BasisCell } from "../basis/basis-cell";
import { useJobIndex } from "../job-index";
import { SHEETS } from "../registry";
import { SavedCell } from "../section/saved-cell";
import { NeedTab } from "./need-tab";
import { type OpenPoint, openPoints } from "./open-points";
import { PermissionTab } from "./permission-tab";
import { PhotosTab } from "./photos-tab";
import { RatesColumn } from "./rates-column";
import { ShapesTab, type Way } from "./shapes-tab";
import { ThereTab } from "./there-tab";

const TABS: readonly (readonly [OpenPoint["tab"], string])[] = [
  ["need", "Need"],
  ["shapes", "Shapes"],
  ["there", "What is there"],
  ["photos", "Photos"],
  ["permission", "Permission"],
];

export const BriefSheet = ({ jobId }: { jobId: string }) => {
  const job = useJob(jobId);
  const brief = useBrief(jobId);
  const photos = usePhotos(jobId);
  const verdicts = useVerdicts(jobId);
  if (job.data !== undefined && brief.data !== undefined && photos.data !== undefined) {
    return <BriefOpen jobId={jobId} bundle={job.data} brief={brief.data} photos={photos.data} verdicts={verdicts.data ?? []} />;
  }
  return (
    <div className="h-dvh p-2">
      <div className="h-full border-[1.6px] border-ink">
        <Trouble error={job.error ?? brief.error ?? photos.error ?? job.failureReason} waiting="Reading the brief." />
      </div>
    </div>
  );
};

const BriefOpen = ({
  jobId,
  bundle,
  brief,
  photos,
  verdicts,
}: {
  jobId: string;
  bundle: JobBundle;
  brief: BriefDto;
  photos: readonly PhotoDto[];
  verdicts: readonly LinkVerdict[];
}) => {
  const { job, sites, links } = bundle;
  const { units } = usePreferences();
  const refresh = useRefresh();
  const [fault, setFault] = useState<string | null>(null);
  const say = (error: unknown): void => setFault(errorSentence(bodyOf(error), units));
  const history = useJobHistory(jobId, say);
  useJobNews(jobId, "brief");
  const record = useRecord(jobId, "brief", brief);
  const { fields: doc, status, setAside } = useRecordState(record);
  const { change } = record;
  const [tab, setTab] = useState<OpenPoint["tab"]>("need");
  useKeys({ [`([1-${TABS.length}])`]: (event) => setTab(TABS[Number(event.key) - 1]![0]) });
  const index = useJobIndex(jobId, verdicts, null);
  const points = openPoints(doc, links, sites, photos);
  const ways = links.map((l): Way => {
    const { peak } = demandOf(
      doc.devices.filter((d) => d.siteId === l.farSiteId),
      doc.recorder,
    );
    const nameOf = (id: string): string => sites.find((x) => x.id === id)?.name ?? "";
    return {
      id: l.id,
      name: `${nameOf(l.nearSiteId)} to ${nameOf(l.farSiteId)}${l.label === "" ? "" : `, ${l.label}`}`,
      nearName: nameOf(l.nearSiteId),
      distanceM: verdicts.find((v) => v.linkId === l.id)?.pathM ?? 0,
      needMbps: Math.max(1, peak.toFarMbps, peak.toNearMbps, l.design.needToFarMbps ?? 0, l.design.needToNearMbps ?? 0),
      together: new Set(links.filter((o) => o.nearSiteId === l.nearSiteId).map((o) => o.farSiteId)).size,
    };
  });
  const trouble = status.kind === "refused" || status.kind === "kept" ? errorSentence(status.reason, units) : fault;
  return (
    <TypingScope of={record}>
      <Sheet
        rows={index}
        jobId={jobId}
        of={SHEETS.brief}
        undo={history}
        actions={TABS.map(([key, name]) => ({ name: `Brief: ${name.toLowerCase()}`, run: () => setTab(key) }))}
        strip={[
          { label: "Job", value: job.name, grow: 2 },
          { label: "Customer", value: doc.customer === "" ? "not named" : doc.customer, grow: 2 },
          { label: "Sheet", value: "", grow: 1 },
          { label: "Day of visit", value: job.visitOn, grow: 1 },
          { label: "Units", value: <UnitsButton />, grow: 0.9 },
          { label: "Policy in force", value: <BasisCell job={job} />, grow: 2.3 },
          { label: "Saved", value: <SavedCell status={status} last={history.last} />, grow: 1.4 },
        ]}
      >
        <div className="panes grid h-full min-h-0 grid-cols-[minmax(0,1fr)_290px]">
          <Tabs.Root value={tab} onValueChange={(v) => setTab(v as OpenPoint["tab"])} className="flex min-h-0 flex-col">
            <div className="brief-head flex items-end gap-7 border-b border-ink px-5 pt-2">
              <h1 className="m-0 pb-1.5 text-title font-heading leading-8">Brief</h1>
              <Tabs.List aria-label="Parts of the brief" className="flex gap-5">
                {TABS.map(([key, name]) => {
                  const n = points.filter((p) => p.tab === key).length;
                  return (
                    <Tabs.Trigger
                      key={key}
                      value={key}
                      className="flex min-h-8 flex-col items-start border-b-[3px] border-transparent pb-1 text-press data-[state=active]:border-ink data-[state=active]:font-bold"
                    >
                      {name}
                      <span className="cap font-normal">{n === 0 ? "settled" : `${n} open`}</span>
                    </Tabs.Trigger>
                  );
                })}
              </Tabs.List>
              <Link prefetch={false} href={`/jobs/${jobId}/survey`} className="press mb-2 ml-auto whitespace-nowrap text-ink no-underline">
                On the phone
              </Link>
            </div>
            <ClashNotice kind="brief" status={status} setAside={setAside} units={units} resolve={record.resolve} recall={record.recall} />
            {trouble !== null && (
              <p role="alert" className="m-0 border-b border-short px-5 py-2 text-short-figure">
                {trouble}
              </p>
            )}
            <ScrollRegion label={TABS.find(([key]) => key === tab)?.[1]} className="flex-1 px-5 py-4">
              <Tabs.Content value="need">
                <NeedTab doc={doc} sites={sites} farId={links[0]?.farSiteId} change={change} />
              </Tabs.Content>
              <Tabs.Content value="shapes">
                <ShapesTab doc={doc} change={change} ways={ways} units={units} />
              </Tabs.Content>
              <Tabs.Content value="there">
                <ThereTab doc={doc} change={change} />
              </Tabs.Content>
              <Tabs.Content value="photos">
                <PhotosTab jobId={jobId} doc={doc} change={change} sites={sites} photos={photos} />
              </Tabs.Content>
              <Tabs.Content value="permission">
                <PermissionTab doc={doc} change={change} />
              </Tabs.Content>
            </ScrollRegion>
          </Tabs.Root>
          <aside aria-label="What the brief comes to" className="flex min-h-0 flex-col border-l border-ink">
            <RatesColumn
              jobId={jobId}
              doc={doc}
              links={links}
              sites={sites}
              history={history}
              say={say}
              onDone={() => void refresh(jobId)}
            />
            <ScrollRegion label="Still open" className="mt-auto max-h-[45%] flex-none border-t border-ink px-4 py-3">
              <h2 className="m-0 text-part font-bold">{points.length === 0 ? "Settled" : `Still open, ${points.length}`}</h2>
              <ul className="m-0 list-none p-0" data-testid="open-points">
                {points.map((p) => (
                  <li key={p.words} className="py-[3px]">
                    <button type="button" className="text-left" onClick={() => setTab(p.tab)}>
                      {p.words}
                    </button>
                  </li>
                ))}
              </ul>
            </ScrollRegion>
          </aside>
        </div>
      </Sheet>
    </TypingScope>
  );
};
