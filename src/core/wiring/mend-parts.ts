import type { Lead, Place, Wired, WiringGraph } from "./graph";
import { type Context, type Draft, type MendKind, plain } from "./mend-draft";
import type { PartSheet } from "./part";

/* Another sheet in a place. */

/** Another sheet in a place, with its leads in ports of the same names; ports that it lacks take the next free of like kind. */
export const swapped = (w: Wired, place: Place, part: PartSheet): WiringGraph | null => {
  const used = new Set<string>();
  let whole = true;
  const old = w.sheetOf(place.id);
  const moved = (end: Lead["from"]): Lead["from"] => {
    if (end.placeId !== place.id) return end;
    const was = old?.ports.find((p) => p.id === end.port);
    const free = part.ports.filter((p) => !used.has(p.id) && (was === undefined || p.medium === was.medium));
    const to =
      free.find((p) => p.id === end.port && (p.gives !== undefined) === (was?.gives !== undefined)) ??
      free.find((p) => (p.gives !== undefined) === (was?.gives !== undefined) && (p.takes !== undefined) === (was?.takes !== undefined)) ??
      free[0];
    if (to === undefined) {
      whole = false;
      return end;
    }
    if (to.medium !== "mains") used.add(to.id);
    return { placeId: place.id, port: to.id };
  };
  const leads = w.graph.leads.map((l) =>
    l.from.placeId === place.id || l.to.placeId === place.id ? { ...l, from: moved(l.from), to: moved(l.to) } : l,
  );
  return whole ? { ...w.graph, leads, places: w.graph.places.map((p) => (p.id === place.id ? { ...p, partId: part.id } : p)) } : null;
};

export const otherParts = (
  { w, parts }: Context,
  placeId: string | null,
  fits: (p: PartSheet, now: PartSheet | null) => boolean,
  kind: MendKind = "other-part",
): Draft[] => {
  const place = w.placeOf.get(placeId ?? "");
  if (place === undefined) return [];
  const now = w.sheetOf(place.id);
  return [...parts.values()]
    .filter((p) => p.kind === place.kind && p.id !== place.partId && p.retired !== true && fits(p, now))
    .sort((a, b) => (a.priceEur ?? 0) - (b.priceEur ?? 0))
    .flatMap((part): Draft[] => {
      const graph = swapped(w, place, part);
      return graph === null
        ? []
        : [{ ...plain, id: `part:${part.id}`, kind, part, placeName: place.name, costEur: part.priceEur ?? null, graph }];
    });
};
