import { originOf } from "@/app/_server/come-in";
import { handle } from "@/app/_server/handle";
import { openApi } from "@/contract";

/** What programs may ask of this server, as OpenAPI 3.1 has it. */
export const GET = (request: Request): Promise<Response> => handle(request, "see-jobs", async () => openApi(originOf(request)));
