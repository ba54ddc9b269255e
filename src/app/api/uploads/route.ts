import { handle } from "@/app/_server/handle";
import { beginUpload } from "@/app/_server/uploads";

/** A whole job on its way in: it belongs to no job yet. */
export const POST = (request: Request): Promise<Response> => handle(request, "plan", () => beginUpload(request, null));
