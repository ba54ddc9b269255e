import type { AirBuilt, AirRead } from "@/contract";
import { type AirUnit, type Channel, commonMhz, type JudgedAir, type LinkAir, ruledChannel, type WayAir } from "@/core/air";
import type { Verdict } from "@/core/link";
import { worseVerdict } from "@/core/link";
import { BAND_KEYS, type BandKey, bandKeyOf } from "@/core/radio";
import { VERDICT_ORDER } from "../../wording/verdicts";

/* The air of a job as it is drawn: who hangs where on which channel, and what each receiver hears. */

export interface Receiver {
  readonly linkId: string;
  readonly unitId: string;
  readonly way: 0 | 1;
  readonly air: WayAir;
  readonly name: string;
  readonly siteId: string | null;
  readonly channel: Channel;
  readonly verdict: Verdict;
}

export interface Block {
  readonly unitId: string;
  readonly name: string;
  readonly channel: Channel;
  readonly lane: number;
  readonly verdict: Verdict;
  readonly locked: boolean;
  /** Own radios of the same mast whose channel has something in common with it. */
  readonly meets: readonly string[];
}

export interface MastRow {
  /** Null: links whose ends hang on no mast with others. */
  readonly siteId: string | null;
  readonly name: string;
  readonly blocks: readonly Block[];
  readonly lanes: number;
  readonly verdict: Verdict;
}

export interface BandUse {
  readonly band: BandKey;
  readonly units: readonly AirUnit[];
  readonly verdict: Verdict;
}

export interface UnitRow {
  readonly unit: AirUnit;
  readonly channel: Channel;
  readonly radar: boolean;
  readonly links: readonly LinkAir[];
  readonly verdict: Verdict;
  readonly riseDb: number;
  readonly blinded: boolean;
  readonly multiple: number;
}

export interface AirView {
  readonly judged: JudgedAir;
  readonly channelOf: (unitId: string) => Channel;
  readonly units: readonly UnitRow[];
  readonly bands: readonly BandUse[];
  readonly receivers: readonly Receiver[];
  readonly worst: Receiver | null;
  readonly verdict: Verdict;
}

/** 0: the worst. */
const rank = (v: Verdict): number => VERDICT_ORDER.indexOf(v);

/** Of two receivers the one that is worse off: what is short first, then what is blinded, then the noise. */
const worseOff = (a: Receiver, b: Receiver): number =>
  rank(a.verdict) - rank(b.verdict) || Number(b.air.blinded) - Number(a.air.blinded) || b.air.riseDb - a.air.riseDb;

/** Order of units by how badly off they are, the worst first. */
export const worstFirst = (a: UnitRow, b: UnitRow): number =>
  rank(a.verdict) - rank(b.verdict) || Number(b.blinded) - Number(a.blinded) || b.riseDb - a.riseDb;

export const airView = (built: AirBuilt, judged: JudgedAir, channels: ReadonlyMap<string, Channel>): AirView => {
  const { job } = built;
  const byId = new Map(job.units.map((u) => [u.id, u]));
  const channelOf = (id: string): Channel => channels.get(id) ?? byId.get(id)!.channel;
  const units = job.units.map((unit): UnitRow => {
    const links = judged.byUnit.get(unit.id) ?? [];
    const channel = channelOf(unit.id);
    const ways = links.flatMap((l) => l.ways);
    return {
      unit,
      channel,
      radar: unit.links.some((l) => ruledChannel(l.plan, channel).radar),
      links,
      verdict: links.reduce<Verdict>((v, l) => worseVerdict(v, l.verdict), "clear"),
      riseDb: Math.max(0, ...ways.map((w) => w.riseDb)),
      blinded: ways.some((w) => w.blinded),
      multiple: Math.min(Number.POSITIVE_INFINITY, ...links.map((l) => l.multiple)),
    };
  });
  const receivers = judged.links.flatMap((l) =>
    l.ways.map((air, i): Receiver => {
      const radio = job.field.radios[air.receiver]!;
      return {
        linkId: l.linkId,
        unitId: l.unitId,
        way: i as 0 | 1,
        air,
        name: radio.name,
        siteId: radio.siteId,
        channel: channelOf(l.unitId),
        verdict: l.verdict,
      };
    }),
  );
  const bands = BAND_KEYS.flatMap((band): BandUse[] => {
    const mine = units.filter((u) => bandKeyOf(u.channel.centreMhz) === band);
    return mine.length === 0
      ? []
      : [{ band, units: mine.map((u) => u.unit), verdict: mine.reduce<Verdict>((v, u) => worseVerdict(v, u.verdict), "clear") }];
  });
  const worst = [...receivers].sort(worseOff)[0] ?? null;
  return {
    judged,
    channelOf,
    units,
    bands,
    receivers,
    worst: worst === null || (worst.air.riseDb < 0.5 && worst.verdict === "clear") ? null : worst,
    verdict: units.reduce<Verdict>((v, u) => worseVerdict(v, u.verdict), "clear"),
  };
};

/** Blocks laid into as few lanes as keep them apart, the wider lanes last. */
const laid = (blocks: readonly Omit<Block, "lane">[]): { readonly blocks: Block[]; readonly lanes: number } => {
  const ends: number[] = [];
  const out = [...blocks]
    .sort(
      (a, b) => a.channel.centreMhz - a.channel.widthMhz / 2 - (b.channel.centreMhz - b.channel.widthMhz / 2) || (a.name < b.name ? -1 : 1),
    )
    .map((b): Block => {
      const low = b.channel.centreMhz - b.channel.widthMhz / 2;
      let lane = ends.findIndex((end) => end <= low + 1e-6);
      if (lane < 0) lane = ends.push(0) - 1;
      ends[lane] = b.channel.centreMhz + b.channel.widthMhz / 2;
      return { ...b, lane };
    });
  return { blocks: out, lanes: Math.max(1, ends.length) };
};

/** Channels that are proposed for the blocks of a mast, laid into lanes of their own. */
export const proposedLanes = (
  mast: MastRow,
  proposed: ReadonlyMap<string, Channel> | null,
): { readonly blocks: readonly Block[]; readonly lanes: number } => {
  const moved = mast.blocks.flatMap((b) => {
    const channel = proposed?.get(b.unitId);
    return channel === undefined ? [] : [{ ...b, channel, meets: [] }];
  });
  return moved.length === 0 ? { blocks: [], lanes: 0 } : laid(moved);
};

/** Rows by mast for one band: sites at which two units or more hang, the worst first, and all that hang by themselves in one. */
export const mastRows = (built: AirBuilt, view: AirView, band: BandKey, names: ReadonlyMap<string, string>): readonly MastRow[] => {
  const units = view.units.filter((u) => bandKeyOf(u.channel.centreMhz) === band);
  const at = new Map<string, UnitRow[]>();
  for (const u of units) {
    const sites = new Set(
      u.unit.links.flatMap((l) =>
        [l.nearRadioId, l.farRadioId].map((id) => built.job.field.radios[built.job.field.indexOf.get(id)!]!.siteId ?? ""),
      ),
    );
    for (const s of sites) at.set(s, [...(at.get(s) ?? []), u]);
  }
  const shared = [...at].filter(([, list]) => list.length > 1);
  const row = (siteId: string | null, name: string, list: readonly UnitRow[]): MastRow => {
    const made = list.map((u) => ({
      unitId: u.unit.id,
      name: shortName(u.unit, siteId, names),
      channel: u.channel,
      verdict: u.verdict,
      locked: u.unit.locked,
      meets: siteId === null ? [] : list.filter((o) => o !== u && commonMhz(o.channel, u.channel) > 0).map((o) => o.unit.id),
    }));
    return { siteId, name, ...laid(made), verdict: list.reduce<Verdict>((v, u) => worseVerdict(v, u.verdict), "clear") };
  };
  const rows = shared
    .map(([siteId, list]) => row(siteId, names.get(siteId) ?? "", list))
    .sort((a, b) => rank(a.verdict) - rank(b.verdict) || b.blocks.length - a.blocks.length);
  const alone = units.filter((u) => !shared.some(([, list]) => list.includes(u)));
  return alone.length === 0 ? rows : [...rows, row(null, rows.length === 0 ? "Own links" : "Elsewhere", alone)];
};

/** A unit as it is called at one of its sites: by its other end, or as the sector it is. */
export const shortName = (unit: AirUnit, siteId: string | null, names: ReadonlyMap<string, string>): string => {
  if (unit.links.length > 1) return `${unit.links.length} remotes`;
  const [near, far] = [unit.links[0]!.plan.near.name, unit.links[0]!.plan.far.name];
  if (siteId === null) return `${near} to ${far}`;
  return names.get(siteId) === near ? far : near;
};

/** What is judged of the sheet: without a scan at any end nothing is better than tight. */
export const sheetVerdict = (view: AirView, read: Pick<AirRead, "scans">): Verdict => {
  const scanned = read.scans.some((s) => s.counts && s.rows.length > 0);
  return view.units.length === 0 ? "unknown" : scanned ? view.verdict : worseVerdict(view.verdict, "tight");
};
