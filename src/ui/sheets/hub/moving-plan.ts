import type { HardwareDto, HubFields } from "@/contract";
import { type MovingPlan, movingOrder } from "@/core/hub";
import type { JudgedHub } from "./hub-judge";

export interface MovingView {
  readonly plan: MovingPlan;
  /** Names by link. */
  readonly names: ReadonlyMap<string, string>;
  /** Types of unit to keep spares of, before and after. */
  readonly before: readonly string[];
  readonly after: readonly string[];
  /** Units on the mast while clients are moved. */
  readonly meanwhile: readonly string[];
}

const linesOf = (text: string): string[] => [...new Set(text.split("\n").map((l) => l.trim()))].filter((l) => l !== "");

/** In which order the ticked clients are moved, who stays, and what hangs where meanwhile. */
export const movingView = (fields: HubFields, judged: JudgedHub, hardware: Pick<HardwareDto, "radios">, mayUse: number): MovingView => {
  const names = new Map<string, string>();
  const ticked = new Set(fields.moving.clients);
  const clients = judged.sectors.flatMap((s, i) =>
    s === null
      ? []
      : s.remotes.flatMap((r) => {
          names.set(r.linkId, r.name);
          if (!ticked.has(r.linkId)) return [];
          const air = s.air.remotes.find((x) => x.linkId === r.linkId);
          return [
            {
              linkId: r.linkId,
              sectorId: fields.sectors[i]!.id,
              isServed: r.joins && r.service === "clear",
              airShare: (air?.there ?? 0) + (air?.back ?? 0),
              multiple: r.kept?.multiple ?? 1,
            },
          ];
        }),
  );
  const nameOf = (id: string): string => hardware.radios.find((r) => r.id === id)?.name ?? id;
  const hub = [...new Set(fields.sectors.map((s) => nameOf(s.radioId)))];
  const own = judged.remotes.flat().map((r) => (r.hubIsNear ? r.plan.far : r.plan.near).radio.name);
  const old = linesOf(fields.moving.gear);
  const plan = movingOrder(clients, mayUse);
  return {
    plan,
    names,
    before: old,
    after: [...new Set([...hub, ...own, ...(plan.stay.length > 0 ? old : [])])],
    meanwhile: [...fields.sectors.map((s) => nameOf(s.radioId)), ...old],
  };
};
