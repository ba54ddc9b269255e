"use client";
import Link from "next/link";
import { type LinkDto, recordPath } from "@/contract";
import { TOLD_SIGMA_M } from "@/core/link";
import { bodyOf } from "../../api/client";
import { useRefresh } from "../../api/queries";
import { sendEdit } from "../../state/browser-outbox";
import { errorSentence } from "../../wording/errors";
import type { Units } from "../../wording/numbers";

/** Of a design that was chosen to start with. */
export const StartNote = ({ works, look }: { works: boolean; look: () => void }) => (
  <section aria-label="A first design" className="border-b border-rule py-2.5" data-testid="first-design">
    <h3 className="m-0 mb-0.5 text-body font-heading">A first design</h3>
    <p className="m-0 text-body leading-[18px]">
      {works
        ? "The smallest radio that works at this length, on a channel without radar duty, with power just enough. It is a start, not a choice."
        : "No radio of the catalogue works at this length as the rules stand; this one comes nearest. It is a start, not a choice."}
    </p>
    <button type="button" className="press mt-1.5 text-body" onClick={look}>
      Look at the gear
    </button>
  </section>
);

/** Ways out of not knowing the ground: say that it is flat, type heights, bring a file. */
export const GroundWays = ({ jobId, link, say, units }: { jobId: string; link: LinkDto; say: (words: string) => void; units: Units }) => {
  const refresh = useRefresh();
  const flat = async (): Promise<void> => {
    const groundTold = { kind: "level", sigmaM: TOLD_SIGMA_M, points: [{ distanceM: 0, heightAmslM: 0 }] };
    try {
      await sendEdit(jobId, "PATCH", recordPath(jobId, "link", link.id), { version: link.version, groundTold });
      say("Taken as flat. Undo takes it back; terrain that is brought in counts once it is chosen again under Ground.");
    } catch (error) {
      say(errorSentence(bodyOf(error), units));
    }
    await refresh(jobId);
  };
  const ground = (open: string): string => `/jobs/${jobId}/ground?link=${link.id}&beside=${open}`;
  return (
    <div className="mt-1.5 grid justify-items-start gap-1.5 text-body">
      <button type="button" className="press" onClick={() => void flat()}>
        It is flat
      </button>
      <Link prefetch={false} className="press text-ink" href={ground("told")}>
        Type its heights
      </Link>
      <Link prefetch={false} className="press text-ink" href={ground("import")}>
        Bring in a terrain file
      </Link>
    </div>
  );
};
