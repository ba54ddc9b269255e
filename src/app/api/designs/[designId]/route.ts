import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { patchDesignSchema, uuid } from "@/contract";
import { VersionClash } from "@/data/clash";
import type { DesignRow } from "@/data/jobs";
import { updateDesign } from "@/data/links";
import { designDto } from "@/service/dto";

type Context = { params: Promise<{ designId: string }> };

export const PATCH = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "write", async () => {
    const designId = uuid.parse((await params).designId);
    const { version, ...fields } = await parseBody(request, patchDesignSchema);
    try {
      return designDto(await updateDesign(db(), designId, version, fields));
    } catch (error) {
      if (error instanceof VersionClash) throw new VersionClash(error.entity, designDto(error.current as DesignRow));
      throw error;
    }
  });
