import Papa from "papaparse";
import { supplyText } from "../../wording/wiring";
import type { OpenWiring } from "./use-open-wiring";
import { unitRows } from "./wiring-view";

/** Units and leads of both ends as a table: figures with points, lengths in metres. */
export const wiringCsv = (open: OpenWiring): string => {
  const nameOf = (siteId: string): string => open.job.sites.find((s) => s.id === siteId)?.name ?? "";
  const units = open.own.flatMap((site) =>
    unitRows(site, new Set(site.judged.wired.graph.places.map((p) => p.id))).map((r) => ({
      site: nameOf(site.siteId),
      unit: r.place.name,
      type: r.type,
      address: open.addressFields.given[r.place.id]?.address ?? "",
      plugged_into: r.into === null ? "" : `${r.into.name}, ${r.into.port}`,
      length_m: r.metres === null ? "" : Math.round(r.metres * 100) / 100,
      supply: r.arrival === null ? "" : supplyText(r.arrival.gives.key),
      volts: r.arrival?.volts == null ? "" : Math.round(r.arrival.volts * 100) / 100,
      watts: r.watts ?? "",
      mbps: r.mbps ?? "",
      verdict: r.verdict,
    })),
  );
  const leads = open.own.flatMap((site) =>
    open.endOf(site.siteId).fields.leads.map((l) => {
      const w = site.judged.wired;
      return {
        site: nameOf(site.siteId),
        from: `${w.placeOf.get(l.from.placeId)?.name ?? ""}, ${w.portOf(l.from)?.name ?? l.from.port}`,
        to: `${w.placeOf.get(l.to.placeId)?.name ?? ""}, ${w.portOf(l.to)?.name ?? l.to.port}`,
        cable: open.all.get(l.cableId ?? "")?.name ?? "",
        length_m: l.lengthM,
        way: l.way,
        label: l.label,
        measured_m: l.measuredM ?? "",
        tester: l.tested,
        note: l.testNote,
      };
    }),
  );
  const table = (rows: object[]): string => Papa.unparse(rows, { escapeFormulae: true });
  return `${table(units)}\r\n\r\n${table(leads)}\r\n`;
};
