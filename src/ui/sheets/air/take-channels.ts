import type { HubDto, JobBundle } from "@/contract";
import { airUnitsOf } from "@/contract";
import { type AirUnit, type Channel, planOnChannel } from "@/core/air";

/* What is changed for channels that are taken: designs of links, or sectors of hubs, which their links follow. */

export interface TakeBody {
  readonly designs: readonly { readonly id: string; readonly version: number; readonly fields: object }[];
  readonly hubs: readonly { readonly id: string; readonly version: number; readonly fields: object }[];
}

const same = (a: Channel, b: Channel): boolean => a.centreMhz === b.centreMhz && a.widthMhz === b.widthMhz;

/** Units whose channel is another than today's. */
export const changedUnits = (units: readonly AirUnit[], channels: ReadonlyMap<string, Channel>): AirUnit[] =>
  units.filter((u) => {
    const to = channels.get(u.id);
    return to !== undefined && !same(to, u.channel);
  });

/** One step for all of them; powers are lowered where the rules ask for less on the new channel. */
export const takeBody = (
  job: JobBundle,
  hubs: readonly HubDto[],
  units: readonly AirUnit[],
  channels: ReadonlyMap<string, Channel>,
): TakeBody => {
  const links = airUnitsOf(job, hubs);
  const designs: TakeBody["designs"][number][] = [];
  const sectors = new Map<string, Map<string, { channel: Channel; powerDbm: number }>>();
  for (const unit of changedUnits(units, channels)) {
    const to = channels.get(unit.id)!;
    const hub = hubs.find((h) => unit.id.startsWith(`${h.id}/`));
    for (const l of links.get(unit.id) ?? []) {
      const made = unit.links.find((x) => x.id === l.id);
      if (made === undefined) continue;
      const moved = planOnChannel(made.plan, to);
      const hubIsNear = hub !== undefined && l.nearSiteId === hub.siteId;
      if (hub === undefined) {
        const { txPowerDbm: nearPowerDbm } = moved.near;
        const { txPowerDbm: farPowerDbm } = moved.far;
        designs.push({
          id: l.design.id,
          version: l.design.version,
          fields: {
            centreMhz: to.centreMhz,
            widthMhz: to.widthMhz,
            ...(nearPowerDbm === l.design.nearPowerDbm ? {} : { nearPowerDbm }),
            ...(farPowerDbm === l.design.farPowerDbm ? {} : { farPowerDbm }),
          },
        });
        continue;
      }
      const sectorId = unit.id.slice(hub.id.length + 1);
      const of = sectors.get(hub.id) ?? new Map<string, { channel: Channel; powerDbm: number }>();
      const powerDbm = (hubIsNear ? moved.near : moved.far).txPowerDbm;
      of.set(sectorId, { channel: to, powerDbm: Math.min(powerDbm, of.get(sectorId)?.powerDbm ?? powerDbm) });
      sectors.set(hub.id, of);
      const own = hubIsNear ? "farPowerDbm" : "nearPowerDbm";
      const ownDbm = (hubIsNear ? moved.far : moved.near).txPowerDbm;
      if (ownDbm !== l.design[own]) designs.push({ id: l.design.id, version: l.design.version, fields: { [own]: ownDbm } });
    }
  }
  const changed = hubs.flatMap((h) => {
    const of = sectors.get(h.id);
    if (of === undefined) return [];
    const next = h.sectors.map((s) => {
      const set = of.get(s.id);
      return set === undefined ? s : { ...s, centreMhz: set.channel.centreMhz, widthMhz: set.channel.widthMhz, powerDbm: set.powerDbm };
    });
    return [{ id: h.id, version: h.version, fields: { sectors: next } }];
  });
  return { designs, hubs: changed };
};
