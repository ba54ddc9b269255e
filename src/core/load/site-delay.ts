/* Delay between the feed's site and an end of the tree, out of how full each air on the way is. */
import { type Delay, type DelayHop, delayOf } from "./delay";
import type { Load, Moment } from "./load";
import { takenOf } from "./narrowest";
import { chainOf } from "./network";
import { BACK, type Lane, PAYLOAD_SHARE, THERE, usableMbps } from "./places";

/** Traffic comes in pieces of so many bits at once: 32 packets, about one whole picture of a camera (ours). */
const PIECE_BITS = 32 * 1448 * 8;

/** @returns null for a site that the tree does not reach. There and back; the wires at its ends take what a port takes. */
export const delayTo = (load: Load, moment: Moment, siteId: string): readonly [Delay, Delay] | null => {
  const chain = chainOf(load.tree, siteId);
  if (chain.length === 0) return null;
  const airAt = new Map<string, number>();
  load.places.forEach((p, i) => {
    if (p.kind === "air") for (const id of p.linkIds) airAt.set(id, i);
  });
  const hops = (lane: Lane): DelayHop[] =>
    chain.slice(0, -1).flatMap((id) => {
      const u = load.tree.up.get(id)!;
      const c = load.input.links.find((l) => l.id === u.linkId)?.carries;
      const place = airAt.get(u.linkId);
      if (c === null || c === undefined || place === undefined) return [];
      const w = (lane === THERE) === u.parentIsNear ? c.toFar : c.toNear;
      const wireUs = PIECE_BITS / (w.portMbps * PAYLOAD_SHARE);
      // The share of all of the air, whatever the school keeps free of it.
      const school = usableMbps(w, load.input.school);
      return [
        {
          access: c.access,
          load: takenOf(load, moment, place, lane) * (school / w.airMbps),
          burstUs: Math.min(w.burstUs, PIECE_BITS / w.airMbps) + wireUs,
        },
      ];
    });
  return [delayOf(hops(THERE)), delayOf(hops(BACK))];
};
