import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { getLink } from "@/data/jobs";
import { profileBetween, profileDto } from "@/service/profile";

type Context = { params: Promise<{ linkId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => {
    const { job, near, far } = await getLink(db(), uuid.parse((await params).linkId));
    return profileDto(await profileBetween(db(), job, near, far), job, near, far);
  });
