import { z } from "zod";
import { parseBody, parseQuery } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handleJob } from "@/app/_server/handle";
import { patchDesignSchema, uuid } from "@/contract";
import { VersionClash } from "@/data/clash";
import type { DesignRow } from "@/data/jobs";
import { dropDesign, updateDesign } from "@/data/links";
import { designDto } from "@/service/dto";

type Context = { params: Promise<{ jobId: string; designId: string }> };

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async () => {
    const designId = uuid.parse((await params).designId);
    const { version, ...fields } = await parseBody(request, patchDesignSchema);
    try {
      return designDto(await updateDesign(db(), designId, version, fields));
    } catch (error) {
      if (error instanceof VersionClash) throw new VersionClash(error.entity, designDto(error.current as DesignRow));
      throw error;
    }
  });

/** Takes a kept design away; the one in force stays. The version it was seen in comes as a query. */
export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  handleJob(request, "write", params, async () => {
    const designId = uuid.parse((await params).designId);
    const { version } = parseQuery(request, z.object({ version: z.coerce.number().int().min(1) }));
    await dropDesign(db(), designId, version);
  });
