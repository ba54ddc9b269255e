import { z } from "zod";
import { db } from "@/app/_server/db";
import { handle, parseBody } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { Refused } from "@/data/clash";
import { filePath, removeFile } from "@/data/files";
import { getUpload } from "@/data/imports";
import { readBundle } from "@/service/bundle";

const MOST_BUNDLE_BYTES = 400_000_000;
const schema = z.object({ uploadId: uuid, asCopy: z.boolean().default(false) });

/** A whole job out of a bundle that was sent before. */
export const POST = (request: Request): Promise<Response> =>
  handle(request, "write", async () => {
    const { uploadId, asCopy } = await parseBody(request, schema);
    const file = await getUpload(db(), uploadId);
    if (file.receivedBytes < file.sizeBytes) throw new Refused("upload-unfinished", "file", { name: file.name });
    if (file.sizeBytes > MOST_BUNDLE_BYTES) throw new Refused("bundle-too-large", "file", { name: file.name });
    const made = await readBundle(db(), filePath(file.id), asCopy);
    await removeFile(file.id);
    return made;
  });
