"use client";
import { useMemo, useState } from "react";
import { type BriefDevice, recordPath } from "@/contract";
import { bodyOf } from "../../api/client";
import { keepFile } from "../../api/keep-file";
import { useRefresh, useVerdicts } from "../../api/queries";
import { Choice } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { TypingScope } from "../../controls/typing-scope";
import { useKeys } from "../../controls/use-keys";
import { useSize } from "../../drawing/use-size";
import { Sheet } from "../../frame/sheet";
import { sendEdit } from "../../state/browser-outbox";
import { useJobHistory } from "../../state/job-history";
import { errorSentence } from "../../wording/errors";
import { figure } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";
import { useJobIndex } from "../job-index";
import { aboutCell, jobStrip, withVerdict } from "../job-strip";
import { SHEETS } from "../registry";
import { NARROW_PX } from "../section/narrow";
import { EditNotices, SheetHead } from "../sheet-head";
import { Drawn, MoreLine } from "./load-drawn";
import { mismatchesOf, moreKinds } from "./load-ends";
import { LoadFindings, type Mismatch } from "./load-findings";
import type { TriedMend } from "./load-mends";
import { LoadSettings } from "./load-settings";
import { loadTree } from "./load-tree";
import { loadReason } from "./load-words";
import { TreeDrawing } from "./tree-drawing";
import { type LoadOpenRead, type OpenLoad, SCHOOLS, useOpenLoad } from "./use-open-load";

/** What others take less of than this is not told. */
const MOST_LEFT = 0.97;

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
  const tree = useMemo(() => (view === null ? null : loadTree(view, job)), [view, job]);
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
        rows={withVerdict(index, "load", isEmpty ? null : verdict)}
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
        strip={jobStrip(job.job, aboutCell("Narrowest", isEmpty ? null : verdict, own?.narrowest?.name ?? ""), status, history.last)}
      >
        <div className="panes grid h-full min-h-0 grid-cols-[minmax(0,1fr)_248px] min-[1500px]:grid-cols-[minmax(0,1fr)_288px]">
          <div ref={ref} className="flex min-h-0 min-w-0 flex-col overflow-auto">
            <SheetHead verdict={verdict} word={isEmpty ? "Open" : VERDICT_WORD[verdict]} narrow={narrow}>
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
            </SheetHead>
            <EditNotices kind="network" record={record} status={status} setAside={open.setAside} units={units} said={said} />
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
                  {view !== null && open.end !== null && <MoreLine open={open} more={more} />}
                </div>
              </Drawn>
            )}
            {tree !== null && tree.children.length > 0 && area.width > 0 && (
              <section aria-label="The network of the job" className="border-t border-ink px-4 py-2">
                <h2 className="m-0 text-body font-bold">
                  The whole job{" "}
                  <span className="text-line font-said text-ink-2">as wide as what is asked, Mbps; press an end for its pipe</span>
                </h2>
                <div className="overflow-x-auto">
                  <TreeDrawing root={tree} width={area.width - 32} chosen={open.end} choose={open.setEnd} />
                </div>
              </section>
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
              taken={given.verdicts.flatMap((v) => {
                const left = v.inAir === null ? 1 : Math.min(...v.inAir.left);
                return left > MOST_LEFT ? [] : [{ name: `${v.nearName} to ${v.farName}`, left }];
              })}
              jobId={jobId}
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
