"use client";
import Link from "next/link";
import { worstKitFirst } from "@/contract";
import { ScrollRegion } from "../../controls/scroll-region";
import { VerdictMark } from "../../marks/verdict-mark";
import { findingText } from "../../wording/kit";
import { VERDICT_WORD } from "../../wording/verdicts";
import { clashText } from "./days-words";
import type { OpenKit } from "./use-open-kit";

const MOST_SHOWN = 14;

/** What is missing or does not suit, and what may hurt somebody, the worst first. */
export const KitFindings = ({ open, show, saveCsv }: { open: OpenKit; show: (tab: string) => void; saveCsv: () => void }) => {
  const nameOf = (siteId: string): string => open.job.sites.find((s) => s.id === siteId)?.name ?? "?";
  const all = open.sites
    .flatMap((s) => s.findings.map((f) => ({ s, f })))
    .filter(({ f }) => f.code !== "risk" || f.risk.reason !== "open")
    .sort((a, b) => worstKitFirst(a.f, b.f));
  // What the days come to stands among what is as bad.
  const isDayShort = open.clashes.some((c) => c.verdict === "short");
  const shown = all.slice(0, MOST_SHOWN);
  const daysAt = isDayShort ? shown.filter(({ f }) => f.verdict === "short").length : shown.length;
  const open_ = open.sites.map((s) => ({ s, count: s.risks.filter((r) => r.reason === "open").length })).filter((x) => x.count > 0);
  const card = ({ s, f }: (typeof all)[number], i: number) => (
    <div key={`${s.siteId}${f.code}${i}`} className="mt-2.5 border-b border-rule pb-2" data-finding={f.code}>
      <div className="flex items-center gap-1.5 font-bold">
        <VerdictMark verdict={f.verdict} a={8} />
        <span className={`v-${f.verdict}`}>{VERDICT_WORD[f.verdict]}</span>
        <span className={s.siteId === open.near.siteId ? "text-near" : "text-far"}>{nameOf(s.siteId)}</span>
      </div>
      <p className="m-0 mt-0.5">{findingText(f, open.units, (risk) => open.competentOf(s.siteId, risk))}</p>
      {f.code === "not-chosen" && (
        <Link className="press min-h-6 leading-6" href={`/jobs/${open.jobId}/wiring/${open.linkId}`}>
          Choose it in 08 Wiring
        </Link>
      )}
      {(f.code === "strap" || f.code === "pole-untold" || f.code === "wall-unknown" || f.code === "fixing") && (
        <button type="button" className="press min-h-6 text-line" onClick={() => show("mount")}>
          Mount and wall
        </button>
      )}
      {f.code === "sways" && (
        <button
          type="button"
          className="press min-h-6 text-line"
          disabled={open.busy.has("stands")}
          onClick={() => void open.setStands(s.siteId, f.like)}
        >
          Count it as a {f.like}
        </button>
      )}
      {(f.code === "saw" || f.code === "ladder" || f.code === "wind-untold") && (
        <button type="button" className="press min-h-6 text-line" onClick={() => show("van")}>
          Wind, van, crew
        </button>
      )}
      {f.code === "risk" && (
        <button type="button" className="press min-h-6 text-line" onClick={() => show("risks")}>
          Before anyone climbs
        </button>
      )}
    </div>
  );
  const days =
    open.clashes.length === 0 ? null : (
      <div className="mt-2.5 border-b border-rule pb-2" data-finding="days">
        <div className="flex items-center gap-1.5 font-bold">
          <VerdictMark verdict={isDayShort ? "short" : "unknown"} a={8} />
          <span className={isDayShort ? "v-short" : "v-unknown"}>{isDayShort ? VERDICT_WORD.short : VERDICT_WORD.unknown}</span>
        </div>
        <p className="m-0 mt-0.5">{clashText(open.clashes.find((c) => c.verdict === "short") ?? open.clashes[0]!, open.dayFields.tasks)}</p>
        {open.clashes.length > 1 && <p className="cap m-0">{open.clashes.length - 1} more of the days.</p>}
        <button type="button" className="press min-h-6 text-line" onClick={() => show("days")}>
          Days
        </button>
      </div>
    );
  return (
    <ScrollRegion label="Findings" className="beside border-l border-ink px-3.5 py-2.5 text-line">
      <h2 className="m-0 border-b border-ink pb-1.5 text-body font-bold">Findings</h2>
      {shown.slice(0, daysAt).map(card)}
      {days}
      {shown.slice(daysAt).map(card)}
      {all.length > MOST_SHOWN && <p className="cap m-0 mt-2">{all.length - MOST_SHOWN} more after these.</p>}
      {open_.length > 0 && (
        <div className="mt-2.5 border-b border-rule pb-2" data-finding="open-risks">
          <div className="flex items-center gap-1.5 font-bold">
            <VerdictMark verdict="unknown" a={8} />
            <span className="v-unknown">Unknown</span>
          </div>
          <p className="m-0 mt-0.5">
            {open_.map(({ s, count }) => `${nameOf(s.siteId)}: ${count} risks are open`).join("; ")}. The plan is not finished while they
            are.
          </p>
          <button type="button" className="press min-h-6 text-line" onClick={() => show("risks")}>
            Before anyone climbs
          </button>
        </div>
      )}
      <p className="cap m-0 mt-3">
        Quantities by rule rows: each line says why it is there. Heights, mains, lines and lifting are for qualified people and the local
        rules.
      </p>
      <p className="m-0 mt-2">
        <button type="button" className="press min-h-6 text-line" onClick={saveCsv}>
          As CSV
        </button>
      </p>
    </ScrollRegion>
  );
};
