import { db } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { uuid } from "@/contract";
import { getLink } from "@/data/jobs";
import { endPositions, profileDto, profileOf } from "@/service/profile";

type Context = { params: Promise<{ linkId: string }> };

export const GET = (request: Request, { params }: Context): Promise<Response> =>
  handle(request, "read", async () => {
    const { link, job, near, far } = await getLink(db(), uuid.parse((await params).linkId));
    const ends = endPositions(link, near, far);
    return profileDto(await profileOf(db(), job, link, near, far), job, ends.near, ends.far);
  });
