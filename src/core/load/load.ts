/*
 * What all devices of a job send through every place, at the usual and at the worst moment, each class apart so that it can
 * grow by itself. Linear: a place is full where the shares of it that all flows take reach what may be used of it.
 */
import { WATCHED_SHARE } from "../infra";
import { type LoadLink, type Tree, treeOf, wayBetween } from "./network";
import { type AirSchool, BACK, type Feed, type Hop, type Lane, PAYLOAD_SHARE, type Place, placesOf, type SitePorts, THERE } from "./places";

export const DEVICE_CLASSES = ["cameras", "users", "rest"] as const;
export type DeviceClass = (typeof DEVICE_CLASSES)[number];
export type Moment = "usual" | "worst";

/** Mbps to a device and from it. */
export interface Pair {
  readonly there: number;
  readonly back: number;
}

export interface LoadDevice {
  readonly id: string;
  readonly siteId: string;
  readonly name: string;
  readonly class: DeviceClass;
  readonly count: number;
  /** Of one of them. */
  readonly usual: Pair;
  readonly worst: Pair;
  /** With whom it talks: what is outside, the recorder, or somebody at a site. */
  readonly talksTo: { readonly kind: "feed" } | { readonly kind: "recorder" } | { readonly kind: "site"; readonly siteId: string };
  /** Speed of its own port, Mbps. */
  readonly portMbps: number;
}

export type Recorder = { readonly at: "site"; readonly siteId: string } | { readonly at: "each" };

export interface LoadInput extends AirSchool {
  readonly siteIds: readonly string[];
  readonly links: readonly LoadLink[];
  /** The first one's site is the root of the tree. */
  readonly feeds: readonly Feed[];
  readonly devices: readonly LoadDevice[];
  readonly recorder: Recorder;
  readonly recorderPortMbps: number;
  readonly ports: ReadonlyMap<string, SitePorts>;
  /** By site: the link that it is led over, set by hand. */
  readonly uplinks: ReadonlyMap<string, string>;
  /** By class, share a year. */
  readonly growth: Readonly<Record<DeviceClass, number>>;
  /** By link: what it is asked to carry, Mbps to far and to near. It stands for an end at which no device is named. */
  readonly needs: ReadonlyMap<string, readonly [number, number]>;
}

export interface FlowWay {
  readonly hops: readonly Hop[];
  readonly usualMbps: number;
  readonly worstMbps: number;
}

/** One device row's two flows: to it, and from it. */
export interface DeviceFlow {
  readonly device: LoadDevice;
  readonly ways: readonly [FlowWay, FlowWay];
}

export interface Load {
  readonly input: LoadInput;
  readonly tree: Tree;
  readonly places: readonly Place[];
  readonly flows: readonly DeviceFlow[];
  /** Devices that no link which holds leads to: named, not counted. */
  readonly uncounted: readonly LoadDevice[];
  /** Shares taken: [moment][class][place and lane]. */
  readonly taken: Readonly<Record<Moment, Readonly<Record<DeviceClass, Float64Array>>>>;
  /** Mbps that pass, the same way. */
  readonly passing: Readonly<Record<Moment, Float64Array>>;
  /** Hops of one Mbps to each site from where its devices' other ends usually are: the feed or the root. */
  readonly hopsTo: (siteId: string, from: LoadDevice["talksTo"]) => readonly [readonly Hop[], readonly Hop[]] | null;
}

/** The feed that is fewest hops away along the tree; of two as near the first. */
const feedNearest = (tree: Tree, feeds: readonly Feed[], siteId: string): Feed | null => {
  let best: { feed: Feed; hops: number } | null = null;
  for (const feed of feeds) {
    const way = wayBetween(tree, feed.siteId, siteId);
    if (way === null) continue;
    const hops = way.climbs.length + way.descends.length;
    if (best === null || hops < best.hops) best = { feed, hops };
  }
  return best?.feed ?? null;
};

/** Ends of the tree at which nobody named a device stand for what their link is asked to carry. */
const unnamedOf = (input: LoadInput, tree: Tree): LoadDevice[] => {
  const named = new Set(input.devices.map((d) => d.siteId));
  const parents = new Set([...tree.up.values()].map((u) => u.parentId));
  const made: LoadDevice[] = [];
  const add = (siteId: string, there: number, back: number): void => {
    if (there + back === 0) return;
    const rate = { there, back };
    named.add(siteId);
    made.push({
      id: `need:${siteId}`,
      siteId,
      name: "",
      class: "users",
      count: 1,
      usual: rate,
      worst: rate,
      talksTo: { kind: "feed" },
      portMbps: Number.POSITIVE_INFINITY,
    });
  };
  for (const [siteId, u] of tree.up) {
    if (named.has(siteId) || parents.has(siteId)) continue;
    const [toFar, toNear] = input.needs.get(u.linkId) ?? [0, 0];
    add(siteId, u.parentIsNear ? toFar : toNear, u.parentIsNear ? toNear : toFar);
  }
  // What no link leads to is named by what its link was to carry.
  for (const l of input.links) {
    const [toFar, toNear] = input.needs.get(l.id) ?? [0, 0];
    const open = [l.nearSiteId, l.farSiteId].filter((id) => !tree.hops.has(id) && !named.has(id));
    if (open.length === 1) add(open[0]!, open[0] === l.farSiteId ? toFar : toNear, open[0] === l.farSiteId ? toNear : toFar);
  }
  return made;
};

/** The whole job: its tree, its places, and what passes each. */
export const loadOf = (input: LoadInput): Load => {
  const rootId = input.feeds[0]?.siteId ?? input.siteIds[0] ?? "";
  const tree = treeOf(input.siteIds, input.links, rootId, input.uplinks);
  const made = placesOf(tree, input.links, input.feeds, input.ports, input);
  const places: Place[] = [...made.list];
  const recorderSite = input.recorder.at === "site" ? input.recorder.siteId : null;
  const recorderPlace = recorderSite === null || !tree.hops.has(recorderSite) ? null : places.length;
  if (recorderPlace !== null)
    places.push({
      id: `recorder:${recorderSite}`,
      kind: "recorder",
      siteId: recorderSite,
      linkIds: [],
      sectorId: null,
      deviceId: null,
      shared: false,
      mayUse: 1,
      aloneMbps: [input.recorderPortMbps * PAYLOAD_SHARE, input.recorderPortMbps * PAYLOAD_SHARE],
      unsaid: false,
      by: null,
    });
  const ways = new Map<string, readonly [readonly Hop[], readonly Hop[]] | null>();
  const between = (fromId: string, toId: string): readonly [readonly Hop[], readonly Hop[]] | null => {
    const way = wayBetween(tree, fromId, toId);
    if (way === null) return null;
    const along = (lane: Lane): Hop[] => [
      ...way.climbs.flatMap((id) => made.edges.get(id)![lane === THERE ? BACK : THERE]),
      ...way.descends.flatMap((id) => made.edges.get(id)![lane]),
    ];
    return [along(THERE), along(BACK)];
  };
  const lead = (siteId: string, from: LoadDevice["talksTo"]): readonly [readonly Hop[], readonly Hop[]] | null => {
    if (from.kind === "feed") {
      const feed = feedNearest(tree, input.feeds, siteId);
      if (feed === null) return between(rootId, siteId);
      const inner = between(feed.siteId, siteId);
      const [down, up] = made.feeds.get(feed.siteId)!;
      return inner === null
        ? null
        : [
            [down, ...inner[THERE]],
            [...inner[BACK], up],
          ];
    }
    if (from.kind === "site") return between(from.siteId, siteId);
    // Recorded where it is filmed, it is watched from the root.
    const inner = between(recorderSite ?? rootId, siteId);
    if (inner === null || recorderPlace === null) return inner;
    const per = 1 / places[recorderPlace]!.aloneMbps[BACK];
    return [inner[THERE], [...inner[BACK], { place: recorderPlace, lane: BACK, perMbps: per }]];
  };
  const hopsTo: Load["hopsTo"] = (siteId, from) => {
    const key = `${siteId}|${from.kind === "site" ? from.siteId : from.kind}`;
    let found = ways.get(key);
    if (found === undefined) {
      found = lead(siteId, from);
      ways.set(key, found);
    }
    return found;
  };
  const uncounted: LoadDevice[] = [];
  const flows: DeviceFlow[] = [];
  for (const device of [...input.devices, ...unnamedOf(input, tree)]) {
    const found = hopsTo(device.siteId, device.talksTo);
    if (found === null) {
      uncounted.push(device);
      continue;
    }
    const stays = device.talksTo.kind === "recorder" && input.recorder.at === "each";
    const scaled = (p: Pair): Pair => ({ there: p.there * device.count, back: p.back * device.count * (stays ? WATCHED_SHARE : 1) });
    const [usual, worst] = [scaled(device.usual), scaled(device.worst)];
    // Each has a port of its own: it is filled by one of them, however many there are.
    const own = places.length;
    const mbps = device.portMbps * PAYLOAD_SHARE;
    places.push({
      id: `device:${device.id}`,
      kind: "device",
      siteId: device.siteId,
      linkIds: [],
      sectorId: null,
      deviceId: device.id,
      shared: false,
      mayUse: 1,
      aloneMbps: [mbps * device.count, mbps * device.count],
      unsaid: false,
      by: null,
    });
    const perOwn = 1 / (mbps * Math.max(1, device.count));
    flows.push({
      device,
      ways: [
        { hops: [...found[THERE], { place: own, lane: THERE, perMbps: perOwn }], usualMbps: usual.there, worstMbps: worst.there },
        { hops: [{ place: own, lane: BACK, perMbps: perOwn }, ...found[BACK]], usualMbps: usual.back, worstMbps: worst.back },
      ],
    });
  }
  const size = places.length * 2;
  const empty = (): Record<DeviceClass, Float64Array> => ({
    cameras: new Float64Array(size),
    users: new Float64Array(size),
    rest: new Float64Array(size),
  });
  const taken = { usual: empty(), worst: empty() };
  const passing = { usual: new Float64Array(size), worst: new Float64Array(size) };
  for (const { device, ways: both } of flows) {
    const [usual, worst] = [taken.usual[device.class], taken.worst[device.class]];
    for (const way of both)
      for (const h of way.hops) {
        const i = h.place * 2 + h.lane;
        // Nothing asked takes nothing, even of a place that passes nothing.
        if (way.usualMbps > 0) usual[i] = usual[i]! + way.usualMbps * h.perMbps;
        if (way.worstMbps > 0) worst[i] = worst[i]! + way.worstMbps * h.perMbps;
        passing.usual[i] = passing.usual[i]! + way.usualMbps;
        passing.worst[i] = passing.worst[i]! + way.worstMbps;
      }
  }
  return { input, tree, places, flows, uncounted, taken, passing, hopsTo };
};
