import Papa from "papaparse";
import type { UnitRow } from "./air-view";

/** Channels as a table: today's, and beside them what is proposed. */
export const airCsv = (rows: readonly UnitRow[], after: ReadonlyMap<string, UnitRow> | null): string =>
  Papa.unparse(
    rows.map((u) => {
      const to = after?.get(u.unit.id);
      return {
        unit: u.unit.name,
        links: u.links.length,
        centre_mhz: u.channel.centreMhz,
        width_mhz: u.channel.widthMhz,
        radar_duty: u.radar ? "yes" : "no",
        verdict: u.verdict,
        noise_rise_db: Math.round(u.riseDb * 10) / 10,
        air_asked_percent: u.multiple > 0 ? Math.round(100 / u.multiple) : "",
        proposed_centre_mhz: to?.channel.centreMhz ?? "",
        proposed_width_mhz: to?.channel.widthMhz ?? "",
        proposed_noise_rise_db: to === undefined ? "" : Math.round(to.riseDb * 10) / 10,
      };
    }),
    { escapeFormulae: true },
  );
