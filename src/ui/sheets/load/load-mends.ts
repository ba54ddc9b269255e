import type { BriefDevice, LinkVerdict, NetworkFields } from "@/contract";
import { loadDevice } from "@/contract";
import type { Carried, LoadInput } from "@/core/load";
import { chainOf, USUAL_PORT_MBPS } from "@/core/load";
import { rateText } from "../../wording/gear";
import { figure } from "../../wording/numbers";
import { type LoadRead, type LoadView, type Look, loadView, type ShownPlace } from "./load-view";

/* What would mend the narrowest place: each worked out through the same load before it is offered. */

export type MendPlan =
  | { readonly kind: "network"; readonly fields: Partial<NetworkFields> }
  | { readonly kind: "devices"; readonly devices: readonly BriefDevice[] }
  | { readonly kind: "page"; readonly href: string; readonly words: string };

export interface Mend {
  readonly id: string;
  readonly words: string;
  readonly input: LoadInput;
  readonly plan: MendPlan;
}

export interface TriedMend extends Mend {
  /** The same place, and the whole job, with it. */
  readonly place: ShownPlace | null;
  readonly view: LoadView;
}

const bigger = (mbps: number): number => [50, 100, 250, 500, 1000, 2000, 5000, 10_000].find((x) => x > mbps * 1.2) ?? mbps * 2;

const withCarried = (input: LoadInput, linkIds: readonly string[], of: (id: string) => Carried | null): LoadInput => ({
  ...input,
  links: input.links.map((l) => (linkIds.includes(l.id) ? { ...l, carries: of(l.id) ?? l.carries } : l)),
});

const cameraMends = (read: LoadRead, input: LoadInput, network: NetworkFields): Mend[] => {
  const rootId = input.feeds[0]!.siteId;
  const newer = read.brief.devices.map((d) =>
    d.kind === "camera" && d.codec === "h264" && d.upMbps === null ? { ...d, codec: "h265" as const } : d,
  );
  if (newer.every((d, i) => d === read.brief.devices[i])) return [];
  const devices = new Map(newer.map((d) => [d.id, loadDevice(d, network.talks, rootId)]));
  return [
    {
      id: "codec",
      words: "Cameras to H.265",
      input: { ...input, devices: input.devices.map((d) => devices.get(d.id) ?? d) },
      plan: { kind: "devices", devices: newer },
    },
  ];
};

const recorderMends = (read: LoadRead, input: LoadInput, chain: readonly string[]): Mend[] => {
  const now = input.recorder.at === "each" ? "each" : input.recorder.siteId;
  const name = (id: string): string => read.job.sites.find((s) => s.id === id)?.name ?? "";
  return [
    ...chain
      .slice(1)
      .filter((id) => id !== now)
      .map(
        (id): Mend => ({
          id: `recorder:${id}`,
          words: `Record at ${name(id)}`,
          input: { ...input, recorder: { at: "site", siteId: id } },
          plan: { kind: "network", fields: { recorder: id } },
        }),
      ),
    ...(now === "each"
      ? []
      : [
          {
            id: "recorder:each",
            words: "Record at each far end",
            input: { ...input, recorder: { at: "each" as const } },
            plan: { kind: "network" as const, fields: { recorder: "each" as const } },
          },
        ]),
  ];
};

const widthMends = (
  read: LoadRead,
  input: LoadInput,
  place: LoadView["load"]["places"][number],
  verdicts: readonly LinkVerdict[],
): Mend[] => {
  const of = place.linkIds.flatMap((id) => verdicts.find((v) => v.linkId === id) ?? []);
  const now = read.job.links.find((l) => l.id === place.linkIds[0])?.design.widthMhz ?? 0;
  const widths = [...new Set(of.flatMap((v) => v.widths.map((w) => w.widthMhz)))].filter((w) =>
    of.every((v) => v.widths.some((x) => x.widthMhz === w)),
  );
  const hub = read.hubs.find((h) => place.sectorId?.startsWith(`${h.id}/`));
  const { id } = read.job.job;
  return widths
    .filter((w) => w > now)
    .map((w) => ({
      id: `width:${w}`,
      words: `A channel of ${figure(w)} MHz`,
      input: withCarried(
        input,
        place.linkIds,
        (linkId) => of.find((v) => v.linkId === linkId)?.widths.find((x) => x.widthMhz === w)?.carried ?? null,
      ),
      plan:
        hub === undefined
          ? { kind: "page", href: `/jobs/${id}/gear/${place.linkIds[0]}`, words: "In its gear" }
          : { kind: "page", href: `/jobs/${id}/hub/${hub.id}`, words: "In its hub" },
    }));
};

const placeMends = (read: LoadRead, input: LoadInput, place: LoadView["load"]["places"][number], network: NetworkFields): Mend[] => {
  if (place.kind === "feed") {
    const i = input.feeds.findIndex((f) => f.siteId === place.siteId);
    const feed = input.feeds[i];
    if (feed === undefined) return [];
    const down = bigger(feed.downMbps ?? 100);
    const up = bigger(feed.upMbps ?? 100);
    const feeds = input.feeds.map((f, k) => (k === i ? { ...f, downMbps: down, upMbps: up } : f));
    const plan: MendPlan =
      i === 0
        ? { kind: "page", href: `/jobs/${read.job.job.id}/brief`, words: "In the brief" }
        : {
            kind: "network",
            fields: { secondFeed: network.secondFeed === null ? null : { ...network.secondFeed, downMbps: down, upMbps: up } },
          };
    return [{ id: "line", words: `A line of ${rateText(down)}/${rateText(up)}`, input: { ...input, feeds }, plan }];
  }
  if (place.kind !== "port" || place.siteId === null || place.by === "radio") return [];
  const ports = { ...network.ports, [place.siteId]: { switchMbps: USUAL_PORT_MBPS, injectorMbps: null } };
  return [
    {
      id: "port",
      words: `A switch of ${rateText(USUAL_PORT_MBPS)} there`,
      input: { ...input, ports: new Map(Object.entries(ports)) },
      plan: { kind: "network", fields: { ports } },
    },
  ];
};

const feedMends = (read: LoadRead, input: LoadInput, chain: readonly string[]): Mend[] =>
  input.feeds.length > 1
    ? []
    : chain.slice(1).map((siteId) => {
        const feed = { siteId, name: "second feed", downMbps: 100, upMbps: 100 };
        return {
          id: `feed:${siteId}`,
          words: `A second line of 100/100 at ${read.job.sites.find((s) => s.id === siteId)?.name ?? ""}`,
          input: { ...input, feeds: [...input.feeds, feed] },
          plan: { kind: "network", fields: { secondFeed: feed } },
        };
      });

/** Mends of the narrowest place on the way to an end that help it, the most helpful first. */
export const mendsOf = (
  input: LoadInput,
  read: LoadRead,
  network: NetworkFields,
  verdicts: readonly LinkVerdict[],
  view: LoadView,
  look: Look,
  siteId: string,
  narrowest: ShownPlace,
): TriedMend[] => {
  const chain = chainOf(view.load.tree, siteId).reverse();
  const place = view.load.places[narrowest.place]!;
  return [
    ...placeMends(read, input, place, network),
    ...(place.kind === "air" ? widthMends(read, input, place, verdicts) : []),
    ...cameraMends(read, input, network),
    ...recorderMends(read, input, chain),
    ...feedMends(read, input, chain),
  ]
    .map((m): TriedMend => {
      const tried = loadView(m.input, read, look);
      return { ...m, view: tried, place: tried.places.find((p) => p.id === narrowest.id) ?? null };
    })
    .filter((m) => (m.place?.multiple ?? Number.POSITIVE_INFINITY) > narrowest.multiple * 1.005)
    .sort((a, b) => (b.place?.multiple ?? 1e9) - (a.place?.multiple ?? 1e9));
};
