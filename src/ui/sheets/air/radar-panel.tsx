"use client";
import { useState } from "react";
import type { Detection } from "@/contract";
import { type Channel, centresOf, commonMhz, judgeAir, LEAST_WATCHED_DAYS, radarCostOf, radarYear, ruledChannel } from "@/core/air";
import { rowsInForce } from "@/core/radio";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { VerdictMark } from "../../marks/verdict-mark";
import { figure } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";
import type { UnitRow } from "./air-view";
import { channelText, percent } from "./air-words";
import { SiteChoice } from "./site-choice";
import type { OpenAir } from "./use-open-air";

const HOURS_OF_SOAK = 24;

/** Where a unit may go when radar takes its channel: what has nothing in common with it, best without radar duty. */
const fallbacksOf = (u: UnitRow): { readonly channel: Channel; readonly radar: boolean }[] =>
  [...new Set([u.channel.widthMhz, ...u.unit.links.flatMap((l) => l.plan.near.radio.channelWidthsMhz)])]
    .filter((w) => w <= u.channel.widthMhz)
    .sort((a, b) => b - a)
    .flatMap((widthMhz) =>
      centresOf(u.unit, widthMhz).flatMap((centreMhz) => {
        const channel = { centreMhz, widthMhz };
        const rules = u.unit.links.map((l) => ruledChannel(l.plan, channel));
        return rules.every((r) => r.allowed) && commonMhz(channel, u.channel) <= 0 ? [{ channel, radar: rules.some((r) => r.radar) }] : [];
      }),
    );

const UnitRadar = ({ open, u }: { open: OpenAir; u: UnitRow }) => {
  const { fields, built, maker } = open;
  const link = u.unit.links[0];
  if (link === undefined) return null;
  const now = ruledChannel(link.plan, u.channel);
  const set = fields.fallbacks[u.unit.id] ?? null;
  const choices = fallbacksOf(u);
  const next = set === null ? null : ruledChannel(link.plan, set);
  const rule = rowsInForce(link.plan.policy.domain, link.plan.policy.ownRules).find(
    (r) =>
      r.dfs.required && r.lowMhz < u.channel.centreMhz + u.channel.widthMhz / 2 && r.highMhz > u.channel.centreMhz - u.channel.widthMhz / 2,
  );
  const cost = radarCostOf(rule?.dfs.channelMoveS, next?.waitS ?? 0, now.silenceMin);
  const seen = fields.detections.filter((d) => commonMhz(d, u.channel) > 0).length;
  const year = radarYear(seen, fields.watchedDays, cost);
  const after = set === null ? null : judgeAir(built.job, new Map([[u.unit.id, set]]), maker).byUnit.get(u.unit.id)?.[0];
  const soaked = fields.soaked[u.unit.id] ?? null;
  return (
    <li className="border-b border-rule py-1.5">
      <p className="m-0">
        <b>{u.unit.name}</b> on {channelText(u.channel)}: {percent(radarShare(open, u))} of it under radar duty, {figure(now.waitS ?? 0)} s
        of listening before use{(now.waitS ?? 0) >= 600 ? " (weather radar)" : ""}. One detection: {figure(cost.moveS)} s to leave,{" "}
        {set === null ? "what the next one asks in listening" : `${figure(cost.waitS)} s of listening on the fallback`}, this one left alone
        for {figure(cost.silenceMin)} min.
      </p>
      <p className="m-0">
        {year === null
          ? "Nobody has watched for radar yet."
          : `${seen === 0 ? "None" : seen === 1 ? "One" : seen} seen in ${figure(year.watchedDays)} days: ${figure(year.perYearLow)} to ${figure(year.perYearHigh)} a year, ${figure(year.minutesLow, 1)} to ${figure(year.minutesHigh, 1)} min without a channel (9 in 10).${year.tooFew ? ` Under ${LEAST_WATCHED_DAYS} days: too few to say more.` : ""}`}
      </p>
      <div className="mt-1 flex flex-wrap items-end gap-x-4 gap-y-2">
        <Choice
          label="Fallback"
          value={set === null ? "" : channelText(set)}
          onChange={(e) => {
            const to = choices.find((c) => channelText(c.channel) === e.target.value);
            const { [u.unit.id]: _gone, ...others } = fields.fallbacks;
            open.change({ fallbacks: to === undefined ? others : { ...others, [u.unit.id]: to.channel } });
          }}
        >
          <option value="">none chosen</option>
          {choices.map((c) => (
            <option key={channelText(c.channel)} value={channelText(c.channel)}>
              {channelText(c.channel)}
              {c.radar ? ", radar duty" : ""}
            </option>
          ))}
        </Choice>
        {after !== undefined && after !== null && (
          <span className="flex items-center gap-1.5 pb-1">
            <VerdictMark verdict={after.verdict} a={7} />
            <span className={`v-${after.verdict}`}>{VERDICT_WORD[after.verdict]} there</span>: level{" "}
            {after.ways.map((w) => (w.levelDbm === null ? "none" : figure(w.levelDbm))).join(" and ")} dBm, carries{" "}
            {after.ways.map((w) => figure(w.meanMbps)).join(" and ")} Mbps
          </span>
        )}
        {next?.radar === true && <span className="v-tight pb-1">the fallback is under radar duty, too</span>}
        <Field
          label={`${HOURS_OF_SOAK} h of soak done on`}
          type="date"
          value={soaked ?? ""}
          onChange={(e) => {
            const { [u.unit.id]: _gone, ...others } = fields.soaked;
            open.change({ soaked: e.target.value === "" ? others : { ...others, [u.unit.id]: e.target.value } });
          }}
        />
        {soaked === null && <span className="v-unknown pb-1">{HOURS_OF_SOAK} h of soak are asked before hand-over</span>}
      </div>
    </li>
  );
};

/** Part of a channel that lies where rules ask for radar detection. */
const radarShare = (open: OpenAir, u: UnitRow): number => {
  const rows = rowsInForce(open.job.job.ruleDomain, open.job.job.ownRules).filter((r) => r.dfs.required);
  const [low, high] = [u.channel.centreMhz - u.channel.widthMhz / 2, u.channel.centreMhz + u.channel.widthMhz / 2];
  let covered = 0;
  const edges = [...new Set([low, high, ...rows.flatMap((r) => [r.lowMhz, r.highMhz])])]
    .filter((m) => m >= low && m <= high)
    .sort((a, b) => a - b);
  for (let i = 0; i + 1 < edges.length; i++) {
    const middle = (edges[i]! + edges[i + 1]!) / 2;
    if (rows.some((r) => r.lowMhz <= middle && r.highMhz >= middle)) covered += edges[i + 1]! - edges[i]!;
  }
  return covered / (high - low);
};

/** Radar: what is under its duty, what was detected, what it costs, and where to go then. */
export const RadarPanel = ({ open }: { open: OpenAir }) => {
  const { fields, change, job, planned, names } = open;
  const under = planned.units.filter((u) => u.radar);
  const [next, setNext] = useState<Omit<Detection, "id">>({
    on: job.job.visitOn,
    at: null,
    siteId: job.sites[0]?.id ?? null,
    centreMhz: under[0]?.channel.centreMhz ?? 5500,
    widthMhz: 20,
    note: "",
  });
  return (
    <div className="py-2" data-testid="radar">
      {under.length === 0 ? (
        <p className="m-0">No channel of the job is under radar duty.</p>
      ) : (
        <ul className="m-0 list-none p-0">
          {under.map((u) => (
            <UnitRadar key={u.unit.id} open={open} u={u} />
          ))}
        </ul>
      )}
      <h3 className="m-0 mt-3 text-body font-bold">Detections</h3>
      <ul className="m-0 list-none p-0" aria-label="Detections">
        {fields.detections.map((d) => (
          <li key={d.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-0.5">
            <span className="font-mono">
              {d.on}
              {d.at === null ? "" : ` ${d.at}`}
            </span>
            <span className="font-mono">{channelText(d)}</span>
            <span>{d.siteId === null ? "" : (names.get(d.siteId) ?? "")}</span>
            <span className="text-ink-2">{d.note}</span>
            <button
              type="button"
              className="press min-h-6"
              aria-label={`Take away the detection of ${d.on}`}
              onClick={() => change({ detections: fields.detections.filter((x) => x.id !== d.id) })}
            >
              Take it away
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-1 grid grid-cols-[repeat(auto-fit,minmax(130px,1fr))] items-end gap-x-4 gap-y-2">
        <Field label="Seen on" type="date" value={next.on} onChange={(e) => setNext({ ...next, on: e.target.value })} />
        <Field
          label="At, empty if not known"
          type="time"
          value={next.at ?? ""}
          onChange={(e) => setNext({ ...next, at: e.target.value === "" ? null : e.target.value })}
        />
        <SiteChoice label="Where" sites={job.sites} value={next.siteId ?? ""} choose={(id) => setNext({ ...next, siteId: id })} />
        <NumberField
          label="Channel"
          unit="MHz"
          value={next.centreMhz}
          least={2300}
          most={72_000}
          onChange={(v) => v !== null && setNext({ ...next, centreMhz: v })}
        />
        <Field label="Note" value={next.note} maxLength={200} onChange={(e) => setNext({ ...next, note: e.target.value })} />
        <button
          type="button"
          className="press min-h-6"
          disabled={next.on === ""}
          onClick={() => change({ detections: [...fields.detections, { ...next, id: `r${Date.now().toString(36)}` }] })}
        >
          Log it
        </button>
        <NumberField
          label="Days watched"
          value={fields.watchedDays}
          least={0}
          most={10_000}
          onChange={(v) => v !== null && change({ watchedDays: v })}
        />
      </div>
    </div>
  );
};
