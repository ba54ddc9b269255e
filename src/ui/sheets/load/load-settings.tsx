"use client";
import Link from "next/link";
import type { BriefDevice, JobBundle, NetworkFields, SitePortsFields } from "@/contract";
import { NO_PORTS } from "@/contract";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";

const MOST_MBPS = 400_000;
const CLASSES = [
  ["cameras", "Cameras grow"],
  ["users", "Users grow"],
  ["rest", "The rest grows"],
] as const;
const BOUNDS = [
  ["voiceMs", "Voice, delay"],
  ["voiceJitterMs", "Voice, jitter"],
  ["controlMs", "Control, delay"],
  ["viewMs", "Live picture, delay"],
] as const;

/** What the load is worked out from beside the plan: feeds, ports, who talks to what, growth, bounds. Every field is saved as it is typed. */
export const LoadSettings = ({
  job,
  fields,
  now,
  change,
  feedSiteId,
  chain,
  end,
  devices,
}: {
  job: JobBundle;
  fields: NetworkFields;
  /** What stands at the moment of an edit. */
  now: () => NetworkFields;
  change: (set: Partial<NetworkFields>) => void;
  feedSiteId: string | null;
  /** Sites from the feed to the end that is looked at. */
  chain: readonly string[];
  end: string | null;
  devices: readonly BriefDevice[];
}) => {
  const nameOf = (id: string): string => job.sites.find((s) => s.id === id)?.name ?? "a site that is gone";
  const sites = job.sites.map((s) => (
    <option key={s.id} value={s.id}>
      {s.name}
    </option>
  ));
  const { secondFeed } = fields;
  const setPorts = (siteId: string, set: Partial<SitePortsFields>): void => {
    const { ports } = now();
    change({ ports: { ...ports, [siteId]: { ...(ports[siteId] ?? NO_PORTS), ...set } } });
  };
  const setUplink = (siteId: string, linkId: string): void => {
    const { [siteId]: _old, ...others } = now().uplinks;
    change({ uplinks: linkId === "" ? others : { ...others, [siteId]: linkId } });
  };
  const setTalk = (id: string, to: string): void => {
    const { [id]: _old, ...others } = now().talks;
    change({ talks: to === "" ? others : { ...others, [id]: to } });
  };
  const ways = end === null ? [] : job.links.filter((l) => l.nearSiteId === end || l.farSiteId === end);
  return (
    <section aria-label="What is taken" className="border-t border-ink px-4 py-3" data-testid="taken">
      <h2 className="m-0 text-body font-bold">What is taken</h2>
      <div className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-5 gap-y-3">
        <Choice label="The feed comes in at" value={feedSiteId ?? ""} onChange={(e) => change({ feedSiteId: e.target.value })}>
          {sites}
        </Choice>
        <p className="cap m-0 self-end pb-1">
          Its rates stand in the{" "}
          <Link className="press" href={`/jobs/${job.job.id}/brief`}>
            brief
          </Link>
          .
        </p>
        <Choice
          label="A second feed at"
          value={secondFeed?.siteId ?? ""}
          onChange={(e) =>
            change({
              secondFeed:
                e.target.value === ""
                  ? null
                  : { name: "", downMbps: null, upMbps: null, ...(now().secondFeed ?? {}), siteId: e.target.value },
            })
          }
        >
          <option value="">none</option>
          {job.sites
            .filter((s) => s.id !== feedSiteId)
            .map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
        </Choice>
        {secondFeed !== null && (
          <>
            <Field
              label="Its name"
              value={secondFeed.name}
              maxLength={120}
              onChange={(e) => change({ secondFeed: { ...now().secondFeed!, name: e.target.value } })}
            />
            <NumberField
              label="Second feed, down"
              unit="Mbps"
              optional
              value={secondFeed.downMbps}
              least={0.1}
              most={MOST_MBPS}
              onChange={(downMbps) => change({ secondFeed: { ...now().secondFeed!, downMbps } })}
            />
            <NumberField
              label="Second feed, up"
              unit="Mbps"
              optional
              value={secondFeed.upMbps}
              least={0.1}
              most={MOST_MBPS}
              onChange={(upMbps) => change({ secondFeed: { ...now().secondFeed!, upMbps } })}
            />
          </>
        )}
        <Choice
          label="The recorder stands"
          value={fields.recorder}
          onChange={(e) => change({ recorder: e.target.value as NetworkFields["recorder"] })}
        >
          <option value="brief">as the brief says</option>
          <option value="each">at each far end</option>
          {job.sites.map((s) => (
            <option key={s.id} value={s.id}>
              at {s.name}
            </option>
          ))}
        </Choice>
        <NumberField
          label="The recorder's port"
          unit="Mbps"
          value={fields.recorderPortMbps}
          least={1}
          most={MOST_MBPS}
          onChange={(v) => v !== null && change({ recorderPortMbps: v })}
        />
        <NumberField
          label="Its store"
          unit="TB"
          optional
          value={fields.storeTb}
          least={0.01}
          most={100_000}
          onChange={(storeTb) => change({ storeTb })}
        />
        <NumberField
          label="The tester's port"
          unit="Mbps"
          value={fields.testerMbps}
          least={1}
          most={MOST_MBPS}
          onChange={(v) => v !== null && change({ testerMbps: v })}
        />
        {CLASSES.map(([key, label]) => (
          <NumberField
            key={key}
            label={label}
            unit="% a year"
            value={fields.growth[key] * 100}
            least={-50}
            most={200}
            onChange={(v) => v !== null && change({ growth: { ...now().growth, [key]: v / 100 } })}
          />
        ))}
        {BOUNDS.map(([key, label]) => (
          <NumberField
            key={key}
            label={label}
            unit="ms"
            value={fields.bounds[key]}
            least={0.1}
            most={10_000}
            onChange={(v) => v !== null && change({ bounds: { ...now().bounds, [key]: v } })}
          />
        ))}
      </div>
      {end !== null && (
        <>
          <h3 className="m-0 mt-4 text-body font-bold">On the way to {nameOf(end)}</h3>
          <div className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-x-5 gap-y-3">
            {chain.map((id) => (
              <div key={id} className="contents">
                <NumberField
                  label={`Switch at ${nameOf(id)}`}
                  unit="Mbps"
                  optional
                  value={fields.ports[id]?.switchMbps ?? null}
                  least={1}
                  most={MOST_MBPS}
                  onChange={(switchMbps) => setPorts(id, { switchMbps })}
                />
                <NumberField
                  label={`Injector at ${nameOf(id)}`}
                  unit="Mbps"
                  optional
                  value={fields.ports[id]?.injectorMbps ?? null}
                  least={1}
                  most={MOST_MBPS}
                  onChange={(injectorMbps) => setPorts(id, { injectorMbps })}
                />
              </div>
            ))}
            {end !== feedSiteId && ways.length > 0 && (
              <Choice
                label={`The way to ${nameOf(end)}`}
                value={fields.uplinks[end] ?? ""}
                onChange={(e) => setUplink(end, e.target.value)}
              >
                <option value="">the fewest links, then the fastest</option>
                {ways.map((l) => (
                  <option key={l.id} value={l.id}>
                    link {l.number}, {nameOf(l.nearSiteId)} to {nameOf(l.farSiteId)}
                    {l.label === "" ? "" : `, ${l.label}`}
                  </option>
                ))}
              </Choice>
            )}
            {devices
              .filter((d) => d.siteId === end)
              .map((d) => (
                <Choice
                  key={d.id}
                  label={`${d.count} × ${d.name === "" ? d.kind : d.name} talks with`}
                  value={fields.talks[d.id] ?? ""}
                  onChange={(e) => setTalk(d.id, e.target.value)}
                >
                  <option value="">what its kind usually does</option>
                  <option value="feed">what is outside</option>
                  <option value="recorder">the recorder</option>
                  {job.sites
                    .filter((s) => s.id !== end)
                    .map((s) => (
                      <option key={s.id} value={s.id}>
                        somebody at {s.name}
                      </option>
                    ))}
                </Choice>
              ))}
          </div>
          <p className="cap m-0 mt-2">
            A switch that nobody named is taken to pass 1000; cameras, phones and controls are taken to have a port of 100. What stands
            where is in the{" "}
            <Link className="press" href={`/jobs/${job.job.id}/brief`}>
              brief
            </Link>
            ; an end without devices stands for what its link is asked to carry.
          </p>
        </>
      )}
    </section>
  );
};
