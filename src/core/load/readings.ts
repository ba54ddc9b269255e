/*
 * What a test can read at most, with everybody else silent, and whether it would prove a link: only where the link's own air is what
 * holds it. Within 15 % of a feed or a port a reading is a floor and no more (ours).
 */
import type { Load } from "./load";
import { BACK, type Hop, type Lane, PAYLOAD_SHARE, THERE, USUAL_PORT_MBPS } from "./places";

export interface TestReading {
  readonly kind: "internet" | "across" | "radios";
  /** At most, each way, Mbps; infinite where nobody said. */
  readonly mbps: readonly [number, number];
  /** What holds it there and back: a place, or null for the tester's own port. */
  readonly heldBy: readonly [number | null, number | null];
  /** The link's own air holds it, and nothing else comes near. */
  readonly proves: readonly [boolean, boolean];
}

const NEAR_SHARE = 0.15;

/** Of places passed one after the other, the least, and how far the next that is not that link's air lies above. */
const held = (hops: readonly Hop[], own: number | null, testerMbps: number | null) => {
  let [mbps, by] = [testerMbps ?? Number.POSITIVE_INFINITY, null as number | null];
  let others = mbps;
  for (const h of hops) {
    // With all silent the whole of the air is there: nothing is kept free.
    const most = 1 / h.perMbps;
    if (most < mbps) [mbps, by] = [most, h.place];
    if (h.place !== own) others = Math.min(others, most);
  }
  return { mbps, by, proves: own !== null && by === own && mbps < others * (1 - NEAR_SHARE) };
};

const airOf = (load: Load, hops: readonly Hop[]): number | null => {
  let last: number | null = null;
  for (const h of hops) if (load.places[h.place]!.kind === "air") last = h.place;
  return last;
};

/** Readings at a site: to the outside, across its own last link between two wired testers, and by the radios' own test. */
export const readingsAt = (load: Load, siteId: string, testerPortMbps = USUAL_PORT_MBPS): TestReading[] => {
  const ways = load.hopsTo(siteId, { kind: "feed" });
  if (ways === null) return [];
  const own = airOf(load, ways[THERE]);
  const up = load.tree.up.get(siteId);
  const tester = testerPortMbps * PAYLOAD_SHARE;
  const reading = (kind: TestReading["kind"], of: readonly [readonly Hop[], readonly Hop[]], port: number | null): TestReading => {
    const [there, back] = ([THERE, BACK] as const).map((lane: Lane) => held(of[lane], own, port)) as [
      ReturnType<typeof held>,
      ReturnType<typeof held>,
    ];
    return { kind, mbps: [there.mbps, back.mbps], heldBy: [there.by, back.by], proves: [there.proves, back.proves] };
  };
  const out = [reading("internet", ways, tester)];
  if (own === null || up === undefined) return out;
  const last = load.hopsTo(siteId, { kind: "site", siteId: up.parentId })!;
  out.push(reading("across", last, tester));
  const air = [last[THERE].filter((h) => h.place === own), last[BACK].filter((h) => h.place === own)] as const;
  out.push(reading("radios", air, null));
  return out;
};
