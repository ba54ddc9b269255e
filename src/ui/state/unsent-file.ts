import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { z } from "zod";
import { kinds, photoFieldsSchema, recordPath } from "@/contract";
import type { Edit } from "./outbox";
import type { QueuedPhoto } from "./photo-queue";

/*
 * What waits in a browser that cannot send it, as a file that another one brings in: edits in their order, photos as pictures. Each
 * keeps its number, so what is brought in and sent as well is made once.
 */

const FORMAT = "dry-arc-unsent";
const LIST = "unsent.json";
const MOST_EDITS = 5000;
const MOST_PHOTOS = 500;
const MOST_LIST_BYTES = 20_000_000;
const MOST_PHOTO_BYTES = 3_000_000;
const MOST_FILE_BYTES = 1_000_000_000;

const id = z.uuid();
/** Addresses of records that crews write, in one job. */
const isCrewPath = (jobId: string, method: string, path: string): boolean =>
  kinds()
    .filter(([, k]) => k.editedBy.includes("installer") && k.parent !== "none")
    .some(([name, k]) => {
      const one = recordPath(jobId, name, "*");
      if (!k.many) return method === "PATCH" && path === one;
      const list = one.slice(0, -2);
      return method === "POST" ? path === list : path.startsWith(`${list}/`) && id.safeParse(path.slice(list.length + 1)).success;
    });

const editSchema = z
  .object({ id, jobId: id, method: z.enum(["POST", "PATCH"]), path: z.string().max(200), body: z.record(z.string(), z.unknown()) })
  .refine((e) => isCrewPath(e.jobId, e.method, e.path), "an edit in it is none that a phone makes");
const photoSchema = z.object({
  id,
  jobId: id,
  about: photoFieldsSchema,
  takenAtMs: z.number(),
  type: z.enum(["image/jpeg", "image/png", "image/webp"]),
});
const listSchema = z.object({
  format: z.literal(FORMAT),
  version: z.literal(1),
  madeAt: z.iso.datetime(),
  edits: z.array(editSchema).max(MOST_EDITS),
  photos: z.array(photoSchema).max(MOST_PHOTOS),
});

export interface Unsent {
  readonly madeAt: string;
  readonly edits: readonly (Edit & { readonly method: "POST" | "PATCH"; readonly body: Readonly<Record<string, unknown>> })[];
  readonly photos: readonly Pick<QueuedPhoto, "id" | "jobId" | "about" | "picture" | "takenAtMs">[];
}

type Waiting = Pick<QueuedPhoto, "id" | "jobId" | "about" | "picture" | "takenAtMs">;

/** Edits and photos that wait, as one file. What no phone makes is left out. @returns the file, and how much is in it. */
export const packUnsent = async (
  edits: readonly Edit[],
  photos: readonly Waiting[],
  madeAt: string,
): Promise<{ readonly file: Blob; readonly edits: number; readonly photos: number }> => {
  const own = edits.flatMap((e) => {
    const read = editSchema.safeParse(e);
    return read.success ? [read.data] : [];
  });
  const list = {
    format: FORMAT,
    version: 1,
    madeAt,
    edits: own,
    photos: photos.map(({ id, jobId, about, takenAtMs, picture }) => ({ id, jobId, about, takenAtMs, type: picture.type })),
  };
  // The list is the first entry: the file is known by it.
  const files: Record<string, [Uint8Array, { level: 0 | 6 }]> = { [LIST]: [strToU8(JSON.stringify(list)), { level: 6 }] };
  for (const p of photos) files[`photos/${p.id}`] = [new Uint8Array(await p.picture.arrayBuffer()), { level: 0 }];
  return { file: new Blob([new Uint8Array(zipSync(files))], { type: "application/zip" }), edits: own.length, photos: photos.length };
};

/** Whether a file is one of these, by its first entry. */
export const isUnsentFile = async (file: Blob): Promise<boolean> => {
  const head = new Uint8Array(await file.slice(0, 30 + LIST.length).arrayBuffer());
  return head[0] === 0x50 && head[1] === 0x4b && strFromU8(head.subarray(30)) === LIST;
};

/** Reads such a file. @throws Error with a sentence where it is damaged or none. */
export const readUnsent = async (file: Blob): Promise<Unsent> => {
  if (file.size > MOST_FILE_BYTES) throw new Error("The file is larger than 1 GB: that is none that a phone made.");
  let entries: Readonly<Record<string, Uint8Array>>;
  let list: z.output<typeof listSchema>;
  try {
    entries = unzipSync(new Uint8Array(await file.arrayBuffer()), {
      filter: (f) => f.originalSize <= (f.name === LIST ? MOST_LIST_BYTES : MOST_PHOTO_BYTES),
    });
  } catch {
    throw new Error("The file is damaged: it cannot be unpacked. Take it out of the phone once more.");
  }
  try {
    list = listSchema.parse(JSON.parse(strFromU8(entries[LIST] ?? new Uint8Array())));
  } catch (error) {
    const [issue] = error instanceof z.ZodError ? error.issues : [];
    throw new Error(
      `The file is not as a phone writes it${issue === undefined ? "" : ` (${issue.path.join(".")}: ${issue.message})`}. Nothing was brought in.`,
    );
  }
  const photos = list.photos.map(({ type, ...p }) => {
    const bytes = entries[`photos/${p.id}`];
    if (bytes === undefined) throw new Error("A photo that the file names is not in it. Take it out of the phone once more.");
    return { ...p, picture: new Blob([new Uint8Array(bytes)], { type }) };
  });
  return { madeAt: list.madeAt, edits: list.edits, photos };
};
