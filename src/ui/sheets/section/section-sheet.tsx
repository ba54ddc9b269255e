"use client";
import { useHardware, useLink, useProfile } from "../../api/queries";
import { lazyCode } from "../../controls/lazy-part";
import { useJobNews } from "../../state/job-news";
import { SectionWaiting } from "./section-waiting";

/** The core, which works out what is shown, comes while what it reads is on its way; the verdict that is known stands there meanwhile. */
const useSectionOpen = lazyCode(() => import("./section-open").then((m) => m.SectionOpen));

/** Reads what the section needs; the sheet itself opens when all of it is here. */
export const SectionSheet = ({ jobId, linkId }: { jobId: string; linkId: string }) => {
  useJobNews(jobId, "section");
  const link = useLink(jobId, linkId);
  const profile = useProfile(jobId, linkId);
  const hardware = useHardware();
  const { Here: SectionOpen, failed, again } = useSectionOpen();
  const [bundle, path, gear] = [link.data, profile.data, hardware.data];
  if (SectionOpen !== null && bundle !== undefined && path !== undefined && gear !== undefined)
    return <SectionOpen key={bundle.link.design.id} jobId={jobId} bundle={bundle} profile={path} hardware={gear} />;
  const trouble = [link, profile, hardware].map((q) => q.error ?? q.failureReason).find((e) => e !== null);
  return <SectionWaiting jobId={jobId} linkId={linkId} trouble={trouble} again={failed ? again : null} />;
};
