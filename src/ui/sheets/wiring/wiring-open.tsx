"use client";
import { Tabs } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import { PART_KIND_WORDS, type PlaceFields, proposedFor } from "@/contract";
import { PART_KINDS, type PartKind } from "@/core/wiring";
import { bodyOf } from "../../api/client";
import { keepFile } from "../../api/keep-file";
import { useRefresh, useVerdicts } from "../../api/queries";
import { Choice } from "../../controls/field";
import { TabRow } from "../../controls/tab-row";
import { TypingScope } from "../../controls/typing-scope";
import { useKeys } from "../../controls/use-keys";
import { pngOf, svgOf, typeInside } from "../../drawing/save-picture";
import { useSize } from "../../drawing/use-size";
import { Sheet } from "../../frame/sheet";
import { sendEdit } from "../../state/browser-outbox";
import { useJobHistory } from "../../state/job-history";
import { errorSentence } from "../../wording/errors";
import { VERDICT_WORD } from "../../wording/verdicts";
import { findingText } from "../../wording/wiring";
import { useJobIndex } from "../job-index";
import { aboutCell, jobStrip, withVerdict } from "../job-strip";
import { LinkChoice } from "../link-sheet";
import { SHEETS } from "../registry";
import { NARROW_PX } from "../section/narrow";
import { EditNotices, SheetHead } from "../sheet-head";
import { AddressesPanel } from "./addresses-panel";
import { EarthPanel } from "./earth-panel";
import { EndsDrawing, WiringKey } from "./ends-drawing";
import { LeadPanel } from "./lead-panel";
import { PlacePanel } from "./place-panel";
import { SunPanel } from "./sun-panel";
import { UnitTable } from "./unit-table";
import { useOpenWiring, type WiringRead } from "./use-open-wiring";
import { isOver, OverFigure, VoltScale } from "./volt-scale";
import { WiringFindings } from "./wiring-findings";

const TABS = [
  ["units", "Units and leads"],
  ["addresses", "Addresses"],
  ["earth", "Earth"],
  ["sun", "Battery and sun"],
] as const;

const ADDED: readonly PartKind[] = PART_KINDS.filter((k) => !["cable", "fibre", "plug", "gland", "radio"].includes(k));

/** Both ends of a link cut open: what is plugged into what, and does it start? */
export const WiringOpen = (given: WiringRead & { choose: (linkId: string) => void }) => {
  const verdicts = useVerdicts(given.job.job.id);
  const open = useOpenWiring(given);
  const { job, jobId, near, far, verdict, worst, decides } = open;
  const [said, setSaid] = useState<string | null>(null);
  const [tab, setTab] = useState<string>("units");
  const [only, setOnly] = useState<string>(open.worst?.site.siteId ?? near.siteId);
  const [busy, setBusy] = useState(false);
  const [adding, setAdding] = useState<{ readonly siteId: string; readonly kind: PartKind }>({ siteId: far.siteId, kind: "camera" });
  const say = (error: unknown): void => setSaid(errorSentence(bodyOf(error), open.fieldUnits));
  const history = useJobHistory(
    jobId,
    (error) => say(error),
    () => setSaid(null),
  );
  const refresh = useRefresh();
  const index = useJobIndex(jobId, verdicts.data, open.linkId);
  const [ref, area] = useSize<HTMLDivElement>();
  const narrow = area.width > 0 && area.width < NARROW_PX;
  const nameOf = (siteId: string): string => job.sites.find((s) => s.id === siteId)?.name ?? "a site that is gone";
  const wired = open.ends.filter((e) => e.exists);
  const isEmpty = wired.length === 0;
  const leave = (): void => open.setTried(null);
  const { chosen } = open;
  const panel = useRef<HTMLDivElement>(null);
  // What is chosen in the drawing or a list opens beneath: it is brought to where it can be seen.
  useEffect(() => {
    if (chosen === null) return;
    setTab("units");
    panel.current?.scrollIntoView({ block: "nearest" });
  }, [chosen]);
  useKeys({ l: () => setTab("units"), Escape: leave });
  const propose = async (siteId: string): Promise<void> => {
    setBusy(true);
    setSaid(null);
    const end = open.endOf(siteId);
    const before = end.exists ? end.now() : null;
    const first = proposedFor(job, given.brief, given.network, siteId, open.all, () => crypto.randomUUID(), open.sectorAt(siteId), before);
    try {
      if (end.exists) open.change(siteId, first);
      else await sendEdit(jobId, "POST", `/api/jobs/${jobId}/wirings`, { id: siteId, siteId, ...first });
      await refresh(jobId);
    } catch (error) {
      say(error);
    } finally {
      setBusy(false);
    }
  };
  const add = (): void => {
    const { siteId, kind } = adding;
    const end = open.endOf(siteId);
    const part = [...open.all.values()].filter((p) => p.kind === kind && p.retired !== true)[0] ?? null;
    const count = end.now().places.filter((p) => p.kind === kind).length;
    const place: PlaceFields = {
      id: crypto.randomUUID(),
      partId: part?.id ?? null,
      kind,
      name: count === 0 ? PART_KIND_WORDS[kind] : `${PART_KIND_WORDS[kind]} ${count + 1}`,
      where: kind === "panel" ? "outside" : "inside",
      aglM: null,
      linkId: null,
      deviceId: null,
      earth: "",
      countsDrawn: false,
      bond: kind === "surge" ? "unseen" : "none",
    };
    open.change(siteId, { places: [...end.now().places, place] });
    open.setChosen({ siteId, kind: "place", id: place.id });
  };
  const title = `${nameOf(near.siteId)} to ${nameOf(far.siteId)}`;
  const saveCsv = async (): Promise<void> => {
    const { wiringCsv } = await import("./wiring-csv");
    keepFile(new Blob([wiringCsv(open)], { type: "text/csv" }), "wiring.csv");
  };
  const picture = async (kind: "svg" | "png"): Promise<void> => {
    const drawing = document.querySelector<SVGSVGElement>("[data-testid=ends]");
    if (drawing === null) return;
    const type = await typeInside().catch(() => "");
    const words = open.own.flatMap((s) => s.findings.map((f) => `${nameOf(s.siteId)}: ${findingText(s.judged.wired, f, open.fieldUnits)}`));
    const svg = svgOf([drawing], title, VERDICT_WORD[verdict], words, type);
    keepFile(kind === "svg" ? new Blob([svg], { type: "image/svg+xml" }) : await pngOf(svg), `wiring.${kind}`);
  };
  const pathM = verdicts.data?.find((v) => v.linkId === open.linkId)?.pathM ?? null;

  const status =
    open.ends.find((e) => e.exists && e.status.kind !== "saved")?.status ??
    (open.addressStatus.kind !== "saved" ? open.addressStatus : near.status);
  return (
    <TypingScope of={near.record}>
      <TypingScope of={far.record}>
        <TypingScope of={open.addressesRecord}>
          <Sheet
            rows={withVerdict(index, "wiring", isEmpty ? null : verdict)}
            jobId={jobId}
            of={SHEETS.wiring}
            undo={{ ...history, canUndo: history.canUndo || status.kind !== "saved" }}
            actions={[
              { name: "Units and leads as CSV", run: () => void saveCsv() },
              { name: "The drawing as SVG", run: () => void picture("svg").catch(say) },
              { name: "The drawing as PNG", run: () => void picture("png").catch(say) },
            ]}
            strip={jobStrip(job.job, aboutCell("Link", isEmpty ? null : verdict, title), status, history.last)}
          >
            <div className="panes grid h-full min-h-0 grid-cols-[minmax(0,1fr)_248px] min-[1500px]:grid-cols-[minmax(0,1fr)_288px]">
              <div ref={ref} className="prints-whole flex min-h-0 min-w-0 flex-col overflow-auto">
                <SheetHead verdict={isEmpty ? "unknown" : verdict} word={isEmpty ? "Open" : VERDICT_WORD[verdict]} narrow={narrow}>
                  <h1 className="m-0 text-head font-bold leading-6">
                    <span className="text-near">{nameOf(near.siteId)}</span> to <span className="text-far">{nameOf(far.siteId)}</span>
                  </h1>
                  {worst !== null && (
                    <p className={`m-0 text-line font-heading leading-[18px] v-${verdict}`} data-testid="headline-trouble">
                      {findingText(worst.site.judged.wired, worst.finding, open.fieldUnits)}
                    </p>
                  )}
                  {worst === null && !isEmpty && <p className="m-0 text-line">Everything fits in kind, volts, watts, metres and speed.</p>}
                  <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1 text-line leading-[20px]">
                    <LinkChoice job={job} linkId={open.linkId} choose={given.choose} />
                    {narrow &&
                      wired.length === 2 &&
                      open.ends.map((e) => (
                        <button
                          key={e.siteId}
                          type="button"
                          className={`press min-h-6 text-line ${only === e.siteId ? "bg-ink px-1 text-paper" : ""}`}
                          aria-pressed={only === e.siteId}
                          onClick={() => setOnly(e.siteId)}
                        >
                          {nameOf(e.siteId)}
                        </button>
                      ))}
                    {open.tried !== null && <span className="v-tight">drawn as if, not planned</span>}
                  </div>
                </SheetHead>
                {open.ends.map((e) =>
                  e.exists ? (
                    <EditNotices
                      key={e.siteId}
                      kind="wiring"
                      record={e.record}
                      status={e.status}
                      setAside={e.setAside}
                      units={open.fieldUnits}
                      said={e.siteId === near.siteId ? said : null}
                    />
                  ) : null,
                )}
                <EditNotices
                  kind="addresses"
                  record={open.addressesRecord}
                  status={open.addressStatus}
                  setAside={open.addressAside}
                  units={open.fieldUnits}
                  said={isEmpty || !near.exists ? said : null}
                />
                {worst !== null && isOver(worst.finding) && worst.finding.verdict === "short" ? (
                  <OverFigure
                    finding={worst.finding}
                    name={`${worst.site.judged.wired.placeOf.get(worst.finding.placeId ?? "")?.name ?? ""}, ${nameOf(worst.site.siteId)}`}
                  />
                ) : decides !== null && area.width > 0 ? (
                  <VoltScale
                    arrival={decides.arrival}
                    name={`${decides.site.judged.wired.placeOf.get(decides.arrival.end.placeId)?.name ?? "?"}, ${nameOf(decides.site.siteId)}`}
                    width={area.width}
                  />
                ) : null}
                {open.ends.some((e) => !e.exists) && (
                  <div className="border-t border-ink px-4 py-2.5 text-body" data-testid="not-wired">
                    {open.ends
                      .filter((e) => !e.exists)
                      .map((e) => (
                        <p key={e.siteId} className="m-0 flex flex-wrap items-baseline gap-x-3 py-0.5">
                          <span>{nameOf(e.siteId)}: what feeds it, and what hangs on it? Nothing is wired here yet.</span>
                          <button type="button" className="press min-h-6" disabled={busy} onClick={() => void propose(e.siteId)}>
                            Propose a wiring for {nameOf(e.siteId)}
                          </button>
                        </p>
                      ))}
                  </div>
                )}
                {!isEmpty && area.width > 0 && (
                  <div className="border-t border-ink">
                    <EndsDrawing
                      open={open}
                      width={area.width}
                      only={wired.length === 1 ? wired[0]!.siteId : narrow ? only : null}
                      pathM={pathM}
                    />
                    <WiringKey />
                  </div>
                )}
                {!isEmpty && (
                  <Tabs.Root value={tab} onValueChange={setTab} className="border-t border-ink px-4 py-2 text-line">
                    <TabRow label="Of the wiring" tabs={TABS} />
                    <Tabs.Content value="units" className="pt-1">
                      <div ref={panel}>
                        {chosen?.kind === "lead" && <LeadPanel open={open} siteId={chosen.siteId} leadId={chosen.id} />}
                        {chosen?.kind === "place" && <PlacePanel key={chosen.id} open={open} siteId={chosen.siteId} placeId={chosen.id} />}
                      </div>
                      <div className={narrow ? "grid gap-4" : "grid gap-4 min-[1500px]:grid-cols-2"}>
                        {open.shown.map((site) => (
                          <section key={site.siteId} aria-label={`At ${nameOf(site.siteId)}`} className="min-w-0 pt-1.5">
                            <h3
                              className={`m-0 flex flex-wrap items-baseline gap-x-4 text-body font-bold ${site.siteId === near.siteId ? "text-near" : "text-far"}`}
                            >
                              {nameOf(site.siteId)}
                              <button
                                type="button"
                                className="press min-h-6 text-line text-ink"
                                disabled={busy}
                                onClick={() => void propose(site.siteId)}
                                title="All leads and places of this site anew from the plan; what stays keeps its address and its unit; undo brings these back"
                              >
                                Propose it anew
                              </button>
                            </h3>
                            <UnitTable open={open} site={site} />
                          </section>
                        ))}
                      </div>
                      <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
                        <Choice
                          label="Add a"
                          value={adding.kind}
                          onChange={(e) => setAdding({ ...adding, kind: e.target.value as PartKind })}
                        >
                          {ADDED.map((k) => (
                            <option key={k} value={k}>
                              {PART_KIND_WORDS[k]}
                            </option>
                          ))}
                        </Choice>
                        <Choice label="at" value={adding.siteId} onChange={(e) => setAdding({ ...adding, siteId: e.target.value })}>
                          {wired.map((e) => (
                            <option key={e.siteId} value={e.siteId}>
                              {nameOf(e.siteId)}
                            </option>
                          ))}
                        </Choice>
                        <button type="button" className="press min-h-6" onClick={add} disabled={!open.endOf(adding.siteId).exists}>
                          Add it
                        </button>
                      </div>
                    </Tabs.Content>
                    <Tabs.Content value="addresses">
                      <AddressesPanel open={open} />
                    </Tabs.Content>
                    <Tabs.Content value="earth">
                      <EarthPanel open={open} />
                    </Tabs.Content>
                    <Tabs.Content value="sun">
                      <SunPanel open={open} />
                    </Tabs.Content>
                  </Tabs.Root>
                )}
              </div>
              <WiringFindings open={open}>
                <p className="m-0 mt-2">
                  <button type="button" className="press min-h-6 text-line" onClick={() => void saveCsv()}>
                    As CSV
                  </button>
                </p>
              </WiringFindings>
            </div>
          </Sheet>
        </TypingScope>
      </TypingScope>
    </TypingScope>
  );
};
