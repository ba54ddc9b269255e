"use client";
import { useHere } from "../state/job-news";
import { OPEN_WORD } from "../wording/people";

const MOST = 3;

/** Who else has this job open, and on which sheet: said quietly, at the foot of the index. */
export const OthersHere = ({ jobId }: { jobId: string }) => {
  const others = useHere(jobId);
  return (
    <div role="status">
      {others.length > 0 && (
        <ul aria-label="Also here" className="m-0 -mx-1.5 mb-2 list-none p-0 text-note leading-[15px]">
          {others.slice(0, MOST).map((o) => (
            <li key={`${o.name} ${o.sheet}`} title={`${o.name} has ${OPEN_WORD[o.sheet]} open`}>
              <span className="block truncate font-figure">{o.name}</span> <span className="text-ink-2">on {OPEN_WORD[o.sheet]}</span>
            </li>
          ))}
          {others.length > MOST && <li className="text-ink-2">and {others.length - MOST} more</li>}
        </ul>
      )}
    </div>
  );
};
