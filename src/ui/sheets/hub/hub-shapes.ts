import type { HubFields } from "@/contract";
import type { Shape } from "@/core/hub";

/** A shape as the hub's record would hold it: its sectors, and who hangs on which. */
export const fieldsOfShape = (shape: Shape): Pick<HubFields, "sectors" | "remotes"> => ({
  sectors: shape.sectors.map((s, i) => ({
    id: `s${i + 1}`,
    radioId: s.unit.radio.id,
    antennaId: s.unit.antenna?.id ?? null,
    azimuthDeg: s.azimuthDeg,
    tiltDeg: s.tiltDeg,
    centreMhz: s.centreMhz,
    widthMhz: s.widthMhz,
    powerDbm: s.powerDbm,
    frameShareToRemotes: null,
  })),
  remotes: shape.sectors.flatMap((s, i) => s.remotes.map((linkId) => ({ linkId, sectorId: `s${i + 1}` }))),
});

/** Sectors that would share a channel with another of the same hub: which are free is another question, that they are not alike is not. */
export const sameChannel = (sectors: readonly { readonly centreMhz: number; readonly widthMhz: number }[]): number =>
  sectors.filter((a, i) => sectors.some((b, k) => k !== i && Math.abs(a.centreMhz - b.centreMhz) < (a.widthMhz + b.widthMhz) / 2)).length;
