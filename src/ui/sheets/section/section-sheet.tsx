"use client";
import { useHardware, useLink, useProfile } from "../../api/queries";
import { Trouble } from "../../frame/trouble";
import { SectionOpen } from "./section-open";

/** Reads what the section needs; the sheet itself opens when all of it is here. */
export const SectionSheet = ({ jobId, linkId }: { jobId: string; linkId: string }) => {
  const link = useLink(jobId, linkId);
  const profile = useProfile(jobId, linkId);
  const hardware = useHardware();
  if (link.data !== undefined && profile.data !== undefined && hardware.data !== undefined) {
    return <SectionOpen key={link.data.link.design.id} jobId={jobId} bundle={link.data} profile={profile.data} hardware={hardware.data} />;
  }
  const trouble = [link, profile, hardware].map((q) => q.error ?? q.failureReason).find((e) => e !== null);
  return (
    <div className="h-dvh p-2">
      <div className="h-full border-[1.6px] border-ink">
        <Trouble error={trouble} waiting="Sampling the ground between the two ends." />
      </div>
    </div>
  );
};
