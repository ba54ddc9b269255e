"use client";
import { useMemo, useState } from "react";
import { type BriefDevice, recordPath } from "@/contract";
import { askedOfPlace, delayTo, freeAlong, type Recorder, readingsAt, recorderAnswers, THERE } from "@/core/load";
import { bodyOf } from "../../api/client";
import { keepFile } from "../../api/keep-file";
import { useRefresh, useVerdicts } from "../../api/queries";
import { ClashNotice } from "../../controls/clash-notice";
import { Choice } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { TypingScope } from "../../controls/typing-scope";
import { useKeys } from "../../controls/use-keys";
import { useSize } from "../../drawing/use-size";
import { Sheet } from "../../frame/sheet";
import { VerdictMark } from "../../marks/verdict-mark";
import { sendEdit } from "../../state/browser-outbox";
import { useJobHistory } from "../../state/job-history";
import { errorSentence } from "../../wording/errors";
import { rateText } from "../../wording/gear";
import { figure } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";
import { useJobIndex } from "../job-index";
import { jobStrip } from "../job-strip";
import { SHEETS } from "../registry";
import { NARROW_PX } from "../section/narrow";
import { FillChart } from "./fill-chart";
import { DelayBar, RecorderTable, TestList } from "./load-aside";
import { mismatchesOf, moreKinds } from "./load-ends";
import { LoadFindings, type Mismatch } from "./load-findings";
import type { TriedMend } from "./load-mends";
import { LoadSettings } from "./load-settings";
import { bySchools, hangsAt, yearsOf } from "./load-view";
import { fullYearText, loadReason } from "./load-words";
import { PipeDrawing } from "./pipe-drawing";
import { PlaceList } from "./place-list";
import { type LoadOpenRead, type OpenLoad, SCHOOLS, useOpenLoad } from "./use-open-load";

const SCHOOL_WORDS = { third: "a third of the air rate", headroom: "some kept free", full: "all of it" } as const;

/** The load of a job: the narrowest place, what still fits, and when it is full. */
export const LoadOpen = (given: LoadOpenRead) => {
  const verdicts = useVerdicts(given.job.job.id);
  const open = useOpenLoad(given);
  const { job, jobId, view, own, status, units, moment, record } = open;
  const [said, setSaid] = useState<string | null>(null);
  const say = (error: unknown): void => setSaid(errorSentence(bodyOf(error), units));
  const history = useJobHistory(
    jobId,
    (error) => say(error),
    () => setSaid(null),
  );
  const refresh = useRefresh();
  const index = useJobIndex(jobId, verdicts.data, null);
  const [ref, area] = useSize<HTMLDivElement>();
  const kinds = useMemo(() => moreKinds(given.brief.devices), [given.brief.devices]);
  const [moreKey, setMoreKey] = useState<string | null>(null);
  const [typedMbps, setTypedMbps] = useState(4);
  const typed = { name: "typed", each: { there: 0, back: typedMbps }, talksTo: "recorder" as const };
  const more = moreKey === "typed" ? typed : (kinds.find((k) => k.name === moreKey) ?? kinds[0] ?? typed);
  useKeys({
    m: () => open.setMoment(moment === "worst" ? "usual" : "worst"),
    s: () => open.setSchool(SCHOOLS[(SCHOOLS.indexOf(open.school) + 1) % SCHOOLS.length]!),
  });
  const thisYear = Number(job.job.visitOn.slice(0, 4));
  const verdict = own === null || own.narrowest === null ? "unknown" : own.verdict;
  const isEmpty = own === null || own.narrowest === null;
  const narrow = area.width > 0 && area.width < NARROW_PX;
  const nameOf = (id: string | null): string => job.sites.find((s) => s.id === id)?.name ?? "";
  const plan = (m: TriedMend): void => {
    open.setTried(null);
    if (m.plan.kind === "network") open.change(m.plan.fields);
    else if (m.plan.kind === "devices")
      sendEdit(jobId, "PATCH", recordPath(jobId, "brief", jobId), {
        version: given.brief.version,
        devices: m.plan.devices as BriefDevice[],
      })
        .then(() => refresh(jobId))
        .catch(say);
  };
  const mismatches: Mismatch[] =
    own === null
      ? []
      : mismatchesOf(own, job).map((m) => ({
          ...m,
          use: () => {
            sendEdit(jobId, "PATCH", recordPath(jobId, "design", m.designId), {
              version: m.version,
              needToFarMbps: m.toFar,
              needToNearMbps: m.toNear,
            })
              .then(() => refresh(jobId))
              .catch(say);
          },
        }));
  return (
    <TypingScope of={record}>
      <Sheet
        rows={index.map((r) =>
          r.key === "load" && !isEmpty
            ? { ...r, state: verdict === "clear" ? "settled" : { verdict, words: VERDICT_WORD[verdict].toLowerCase() } }
            : r,
        )}
        jobId={jobId}
        of={SHEETS.load}
        undo={{ ...history, canUndo: history.canUndo || status.kind !== "saved" }}
        actions={[
          { name: "Worst or usual moment", run: () => open.setMoment(moment === "worst" ? "usual" : "worst") },
          ...(view === null
            ? []
            : [
                {
                  name: "Places of the load as CSV",
                  run: () => void saveCsv(view, thisYear),
                },
              ]),
        ]}
        strip={jobStrip(
          job.job,
          {
            label: (
              <>
                Narrowest{" "}
                {!isEmpty && (
                  <>
                    <VerdictMark verdict={verdict} a={7} /> <span className={`font-figure v-${verdict}`}>{VERDICT_WORD[verdict]}</span>
                  </>
                )}
              </>
            ),
            value: own?.narrowest?.name ?? "",
            grow: 2.5,
          },
          status,
          history.last,
        )}
      >
        <div className="panes grid h-full min-h-0 grid-cols-[minmax(0,1fr)_248px] min-[1500px]:grid-cols-[minmax(0,1fr)_288px]">
          <div ref={ref} className="flex min-h-0 min-w-0 flex-col overflow-auto">
            <header className={`flex min-h-[84px] items-start gap-x-4 px-4 pt-2 ${narrow ? "flex-wrap pb-1.5" : ""}`}>
              <VerdictMark verdict={verdict} a={30} />
              <div
                className={`text-verdict font-verdict leading-[58px] tracking-[-0.5px] v-${verdict}`}
                data-testid="verdict"
                aria-live="polite"
              >
                {isEmpty ? "Open" : VERDICT_WORD[verdict]}
              </div>
              <div className={narrow ? "basis-full" : "min-w-0 flex-1 border-l border-hair pl-4"}>
                <h1 className="m-0 text-head font-bold leading-6">
                  {open.end === null ? "The load of the job" : `From ${feedName(open)} to ${nameOf(open.end)}`}
                </h1>
                {own !== null && own.narrowest !== null && (
                  <p className={`m-0 text-line font-heading leading-[18px] v-${verdict}`} data-testid="headline-trouble">
                    {loadReason(own, thisYear, job.job.horizonYears)}
                  </p>
                )}
                <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1 text-line leading-[20px]">
                  <button
                    type="button"
                    className="press min-h-6 text-line"
                    onClick={() => open.setMoment(moment === "worst" ? "usual" : "worst")}
                  >
                    {moment === "worst" ? "Worst moment" : "Usual moment"}
                  </button>
                  <span>planned by</span>
                  <button
                    type="button"
                    className="press min-h-6 text-line"
                    onClick={() => open.setSchool(SCHOOLS[(SCHOOLS.indexOf(open.school) + 1) % SCHOOLS.length]!)}
                  >
                    {open.school === "headroom" ? `${figure(job.job.freeShare * 100)} % kept free` : SCHOOL_WORDS[open.school]}
                  </button>
                  {open.school !== job.job.throughputSchool && <span className="v-tight">looked at, not the job's</span>}
                  {open.times !== 1 && (
                    <span className="v-tight" data-testid="times">
                      as if {figure(open.times * 100)} % were asked{" "}
                      <button type="button" className="press min-h-6 text-line" onClick={() => open.setTimes(1)}>
                        As it is
                      </button>
                    </span>
                  )}
                  <span className="text-ink-2">Width is what fits, fill what is asked.</span>
                </div>
              </div>
            </header>
            <ClashNotice
              kind="network"
              status={status}
              setAside={open.setAside}
              units={units}
              resolve={record.resolve}
              recall={record.recall}
            />
            {(said !== null || status.kind === "refused") && (
              <p role="status" className="m-0 border-t border-rule px-4 py-1.5 text-body" data-testid="said">
                {status.kind === "refused" ? errorSentence(status.reason, units) : said}
              </p>
            )}
            {isEmpty ? (
              <p className="m-0 border-t border-ink p-4 text-body" data-testid="empty">
                What feeds it, what hangs on it? Name the feed and the devices at each far end under 01 Brief, or what each link must carry;
                a link must hold before anything passes it.
              </p>
            ) : (
              <Drawn open={open} width={area.width} narrow={narrow} thisYear={thisYear} more={more}>
                <div className="mt-1.5 flex flex-wrap items-end gap-x-4 gap-y-1">
                  <Choice label="How many more of" value={moreKey ?? more.name} onChange={(e) => setMoreKey(e.target.value)}>
                    {kinds.map((k) => (
                      <option key={k.name} value={k.name}>
                        {k.name}
                      </option>
                    ))}
                    <option value="typed">a device of so many Mbps</option>
                  </Choice>
                  {moreKey === "typed" && (
                    <NumberField
                      label="Sends"
                      unit="Mbps"
                      value={typedMbps}
                      least={0.01}
                      most={100_000}
                      onChange={(v) => v !== null && setTypedMbps(v)}
                    />
                  )}
                </div>
              </Drawn>
            )}
            <LoadSettings
              job={job}
              fields={open.fields}
              now={open.now}
              change={open.change}
              feedSiteId={open.planned?.feeds[0]?.siteId ?? null}
              chain={open.chain}
              end={open.end}
              devices={given.brief.devices}
            />
          </div>
          {own !== null && (
            <LoadFindings
              view={own}
              narrowest={isEmpty ? null : (own.places.find((p) => p.id === open.narrowest?.id) ?? own.narrowest)}
              mends={open.mends}
              tried={open.tried}
              tryMend={open.setTried}
              plan={plan}
              thisYear={thisYear}
              mismatches={mismatches}
              lost={own.load.tree.lost.map((id) => nameOf(id))}
              again={(name) => {
                const id = job.sites.find((x) => x.name === name)?.id;
                const { [id ?? ""]: _gone, ...others } = open.now().uplinks;
                open.change({ uplinks: others });
              }}
              saveCsv={() => void saveCsv(own, thisYear)}
            />
          )}
        </div>
      </Sheet>
    </TypingScope>
  );
};

const saveCsv = async (view: NonNullable<OpenLoad["view"]>, thisYear: number): Promise<void> => {
  const { loadCsv } = await import("./load-csv");
  keepFile(new Blob([loadCsv(view, thisYear)], { type: "text/csv" }), "load.csv");
};

const feedName = ({ planned, job }: OpenLoad): string => {
  const feed = planned?.feeds[0];
  return feed === undefined || feed.name === ""
    ? `the feed at ${job.sites.find((s) => s.id === feed?.siteId)?.name ?? "?"}`
    : `the ${feed.name}`;
};

/** The pipe, and beneath it the places, the years, and what rests on them. */
const Drawn = ({
  open,
  width,
  narrow,
  thisYear,
  more,
  children,
}: {
  open: OpenLoad;
  width: number;
  narrow: boolean;
  thisYear: number;
  more: Parameters<typeof PlaceList>[0]["more"];
  children: React.ReactNode;
}) => {
  const { view, place, end, parts, narrowest, moment, job } = open;
  const horizon = job.job.horizonYears;
  const delay = useMemo(() => (view === null || end === null ? null : delayTo(view.load, moment, end)), [view, moment, end]);
  const readings = useMemo(
    () => (view === null || end === null ? [] : readingsAt(view.load, end, open.fields.testerMbps)),
    [view, end, open.fields.testerMbps],
  );
  const { planned, chain, read } = open;
  const hangs = useMemo(() => (view === null || end === null ? [] : hangsAt(view, read, moment, end)), [view, read, moment, end]);
  const schools = useMemo(
    () => (planned === null || place === null ? null : bySchools(planned, moment, place.id)),
    [planned, moment, place],
  );
  const answers = useMemo(() => {
    if (planned === null || place === null) return [];
    const sites = chain.slice(0, -1);
    const list: Recorder[] = [...sites.map((siteId) => ({ at: "site" as const, siteId })), { at: "each" }];
    const now = planned.recorder;
    if (now.at === "site" && !sites.includes(now.siteId)) list.unshift(now);
    return recorderAnswers(planned, list, place.id);
  }, [planned, chain, place]);
  if (view === null || place === null || width === 0) return null;
  const names = (i: number): string => view.places[i]!.name;
  const nameOf = (id: string | null): string => job.sites.find((s) => s.id === id)?.name ?? "";
  const years = yearsOf(view, place.place, thisYear, Math.max(horizon, Math.min(15, Math.ceil(place.yearsLeft ?? 0) + 1)));
  const ways = end === null ? null : view.load.hopsTo(end, { kind: "feed" });
  const free = ways === null ? null : ([0, 1] as const).map((lane) => freeAlong(view.load, moment, ways[lane]).mbps);
  const third = narrow ? width - 32 : Math.floor((width - 4) * 0.26);
  const recordedMbps = view.load.flows.reduce(
    (n, f) => n + (f.device.talksTo.kind === "recorder" ? f.device.usual.back * f.device.count : 0),
    0,
  );
  return (
    <>
      <div className="flex-none overflow-x-auto border-t border-ink">
        <PipeDrawing
          parts={parts}
          narrowest={narrowest}
          width={width}
          thisYear={thisYear}
          times={open.times}
          onTimes={open.setTimes}
          choose={open.choose}
          hangs={hangs}
        />
      </div>
      <div className={`flex flex-none border-t border-ink ${narrow ? "flex-col" : ""}`}>
        <div className={`min-w-0 px-4 py-2 ${narrow ? "" : "flex-[1.4] border-r border-rule"}`}>
          <PlaceList view={view} rows={open.list} moment={moment} chosen={place.id} more={more} choose={open.choose} />
          {children}
        </div>
        <div className={`px-2 py-2 ${narrow ? "border-t border-rule" : "border-r border-rule"}`}>
          <h3 className="m-0 px-2 text-body font-bold" style={{ maxWidth: third }}>
            {place.name}, year by year
            {fullYearText(place, thisYear) === null ? "" : `: ${fullYearText(place, thisYear)}`}
          </h3>
          <FillChart
            rows={years.rows}
            fitsMbps={years.fitsMbps}
            allMbps={years.allMbps}
            fullIn={place.yearsLeft === null ? null : thisYear + place.yearsLeft}
            verdict={place.verdict}
            horizonYear={thisYear + horizon}
            width={third}
          />
          <p className="cap m-0 px-2" style={{ maxWidth: third }}>
            Mbps in today's mix: {rateText(askedOfPlace(view.load, moment, place.place).there)} there and{" "}
            {rateText(askedOfPlace(view.load, moment, place.place).back)} back.
            {free !== null && (
              <>
                {" "}
                To {nameOf(end)} one way can take {rateText(free[0]!)} Mbps more there, or {rateText(free[1]!)} more back, with all else as
                it is.
              </>
            )}
            {schools !== null && schools.third !== null && view.load.places[place.place]!.kind === "air" && (
              <>
                {" "}
                Fits by a third of the air rate {rateText(schools.third)}, with {figure(job.job.freeShare * 100)} % kept free{" "}
                {rateText(schools.headroom ?? 0)}, by all of it {rateText(schools.full ?? 0)}.
              </>
            )}
          </p>
        </div>
        <div className={`min-w-0 space-y-3 px-4 py-2 ${narrow ? "border-t border-rule" : "flex-1"}`}>
          {answers.length > 0 && (
            <RecorderTable
              answers={answers}
              now={view.load.input.recorder}
              placeName={place.name}
              nameOf={(r) => (r.at === "each" ? "each far end" : nameOf(r.siteId))}
              storeTb={open.fields.storeTb}
              recordedMbps={recordedMbps}
              take={(r) => open.change({ recorder: r.at === "each" ? "each" : r.siteId })}
            />
          )}
          {delay !== null && delay[THERE].hops.length > 0 && <DelayBar delay={delay} name={nameOf(end)} bounds={open.fields.bounds} />}
          {readings.length > 0 && <TestList readings={readings} name={nameOf(end)} placeName={names} />}
        </div>
      </div>
    </>
  );
};
