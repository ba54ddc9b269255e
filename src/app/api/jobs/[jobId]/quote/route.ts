import { z } from "zod";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { quotePdf } from "@/formats/pdf/quote-pdf";
import { quoteOfJob } from "@/service/quote";

type Context = { params: Promise<{ jobId: string }> };

const query = z.object({
  link: z.uuid("that is no link").nullable().default(null),
  as: z.enum(["pdf", "csv"]).default("pdf"),
  units: z.enum(["metric", "imperial"]).default("metric"),
});

/** The quote of a job, or of one link's ends, as PDF, or as a table, without what things cost. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "read", params, async (job) => {
    const { link, as, units } = query.parse(Object.fromEntries(new URL(request.url).searchParams));
    const { sheet, csv } = await quoteOfJob(db(), job, link, units, new Date().toISOString().slice(0, 10));
    const body = as === "csv" ? csv : new Uint8Array(await quotePdf(sheet, units === "imperial" ? "LETTER" : "A4"));
    const name = `${job.name}, ${sheet.of}, quote.${as}`;
    return new Response(body, {
      headers: {
        "content-type": as === "csv" ? "text/csv; charset=utf-8" : "application/pdf",
        "content-disposition": `attachment; filename="quote.${as}"; filename*=UTF-8''${encodeURIComponent(name)}`,
        "cache-control": "no-store",
      },
    });
  });
