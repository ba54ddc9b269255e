import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { type BriefDto, briefSchema, saveBriefSchema, uuid } from "@/contract";
import { getBrief, saveBrief } from "@/data/brief";
import { VersionClash } from "@/data/clash";
import { getJob } from "@/data/jobs";

type Context = { params: Promise<{ jobId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async (): Promise<BriefDto> => {
    const jobId = uuid.parse((await params).jobId);
    await getJob(db(), jobId);
    const row = await getBrief(db(), jobId);
    return { doc: briefSchema.parse(row.doc), version: row.version };
  });

export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async (): Promise<BriefDto> => {
    const { version, doc } = await parseBody(request, saveBriefSchema);
    try {
      const row = await saveBrief(db(), uuid.parse((await params).jobId), version, doc);
      return { doc, version: row.version };
    } catch (error) {
      if (!(error instanceof VersionClash)) throw error;
      const now = error.current as { doc: unknown; version: number } | null;
      throw new VersionClash("brief", { doc: briefSchema.parse(now?.doc ?? {}), version: now?.version ?? 0 });
    }
  });
