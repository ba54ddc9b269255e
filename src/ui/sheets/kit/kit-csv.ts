import Papa from "papaparse";
import { WHERE_WORDS } from "../../wording/kit";
import type { OpenKit } from "./use-open-kit";

/** The kit as a table. @param prices false for whoever is not to see them. */
export const kitCsv = (open: OpenKit, prices = true): string => {
  const nameOf = (siteId: string): string => open.job.sites.find((s) => s.id === siteId)?.name ?? "";
  return `${Papa.unparse(
    open.sites.flatMap((s) =>
      s.rows.map((r) => ({
        site: nameOf(s.siteId),
        where: WHERE_WORDS[r.where],
        item: r.name,
        quantity: r.quantity,
        unit: r.unit === "" ? "pieces" : r.unit,
        state: r.state,
        in_stock: r.stock ?? "",
        why: r.why.join("; "),
        ...(prices
          ? {
              cost: r.costCents === null ? "" : (r.costCents / 100).toFixed(2),
              currency: r.costCents === null ? "" : open.fields.money.currency,
            }
          : {}),
      })),
    ),
    { escapeFormulae: true },
  )}\r\n`;
};
