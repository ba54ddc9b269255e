import { type HardwareDto, isProblem, type ProfileDto, planOf } from "@/contract";
import type { LinkPlan } from "@/core/link";
import { getJson } from "../../../api/client";
import type { LinkBundle } from "../../../api/queries";

/** Another link of the job, as its rack needs it. */
export type OtherLink =
  | { readonly kind: "no-need" }
  /** One of its radios is not in the catalogue any more. */
  | { readonly kind: "no-radio" }
  | {
      readonly kind: "plan";
      readonly plan: LinkPlan;
      readonly bundle: LinkBundle;
      readonly needMbps: number;
      /** Its path, sampled when it is asked for. */
      readonly path: () => Promise<ProfileDto>;
    };

/** @throws ApiError when the link cannot be read. */
export const readOtherLink = async (jobId: string, linkId: string, hardware: HardwareDto): Promise<OtherLink> => {
  const bundle = await getJson<LinkBundle>(`/api/jobs/${jobId}/links/${linkId}`);
  const { job, link, near, far } = bundle;
  const needMbps = (link.design.needToFarMbps ?? 0) + (link.design.needToNearMbps ?? 0);
  if (needMbps === 0) return { kind: "no-need" };
  const plan = planOf(job, near, far, link.design, hardware, link.groundTold);
  if (isProblem(plan)) return { kind: "no-radio" };
  const path = (): Promise<ProfileDto> => getJson<ProfileDto>(`/api/jobs/${jobId}/links/${linkId}/profile`);
  return { kind: "plan", plan, bundle, needMbps, path };
};
