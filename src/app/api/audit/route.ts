import { z } from "zod";
import { parseQuery } from "@/app/_server/body";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { auditLines } from "@/service/people/people";

const asked = z.object({ before: z.coerce.number().int().positive().optional() });

/** Who did what with people, phones, and what left the house; newest first. */
export const GET = (request: Request): Promise<Response> =>
  handle(request, "see-people", () => auditLines(doors(), parseQuery(request, asked).before));
