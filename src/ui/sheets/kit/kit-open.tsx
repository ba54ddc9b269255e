"use client";
import Link from "next/link";
import { Tabs } from "radix-ui";
import { worstKitFirst } from "@/contract";
import { centsText } from "@/core/kit";
import { type Verdict, worseVerdict } from "@/core/link";
import { keepFile } from "../../api/keep-file";
import { useVerdicts } from "../../api/queries";
import { TabRow } from "../../controls/tab-row";
import { TypingScope } from "../../controls/typing-scope";
import { useSize } from "../../drawing/use-size";
import { Sheet } from "../../frame/sheet";
import { sendEdit } from "../../state/browser-outbox";
import { useJobHistory } from "../../state/job-history";
import { useOpen } from "../../state/me";
import { findingText } from "../../wording/kit";
import { VERDICT_WORD } from "../../wording/verdicts";
import { useJobIndex } from "../job-index";
import { aboutCell, jobStrip, withVerdict } from "../job-strip";
import { LinkChoice } from "../link-sheet";
import { SHEETS } from "../registry";
import { NARROW_PX } from "../section/narrow";
import { EditNotices, SheetHead } from "../sheet-head";
import { DaysPanel } from "./days-panel";
import { clashText } from "./days-words";
import { KitFindings } from "./kit-findings";
import { ListTab } from "./list-tab";
import { MoneyPanel } from "./money-panel";
import { MountPanel, VanPanel } from "./mount-panel";
import { RiskPanel } from "./risk-panel";
import { type KitRead, useOpenKit } from "./use-open-kit";

const TABS = [
  ["list", "What to pick"],
  ["mount", "Mount and wall"],
  ["van", "Wind, van, crew"],
  ["days", "Days"],
  ["risks", "Before anyone climbs"],
  ["money", "Money"],
] as const;

/** Narrower than this there is no room for a drawing beside the list. */
const DRAWN_FROM_PX = 860;
/** The kit of a link: what to buy and bring, why, what it costs, and who may do it. */
export const KitOpen = (
  given: KitRead & { readonly choose: (linkId: string) => void; readonly tab: string; readonly setTab: (tab: string) => void },
) => {
  const verdicts = useVerdicts(given.job.job.id);
  const open = useOpenKit(given);
  const { job, jobId, near, far, sites, fields, status, units } = open;
  const { tab, setTab } = given;
  const history = useJobHistory(
    jobId,
    () => undefined,
    () => open.setSaid(null),
  );
  const index = useJobIndex(jobId, verdicts.data, open.linkId);
  const [ref, area] = useSize<HTMLDivElement>();
  const narrow = area.width > 0 && area.width < NARROW_PX;
  const isDrawn = area.width >= DRAWN_FROM_PX;
  const nameOf = (siteId: string): string => job.sites.find((s) => s.id === siteId)?.name ?? "a site that is gone";
  const verdict = sites.reduce<Verdict>(
    (v, s) => s.findings.reduce<Verdict>((x, f) => worseVerdict(x, f.verdict), v),
    open.clashes.reduce<Verdict>((v, c) => worseVerdict(v, c.verdict), sites.length < 2 ? "unknown" : "clear"),
  );
  const isEmpty = sites.length === 0;
  const rows = sites.flatMap((s) => s.rows);
  const missing = rows.filter((r) => r.state === "missing");
  const picked = rows.filter((r) => r.state === "picked").length;
  const first = sites.flatMap((s) => s.findings.map((f) => ({ s, f }))).sort((a, b) => worstKitFirst(a.f, b.f))[0];
  const clash = open.clashes.find((c) => c.verdict === "short") ?? open.clashes[0];
  /** The worst of what the page judges: a day that cannot be comes before what is only not known. */
  const trouble =
    clash !== undefined && (first === undefined || (clash.verdict === "short" && first.f.verdict !== "short"))
      ? { verdict: clash.verdict, words: clashText(clash, open.dayFields.tasks) }
      : first === undefined
        ? null
        : {
            verdict: first.f.verdict,
            words: `${nameOf(first.s.siteId)}: ${findingText(first.f, units, (risk) => open.competentOf(first.s.siteId, risk))}`,
          };
  const { prices } = useOpen();
  const missingCents = missing.reduce((s, r) => s + (r.costCents ?? 0), 0);
  const saveCsv = async (priced: boolean): Promise<void> => {
    const { kitCsv } = await import("./kit-csv");
    keepFile(new Blob([kitCsv(open, priced)], { type: "text/csv" }), priced ? "kit.csv" : "kit-without-prices.csv");
  };
  const title = `${nameOf(near.siteId)} to ${nameOf(far.siteId)}`;
  const wired = (siteId: string): boolean => sites.some((s) => s.siteId === siteId);
  const heldBack =
    (open.dayStatus.kind !== "saved" ? open.dayStatus : null) ??
    open.screens.find((s) => s.exists && s.status.kind !== "saved")?.status ??
    null;
  return (
    <TypingScope of={open.record}>
      <TypingScope of={open.daysRecord}>
        <TypingScope of={near.record}>
          <TypingScope of={far.record}>
            <Sheet
              rows={withVerdict(index, "kit", isEmpty ? null : verdict)}
              jobId={jobId}
              of={SHEETS.kit}
              undo={{ ...history, canUndo: history.canUndo || status.kind !== "saved" }}
              actions={[
                { name: "Kit as CSV", run: () => void saveCsv(prices) },
                ...(prices ? [{ name: "Kit as CSV, without prices", run: () => void saveCsv(false) }] : []),
              ]}
              strip={jobStrip(
                job.job,
                aboutCell("Link", isEmpty ? null : verdict, title),
                status.kind === "saved" && heldBack !== null ? heldBack : status,
                history.last,
              )}
            >
              <div className="panes grid h-full min-h-0 grid-cols-[minmax(0,1fr)_248px] min-[1500px]:grid-cols-[minmax(0,1fr)_288px]">
                <div ref={ref} className="prints-whole flex min-h-0 min-w-0 flex-col overflow-auto">
                  <SheetHead verdict={isEmpty ? "unknown" : verdict} word={isEmpty ? "Open" : VERDICT_WORD[verdict]} narrow={narrow}>
                    <div className="flex flex-wrap items-start justify-between gap-x-6">
                      <div>
                        <h1 className="m-0 text-head font-bold leading-6">
                          <span className="text-near">{nameOf(near.siteId)}</span> to <span className="text-far">{nameOf(far.siteId)}</span>
                        </h1>
                        {trouble !== null && (
                          <p
                            className={`m-0 max-w-[520px] text-line font-heading leading-[18px] v-${trouble.verdict}`}
                            data-testid="headline-trouble"
                          >
                            {trouble.words}
                          </p>
                        )}
                        <LinkChoice job={job} linkId={open.linkId} choose={given.choose} />
                      </div>
                      {!isEmpty && (
                        <div className="text-right" data-testid="missing">
                          <div className={`figure whitespace-nowrap text-[42px] leading-[42px] ${missing.length > 0 ? "v-short" : ""}`}>
                            {missing.length > 0
                              ? `${missing.length} missing`
                              : `${rows.length - picked - rows.filter((r) => r.state === "there").length} to pick`}
                          </div>
                          <p className="m-0 text-line">
                            {prices && missing.length > 0 && missingCents > 0
                              ? `${centsText(missingCents)} ${fields.money.currency} to order; `
                              : ""}
                            {rows.length} lines, {picked} picked
                          </p>
                        </div>
                      )}
                    </div>
                  </SheetHead>
                  <EditNotices kind="kit" record={open.record} status={status} setAside={open.setAside} units={units} said={open.said} />
                  <EditNotices
                    kind="days"
                    record={open.daysRecord}
                    status={open.dayStatus}
                    setAside={open.dayAside}
                    units={units}
                    said={null}
                  />
                  {open.screens.map((s) =>
                    s.exists ? (
                      <EditNotices
                        key={s.siteId}
                        kind="safety"
                        record={s.record}
                        status={s.status}
                        setAside={s.setAside}
                        units={units}
                        said={null}
                      />
                    ) : null,
                  )}
                  {[near, far]
                    .filter((s) => !wired(s.siteId))
                    .map((s) => (
                      <p key={s.siteId} className="m-0 border-t border-rule px-4 py-2 text-body" data-testid="not-wired">
                        {nameOf(s.siteId)}: the plan names nothing to bring yet.{" "}
                        <Link className="press" href={`/jobs/${jobId}/wiring/${open.linkId}`}>
                          Wire it in 08 Wiring
                        </Link>
                      </p>
                    ))}
                  {!isEmpty && (
                    <Tabs.Root value={tab} onValueChange={setTab} className="border-t border-ink px-4 py-2 text-line">
                      <TabRow label="Of the kit" tabs={TABS.filter(([key]) => prices || key !== "money")} />
                      <Tabs.Content value="list">
                        <ListTab open={open} narrow={narrow} isDrawn={isDrawn} />
                      </Tabs.Content>
                      <Tabs.Content value="mount">
                        {sites.map((s) => (
                          <MountPanel
                            key={s.siteId}
                            siteId={s.siteId}
                            name={nameOf(s.siteId)}
                            kit={fields}
                            now={open.now}
                            change={open.record.change}
                            site={s}
                            radios={given.wirings.find((w) => w.siteId === s.siteId)?.places.filter((p) => p.kind === "radio").length ?? 0}
                          />
                        ))}
                      </Tabs.Content>
                      <Tabs.Content value="van">
                        <VanPanel kit={fields} now={open.now} change={open.record.change} />
                      </Tabs.Content>
                      {open.file.notice}
                      <Tabs.Content value="days">
                        <DaysPanel
                          job={job}
                          linkId={open.linkId}
                          brief={given.brief}
                          fields={open.dayFields}
                          now={open.daysNow}
                          change={open.daysRecord.change}
                          crew={fields.crew}
                          units={units}
                          calendar={() => void open.calendar()}
                          needsLift={sites.some((s) => s.findings.some((f) => f.code === "lift"))}
                          width={area.width - 32}
                          setZone={(zone) => void open.setZone(zone)}
                        />
                      </Tabs.Content>
                      <Tabs.Content value="risks">
                        {open.screens.map((screen) => {
                          const site = sites.find((s) => s.siteId === screen.siteId);
                          if (site === undefined) return null;
                          return screen.exists ? (
                            <RiskPanel
                              key={screen.siteId}
                              name={nameOf(screen.siteId)}
                              site={site}
                              safety={screen.fields}
                              change={screen.record.change}
                              rf={open.rfAt(screen.siteId)}
                              units={units}
                            />
                          ) : (
                            <p key={screen.siteId} className="m-0 py-2 text-body">
                              {nameOf(screen.siteId)}: nobody has looked at what may hurt somebody there.{" "}
                              <button
                                type="button"
                                className="press min-h-6"
                                disabled={open.busy.has(screen.siteId)}
                                onClick={() =>
                                  void open.send(screen.siteId, () =>
                                    sendEdit(jobId, "POST", `/api/jobs/${jobId}/safety`, { id: screen.siteId, siteId: screen.siteId }),
                                  )
                                }
                              >
                                Begin the risk screen of {nameOf(screen.siteId)}
                              </button>
                            </p>
                          );
                        })}
                      </Tabs.Content>
                      <Tabs.Content value="money">
                        <MoneyPanel
                          kit={fields}
                          now={open.now}
                          change={open.record.change}
                          ends={sites}
                          allSites={open.allSites}
                          tasks={open.dayFields.tasks}
                          busy={open.file.busy !== null}
                          quote={(as, isJob) => void open.quote(as, isJob)}
                          shapes={given.brief.shapes}
                        />
                      </Tabs.Content>
                    </Tabs.Root>
                  )}
                </div>
                <KitFindings open={open} show={setTab} saveCsv={() => void saveCsv(prices)} />
              </div>
            </Sheet>
          </TypingScope>
        </TypingScope>
      </TypingScope>
    </TypingScope>
  );
};
