"use client";
import { useHardware, useLink, useProfile } from "../../api/queries";
import { lazyPart } from "../../controls/lazy-part";
import { useJobNews } from "../../state/job-news";
import type { SectionReadyProps } from "./section-ready";
import { SectionWaiting } from "./section-waiting";

/** The core, which works out what is shown, comes while what it reads is on its way; the verdict that is known stands there meanwhile. */
const SectionReady = lazyPart<SectionReadyProps>(() => import("./section-ready").then((m) => m.SectionReady), SectionWaiting, true);

/** Reads what the section needs; the sheet itself opens when all of it is here. */
export const SectionSheet = ({ jobId, linkId }: { jobId: string; linkId: string }) => {
  useJobNews(jobId);
  const link = useLink(jobId, linkId);
  const profile = useProfile(jobId, linkId);
  const hardware = useHardware();
  const [bundle, path, gear] = [link.data, profile.data, hardware.data];
  const read = bundle === undefined || path === undefined || gear === undefined ? null : { jobId, bundle, profile: path, hardware: gear };
  const trouble = [link, profile, hardware].map((q) => q.error ?? q.failureReason).find((e) => e !== null);
  return <SectionReady jobId={jobId} linkId={linkId} read={read} trouble={trouble} />;
};
