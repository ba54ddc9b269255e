import Papa from "papaparse";
import type { LoadView } from "./load-view";

/** Every place of the network as a table: what is asked of it, what fits, and when it is full. */
export const loadCsv = ({ places, load }: LoadView, thisYear: number): string =>
  Papa.unparse(
    places.map((p) => ({
      place: p.name,
      kind: load.places[p.place]!.kind,
      verdict: p.verdict,
      asked_there_mbps: p.asked.there.toFixed(2),
      asked_back_mbps: p.asked.back.toFixed(2),
      fits_there_mbps: Number.isFinite(p.fits.there) ? p.fits.there.toFixed(2) : "",
      fits_back_mbps: Number.isFinite(p.fits.back) ? p.fits.back.toFixed(2) : "",
      shares_one_air: load.places[p.place]!.shared ? "yes" : "no",
      full_in: p.yearsLeft === null ? "" : Math.floor(thisYear + p.yearsLeft),
    })),
    { escapeFormulae: true },
  );
