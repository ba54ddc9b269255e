"use client";
import { Tabs } from "radix-ui";
import { useMemo, useState } from "react";
import { judgeAir } from "@/core/air";
import { bodyOf } from "../../api/client";
import { keepFile } from "../../api/keep-file";
import { useRefresh, useVerdicts } from "../../api/queries";
import { TabRow } from "../../controls/tab-row";
import { TypingScope } from "../../controls/typing-scope";
import { useKeys } from "../../controls/use-keys";
import { useSize } from "../../drawing/use-size";
import { Sheet } from "../../frame/sheet";
import { sendEdit } from "../../state/browser-outbox";
import { useJobHistory } from "../../state/job-history";
import { errorSentence } from "../../wording/errors";
import { VERDICT_WORD } from "../../wording/verdicts";
import { useJobIndex } from "../job-index";
import { aboutCell, jobStrip, withVerdict } from "../job-strip";
import { SHEETS } from "../registry";
import { NARROW_PX } from "../section/narrow";
import { EditNotices, SheetHead } from "../sheet-head";
import { AirFindings } from "./air-findings";
import { AirTable } from "./air-table";
import { airView, worstFirst } from "./air-view";
import { airReason, bandText } from "./air-words";
import { BandDrawing } from "./band-drawing";
import { OthersPanel } from "./others-panel";
import { RadarPanel } from "./radar-panel";
import { ReceiverPanel } from "./receiver-panel";
import { RulesPanel } from "./rules-panel";
import { ScansPanel } from "./scans-panel";
import { changedUnits, takeBody } from "./take-channels";
import { useAssign } from "./use-assign";
import { type AirOpenRead, useOpenAir } from "./use-open-air";

const TABS = [
  ["channels", "Channels"],
  ["receiver", "What it hears"],
  ["scans", "Scans"],
  ["rules", "Rules"],
  ["radar", "Radar"],
  ["others", "Masts and others"],
] as const;

/** The air of a job: which channel for whom. */
export const AirOpen = (given: AirOpenRead) => {
  const verdicts = useVerdicts(given.job.job.id);
  const open = useOpenAir(given);
  const { job, jobId, planned, view, built, status, units, record, fields, verdict, band, tried } = open;
  const [said, setSaid] = useState<string | null>(null);
  const [tab, setTab] = useState<string>("channels");
  const say = (error: unknown): void => setSaid(errorSentence(bodyOf(error), units));
  const history = useJobHistory(
    jobId,
    (error) => say(error),
    () => setSaid(null),
  );
  const refresh = useRefresh();
  const index = useJobIndex(jobId, verdicts.data, null);
  const [ref, area] = useSize<HTMLDivElement>();
  const rows = useMemo(() => [...planned.units].sort(worstFirst), [planned]);
  const worstUnit = rows[0] !== undefined && rows[0].verdict !== "clear" ? rows[0].unit.id : null;
  const assign = useAssign(open.still, fields, worstUnit);
  const { found } = assign;
  const after = useMemo(
    () =>
      found === null
        ? null
        : new Map(airView(built, judgeAir(built.job, found.channels, open.maker), found.channels).units.map((u) => [u.unit.id, u])),
    [found, built, open.maker],
  );
  const [planning, setPlanning] = useState(false);
  const plan = (): void => {
    if (tried === null || planning) return;
    const body = takeBody(job, given.hubs, built.job.units, tried.channels);
    if (body.designs.length + body.hubs.length === 0) {
      open.setTried(null);
      return;
    }
    const moved = changedUnits(built.job.units, tried.channels).length;
    setPlanning(true);
    sendEdit(jobId, "POST", `/api/jobs/${jobId}/take`, body)
      .then(async () => {
        open.setTried(null);
        setSaid(`${moved === 1 ? "One channel is" : `${moved} channels are`} planned. Undo takes all of it back as one step.`);
        await refresh(jobId);
      })
      .catch(say)
      .finally(() => setPlanning(false));
  };
  const propose = (): void => {
    if (found === null) assign.again();
    else open.setTried({ words: "all as proposed", channels: found.channels });
  };
  const leave = (): void => open.setTried(null);
  useKeys({ p: propose, Escape: leave });
  const lock = (unitId: string): void =>
    open.change({ locks: fields.locks.includes(unitId) ? fields.locks.filter((k) => k !== unitId) : [...fields.locks, unitId] });
  const setAside = (unitId: string, aside: boolean): void =>
    open.change({ aside: aside ? [...fields.aside, unitId] : fields.aside.filter((k) => k !== unitId) });
  const asideNames = built.aside.map((id) => {
    const link = job.links.find((l) => l.id === id || id === `with:${l.id}`);
    const name = link === undefined ? "A sector" : `${open.names.get(link.nearSiteId)} to ${open.names.get(link.farSiteId)}`;
    return { id, name: link === undefined || link.label === "" ? name : `${name}, ${link.label}` };
  });
  const isEmpty = planned.units.length === 0;
  const narrow = area.width > 0 && area.width < NARROW_PX;
  const masts = open.rows.filter((r) => r.siteId !== null).length;
  const saveCsv = async (): Promise<void> => {
    const { airCsv } = await import("./air-csv");
    keepFile(new Blob([airCsv(rows, after)], { type: "text/csv" }), "channels.csv");
  };
  const inBand = planned.bands.find((b) => b.band === band);
  return (
    <TypingScope of={record}>
      <Sheet
        rows={withVerdict(index, "air", isEmpty ? null : verdict)}
        jobId={jobId}
        of={SHEETS.air}
        undo={{ ...history, canUndo: history.canUndo || status.kind !== "saved" }}
        actions={[
          { name: "Draw the proposed channels", run: propose },
          { name: "Channels as CSV", run: () => void saveCsv() },
        ]}
        strip={jobStrip(
          job.job,
          aboutCell("Noise", isEmpty ? null : verdict, planned.worst === null ? "" : planned.worst.name),
          status,
          history.last,
        )}
      >
        <div className="panes grid h-full min-h-0 grid-cols-[minmax(0,1fr)_248px] min-[1500px]:grid-cols-[minmax(0,1fr)_288px]">
          <div ref={ref} className="relative flex min-h-0 min-w-0 flex-col overflow-auto">
            <SheetHead verdict={verdict} word={isEmpty ? "Open" : VERDICT_WORD[verdict]} narrow={narrow}>
              <h1 className="m-0 text-head font-bold leading-6">
                {isEmpty || inBand === undefined
                  ? "The air of the job"
                  : `${bandText(inBand.band)}, ${inBand.units.length === 1 ? "one own channel" : `${inBand.units.length} own channels`}${masts === 0 ? "" : masts === 1 ? " on one mast" : ` on ${masts} masts`}`}
              </h1>
              {!isEmpty && (
                <p className={`m-0 text-line font-heading leading-[18px] v-${verdict}`} data-testid="headline-trouble">
                  {airReason(built, planned, planned.worst)}
                </p>
              )}
              <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1 text-line leading-[20px]">
                <button
                  type="button"
                  className="press min-h-6 text-line"
                  onClick={() => open.change({ widths: fields.widths === "narrowest" ? "widest" : "narrowest" })}
                >
                  {fields.widths === "narrowest" ? "Narrowest that carries" : "Widest that is free"}
                </button>
                <button
                  type="button"
                  className="press min-h-6 text-line"
                  onClick={() => open.change({ radar: fields.radar === "avoid" ? "fallback" : "avoid" })}
                >
                  {fields.radar === "avoid" ? "Radar channels avoided" : "Radar with fallback"}
                </button>
                <button type="button" className="press min-h-6 text-line" onClick={() => open.change({ always: !fields.always })}>
                  {fields.always ? "All send all the time" : "They send as the load says"}
                </button>
                {planned.bands.length > 1 && (
                  <fieldset className="m-0 flex gap-x-2 border-0 p-0" aria-label="Band">
                    {planned.bands.map((b) => (
                      <button
                        key={b.band}
                        type="button"
                        className={`press min-h-6 text-line ${b.band === band ? "bg-ink px-1 text-paper" : ""}`}
                        aria-pressed={b.band === band}
                        onClick={() => open.setBand(b.band)}
                      >
                        {bandText(b.band)}
                      </button>
                    ))}
                  </fieldset>
                )}
                {tried !== null && <span className="v-tight">drawn as if, not planned</span>}
              </div>
            </SheetHead>
            <EditNotices kind="air" record={record} status={status} setAside={open.setAside} units={units} said={said} />
            {isEmpty ? (
              <p className="m-0 border-t border-ink p-4 text-body" data-testid="empty">
                {job.links.length === 0
                  ? "Which channel for whom? Join two sites under 02 Ground first: a link has a channel as soon as it has radios."
                  : "No link is on the air: their radios do not pair yet, their paths are still being worked out, or all are left aside below."}
              </p>
            ) : (
              <div className="border-t border-ink">
                <BandDrawing open={open} width={area.width} proposed={found?.channels ?? null} plan={plan} />
              </div>
            )}
            <Tabs.Root value={tab} onValueChange={setTab} className="border-t border-ink px-4 py-2 text-line">
              <TabRow label="Of the air" tabs={TABS} />
              <Tabs.Content value="channels" className="overflow-x-auto pt-1">
                <AirTable
                  rows={rows}
                  after={after}
                  chosen={open.unitId}
                  choose={(id) => {
                    open.setUnit(id);
                    const of = view.receivers.filter((r) => r.unitId === id).sort((a, b) => b.air.riseDb - a.air.riseDb)[0];
                    if (of !== undefined) {
                      open.setBand(null);
                      open.setReceiver(of);
                    }
                  }}
                  locks={fields.locks}
                  lock={lock}
                  aside={asideNames}
                  setAside={setAside}
                  take={(id, channel) => {
                    const channels = new Map(tried?.channels ?? []);
                    channels.set(id, channel);
                    open.setTried({ words: `${channels.size} of the proposed channels`, channels });
                  }}
                />
              </Tabs.Content>
              <Tabs.Content value="receiver">
                <ReceiverPanel built={built} receiver={open.receiver} />
              </Tabs.Content>
              <Tabs.Content value="scans">
                <ScansPanel open={open} />
              </Tabs.Content>
              <Tabs.Content value="rules">
                <RulesPanel open={open} />
              </Tabs.Content>
              <Tabs.Content value="radar">
                <RadarPanel open={open} />
              </Tabs.Content>
              <Tabs.Content value="others">
                <OthersPanel open={open} />
              </Tabs.Content>
            </Tabs.Root>
          </div>
          <AirFindings open={open} assign={assign} plan={plan} saveCsv={() => void saveCsv()} />
        </div>
      </Sheet>
    </TypingScope>
  );
};
