"use client";
import Link from "next/link";
import { useMemo, useRef, useState } from "react";
import type { HubFields } from "@/contract";
import { bodyOf } from "../../api/client";
import { useBrief, useVerdicts } from "../../api/queries";
import { Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { TypingScope } from "../../controls/typing-scope";
import { useSize } from "../../drawing/use-size";
import { Sheet } from "../../frame/sheet";
import { VerdictMark } from "../../marks/verdict-mark";
import { useJobHistory } from "../../state/job-history";
import { shown as shownNow } from "../../state/open-record";
import { usePreferences } from "../../state/preferences";
import { useRecord, useRecordState } from "../../state/use-record";
import { errorSentence } from "../../wording/errors";
import { countText } from "../../wording/gear";
import { figure } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";
import { useJobIndex } from "../job-index";
import { jobStrip } from "../job-strip";
import { SHEETS } from "../registry";
import { NARROW_PX } from "../section/narrow";
import { EditNotices, SheetHead } from "../sheet-head";
import { openHubJudge } from "./hub-judge";
import { movingView } from "./moving-plan";
import type { HubRead } from "./use-open-hub";

/** Clients of an old hub moved to this one: in which order, with which way back; printed and taken along. */
export const MovingOpen = ({ job, hub, hardware, profiles }: HubRead) => {
  const { units } = usePreferences();
  const jobId = job.job.id;
  const record = useRecord(jobId, "hub", hub);
  const { fields, status, setAside } = useRecordState(record);
  const [said, setSaid] = useState<string | null>(null);
  const history = useJobHistory(jobId, (error) => setSaid(errorSentence(bodyOf(error), units)));
  const verdicts = useVerdicts(jobId);
  const brief = useBrief(jobId);
  const index = useJobIndex(jobId, verdicts.data, null);
  const [ref, area] = useSize<HTMLDivElement>();
  const narrow = area.width > 0 && area.width < NARROW_PX;
  const judge = useRef<ReturnType<typeof openHubJudge> | null>(null);
  judge.current ??= openHubJudge();
  const judged = useMemo(
    () => judge.current!.judge(job, hub.siteId, fields, hardware, profiles),
    [job, hub.siteId, fields, hardware, profiles],
  );
  const mayUse = job.job.throughputSchool === "headroom" ? 1 - job.job.freeShare : 1;
  const view = useMemo(() => movingView(fields, judged, hardware, mayUse), [fields, judged, hardware, mayUse]);
  const { plan, names } = view;
  const title = fields.name === "" ? (job.sites.find((s) => s.id === hub.siteId)?.name ?? "") : fields.name;
  const change = (set: Partial<HubFields["moving"]>): void => record.change({ moving: { ...shownNow(record).moving, ...set } });
  const tick = (linkId: string, on: boolean): void => {
    const now = shownNow(record).moving.clients.filter((id) => id !== linkId);
    change({ clients: on ? [...now, linkId] : now });
  };
  const verdict = fields.moving.clients.length === 0 ? "unknown" : plan.stay.length === 0 ? "clear" : "short";
  const from = fields.moving.from === "" ? "the old hub" : fields.moving.from;
  const moved = (brief.data?.inventory ?? []).filter((r) => r.fate === "move" && r.what !== "");
  return (
    <TypingScope of={record}>
      <Sheet
        rows={index}
        jobId={jobId}
        of={SHEETS.hub}
        undo={{ ...history, canUndo: history.canUndo || status.kind !== "saved" }}
        actions={[{ name: "Print this sheet", run: () => window.print() }]}
        strip={jobStrip(job.job, { label: "Hub", value: title, grow: 2.5 }, status, history.last)}
      >
        <div ref={ref} className="prints-whole h-full overflow-auto">
          <SheetHead verdict={verdict} word={verdict === "unknown" ? "Open" : VERDICT_WORD[verdict]} narrow={narrow}>
            <h1 className="m-0 text-head font-bold leading-6">
              From {from} to {title}
            </h1>
            <p className={`m-0 text-line font-heading v-${verdict}`} data-testid="headline-trouble">
              {verdict === "unknown"
                ? "Tick the clients that hang on the old hub today"
                : plan.stay.length === 0
                  ? `${countText(plan.steps.length, "client", "clients")} moved one by one, ${countText(plan.steps.length * fields.moving.windowMin, "minute", "minutes")} of windows in all`
                  : `${countText(plan.stay.length, "client stays", "clients stay")} on ${from} until ${plan.stay.length === 1 ? "it is" : "they are"} mended`}
            </p>
            <p className="m-0 flex flex-wrap gap-x-4 gap-y-2 text-line">
              <Link className="press min-h-6 leading-6" href={`/jobs/${jobId}/hub/${hub.id}`}>
                The hub
              </Link>
              <button type="button" className="press min-h-6" onClick={() => window.print()}>
                Print it
              </button>
            </p>
          </SheetHead>
          <EditNotices kind="hub" record={record} status={status} setAside={setAside} units={units} said={said} />
          <div className="grid gap-x-8 gap-y-4 border-t border-ink px-4 py-3 min-[900px]:grid-cols-[minmax(240px,300px)_minmax(0,1fr)]">
            <section aria-label="What is there today" className="space-y-3">
              <Field label="The old hub" value={fields.moving.from} maxLength={120} onChange={(e) => change({ from: e.target.value })} />
              <label className="field">
                <span>Types of unit there today, one a line</span>
                <textarea
                  className="typed"
                  rows={3}
                  maxLength={500}
                  value={fields.moving.gear}
                  onChange={(e) => change({ gear: e.target.value })}
                />
              </label>
              {moved.length > 0 && (
                <p className="cap m-0">
                  In the brief to be moved: {moved.map((r) => `${r.what}${r.where === "" ? "" : `, ${r.where}`}`).join("; ")}.
                </p>
              )}
              <NumberField
                label="Window for each client"
                unit="min"
                whole
                value={fields.moving.windowMin}
                least={1}
                most={1440}
                onChange={(v) => v !== null && change({ windowMin: v })}
              />
              <fieldset>
                <legend className="text-label text-ink-2">Clients there today</legend>
                {fields.remotes.map((r) => (
                  <label key={r.linkId} className="flex min-h-7 items-center gap-2">
                    <input
                      type="checkbox"
                      checked={fields.moving.clients.includes(r.linkId)}
                      onChange={(e) => tick(r.linkId, e.target.checked)}
                    />
                    {names.get(r.linkId) ?? "a remote that could not be judged"}
                  </label>
                ))}
              </fieldset>
            </section>
            <section aria-label="Order of moving" className="min-w-0">
              <div className="overflow-x-auto">
                <table className="w-full border-collapse text-line" data-testid="order">
                  <thead>
                    <tr className="text-left text-label text-ink-2">
                      {["", "Client", "window", "with service meanwhile", "new air after", "way back"].map((h) => (
                        <th key={h} scope="col" className="pr-3 font-normal">
                          {h === "" ? <span className="sr-only">Step</span> : h}
                        </th>
                      ))}
                    </tr>
                  </thead>
                  <tbody>
                    {plan.steps.map((s, i) => (
                      <tr key={s.linkId} className="border-t border-rule align-top">
                        <td className="py-1.5 pr-3 font-mono">{i + 1}</td>
                        <td className="py-1.5 pr-3 font-figure">{names.get(s.linkId)}</td>
                        <td className="whitespace-nowrap py-1.5 pr-3 font-mono">{fields.moving.windowMin} min</td>
                        <td className="whitespace-nowrap py-1.5 pr-3 font-mono">
                          {s.servedDuring} of {s.servedAfter}
                        </td>
                        <td className="whitespace-nowrap py-1.5 pr-3 font-mono">
                          {figure(s.airAfter * 100)} of {figure(mayUse * 100)} %
                        </td>
                        <td className="py-1.5">
                          Its old unit stays on its bracket beside the new one, marked, until it has held for the window; then back on the
                          old plug if it has not.
                        </td>
                      </tr>
                    ))}
                    {plan.stay.map((s) => (
                      <tr key={s.linkId} className="border-t border-rule align-top">
                        <td className="py-1.5 pr-3">
                          <VerdictMark verdict="short" a={7} />
                        </td>
                        <td className="py-1.5 pr-3 font-figure v-short">{names.get(s.linkId)}</td>
                        <td colSpan={4} className="py-1.5">
                          Stays on {from}:{" "}
                          {s.why === "not served" ? "the new hub does not keep what it asks" : "the air of its new sector would be over"}.
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
              <dl className="m-0 mt-4 space-y-1.5 text-line">
                <div>
                  <dt className="inline font-figure">On the mast meanwhile: </dt>
                  <dd className="m-0 inline">
                    {view.meanwhile.length === 0 ? "nothing named" : view.meanwhile.join(", ")}. The old hub stays powered, on its own
                    channel, until the last client has moved{plan.stay.length > 0 ? " and those that stay are mended" : ""}.
                  </dd>
                </div>
                <div>
                  <dt className="inline font-figure">Types of unit to keep a spare of: </dt>
                  <dd className="m-0 inline" data-testid="spares">
                    {view.before.length === 0
                      ? "before not named"
                      : `${countText(view.before.length, "type", "types")} before (${view.before.join(", ")})`}
                    , {countText(view.after.length, "type", "types")} after ({view.after.join(", ")}).
                  </dd>
                </div>
              </dl>
              <p className="cap m-0 mt-3">
                The surest first: what is learnt on it costs least. Tell each client its window beforehand; nobody climbs, and nothing is
                unplugged, for a client that was not told. Work at height, near lines and in weather is for qualified people under local
                rules. Old and new radios on one mast may blind each other: which channels are free is judged in Air.
              </p>
            </section>
          </div>
        </div>
      </Sheet>
    </TypingScope>
  );
};
