import { type Place, type WiringGraph, wire } from "./graph";
import { swapped } from "./mend-parts";
import type { Parts } from "./part";

/* A wiring proposed anew over one that is there: the same things keep who they are. */

/** Each proposed place with the one that stood there: by its name, else by its link or the row of the brief that it is one of. */
const matched = (proposed: readonly Place[], before: readonly Place[]): ReadonlyMap<string, Place> => {
  const free = new Set(before);
  const was = new Map<string, Place>();
  for (const byName of [true, false])
    for (const p of proposed) {
      if (was.has(p.id) || (!byName && p.linkId === null && p.deviceId === null)) continue;
      const old = [...free].find(
        (o) => o.kind === p.kind && o.linkId === p.linkId && o.deviceId === p.deviceId && (!byName || o.name === p.name),
      );
      if (old === undefined) continue;
      free.delete(old);
      was.set(p.id, old);
    }
  return was;
};

/**
 * The proposal with the places that stood there before under their own ids, so that addresses and units stay with them, with what was
 * told of them (name, earth, bond, how watts are counted), and with their type where the proposal knows none.
 */
export const keptFrom = (proposed: WiringGraph, before: WiringGraph, parts: Parts): WiringGraph => {
  const was = matched(proposed.places, before.places);
  const idOf = (id: string): string => was.get(id)?.id ?? id;
  const places = proposed.places.map((p): Place => {
    const old = was.get(p.id);
    return old === undefined ? p : { ...p, id: old.id, name: old.name, earth: old.earth, countsDrawn: old.countsDrawn, bond: old.bond };
  });
  const leads = proposed.leads.map((l) => ({
    ...l,
    from: { ...l.from, placeId: idOf(l.from.placeId) },
    to: { ...l.to, placeId: idOf(l.to.placeId) },
  }));
  let graph: WiringGraph = { ...proposed, places, leads };
  for (const p of proposed.places) {
    const old = was.get(p.id);
    const part = parts.get(old?.partId ?? "");
    if (p.partId !== null || old === undefined || part === undefined) continue;
    const place = graph.places.find((x) => x.id === old.id)!;
    graph = swapped(wire(graph, parts), place, part) ?? graph;
  }
  return graph;
};
