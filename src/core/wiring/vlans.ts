import { channelsOf } from "./check-leads";
import type { Wired } from "./graph";

/* Which virtual networks (IEEE 802.1Q) each port of a switch carries: untagged to a device of one, tagged where several go on. */

export interface PortVlans {
  readonly placeId: string;
  readonly port: string;
  readonly to: string;
  /** Without a tag; null where every frame has one. */
  readonly untagged: number | null;
  readonly tagged: readonly number[];
}

/** Kinds behind which several networks go on. */
const GOES_ON = new Set(["switch", "router", "radio", "injector", "media", "access-point"]);

/**
 * @param vlanOf the network of a place; null where it has none.
 * @param manage the network of management: access points and radios are reached on it without a tag.
 */
export const portVlans = (
  w: Wired,
  vlanOf: (placeId: string) => number | null,
  all: readonly number[],
  manage: number | null,
): PortVlans[] =>
  channelsOf(w)
    .flatMap((c) =>
      (
        [
          [c.from, c.end],
          [c.end, c.from],
        ] as const
      ).flatMap(([own, other]): PortVlans[] => {
        if (w.placeOf.get(own.placeId)?.kind !== "switch" || w.portOf(own)?.speedMbps === undefined) return [];
        const place = w.placeOf.get(other.placeId);
        if (place === undefined) return [];
        const name = place.name;
        if (!GOES_ON.has(place.kind)) return [{ placeId: own.placeId, port: own.port, to: name, untagged: vlanOf(place.id), tagged: [] }];
        const untagged = place.kind === "switch" || place.kind === "router" ? null : manage;
        return [{ placeId: own.placeId, port: own.port, to: name, untagged, tagged: all.filter((v) => v !== untagged) }];
      }),
    )
    .sort((a, b) => a.placeId.localeCompare(b.placeId) || Number(a.port) - Number(b.port) || a.port.localeCompare(b.port));
