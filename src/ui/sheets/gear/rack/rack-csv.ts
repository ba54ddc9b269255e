import Papa from "papaparse";
import { type Candidate, keptMultipleOf, type Rack, serves } from "@/core/rack";
import { REFUSAL_WORDS, refusalFigure } from "../../../wording/gear";

const tenth = (n: number): number => Math.round(n * 10) / 10;

const rowOf = (c: Candidate, place: string, needMbps: number): Record<string, string | number> => ({
  place,
  near: c.pair.near.name,
  far: c.pair.far.name,
  band_ghz: c.band === "80" ? "70/80" : c.band,
  width_mhz: c.widthMhz,
  centre_mhz: c.option?.centreMhz ?? "",
  near_power_dbm: c.option?.toFar.powerDbm ?? "",
  far_power_dbm: c.option?.toNear.powerDbm ?? "",
  level_to_far_dbm: c.option === null ? "" : tenth(c.option.toFar.levelDbm),
  level_to_near_dbm: c.option === null ? "" : tenth(c.option.toNear.levelDbm),
  kept_mbps: c.option === null ? "" : tenth(keptMultipleOf(c) * needMbps),
  serves: c.option === null ? "" : serves(c) ? "yes" : "no",
  cases_in_100: c.drawn === null ? "" : Math.round(c.drawn.serves * 100),
  path: c.clearance?.verdict ?? "",
  radar_duty: c.option === null ? "" : c.option.radar ? "yes" : "no",
  face_cm: c.faceCm ?? "",
  price_eur: c.priceEur ?? "",
  refused_because: c.refusal === null ? "" : REFUSAL_WORDS[c.refusal.code],
  figure: c.refusal === null ? "" : refusalFigure(c.refusal),
});

/** All that was tried as a table: rows of the rack, what is folded beneath them, what is rejected and why. */
export const rackCsv = (rack: Rack): string =>
  Papa.unparse(
    [
      ...rack.rows.flatMap((r) => [
        rowOf(r.best, "rack", rack.needMbps),
        ...r.widths.map((c) => rowOf(c, `other width of ${r.best.pair.near.name}`, rack.needMbps)),
        ...r.beats.map((c) => rowOf(c, `beaten by ${r.best.pair.near.name}`, rack.needMbps)),
      ]),
      ...rack.rejected.flatMap((g) => g.candidates.map((c) => rowOf(c, "rejected", rack.needMbps))),
    ],
    { escapeFormulae: true },
  );
