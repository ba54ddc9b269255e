"use client";
import { useId } from "react";
import type { JudgedSector, RemoteShare } from "@/core/hub";
import { moreThatFit } from "@/core/hub";
import { Hatches } from "../../drawing/hatches";
import { VerdictMark } from "../../marks/verdict-mark";
import { rateText } from "../../wording/gear";
import { cutMiddle } from "../../wording/names";
import { figure } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";

const percent = (share: number): string => (Number.isFinite(share) ? `${figure(share * 100)} %` : "all of it");

/** The air of one sector: what each remote asks of it, what is free, what the policy keeps, and what each gets when all send. */
export const AirStrip = ({
  name,
  judged,
  channel,
  deviceMbps,
  needs,
}: {
  name: string;
  judged: JudgedSector;
  channel: string;
  deviceMbps: number;
  /** By link: what it asks there and back, Mbps. */
  needs: ReadonlyMap<string, readonly [number, number]>;
}) => {
  const hatch = useId();
  const { air, airVerdict, remotes } = judged;
  const nameOf = (r: RemoteShare): string => remotes.find((x) => x.linkId === r.linkId)?.name ?? "";
  const scale = Math.max(1, Number.isFinite(air.asked) ? air.asked : 1);
  const width = (share: number): string => `${(Math.min(share, scale) / scale) * 100}%`;
  const free = air.mayUse - air.asked;
  const row = (what: string, of: (r: RemoteShare) => string) => (
    <tr>
      <th scope="row" className="pr-3 text-left font-normal text-ink-2">
        {what}
      </th>
      {air.remotes.map((r) => (
        <td key={r.linkId} className="pr-3 font-mono">
          {of(r)}
        </td>
      ))}
    </tr>
  );
  return (
    <section aria-label={`Air of the ${name} sector`} className="px-4 py-2" data-testid="air">
      <h3 className="m-0 flex flex-wrap items-baseline gap-x-3 text-body font-bold">
        Air, {name}
        <span className="flex items-center gap-1.5">
          <VerdictMark verdict={airVerdict} a={8} />
          <span className={`v-${airVerdict}`} data-testid="air-verdict">
            {VERDICT_WORD[airVerdict]}
          </span>
        </span>
        <span className="text-line font-said text-ink-2">{channel}; hatched there, plain back</span>
      </h3>
      <div
        className="relative mt-1.5 flex h-8 border border-ink"
        role="img"
        aria-label={`${percent(air.asked)} asked of ${percent(air.mayUse)} that may be used`}
      >
        <svg width="0" height="0" className="absolute" aria-hidden="true">
          <Hatches id={hatch} />
        </svg>
        {air.remotes
          .filter((r) => r.there + r.back > 0 && Number.isFinite(r.there + r.back))
          .map((r) => (
            <div
              key={r.linkId}
              className="relative h-full overflow-hidden border-r border-ink bg-zone"
              style={{ width: width(r.there + r.back) }}
            >
              <svg
                className="absolute left-0 top-0 h-full"
                style={{ width: `${(r.there / (r.there + r.back)) * 100}%` }}
                aria-hidden="true"
              >
                <rect width="100%" height="100%" fill={`url(#${hatch}-noise)`} />
              </svg>
              <span className="absolute inset-0 flex items-center justify-center text-line font-figure">
                {r.there + r.back > 0.045 ? percent(r.there + r.back) : ""}
              </span>
            </div>
          ))}
        {free > 0.001 && (
          <div
            className="flex h-full items-center justify-center overflow-hidden text-line font-figure"
            style={{ width: width(free) }}
            data-testid="air-free"
          >
            {percent(free)} free
          </div>
        )}
        {air.mayUse < scale && (
          <div className="relative h-full flex-1 overflow-hidden border-l-2 border-ink text-line text-ink-2">
            <span className="absolute inset-0 flex items-center justify-center">
              {free < -0.001
                ? ""
                : `${percent(1 - air.mayUse)} ${air.keptBy === "hidden" ? "lost to remotes that cannot hear each other" : "kept free"}`}
            </span>
          </div>
        )}
      </div>
      {air.mayUse < 1 && (
        <div className="relative h-4 text-label text-ink-2" aria-hidden="true">
          <span className="absolute -top-[38px] h-[42px] border-l-2 border-ink" style={{ left: width(air.mayUse) }} />
          <span className="absolute whitespace-nowrap pt-0.5" style={{ right: `calc(100% - ${width(air.mayUse)})` }}>
            {percent(air.mayUse)} may be used
          </span>
        </div>
      )}
      {free < -0.001 && (
        <p className="m-0 mt-1 text-body font-bold v-short" data-testid="air-over">
          {Number.isFinite(air.asked) ? `${percent(-free)} over` : "A remote holds nothing: no air is enough for it"}
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="mt-1.5 border-collapse text-note">
          <thead>
            <tr className="text-left">
              <th scope="col">
                <span className="sr-only">What</span>
              </th>
              {air.remotes.map((r) => (
                <th key={r.linkId} scope="col" className="pr-3 font-figure">
                  {cutMiddle(nameOf(r), 16)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {row("asks, there + back, Mbps", (r) => (needs.get(r.linkId) ?? [0, 0]).map((n) => rateText(n)).join(" + "))}
            {row("of the air", (r) => percent(r.there + r.back))}
            {row("promised to all at once, back", (r) => rateText((needs.get(r.linkId)?.[1] ?? 0) * Math.min(99, air.multiple)))}
            {row("all send, by equal time", (r) => rateText(r.equalTimeMbps))}
            {air.remotes.some((r) => r.equalTurnsMbps !== null) && row("all send, by equal turns", (r) => rateText(r.equalTurnsMbps ?? 0))}
            {row(`more of ${rateText(deviceMbps)} Mbps that fit`, (r) => {
              const more = moreThatFit(air, r.linkId, 0, deviceMbps);
              return Number.isFinite(more) ? String(more) : "any";
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
};
