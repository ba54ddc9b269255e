"use client";
import type { JobBundle } from "@/contract";
import { countText } from "../../../wording/gear";
import { oneTypeHolds, oneTypeWords } from "./one-type-words";
import type { OneTypeState } from "./use-one-type";

/** What became of one type for all links: how far it is looked for, what it costs, whether it holds. */
export const OneTypeLine = ({
  state: { found, progress, fault },
  mostEur,
  job,
  elsewhere,
}: {
  state: OneTypeState;
  mostEur: number | null;
  job: JobBundle | undefined;
  /** Takes it on other links; null while none of it stands here. */
  elsewhere: (() => void) | null;
}) => {
  if (mostEur === null || job === undefined) return null;
  const siteName = (id: string): string => job.sites.find((s) => s.id === id)?.name ?? "";
  const linkName = (id: string): string => {
    const link = job.links.find((l) => l.id === id);
    return link === undefined ? "a link that is gone" : `${siteName(link.nearSiteId)} to ${siteName(link.farSiteId)}`;
  };
  return (
    <p className="m-0 border-t border-rule px-4 py-1.5 text-line leading-5" role="status" data-testid="one-type">
      <strong className="font-figure">One type for all links: </strong>
      {fault ??
        (found === null
          ? "being worked out"
          : `${oneTypeWords(found, mostEur, linkName)}${progress === null ? "" : " Being looked at again"}`)}
      {progress !== null && (
        <>
          , {countText(progress.done, "link", "links")} of {progress.total} looked at{" "}
          <progress value={progress.done} max={Math.max(1, progress.total)} aria-label="Links looked at" />
        </>
      )}
      {oneTypeHolds(found, mostEur) && elsewhere !== null && (
        <>
          {" "}
          <button type="button" className="press text-line" onClick={elsewhere}>
            Take it on other links
          </button>
        </>
      )}
    </p>
  );
};
