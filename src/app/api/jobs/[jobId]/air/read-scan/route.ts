import { parseBody } from "@/app/_server/body";
import { handleJob } from "@/app/_server/handle";
import { type ReadScanDto, readScanSchema } from "@/contract";
import { readScan } from "@/formats";

/** Reads the text of a scan and says what it holds. Nothing is kept. */
export const POST = (request: Request, { params }: { params: Promise<{ jobId: string }> }): Promise<Response> =>
  handleJob(request, "edit-records", params, async (): Promise<ReadScanDto> => {
    const { text, withoutNames } = await parseBody(request, readScanSchema);
    return readScan(text, withoutNames);
  });
