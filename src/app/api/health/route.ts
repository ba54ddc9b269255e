import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { ping } from "@/data/health";

export const GET = (request: Request): Promise<Response> => handle(request, "read", () => ping(db()));
