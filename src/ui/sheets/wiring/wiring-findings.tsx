"use client";
import Link from "next/link";
import type { ReactNode } from "react";
import type { JudgedSite, LeadFields, PlaceFields } from "@/contract";
import type { Verdict } from "@/core/link";
import type { JobFinding, WiringMend } from "@/core/wiring";
import { ScrollRegion } from "../../controls/scroll-region";
import { VerdictMark } from "../../marks/verdict-mark";
import { VERDICT_WORD } from "../../wording/verdicts";
import { ANSWERS, findingText, mendText, voltsText } from "../../wording/wiring";
import type { OpenWiring } from "./use-open-wiring";
import { placesOfLink } from "./wiring-view";

const MOST_SHOWN = 12;

const Head = ({ verdict, stop }: { verdict: Verdict; stop: boolean }) => (
  <div className="flex items-center gap-1.5 font-bold">
    <VerdictMark verdict={verdict} a={8} />
    <span className={`v-${verdict}`}>{stop ? "Short: the plan stops here" : VERDICT_WORD[verdict]}</span>
  </div>
);

const costText = (m: WiringMend): string =>
  m.costEur === null || m.costEur === 0 ? "" : `${m.costEur.toFixed(m.costEur < 100 ? 2 : 0)} €`;

/** What was found at one end, with its mends; what somebody may see on the spot is answered here. */
const Finding = ({
  open,
  site,
  finding: f,
  index,
  plan,
}: {
  open: OpenWiring;
  site: JudgedSite;
  finding: JobFinding;
  index: number;
  plan: () => void;
}) => {
  const mends = open.mends.get(`${site.siteId}/${index}`) ?? [];
  const answers = ANSWERS[f.code] ?? [];
  const answer = (state: "joined" | "open"): void => {
    const { earth, places } = open.endOf(site.siteId).now();
    if (f.code === "bar-unseen") open.change(site.siteId, { earth: { ...earth, bar: state } });
    else if (f.code === "mast-unseen") open.change(site.siteId, { earth: { ...earth, mast: state } });
    else if (f.code === "rod-unseen") open.change(site.siteId, { earth: { ...earth, rod: state } });
    else open.change(site.siteId, { places: places.map((p) => (p.id === f.placeId ? { ...p, bond: state } : p)) });
  };
  const keyOf = (m: WiringMend): string => [site.siteId, f.code, f.placeId, f.leadId, m.id].join("|");
  const isTried = (m: WiringMend): boolean => open.tried?.key === keyOf(m);
  return (
    <div className="mt-2.5 border-b border-rule pb-2" data-finding={f.code}>
      <Head verdict={f.verdict} stop={f.stop} />
      <p className="m-0 mt-0.5">{findingText(site.judged.wired, f, open.fieldUnits)}</p>
      {answers.length > 0 && (
        <p className="m-0 mt-0.5 flex flex-wrap gap-x-3">
          {answers.map(([words, state]) => (
            <button key={state} type="button" className="press min-h-6 text-line" onClick={() => answer(state)}>
              {words}
            </button>
          ))}
        </p>
      )}
      {(f.placeId !== null || f.leadId !== null) && (
        <button
          type="button"
          className="press min-h-6 text-line"
          onClick={() =>
            open.setChosen(
              f.leadId !== null && f.placeId === null
                ? { siteId: site.siteId, kind: "lead", id: f.leadId }
                : { siteId: site.siteId, kind: "place", id: f.placeId ?? "" },
            )
          }
        >
          Look at it
        </button>
      )}
      {mends.length > 0 && (
        <ul className="m-0 mt-0.5 list-none p-0" aria-label="What would mend it">
          {mends.map((m) => (
            <li key={m.id} className="flex items-baseline justify-between gap-2 py-0.5">
              <button
                type="button"
                className={`press min-h-6 text-line ${isTried(m) ? "bg-ink px-1 text-paper" : ""}`}
                aria-pressed={isTried(m)}
                onClick={() => open.setTried(isTried(m) ? null : { key: keyOf(m), siteId: site.siteId, words: mendText(m), mend: m })}
              >
                {mendText(m)}
              </button>
              <span className="whitespace-nowrap text-right font-mono">
                {m.volts === null ? "" : voltsText(m.volts)} {costText(m)}
              </span>
            </li>
          ))}
        </ul>
      )}
      {mends.some(isTried) && (
        <div className="mt-1 border border-ink p-2" data-testid="tried">
          <p className="m-0">
            Drawn as if.{" "}
            {open.tried!.mend.judged.findings.length === 0
              ? "Nothing is left to say of this end."
              : `Left of this end: ${open.tried!.mend.judged.findings.filter((x) => x.verdict === "short").length} short, ${open.tried!.mend.judged.findings.filter((x) => x.verdict === "unknown").length} unknown, ${open.tried!.mend.judged.findings.filter((x) => x.verdict === "tight").length} tight.`}
          </p>
          <p className="m-0 mt-1 flex flex-wrap gap-x-3 gap-y-2">
            <button type="button" className="main-action" onClick={plan}>
              Plan it
            </button>
            <button type="button" className="press min-h-6" onClick={() => open.setTried(null)}>
              Leave it
            </button>
          </p>
        </div>
      )}
    </div>
  );
};

const RANK = { short: 0, unknown: 1, tight: 2 } as const;

/** What was found of both ends, the worst first, and what else is to be known. */
export const WiringFindings = ({ open, children }: { open: OpenWiring; children?: ReactNode }) => {
  const nameOf = (siteId: string): string => open.job.sites.find((s) => s.id === siteId)?.name ?? "a site that is gone";
  const all = open.own
    .flatMap((site) => site.findings.map((finding, index) => ({ site, finding, index })))
    .sort((a, b) => Number(b.finding.stop) - Number(a.finding.stop) || RANK[a.finding.verdict] - RANK[b.finding.verdict]);
  const shown = all.slice(0, MOST_SHOWN);
  const plan = (): void => {
    const { tried } = open;
    if (tried === null) return;
    open.change(tried.siteId, { places: tried.mend.graph.places as PlaceFields[], leads: tried.mend.graph.leads as LeadFields[] });
  };
  const shownAt = (s: JudgedSite): ReadonlySet<string> => placesOfLink(s.judged.wired, open.linkId).shown;
  const leads = open.own.reduce(
    (n, s) => n + s.judged.wired.graph.leads.filter((l) => shownAt(s).has(l.from.placeId) && shownAt(s).has(l.to.placeId)).length,
    0,
  );
  const badLeads = new Set(all.flatMap(({ finding }) => (finding.leadId === null || finding.verdict === "unknown" ? [] : [finding.leadId])))
    .size;
  let last: string | null = null;
  return (
    <ScrollRegion label="Findings" className="beside border-l border-ink px-3.5 py-2.5 text-line">
      <h2 className="m-0 border-b border-ink pb-1.5 text-body font-bold">Findings</h2>
      {open.missing.map((m) => (
        <div key={`${m.siteId}${m.linkId}${m.what}`} className="mt-2.5 border-b border-rule pb-2" data-finding={m.what}>
          <Head verdict="unknown" stop={false} />
          <p className="m-0 mt-0.5">
            {m.what === "not-wired"
              ? `${nameOf(m.siteId)}: the ${m.name} of the plan is not wired yet.`
              : m.what === "other-type"
                ? `${m.name} at ${nameOf(m.siteId)} is planned as another type now.`
                : `${m.name} at ${nameOf(m.siteId)}: its link is gone.`}
          </p>
          {m.what === "other-type" && (
            <button
              type="button"
              className="press min-h-6 text-line"
              onClick={() => {
                const { places } = open.endOf(m.siteId).now();
                open.change(m.siteId, { places: places.map((p) => (p.id === m.placeId ? { ...p, partId: m.partId } : p)) });
              }}
            >
              Wire the planned one
            </button>
          )}
        </div>
      ))}
      {shown.map(({ site, finding, index }) => {
        const head = site.siteId === last ? null : nameOf(site.siteId);
        last = site.siteId;
        return (
          <div key={`${site.siteId}${finding.code}${finding.placeId}${finding.leadId}${index}`}>
            {head !== null && (
              <h3 className={`m-0 mt-2.5 text-line font-bold ${site.siteId === open.near.siteId ? "text-near" : "text-far"}`}>{head}</h3>
            )}
            <Finding open={open} site={site} finding={finding} index={index} plan={plan} />
          </div>
        );
      })}
      {all.length > shown.length && <p className="cap m-0 mt-2">{all.length - shown.length} more after these.</p>}
      {open.own.length === 2 && (
        <p className="cap m-0 mt-3">
          Of {leads} leads {leads - badLeads} fit in kind, volts, watts, metres and speed. Mains, earth and lightning are for qualified
          people and the local code: this is no design of them.
        </p>
      )}
      <p className="cap m-0 mt-2">
        The path is under{" "}
        <Link className="press" href={`/jobs/${open.jobId}/section/${open.linkId}`}>
          03 Section
        </Link>
        .
      </p>
      {children}
    </ScrollRegion>
  );
};
