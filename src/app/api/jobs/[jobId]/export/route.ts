import { z } from "zod";
import { db } from "@/app/_server/db";
import { handle, parseQuery } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { getJob } from "@/data/jobs";
import { exportJob } from "@/service/export";

type Context = { params: Promise<{ jobId: string }> };

const schema = z.object({ what: z.enum(["sites", "links", "obstacles", "features"]), format: z.enum(["geojson", "kml", "gpx", "csv"]) });

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => {
    const { what, format } = parseQuery(request, schema);
    const file = await exportJob(db(), await getJob(db(), uuid.parse((await params).jobId)), what, format);
    return new Response(file.text, {
      headers: { "content-type": file.type, "content-disposition": `attachment; filename="${file.name}"`, "cache-control": "no-store" },
    });
  });
