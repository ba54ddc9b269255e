import { isProblem, mountPosition, planOf } from "../contract";
import type { LatLon } from "../core/geo";
import type { LinkPlan } from "../core/link";
import { Refused } from "../data/clash";
import type { Db } from "../data/client";
import { getLink } from "../data/jobs";
import { hardwareDto, jobDto, linkDto } from "./dto";

/** A link as a solver is asked about it: its rows, its plan, where its ends stand. */
export interface Asked {
  readonly link: Awaited<ReturnType<typeof getLink>>;
  readonly plan: LinkPlan;
  readonly near: LatLon;
  readonly far: LatLon;
}

export const askedOf = async (db: Db, linkId: string): Promise<Asked> => {
  const found = await getLink(db, linkId);
  const { job, link, near, far } = found;
  const plan = planOf(jobDto(job), near, far, linkDto(link).design, await hardwareDto(db), linkDto(link).groundTold);
  if (isProblem(plan)) throw new Refused(plan.code, "radio", { id: plan.id });
  return { link: found, plan, near: mountPosition(near, link.design.nearMountId), far: mountPosition(far, link.design.farMountId) };
};
