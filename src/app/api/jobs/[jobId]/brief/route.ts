import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { type BriefDto, briefSchema, saveBriefSchema } from "@/contract";
import { getBrief, saveBrief } from "@/data/brief";
import { VersionClash } from "@/data/clash";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "read", params, async (job): Promise<BriefDto> => {
    const row = await getBrief(db(), job.id);
    return { doc: briefSchema.parse(row.doc), version: row.version };
  });

export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async (job): Promise<BriefDto> => {
    const { version, doc } = await parseBody(request, saveBriefSchema);
    try {
      const row = await saveBrief(db(), job.id, version, doc);
      return { doc, version: row.version };
    } catch (error) {
      if (!(error instanceof VersionClash)) throw error;
      const now = error.current as { doc: unknown; version: number } | null;
      throw new VersionClash("brief", { doc: briefSchema.parse(now?.doc ?? {}), version: now?.version ?? 0 });
    }
  });
