"use client";
import type { Brief, DesignDto, LinkDto, SiteDto } from "@/contract";
import { demandOf, roundedNeedMbps } from "@/core/infra";
import { sendEdit } from "../../state/browser-outbox";
import type { JobHistory } from "../../state/job-history";
import { figure } from "../../wording/numbers";

/** Whether a rate asked of a link can be fed at all, in words. */
const feedWords = (doc: Brief, downMbps: number, upMbps: number): string | null => {
  const over = [
    doc.feed.downMbps !== null && downMbps > doc.feed.downMbps ? `${figure(downMbps)} of ${figure(doc.feed.downMbps)} Mbps down` : "",
    doc.feed.upMbps !== null && upMbps > doc.feed.upMbps && doc.recorder === "none"
      ? `${figure(upMbps)} of ${figure(doc.feed.upMbps)} Mbps up`
      : "",
  ].filter((w) => w !== "");
  return over.length === 0
    ? null
    : `All far ends together ask more than the feed gives: ${over.join(", ")}. The feed is the narrowest place.`;
};

/** What each link must carry, each way, from the devices at its far end. */
export const RatesColumn = ({
  jobId,
  doc,
  links,
  sites,
  history,
  onDone,
  say,
}: {
  jobId: string;
  doc: Brief;
  links: readonly LinkDto[];
  sites: readonly SiteDto[];
  history: JobHistory;
  onDone: () => void;
  say: (error: unknown) => void;
}) => {
  const nameOf = (id: string): string => sites.find((s) => s.id === id)?.name ?? "";
  const rows = links.map((l) => {
    const { peak } = demandOf(
      doc.devices.filter((d) => d.siteId === l.farSiteId),
      doc.recorder,
    );
    return { l, toFar: roundedNeedMbps(peak.toFarMbps), toNear: roundedNeedMbps(peak.toNearMbps) };
  });
  const use = (l: LinkDto, needToFarMbps: number, needToNearMbps: number): void => {
    history
      .perform(() =>
        sendEdit<DesignDto>(jobId, "PATCH", `/api/jobs/${jobId}/designs/${l.design.id}`, {
          version: l.design.version,
          needToFarMbps,
          needToNearMbps,
        }),
      )
      .then(onDone)
      .catch((error: unknown) => {
        say(error);
        onDone();
      });
  };
  const down = rows.reduce((sum, r) => sum + r.toFar, 0);
  const up = rows.reduce((sum, r) => sum + r.toNear, 0);
  const over = feedWords(doc, down, up);
  return (
    <section aria-label="Required rates" className="min-h-0 overflow-auto px-4 py-3">
      <h2 className="m-0 text-part font-bold">Required of each link</h2>
      <p className="cap m-0 mb-2">Mbps, at the worst moment: to the far end, and back.</p>
      {rows.length === 0 && <p className="m-0">No link yet. Join two sites on the Ground sheet.</p>}
      <ul className="m-0 list-none p-0" data-testid="rates">
        {rows.map(({ l, toFar, toNear }) => {
          const { needToFarMbps: a, needToNearMbps: b } = l.design;
          const asked = doc.devices.some((d) => d.siteId === l.farSiteId);
          const differs = asked && (a !== toFar || b !== toNear);
          return (
            <li key={l.id} className="border-b border-rule py-1.5">
              <span className="block truncate">
                <span className="text-near">{nameOf(l.nearSiteId)}</span> to{" "}
                <span className="font-figure text-far">{nameOf(l.farSiteId)}</span>
                {l.label === "" ? "" : `, ${l.label}`}
              </span>
              <span className="flex items-baseline justify-between gap-2">
                <span className={a === null || b === null ? "text-short-figure" : ""}>
                  <span className="figure">{a === null ? "none" : figure(a)}</span> there,{" "}
                  <span className="figure">{b === null ? "none" : figure(b)}</span> back
                </span>
                {differs && (
                  <button type="button" className="press" onClick={() => use(l, toFar, toNear)}>
                    Use {figure(toFar)} and {figure(toNear)}
                  </button>
                )}
              </span>
            </li>
          );
        })}
      </ul>
      {over !== null && <p className="mb-0 mt-2 text-short-figure">{over}</p>}
    </section>
  );
};
