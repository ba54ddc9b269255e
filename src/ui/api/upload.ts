import { PIECE_BYTES, type UploadDto } from "@/contract";
import { ApiError, getJson, mayRecover, postJson, putPiece } from "./client";

const RETRY_MS = 1500;
const MOST_RETRIES = 20;

const wait = (ms: number, signal: AbortSignal): Promise<void> =>
  new Promise((resolve, reject) => {
    const timer = setTimeout(resolve, ms);
    signal.addEventListener("abort", () => {
      clearTimeout(timer);
      reject(new ApiError(0, { code: "stopped" }));
    });
  });

/**
 * Sends a file piece by piece; a server that goes away is waited for, and sending goes on where it broke off.
 * @returns the file's id on the server. @throws ApiError, with code "stopped" when the signal was given.
 */
export const uploadFile = async (
  jobId: string | null,
  file: File,
  onShare: (share: number) => void,
  signal: AbortSignal,
): Promise<string> => {
  const base = jobId === null ? "/api/uploads" : `/api/jobs/${jobId}/uploads`;
  const { id } = await postJson<UploadDto>(base, { name: file.name, sizeBytes: file.size });
  let at = 0;
  let retries = 0;
  while (at < file.size) {
    if (signal.aborted) throw new ApiError(0, { code: "stopped" });
    try {
      const got = await putPiece<UploadDto>(`${base}/${id}?at=${at}`, file.slice(at, at + PIECE_BYTES), signal);
      at = got.receivedBytes;
      retries = 0;
      onShare(at / file.size);
    } catch (error) {
      if (signal.aborted) throw new ApiError(0, { code: "stopped" });
      if (!mayRecover(error) || ++retries > MOST_RETRIES) throw error;
      await wait(RETRY_MS, signal);
      at = await getJson<UploadDto>(`${base}/${id}`, signal)
        .then((u) => u.receivedBytes)
        .catch(() => at);
    }
  }
  return id;
};
