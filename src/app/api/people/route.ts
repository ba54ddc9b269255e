import { parseBody } from "@/app/_server/body";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { nameSchema } from "@/contract";
import { peopleOf, renameFirm } from "@/service/people/people";

/** Who is of the firm, who was invited, and which phones come in. */
export const GET = (request: Request): Promise<Response> => handle(request, "see-people", () => peopleOf(doors()));

/** Gives the firm a name. */
export const PATCH = (request: Request): Promise<Response> =>
  handle(request, "edit-people", async () => {
    const { name } = await parseBody(request, nameSchema);
    await renameFirm(doors(), name);
    return peopleOf(doors());
  });
