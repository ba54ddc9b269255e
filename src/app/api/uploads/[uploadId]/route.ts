import { handle } from "@/app/_server/handle";
import { takeUploadPiece, uploadState } from "@/app/_server/uploads";

type Context = { params: Promise<{ uploadId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "plan", async () => uploadState((await params).uploadId, null));

export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "plan", async () => takeUploadPiece(request, (await params).uploadId, null));
