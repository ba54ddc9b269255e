import type { HubFields } from "@/contract";
import type { JudgedHub } from "./hub-judge";

/** A remote that would be well on another sector of its hub, with that sector's air still enough. */
export interface BetterSector {
  readonly linkId: string;
  readonly name: string;
  readonly sectorId: string;
  /** The hub with it hung there. */
  readonly remotes: HubFields["remotes"];
}

/** @param judge what the hub comes to with other remotes; asked once for each remote that is not well and each other sector. */
export const betterSectors = (
  fields: HubFields,
  judged: JudgedHub,
  judge: (remotes: HubFields["remotes"]) => JudgedHub,
): readonly BetterSector[] =>
  judged.sectors.flatMap((s, from) =>
    (s?.remotes ?? []).flatMap((r): BetterSector[] => {
      if (r.service === "clear") return [];
      for (const [to, target] of fields.sectors.entries()) {
        if (to === from) continue;
        const remotes = fields.remotes.map((x) => (x.linkId === r.linkId ? { ...x, sectorId: target.id } : x));
        const then = judge(remotes).sectors[to];
        const own = then?.remotes.find((x) => x.linkId === r.linkId);
        if (own?.service === "clear" && then?.airVerdict === "clear")
          return [{ linkId: r.linkId, name: r.name, sectorId: target.id, remotes }];
      }
      return [];
    }),
  );
