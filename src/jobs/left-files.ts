import type { Db } from "../data/client";
import { heldFiles, removeFile } from "../data/files";
import { forgetOldUploads, goneUploads } from "../data/imports";
import { logFault } from "../data/log";

/**
 * Takes away the files that nothing asks for any more: those that are forgotten now, and those that were forgotten
 * before while their process ended between the row and the file.
 * @param unusedHours a file that was sent and never used is kept so long.
 */
export const removeLeftFiles = async (db: Db, unusedHours: number): Promise<void> => {
  await forgetOldUploads(db, unusedHours);
  for (const id of await goneUploads(db, await heldFiles())) await removeFile(id).catch((e: unknown) => logFault("files", e));
};
