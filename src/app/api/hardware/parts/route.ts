import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { partsDto } from "@/service/dto";

/** Sheets of what is wired beside the radios. */
export const GET = (request: Request): Promise<Response> => handle(request, "read", () => partsDto(db()));
