import { z } from "zod";
import { parseBody } from "@/app/_server/body";
import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { Refused } from "@/data/clash";
import { createImport, getUpload } from "@/data/imports";
import { importDto } from "@/service/dto";

const schema = z.object({ uploadId: uuid, asCopy: z.boolean().default(false) });

/** Asks for a whole job out of a bundle that was sent before: an import like any other, of no job until it is there. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "plan", async () => {
    const { uploadId, asCopy } = await parseBody(request, schema);
    const file = await getUpload(db(), uploadId, null);
    if (file.receivedBytes < file.sizeBytes) throw new Refused("upload-unfinished", "file", { name: file.name });
    return importDto(
      await createImport(db(), { jobId: null, uploadId, fileName: file.name, what: "bundle", options: { what: "bundle", asCopy } }),
    );
  });
