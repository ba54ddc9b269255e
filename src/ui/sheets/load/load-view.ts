import type { Brief, HubDto, JobBundle } from "@/contract";
import type { Verdict } from "@/core/link";
import { worseVerdict } from "@/core/link";
import {
  askedOfPlace,
  BACK,
  chainOf,
  fillOf,
  fitsOfPlace,
  type JudgedPlace,
  judgePlace,
  type Lane,
  type Load,
  type LoadDevice,
  type LoadInput,
  loadOf,
  type Moment,
  moreDevices,
  narrowestOf,
  type Pair,
  placesAlong,
  THERE,
  takenOf,
} from "@/core/load";
import { sectorName } from "../hub/hub-start";

/* What the sheet shows of a load: names, the place that is narrowest, and the pipe from the feed to one end. */

export interface LoadRead {
  readonly job: JobBundle;
  readonly brief: Pick<Brief, "devices" | "feed" | "recorder">;
  readonly hubs: readonly HubDto[];
}

/** How the load is looked at: nothing of it is saved. */
export interface Look {
  readonly moment: Moment;
  /** All that is asked, multiplied. */
  readonly times: number;
}

/** One place in figures: of a wire the fuller lane, of air both ways together. */
export interface PlaceFigures {
  readonly askedMbps: number;
  readonly fitsMbps: number;
  /** All of it, with what the policy keeps free. */
  readonly allMbps: number;
  readonly lane: Lane | null;
}

export interface ShownPlace extends JudgedPlace {
  readonly id: string;
  readonly name: string;
  /** Where there is little room: an air by the end that it leads to. */
  readonly short: string;
  readonly figures: PlaceFigures;
}

export interface LoadView {
  readonly load: Load;
  readonly places: readonly ShownPlace[];
  readonly verdict: Verdict;
  /** The narrowest of all; null where nothing is asked. */
  readonly narrowest: ShownPlace | null;
  /** Names of ends that no link which holds leads to, of those that others talk with, and of links that stand idle in a loop. */
  readonly uncounted: readonly string[];
  readonly partnersLost: readonly string[];
  readonly idle: readonly string[];
}

const nameIn = (job: JobBundle, siteId: string | null): string => job.sites.find((s) => s.id === siteId)?.name ?? "a site that is gone";

const airName = (load: Load, index: number, { job, hubs }: LoadRead, endOf: ReadonlyMap<string, string>): string => {
  const { sectorId, linkIds } = load.places[index]!;
  if (sectorId === null) return `air to ${nameIn(job, endOf.get(linkIds[0]!) ?? null)}`;
  const [hubId, id] = sectorId.split("/");
  const hub = hubs.find((h) => h.id === hubId);
  const sector = hub?.sectors.find((s) => s.id === id);
  if (hub !== undefined && sector !== undefined)
    return `${sectorName(sector, hub.sectors)} sector of ${hub.name === "" ? nameIn(job, hub.siteId) : hub.name}`;
  return `shared air at ${nameIn(job, load.input.links.find((l) => l.sector?.id === sectorId)?.sector?.siteId ?? null)}`;
};

/** Names every place of a load in a few words. */
const namer = (load: Load, read: LoadRead): ((index: number) => string) => {
  const devices = new Map(read.brief.devices.map((d) => [d.id, d]));
  const sites = new Map(read.job.sites.map((s) => [s.id, s.name]));
  const endOf = new Map([...load.tree.up].map(([id, u]) => [u.linkId, id]));
  return (index) => {
    const p = load.places[index]!;
    const at = sites.get(p.siteId ?? "") ?? "a site that is gone";
    switch (p.kind) {
      case "feed": {
        const own = load.input.feeds.find((f) => f.siteId === p.siteId)?.name ?? "";
        return own === "" ? `the feed at ${at}` : own;
      }
      case "recorder":
        return `the recorder's port at ${at}`;
      case "device": {
        const d = devices.get(p.deviceId ?? "");
        return `${d === undefined ? "what its link asks" : d.name === "" ? d.kind : d.name} at ${at}`;
      }
      case "air":
        return airName(load, index, read, endOf);
      default:
        return `${p.by === "switch" || p.by === "injector" ? p.by : "port"} at ${at}`;
    }
  };
};

export const figuresOf = (load: Load, moment: Moment, index: number): PlaceFigures => {
  const p = load.places[index]!;
  const asked = askedOfPlace(load, moment, index);
  const fits = fitsOfPlace(load, moment, index);
  if (p.shared) {
    const fitsMbps = fits.there + fits.back;
    return { askedMbps: asked.there + asked.back, fitsMbps, allMbps: fitsMbps / p.mayUse, lane: null };
  }
  const lane: Lane = takenOf(load, moment, index, BACK) > takenOf(load, moment, index, THERE) ? BACK : THERE;
  const [askedMbps, fitsMbps] = lane === THERE ? [asked.there, fits.there] : [asked.back, fits.back];
  return { askedMbps, fitsMbps, allMbps: fitsMbps / p.mayUse, lane };
};

/** The same job with all that is asked multiplied. */
const multiplied = (input: LoadInput, times: number): LoadInput => {
  if (times === 1) return input;
  const by = (p: Pair): Pair => ({ there: p.there * times, back: p.back * times });
  return {
    ...input,
    devices: input.devices.map((d) => ({ ...d, usual: by(d.usual), worst: by(d.worst) })),
    needs: new Map([...input.needs].map(([id, [a, b]]) => [id, [a * times, b * times] as const])),
  };
};

/** The site that a device talks with; null for what is outside. */
const partnerOf = ({ input }: Load, { talksTo }: LoadDevice): string | null => {
  if (talksTo.kind === "site") return talksTo.siteId;
  return talksTo.kind === "recorder" && input.recorder.at === "site" ? input.recorder.siteId : null;
};

const ORDER: readonly Verdict[] = ["short", "unknown", "tight", "clear"];

export const loadView = (input: LoadInput, read: LoadRead, look: Look): LoadView => {
  const load = loadOf(multiplied(input, look.times));
  const horizon = read.job.job.horizonYears;
  const name = namer(load, read);
  const places = load.places.map(
    (p, i): ShownPlace => ({
      ...judgePlace(load, look.moment, i, horizon),
      id: p.id,
      name: name(i),
      short: name(i)
        .replace(/^air to |^the /, "")
        .replace(/^shared air at (.*)$/, "$1, shared")
        .replace(" sector of ", ", "),
      figures: figuresOf(load, look.moment, i),
    }),
  );
  const asked = places.filter((p) => Number.isFinite(p.multiple) || p.verdict !== "clear");
  const at = narrowestOf(
    load,
    look.moment,
    asked.map((p) => p.place),
  );
  const names = (ids: readonly string[]): string[] => [...new Set(ids)].map((id) => nameIn(read.job, id));
  return {
    load,
    places,
    verdict: asked.reduce<Verdict>((v, p) => worseVerdict(v, p.verdict), "clear"),
    narrowest: at === null ? null : places[at]!,
    uncounted: names(load.uncounted.map((d) => d.siteId).filter((id) => !load.tree.hops.has(id))),
    partnersLost: names(load.uncounted.filter((d) => load.tree.hops.has(d.siteId)).flatMap((d) => partnerOf(load, d) ?? [])),
    idle: load.tree.idle.map((id) => {
      const l = read.job.links.find((x) => x.id === id);
      return l === undefined ? "" : `link ${l.number}, ${nameIn(read.job, l.nearSiteId)} to ${nameIn(read.job, l.farSiteId)}`;
    }),
  };
};

/** Places that can be looked at in the list, fullest first; each lane-wise place once. */
export const listedPlaces = ({ places, load }: LoadView): ShownPlace[] =>
  places
    .filter(
      (p) =>
        load.places[p.place]!.kind === "air" ||
        p.verdict !== "clear" ||
        (load.places[p.place]!.kind === "feed" && Number.isFinite(p.multiple)),
    )
    .sort((a, b) => ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict) || a.multiple - b.multiple || a.name.localeCompare(b.name));

/** The end whose pipe shows a place: the one its air leads to; else whoever asks most through it, but an end that passes it stays. */
export const endThrough = ({ load }: LoadView, moment: Moment, place: number, chosen: string | null): string | null => {
  const { kind, sectorId, linkIds } = load.places[place]!;
  const leadsTo = (linkId: string | undefined): string | null => [...load.tree.up].find(([, u]) => u.linkId === linkId)?.[0] ?? null;
  if (kind === "air" && sectorId === null) return leadsTo(linkIds[0]);
  const sums = new Map<string, number>();
  for (const f of load.flows)
    for (const way of f.ways)
      if (way.hops.some((h) => h.place === place))
        sums.set(f.device.siteId, (sums.get(f.device.siteId) ?? 0) + (moment === "worst" ? way.worstMbps : way.usualMbps));
  if (chosen !== null && sums.has(chosen)) return chosen;
  const [most] = [...sums].sort((a, b) => b[1] - a[1]);
  // Nothing passes it yet: the end that its link leads to.
  return most?.[0] ?? leadsTo(linkIds[0]);
};

/** What hangs at an end, row by row, as it stands at a moment. */
export const hangsAt = (
  { load }: LoadView,
  { brief }: LoadRead,
  moment: Moment,
  siteId: string,
): { readonly name: string; readonly there: number; readonly back: number }[] =>
  load.flows
    .filter((f) => f.device.siteId === siteId)
    .map((f) => {
      const d = brief.devices.find((x) => x.id === f.device.id);
      const what = d === undefined ? "as its link asks" : d.name === "" ? d.kind : d.name;
      const [there, back] = f.ways.map((w) => (moment === "worst" ? w.worstMbps : w.usualMbps)) as [number, number];
      return { name: f.device.count > 1 ? `${f.device.count} × ${what}` : what, there, back };
    });

/** What fits through a place by each throughput school, in the mix that is asked. */
export const bySchools = (input: LoadInput, moment: Moment, placeId: string): Readonly<Record<LoadInput["school"], number | null>> => {
  const fits = (school: LoadInput["school"]): number | null => {
    const load = loadOf({ ...input, school });
    const at = load.places.findIndex((p) => p.id === placeId);
    return at < 0 ? null : figuresOf(load, moment, at).fitsMbps;
  };
  return { third: fits("third"), headroom: fits("headroom"), full: fits("full") };
};

export interface Segment {
  readonly kind: "wire" | "air";
  readonly place: ShownPlace;
  readonly there: { readonly asked: number; readonly fits: number };
  readonly back: { readonly asked: number; readonly fits: number };
}
export interface Box {
  readonly kind: "box";
  readonly siteId: string;
  readonly name: string;
  /** Other ends that hang on it beside the one that the pipe leads to, and what they ask through it. */
  readonly others: { readonly ends: number; readonly there: number; readonly back: number } | null;
  readonly recorderMbps: number | null;
}

export type PipePart = Segment | Box;

/** From the feed to an end: pipes and buildings in turn; a port stands where it is narrower than half as wide again as the air beside it. */
export const pipeTo = (view: LoadView, read: LoadRead, moment: Moment, siteId: string): PipePart[] => {
  const { load, places } = view;
  const chain = chainOf(load.tree, siteId).reverse();
  if (chain.length === 0) return [];
  const byId = new Map(places.map((p) => [p.id, p]));
  const segment = (p: ShownPlace | undefined): Segment[] => {
    if (p === undefined) return [];
    const asked = askedOfPlace(load, moment, p.place);
    const fits = fitsOfPlace(load, moment, p.place);
    return [
      {
        kind: load.places[p.place]!.kind === "air" && load.places[p.place]!.shared ? "air" : "wire",
        place: p,
        there: { asked: asked.there, fits: fits.there },
        back: { asked: asked.back, fits: fits.back },
      },
    ];
  };
  const children = new Map<string, string[]>();
  for (const [id, u] of load.tree.up) children.set(u.parentId, [...(children.get(u.parentId) ?? []), id]);
  const beneath = (id: string): string[] => [id, ...(children.get(id) ?? []).flatMap(beneath)];
  const box = (id: string, i: number): Box => {
    const next = chain[i + 1] ?? null;
    const beside = next === null ? [] : (children.get(id) ?? []).filter((c) => c !== next);
    const ends = new Set(beside.flatMap(beneath));
    let [there, back] = [0, 0];
    for (const f of load.flows)
      if (ends.has(f.device.siteId)) {
        there += moment === "worst" ? f.ways[THERE].worstMbps : f.ways[THERE].usualMbps;
        back += moment === "worst" ? f.ways[BACK].worstMbps : f.ways[BACK].usualMbps;
      }
    const recorder = byId.get(`recorder:${id}`);
    return {
      kind: "box",
      siteId: id,
      name: nameIn(read.job, id),
      others: ends.size === 0 ? null : { ends: ends.size, there, back },
      recorderMbps: recorder === undefined || recorder.asked.back === 0 ? null : recorder.asked.back,
    };
  };
  const parts: PipePart[] = [...segment(byId.get(`feed:${chain[0]}`)), box(chain[0]!, 0)];
  for (let i = 1; i < chain.length; i++) {
    const u = load.tree.up.get(chain[i]!)!;
    const l = load.input.links.find((x) => x.id === u.linkId)!;
    const air = byId.get(l.sector === null ? `air:${l.id}` : `sector:${l.sector.id}`);
    const port = (at: string): Segment[] => {
      const p = byId.get(`port:${l.sector?.siteId === at ? l.sector.id : l.id}:${at}`);
      if (p === undefined || air === undefined) return [];
      const narrow = p.figures.fitsMbps < 1.5 * air.figures.fitsMbps || p.multiple <= air.multiple;
      return narrow ? segment(p) : [];
    };
    parts.push(...port(u.parentId), ...segment(air), ...port(chain[i]!), box(chain[i]!, i));
  }
  return parts;
};

/** The narrowest place on the way of one end. */
export const narrowestTo = (view: LoadView, moment: Moment, siteId: string): ShownPlace | null => {
  const at = narrowestOf(view.load, moment, placesAlong(view.load, siteId));
  return at === null ? null : view.places[at]!;
};

/** How many more of a device fit at the ends of a place: least and most, and what is full then. */
export const moreAt = (
  { load }: LoadView,
  moment: Moment,
  place: number,
  each: Pair,
  talksTo: "feed" | "recorder",
): { readonly least: number; readonly most: number; readonly place: number | null } | null => {
  const p = load.places[place]!;
  const ends = [...load.tree.up].filter(([, u]) => p.linkIds.includes(u.linkId)).map(([id]) => id);
  let least = Number.POSITIVE_INFINITY;
  let most = 0;
  let full: number | null = null;
  for (const id of ends) {
    const ways = load.hopsTo(id, { kind: talksTo });
    if (ways === null) continue;
    const more = moreDevices(load, moment, ways, each);
    if (more.count < least) [least, full] = [more.count, more.place];
    most = Math.max(most, more.count);
  }
  return ends.length === 0 ? null : { least, most, place: full };
};

/** Year by year, in today's mix: what is asked of a place at both moments, Mbps. */
export const yearsOf = (view: LoadView, place: number, firstYear: number, years: number) => {
  const { fitsMbps, allMbps } = view.places[place]!.figures;
  const { mayUse } = view.load.places[place]!;
  const asked = (moment: Moment, y: number): number => (fillOf(view.load, moment, place, y) / mayUse) * fitsMbps;
  return {
    fitsMbps,
    allMbps,
    rows: Array.from({ length: years * 4 + 1 }, (_, i) => ({
      year: firstYear + i / 4,
      worst: asked("worst", i / 4),
      usual: asked("usual", i / 4),
    })),
  };
};
