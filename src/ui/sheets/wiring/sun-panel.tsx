"use client";
import type { SunFields } from "@/contract";
import { sunSchema } from "@/contract";
import { judgeSun } from "@/core/wiring";
import { Choice } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { ParsedField } from "../../controls/parsed-field";
import { figure } from "../../wording/numbers";
import { readFigures } from "../../wording/read";
import type { EndRecord, OpenWiring } from "./use-open-wiring";

const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"] as const;

const OfOne = ({ open, end }: { open: OpenWiring; end: EndRecord }) => {
  const site = open.own.find((s) => s.siteId === end.siteId);
  const latDeg = open.job.sites.find((s) => s.id === end.siteId)?.latDeg ?? 0;
  // A panel looks to where the sun stands at noon.
  const sun = end.fields.sun ?? sunSchema.parse({ bearingDeg: latDeg < 0 ? 0 : 180 });
  const change = (set: Partial<SunFields>): void => open.change(end.siteId, { sun: { ...(end.now().sun ?? sun), ...set } });
  const judged = site === undefined ? null : judgeSun(site.judged.wired, site.judged.feeds, sun, latDeg);
  const top = judged === null ? 1 : Math.max(1, ...judged.supply.hoursByMonth);
  return (
    <section aria-label={`Sun at ${open.job.sites.find((s) => s.id === end.siteId)?.name}`} data-testid="sun">
      <h3 className="m-0 text-body font-bold">{open.job.sites.find((s) => s.id === end.siteId)?.name}</h3>
      {judged !== null && (
        <div className="mt-1 flex flex-wrap items-end gap-x-6 gap-y-2">
          <svg
            width={360}
            height={104}
            role="img"
            aria-label={`Hours of sun by month; least in ${MONTHS[judged.supply.darkestMonth]}, ${figure(judged.supply.darkestHours, 1)} hours`}
          >
            {judged.supply.hoursByMonth.map((h, i) => (
              <g key={MONTHS[i]}>
                <rect
                  x={4 + i * 30}
                  y={80 - (h / top) * 62}
                  width={22}
                  height={(h / top) * 62}
                  fill={i === judged.supply.darkestMonth ? "var(--short)" : "var(--zone)"}
                  stroke="var(--ink)"
                />
                <text x={15 + i * 30} y={74 - (h / top) * 62} fontSize={11.5} textAnchor="middle" className="mono">
                  {figure(h, 1)}
                </text>
                <text x={15 + i * 30} y={95} fontSize={11.5} textAnchor="middle">
                  {MONTHS[i]}
                </text>
              </g>
            ))}
          </svg>
          <dl className="m-0 grid grid-cols-[auto_auto_auto] gap-x-4 text-line [&>dd]:m-0 [&>dd]:font-mono">
            <dt>Drawn</dt>
            <dd>{figure(judged.loadW, 1)} W</dd>
            <dd>{figure(judged.supply.dailyWh)} Wh a day</dd>
            <dt>Panel</dt>
            <dd className={judged.panelW < judged.supply.panelW ? "v-short" : ""}>{figure(judged.panelW)} W</dd>
            <dd>of {Number.isFinite(judged.supply.panelW) ? figure(judged.supply.panelW) : "no end"} W asked</dd>
            <dt>Battery</dt>
            <dd className={judged.batteryAh < judged.supply.batteryAh ? "v-short" : ""}>{figure(judged.batteryAh)} Ah</dd>
            <dd>of {Number.isFinite(judged.supply.batteryAh) ? figure(judged.supply.batteryAh) : "no end"} Ah asked</dd>
          </dl>
        </div>
      )}
      <div className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-5 gap-y-2.5">
        <ParsedField
          label="Hours of sun a day, January to December"
          shown={sun.hoursByMonth?.join(" ") ?? ""}
          placeholder="by clear sky"
          whenLeft
          read={readFigures(MONTHS.length, 14)}
          take={(hours) => change({ hoursByMonth: hours === null ? null : [...hours] })}
          note="Twelve figures from a table of the place; empty: by clear sky and the share below."
        />
        <NumberField
          label="Part of a clear sky that comes through"
          unit="%"
          value={sun.clearShare * 100}
          least={1}
          most={100}
          onChange={(v) => v !== null && change({ clearShare: v / 100 })}
        />
        <NumberField
          label="Tilt of the panel"
          unit="°"
          value={sun.tiltDeg}
          least={0}
          most={90}
          onChange={(v) => v !== null && change({ tiltDeg: v })}
        />
        <NumberField
          label="It faces"
          unit="°"
          value={sun.bearingDeg}
          least={0}
          most={360}
          onChange={(v) => v !== null && change({ bearingDeg: v })}
        />
        <NumberField
          label="Days without sun"
          value={sun.daysWithoutSun}
          least={0}
          most={60}
          onChange={(v) => v !== null && change({ daysWithoutSun: v })}
        />
        <NumberField
          label="Lowest at the battery"
          unit="°C"
          value={sun.lowestC}
          least={-60}
          most={40}
          onChange={(v) => v !== null && change({ lowestC: v })}
        />
        <Choice
          label="Radio comes back by itself"
          value={sun.comesBack === null ? "" : sun.comesBack ? "yes" : "no"}
          onChange={(e) => change({ comesBack: e.target.value === "" ? null : e.target.value === "yes" })}
        >
          <option value="">not tried</option>
          <option value="yes">yes, tried</option>
          <option value="no">no</option>
        </Choice>
        <ParsedField
          label="Drawn by hour, % of the most, 0 to 23"
          shown={sun.shareByHour?.map((share) => Math.round(share * 100)).join(" ") ?? ""}
          placeholder="all of it always"
          whenLeft
          read={readFigures(24, 100)}
          take={(shares) => change({ shareByHour: shares === null ? null : shares.map((share) => share / 100) })}
          note="Twenty-four figures; empty: all of it always."
        />
      </div>
    </section>
  );
};

/** Battery and sun of the ends that have them. */
export const SunPanel = ({ open }: { open: OpenWiring }) => {
  const ends = open.ends.filter((e) => e.exists && e.fields.places.some((p) => open.all.get(p.partId ?? "")?.battery !== undefined));
  return (
    <div className="grid gap-4 py-2">
      {ends.length === 0 ? (
        <p className="m-0">Neither end stands on a battery. Add one below if there is no mains.</p>
      ) : (
        ends.map((e) => <OfOne key={e.siteId} open={open} end={e} />)
      )}
      <p className="cap m-0 max-w-[720px]">
        A first size: 80 % from panel to battery and 87 % in and out of it; cold takes 0.8 % of a lead battery a degree below 25 °C, 0.5 %
        of lithium. Whoever supplies panel and battery answers for them. Batteries burn and gas: fuse at the terminals, air, and qualified
        hands.
      </p>
    </div>
  );
};
