import { createReadStream } from "node:fs";
import { type FileHandle, mkdir, open, rm } from "node:fs/promises";
import path from "node:path";
import { Unzip, type UnzipFile, UnzipInflate } from "fflate";
import { FileFault, reasonOf } from "./file-fault";
import { writeAll } from "./write-all";

export interface Unpacked {
  /** As it stands in the archive. */
  readonly name: string;
  /** Where it lies now: a name of ours, whatever the archive calls it. */
  readonly file: string;
  readonly bytes: number;
}

/**
 * Unpacks an archive file by file as it streams by, into a folder that the caller removes. What it holds is counted as it
 * comes out, whatever the archive says of its sizes.
 * @param wanted which entries are written; the others are passed over unopened.
 * @throws FileFault for what is no archive, breaks off, or unpacks to more than is taken.
 */
export const unpackTo = async (
  archive: string,
  folder: string,
  wanted: (name: string) => boolean,
  most: { readonly entries: number; readonly bytes: number },
): Promise<Unpacked[]> => {
  await mkdir(folder, { recursive: true });
  const out: Unpacked[] = [];
  let entries = 0;
  let total = 0;
  let open_ = 0;
  let fault: Error | null = null;
  /** Pieces that came out of the piece just pushed, in order; written before the next is pushed. */
  let pending: { entry: number; chunk: Uint8Array; final: boolean }[] = [];
  const names: string[] = [];
  const take = (f: UnzipFile): void => {
    if (++entries > most.entries) fault ??= new FileFault(`it holds more than ${most.entries} files`);
    if (fault !== null || f.name.endsWith("/") || !wanted(f.name)) return;
    const entry = names.push(f.name) - 1;
    open_++;
    f.ondata = (error, chunk, final) => {
      if (error !== null) fault ??= new FileFault(`${f.name} inside it cannot be unpacked: ${reasonOf(error)}`);
      total += chunk?.length ?? 0;
      if (total > most.bytes) {
        fault ??= new FileFault(`it unpacks to more than the ${Math.round(most.bytes / 1e6)} MB taken`);
        f.terminate();
        return;
      }
      pending.push({ entry, chunk: chunk ?? new Uint8Array(0), final });
    };
    f.start();
  };
  const unzip = new Unzip(take);
  unzip.register(UnzipInflate);
  const files = new Map<number, { handle: FileHandle; bytes: number }>();
  const write = async (): Promise<void> => {
    const batch = pending;
    pending = [];
    for (const { entry, chunk, final } of batch) {
      const file = path.join(folder, String(entry));
      let held = files.get(entry);
      if (held === undefined) {
        held = { handle: await open(file, "w"), bytes: 0 };
        files.set(entry, held);
      }
      await writeAll(held.handle, chunk);
      held.bytes += chunk.length;
      if (!final) continue;
      await held.handle.close();
      files.delete(entry);
      open_--;
      out.push({ name: names[entry]!, file, bytes: held.bytes });
    }
  };
  try {
    for await (const chunk of createReadStream(archive, { highWaterMark: 1 << 16 })) {
      try {
        unzip.push(chunk as Buffer);
      } catch (error) {
        fault ??= new FileFault(`it cannot be unpacked: ${reasonOf(error)}`);
      }
      if (fault !== null) throw fault;
      await write();
    }
    try {
      unzip.push(new Uint8Array(0), true);
    } catch (error) {
      fault ??= new FileFault(`it cannot be unpacked: ${reasonOf(error)}`);
    }
    if (fault !== null) throw fault;
    await write();
    if (entries === 0) throw new FileFault("it is no archive that can be unpacked");
    if (open_ > 0) throw new FileFault("it breaks off within a file it holds");
    return out;
  } finally {
    for (const held of files.values()) await held.handle.close().catch(() => undefined);
  }
};

/** Unpacks into a folder beside the archive, does something with what is there, and removes it. */
export const withUnpacked = async <T>(
  archive: string,
  wanted: (name: string) => boolean,
  most: { readonly entries: number; readonly bytes: number },
  work: (files: readonly Unpacked[]) => Promise<T>,
): Promise<T> => {
  const folder = `${archive}.unpacked`;
  try {
    return await work(await unpackTo(archive, folder, wanted, most));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
};
