import { randomUUID } from "node:crypto";
import { strToU8, zipSync } from "fflate";
import { describe, expect, test } from "vitest";
import { recordPath } from "@/contract";
import { seededRandom } from "@/core/units";
import type { Edit } from "./outbox";
import { isUnsentFile, packUnsent, readUnsent } from "./unsent-file";

const jobId = randomUUID();
const siteId = randomUUID();
const AT = "2026-12-01T10:15:00.000Z";
const edit = (more: Partial<Edit> = {}): Edit => ({
  id: randomUUID(),
  jobId,
  method: "PATCH",
  path: recordPath(jobId, "site", siteId),
  body: { version: 3, mountAglM: 14 },
  person: randomUUID(),
  ...more,
});
const photo = (bytes = [0xff, 0xd8, 0xff, 1, 2, 3]) => ({
  id: randomUUID(),
  jobId,
  about: { siteId, fromWhere: "ground" as const, bearingDeg: 271.5, takenOn: "2026-12-01", note: "mast" },
  picture: new Blob([new Uint8Array(bytes)], { type: "image/jpeg" }),
  takenAtMs: 1_796_000_000_000,
});
const bytesOf = async (b: Blob): Promise<number[]> => [...new Uint8Array(await b.arrayBuffer())];

describe("what was not sent, as a file", () => {
  test("comes back edit for edit in their order and photo for photo, without who made them", async () => {
    const edits = [
      edit({ method: "POST", path: recordPath(jobId, "site", "").slice(0, -1), body: { id: siteId, name: "Skerry" } }),
      edit(),
      edit(),
    ];
    const photos = [photo(), photo([0xff, 0xd8, 0xff, 9])];
    const packed = await packUnsent(edits, photos, AT);
    expect([packed.edits, packed.photos]).toEqual([3, 2]);
    expect(await isUnsentFile(packed.file)).toBe(true);
    const back = await readUnsent(packed.file);
    expect(back.madeAt).toBe(AT);
    expect(back.edits).toEqual(edits.map(({ person: _p, ...e }) => e));
    expect(back.photos.map(({ picture: _p, ...p }) => p)).toEqual(photos.map(({ picture: _p, ...p }) => p));
    expect(await Promise.all(back.photos.map((p) => bytesOf(p.picture)))).toEqual(await Promise.all(photos.map((p) => bytesOf(p.picture))));
    expect(back.photos[0]!.picture.type).toBe("image/jpeg");
  });

  test("holds nothing that crews may not write, and brings nothing of the kind in", async () => {
    const foreign = [
      edit({ path: recordPath(jobId, "link", randomUUID()) }),
      edit({ path: `/api/jobs/${jobId}` }),
      edit({ method: "POST", path: `/api/jobs/${jobId}/undo`, body: {} }),
      edit({ path: recordPath(randomUUID(), "site", siteId) }),
      edit({ path: "/api/people" }),
      edit({ path: `/api/jobs/${jobId}/sites/../../people` }),
      edit({ method: "DELETE" }),
    ];
    expect((await packUnsent(foreign, [], AT)).edits).toBe(0);
    for (const e of foreign) {
      const list = { format: "dry-arc-unsent", version: 1, madeAt: AT, edits: [e], photos: [] };
      const file = new Blob([new Uint8Array(zipSync({ "unsent.json": strToU8(JSON.stringify(list)) }))]);
      await expect(readUnsent(file), e.path).rejects.toThrow("Nothing was brought in");
    }
  });

  test("a job's own file is none of these, and neither is an empty or a foreign one", async () => {
    expect(await isUnsentFile(new Blob([new Uint8Array(zipSync({ "job.json": strToU8("{}") }))]))).toBe(false);
    expect(await isUnsentFile(new Blob([]))).toBe(false);
    expect(await isUnsentFile(new Blob(["PK but no zip, though unsent.json is in it"]))).toBe(false);
  });

  test("a photo that is named and not there is said, and nothing is brought in without it", async () => {
    const { picture: _p, ...one } = photo();
    const list = { format: "dry-arc-unsent", version: 1, madeAt: AT, edits: [edit()], photos: [{ ...one, type: "image/jpeg" }] };
    const file = new Blob([new Uint8Array(zipSync({ "unsent.json": strToU8(JSON.stringify(list)) }))]);
    await expect(readUnsent(file)).rejects.toThrow("A photo that the file names is not in it");
  });

  test("400 spoilt ones: each is read as it was, or refused in a sentence", async () => {
    const packed = await packUnsent([edit(), edit()], [photo()], AT);
    const whole = await bytesOf(packed.file);
    const random = seededRandom(17);
    let refused = 0;
    for (let i = 0; i < 400; i++) {
      const bytes = new Uint8Array(whole);
      for (let k = 0; k <= i % 4; k++) bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
      const cut = i % 5 === 0 ? bytes.subarray(0, Math.floor(random() * bytes.length)) : bytes;
      await readUnsent(new Blob([new Uint8Array(cut)])).then(
        (read) => {
          expect(read.edits.length).toBe(2);
          expect(read.photos.length).toBe(1);
        },
        (error: unknown) => {
          refused++;
          expect((error as Error).message).toMatch(/^(The file|A photo that the file names) .*\.$/);
        },
      );
    }
    expect(refused).toBeGreaterThan(100);
  });
});
