import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
import { z } from "zod";

/** What a backup says of itself. */
export const manifestSchema = z.strictObject({
  format: z.literal("dry-arc backup"),
  version: z.literal(1),
  /** ISO 8601: the moment whose state it holds. */
  made: z.iso.datetime(),
  /** Rows by table. */
  rows: z.record(z.string(), z.int().min(0)),
  database: z.strictObject({ bytes: z.int().min(0), sha256: z.hex().length(64) }),
  /** Files that came in or lie beneath a drawing, by their ids. */
  files: z.array(z.strictObject({ id: z.uuid(), bytes: z.int().min(0), sha256: z.hex().length(64) })),
  /** Says which key seals what is sealed in it, and nothing of the key. */
  key: z.string(),
});
export type Manifest = z.output<typeof manifestSchema>;

export const hashFile = async (file: string): Promise<string> => {
  const hash = createHash("sha256");
  for await (const part of createReadStream(file)) hash.update(part as Buffer);
  return hash.digest("hex");
};
