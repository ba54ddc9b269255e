import type { Feeds } from "./feeds";
import { found, type WiringFinding } from "./finding";
import type { Wired } from "./graph";
import { coldShare, type SunPlan, type SunSupply, sunSupply } from "./sun";

/* A site on battery and sun: is there enough of both in the darkest month, and does it outlive frost, a short and an empty battery? */

export interface SunJudged {
  readonly supply: SunSupply;
  readonly panelW: number;
  readonly batteryAh: number;
  readonly loadW: number;
  readonly volts: number;
}

const FROST_C = 0;

/** @param latDeg of the site; @returns null where there is no battery, or what it feeds is not known. */
export const judgeSun = (w: Wired, feeds: Feeds, plan: SunPlan, latDeg: number): SunJudged | null => {
  const battery = w.graph.places.flatMap((p) => w.sheetOf(p.id)?.battery ?? [])[0];
  if (battery === undefined) return null;
  const batteries = w.graph.places.flatMap((p) => w.sheetOf(p.id)?.battery ?? []);
  const ids = new Set(w.graph.places.filter((p) => w.sheetOf(p.id)?.battery !== undefined).map((p) => p.id));
  const loads = feeds.given.filter((g) => ids.has(g.end.placeId));
  if (loads.length === 0 || loads.some((g) => g.drawnW === null || !Number.isFinite(g.drawnW))) return null;
  const loadW = loads.reduce((s, g) => s + g.drawnW!, 0);
  return {
    supply: sunSupply(plan, latDeg, loadW, battery),
    panelW: w.graph.places.reduce((s, p) => s + (w.sheetOf(p.id)?.panelW ?? 0), 0),
    batteryAh: batteries.reduce((s, b) => s + b.ah, 0),
    loadW,
    volts: battery.volts,
  };
};

export const sunFindings = (w: Wired, feeds: Feeds, plan: SunPlan | null, latDeg: number): WiringFinding[] => {
  const placed = w.graph.places.find((p) => w.sheetOf(p.id)?.battery !== undefined);
  if (placed === undefined) return [];
  const at = { placeId: placed.id };
  if (plan === null) return [found("sun-unasked", "unknown", at)];
  const out: WiringFinding[] = [];
  const judged = judgeSun(w, feeds, plan, latDeg);
  // A load that is not known is told where it hangs.
  if (judged !== null) {
    const { supply, panelW, batteryAh } = judged;
    if (panelW < supply.panelW - 1e-9)
      out.push(
        found("panel-small", "short", {
          ...at,
          figures: { watts: panelW, asked: supply.panelW, month: supply.darkestMonth, hours: supply.darkestHours },
        }),
      );
    if (batteryAh < supply.batteryAh - 1e-9) {
      const b = w.sheetOf(placed.id)!.battery!;
      out.push(
        found("battery-small", "short", {
          ...at,
          figures: { ah: batteryAh, asked: supply.batteryAh, days: plan.daysWithoutSun, cold: coldShare(b.chemistry, plan.lowestC) },
        }),
      );
    }
  }
  const battery = w.sheetOf(placed.id)!.battery!;
  if (battery.chemistry === "lithium" && !battery.heater && plan.lowestC < FROST_C)
    out.push(found("frost-charge", "short", { ...at, figures: { lowest: plan.lowestC } }));
  const neighbours = w.graph.leads.flatMap((l) =>
    l.from.placeId === placed.id ? [l.to.placeId] : l.to.placeId === placed.id ? [l.from.placeId] : [],
  );
  if (neighbours.length > 0 && !neighbours.every((id) => w.placeOf.get(id)?.kind === "fuse"))
    out.push(found("fuse-missing", "short", { ...at, stop: true }));
  if (!w.graph.places.some((p) => w.sheetOf(p.id)?.cutOut !== undefined)) out.push(found("cut-out-missing", "short", at));
  if (plan.comesBack === null) out.push(found("return-unseen", "unknown", at));
  if (plan.comesBack === false) out.push(found("return-never", "short", at));
  return out;
};
