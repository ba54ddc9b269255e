import { parseBody } from "@/app/_server/body";
import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { memberPatchSchema, uuid } from "@/contract";
import { peopleOf, setMember } from "@/service/people/people";

/** Says what is open to somebody, or ends their being of the firm. */
export const PATCH = (request: Request, { params }: { params: Promise<{ memberId: string }> }): Promise<Response> =>
  handle(request, "edit-people", async () => {
    await setMember(doors(), uuid.parse((await params).memberId), await parseBody(request, memberPatchSchema));
    return peopleOf(doors());
  });
