import { randomUUID } from "node:crypto";
import { createReadStream } from "node:fs";
import { rm, stat } from "node:fs/promises";
import { Readable } from "node:stream";
import { filePath, needRoom } from "@/data/files";

/** Room that is asked for before a file is written out. */
const ROOM_BYTES = 50_000_000;

/**
 * Has a file written, whole, then sends it and removes it.
 * @param write writes it at a path; nothing is sent when it fails.
 */
export const sendFile = async (
  head: { readonly name: string; readonly type: string },
  write: (path: string) => Promise<unknown>,
): Promise<Response> => {
  await needRoom(ROOM_BYTES);
  const path = filePath(`out-${randomUUID()}`);
  try {
    await write(path);
    const { size } = await stat(path);
    const stream = createReadStream(path);
    // Its name is gone as soon as it is open; its bytes are there until the last is sent.
    await new Promise((resolve, reject) => stream.once("open", resolve).once("error", reject));
    await rm(path, { force: true });
    return new Response(Readable.toWeb(stream) as ReadableStream, {
      headers: {
        "content-type": head.type,
        "content-length": String(size),
        "content-disposition": `attachment; filename="${head.name}"`,
        "cache-control": "no-store",
      },
    });
  } catch (error) {
    await rm(path, { force: true });
    throw error;
  }
};
