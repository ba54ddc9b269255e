import { expose } from "comlink";
import { openShapes, type ShapeKind, sectorMends, type TriedRemote } from "@/core/hub";
import type { PathProfile } from "@/core/link";
import { type Unit, unitsOf } from "@/core/rack";
import type { HubWorker, SentRemote } from "./messages";

let units: readonly Unit[] = [];
let profiles = new Map<string, PathProfile>();

const withProfiles = (remotes: readonly SentRemote[]): TriedRemote[] =>
  remotes.flatMap((r) => {
    const profile = profiles.get(r.linkId);
    return profile === undefined ? [] : [{ ...r, profile }];
  });
/** A unit as the page names it, made whole again. */
const unitNamed = (key: string): Unit | null => units.find((u) => u.key === key) ?? null;

expose({
  open: (sent, hardware) => {
    profiles = new Map(sent);
    units = unitsOf(hardware.radios, hardware.antennas);
  },
  shapes: async ({ remotes, sectors, policy }, onShape) => {
    const open = openShapes({
      remotes: withProfiles(remotes),
      sectors: sectors.flatMap(({ unitKey, ...s }) => {
        const unit = unitNamed(unitKey);
        return unit === null ? [] : [{ ...s, unit }];
      }),
      units,
      policy,
    });
    for (const [kind, make] of Object.entries(open.each)) await onShape(kind as ShapeKind, make());
  },
  mends: ({ remotes, unitKey, ...q }) => {
    const unit = unitNamed(unitKey);
    return unit === null ? null : sectorMends({ ...q, remotes: withProfiles(remotes), unit, units });
  },
} satisfies HubWorker);
