"use client";
import Link from "next/link";
import type { ReactNode } from "react";
import { type AirBuilt, type AirRead, edgeWithin, nameOfUnit, SCAN_DAYS, scanAgeDays } from "@/contract";
import type { Channel, Move } from "@/core/air";
import type { Verdict } from "@/core/link";
import { ScrollRegion } from "../../controls/scroll-region";
import { VerdictMark } from "../../marks/verdict-mark";
import { figure } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";
import { type AirView, type UnitRow, worstFirst } from "./air-view";
import { channelText, dbRise, provenText, scoreText, troubleText } from "./air-words";
import { changedUnits } from "./take-channels";
import { BUDGET_MS, type useAssign } from "./use-assign";
import type { OpenAir } from "./use-open-air";

const Finding = ({ verdict, children }: { verdict: Verdict | "know"; children: ReactNode }) => (
  <div className="mt-2.5 border-b border-rule pb-2">
    <div className="flex items-center gap-1.5 font-bold">
      <VerdictMark verdict={verdict === "know" ? "clear" : verdict} a={8} />
      <span className={verdict === "know" ? "" : `v-${verdict}`}>{verdict === "know" ? "To know" : VERDICT_WORD[verdict]}</span>
    </div>
    {children}
  </div>
);

/** Words with stars about what stands out. */
const Told = ({ words }: { words: string }) => (
  <p className="m-0 mt-0.5">{words.split("*").map((part, i) => (i % 2 === 1 ? <b key={part}>{part}</b> : part))}</p>
);

/** Proposals and single moves, each drawn before it is planned. */
const Proposal = ({ open, assign }: { open: OpenAir; assign: ReturnType<typeof useAssign> }) => {
  const { found, busy, share, stopped, failed } = assign;
  const { built, setTried, tried } = open;
  if (failed)
    return (
      <p className="m-0 mt-1">
        The search could not run.{" "}
        <button type="button" className="press min-h-6" onClick={assign.again}>
          Try again
        </button>
      </p>
    );
  if (found === null)
    return busy ? (
      <p className="m-0 mt-1 flex items-center gap-3">
        <progress
          value={share}
          className="flex-1"
          aria-label={`Searching channels: ${figure(share * 100)} per cent of ${BUDGET_MS / 1000} s`}
        />
        <button type="button" className="press min-h-6" onClick={assign.stop}>
          Stop
        </button>
      </p>
    ) : stopped ? (
      <p className="m-0 mt-1">
        Stopped.{" "}
        <button type="button" className="press min-h-6" onClick={assign.again}>
          Propose again
        </button>
      </p>
    ) : null;
  const moved = changedUnits(built.job.units, found.channels);
  const drawn =
    tried !== null &&
    [...found.channels].every(
      ([id, c]) => tried.channels.get(id)?.centreMhz === c.centreMhz && tried.channels.get(id)?.widthMhz === c.widthMhz,
    );
  return (
    <div data-testid="proposal">
      <p className="m-0 mt-1">
        Proposed: {scoreText(found.score)}. {provenText(found.exact, found.score, found.bound, found.starts)}
      </p>
      {found.without.map((w) => (
        <p key={w.unitId} className="m-0 mt-0.5 text-ink-2">
          {nameOfUnit(built, w.unitId)}:{" "}
          {w.why === "no channel"
            ? "no other channel is open to it under the rules"
            : "asks more than any channel carries, undisturbed: see Load"}
          .
        </p>
      ))}
      {moved.length === 0 ? (
        <p className="m-0 mt-0.5">Nothing needs to be moved.</p>
      ) : (
        <p className="m-0 mt-1 flex flex-wrap gap-x-3 gap-y-2">
          <button
            type="button"
            className="press min-h-6"
            aria-pressed={drawn}
            onClick={() => setTried(drawn ? null : { words: `all ${moved.length} as proposed`, channels: found.channels })}
          >
            Draw all {moved.length} as proposed
          </button>
          <button type="button" className="press min-h-6" onClick={assign.again}>
            Propose again
          </button>
        </p>
      )}
    </div>
  );
};

const Moves = ({ open, moves, unit }: { open: OpenAir; moves: readonly Move[] | null; unit: UnitRow }) => {
  const best = (moves ?? [])
    .filter((m) => m.channel.centreMhz !== unit.channel.centreMhz || m.channel.widthMhz !== unit.channel.widthMhz)
    .slice(0, 3);
  if (best.length === 0) return null;
  return (
    <ul className="m-0 mt-1 list-none p-0" aria-label="Moving it alone">
      {best.map((m) => {
        const channels = new Map<string, Channel>([[unit.unit.id, m.channel]]);
        const key = channelText(m.channel);
        const drawn = open.tried?.channels.size === 1 && open.tried.channels.get(unit.unit.id)?.centreMhz === m.channel.centreMhz;
        return (
          <li key={key} className="flex items-baseline justify-between gap-2 py-0.5">
            <button
              type="button"
              className={`press min-h-6 text-line ${drawn ? "bg-ink px-1 text-paper" : ""}`}
              aria-pressed={drawn}
              onClick={() => open.setTried(drawn ? null : { words: `${unit.unit.name} on ${key} MHz`, channels })}
            >
              Alone on {key}
            </button>
            <span className="whitespace-nowrap font-mono">{m.score.short === 0 ? "none short" : `${m.score.short} short`}</span>
          </li>
        );
      })}
    </ul>
  );
};

const TriedBox = ({ open, view, plan }: { open: OpenAir; view: AirView; plan: () => void }) => {
  const { tried, setTried } = open;
  if (tried === null) return null;
  const short = view.judged.links.filter((l) => l.verdict === "short").length;
  const { worst } = view;
  return (
    <div className="mt-1.5 border border-ink p-2" data-testid="tried">
      <p className="m-0">
        Drawn as if: {tried.words}. Then {short === 0 ? "none is short by the air" : `${short} of ${view.judged.links.length} are short`}
        {worst === null ? "" : `, the noise rises most by ${dbRise(worst.air.riseDb)}`}.
      </p>
      <p className="m-0 mt-1 flex flex-wrap gap-x-3 gap-y-2">
        <button type="button" className="main-action" onClick={plan}>
          Plan it
        </button>
        <button type="button" className="press min-h-6" onClick={() => setTried(null)}>
          Leave it
        </button>
      </p>
    </div>
  );
};

/** Findings of the whole job that no single link's trouble says. */
const otherFindings = (read: AirRead, built: AirBuilt, view: AirView): { verdict: Verdict | "know"; words: ReactNode; key: string }[] => {
  const out: { verdict: Verdict | "know"; words: ReactNode; key: string }[] = [];
  const { job } = read.job;
  const scanned = read.scans.filter((s) => s.counts);
  if (job.ruleDomain === "cautious")
    out.push({
      key: "domain",
      verdict: "unknown",
      words:
        "No rule set of a country is chosen: it is planned by the cautious one. Choose one in the job's basis, and check the local regulator.",
    });
  if (scanned.length === 0)
    out.push({
      key: "scan",
      verdict: "unknown",
      words:
        "Nobody has scanned: only own radios are counted, and nothing is better than tight. Scan at both ends, with the radio aimed where it will hang.",
    });
  for (const s of scanned) {
    const days = scanAgeDays(s.heardOn, job.visitOn);
    const name = read.job.sites.find((x) => x.id === s.siteId)?.name ?? "";
    if (days > SCAN_DAYS)
      out.push({
        key: `old${s.siteId}${s.heardOn}`,
        verdict: "tight",
        words: `The scan at ${name} is ${figure(days)} days old on the day of the visit. Scan again.`,
      });
  }
  for (const u of view.units) {
    const edge = edgeWithin(read, u.channel.centreMhz, u.channel.widthMhz);
    if (edge !== null)
      out.push({
        key: `edge${u.unit.id}`,
        verdict: "tight",
        words: `${u.unit.name}: its channel lies over two rows of the rules, at ${figure(edge)} MHz. The lower limits and both duties hold.`,
      });
    const hub = read.hubs.find((h) => u.unit.id.startsWith(`${h.id}/`));
    const sector = hub?.sectors.find((s) => u.unit.id === `${hub.id}/${s.id}`);
    for (const l of u.unit.links)
      if (sector !== undefined && (sector.centreMhz !== l.plan.centreMhz || sector.widthMhz !== l.plan.widthMhz))
        out.push({
          key: `unlike${l.id}`,
          verdict: "short",
          words: `${l.plan.near.name} to ${l.plan.far.name}: its ends are on unlike channels, ${figure(sector.centreMhz)} at the sector and ${figure(l.plan.centreMhz)} at the link.`,
        });
  }
  const radar = view.units.filter((u) => u.radar);
  const without = radar.filter((u) => read.air.fallbacks[u.unit.id] === undefined);
  const unsoaked = radar.filter((u) => read.air.soaked[u.unit.id] === undefined);
  if (unsoaked.length > 0)
    out.push({
      key: "radar",
      verdict: "know",
      words: `${radar.length === 1 ? "One channel is" : `${radar.length} channels are`} under radar duty${without.length === 0 ? "" : `, ${without.length} without a fallback`}: choose one under Radar, and let each soak for 24 h before hand-over.`,
    });
  const guessed = view.judged.links.some((l) =>
    l.ways.some((w) => w.contributions.some((c) => c.from !== null && built.job.field.isGuessed(c.from, w.receiver))),
  );
  if (guessed)
    out.push({
      key: "guess",
      verdict: "unknown",
      words: "The isolation on some masts is estimated, ±10 dB. Measure it on the visit, and type it under Masts and others.",
    });
  return out;
};

/** What is wrong in the air, what mends it, and what else is to be known. */
export const AirFindings = ({
  open,
  assign,
  plan,
  saveCsv,
}: {
  open: OpenAir;
  assign: ReturnType<typeof useAssign>;
  plan: () => void;
  saveCsv: () => void;
}) => {
  const { planned, built, read, view } = open;
  const bad = planned.units.filter((u) => u.verdict !== "clear").sort(worstFirst);
  const alone = planned.units.filter((u) => u.links.some((l) => l.trouble === "alone"));
  const [first, ...others] = bad;
  const lead = first?.links.find((l) => l.verdict === first.verdict);
  return (
    <ScrollRegion label="Findings" className="beside border-l border-ink px-3.5 py-2.5 text-line" data-testid="findings">
      <h2 className="m-0 border-b border-ink pb-1 text-body font-bold">Findings</h2>
      {first !== undefined && lead !== undefined && (
        <Finding verdict={first.verdict}>
          <Told words={troubleText(built, first.unit.name, lead)} />
          <Proposal open={open} assign={assign} />
          <Moves open={open} moves={assign.moves} unit={first} />
          <TriedBox open={open} view={view} plan={plan} />
        </Finding>
      )}
      {first === undefined && planned.units.length > 0 && (
        <Finding verdict="know">
          <p className="m-0 mt-0.5">Every link carries what is asked beside all others.</p>
          <Proposal open={open} assign={assign} />
          <TriedBox open={open} view={view} plan={plan} />
        </Finding>
      )}
      {others.map((u) => (
        <Finding key={u.unit.id} verdict={u.verdict}>
          <Told words={troubleText(built, u.unit.name, u.links.find((l) => l.verdict === u.verdict) ?? u.links[0]!)} />
        </Finding>
      ))}
      {otherFindings(read, built, planned).map((f) => (
        <Finding key={f.key} verdict={f.verdict}>
          <p className="m-0 mt-0.5">{f.words}</p>
        </Finding>
      ))}
      {alone.length > 0 && (
        <Finding verdict="know">
          <p className="m-0 mt-0.5">
            {alone.map((u) => u.unit.name).join(", ")}: short {alone.length === 1 ? "by itself" : "by themselves"}, whatever the channel.
            See{" "}
            <Link className="press" href={`/jobs/${open.jobId}/load`}>
              06 Load
            </Link>{" "}
            and{" "}
            <Link className="press" href={`/jobs/${open.jobId}/gear`}>
              04 Gear
            </Link>
            .
          </p>
        </Finding>
      )}
      {built.left.length > 0 && (
        <Finding verdict="unknown">
          <p className="m-0 mt-0.5">
            {built.left.length === 1 ? "One link is" : `${built.left.length} links are`} not judged here: the radios do not pair, or the
            path is not worked out.
          </p>
        </Finding>
      )}
      <p className="m-0 mt-3">
        <button type="button" className="press min-h-6" onClick={saveCsv}>
          Channels as CSV
        </button>
      </p>
      <p className="cap mt-2">
        Channels are a plan, not a permission: the local regulator and what the radio itself detects decide. Rows of the rules are from
        memory of public rules; check them.
      </p>
    </ScrollRegion>
  );
};
