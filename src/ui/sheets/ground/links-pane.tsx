"use client";
import type { LinkVerdict, SiteDto } from "@/contract";
import { Trouble } from "../../frame/trouble";
import type { Units } from "../../wording/numbers";
import { LinkList } from "./link-list";

/** The links of the job, worst first, and under them its sites. */
export const LinksPane = ({
  shown,
  verdicts,
  trouble,
  selectedId,
  units,
  choose,
  sites,
  sitesShown,
  openSite,
}: {
  /** Kept while a form is open, so that its place is not lost. */
  shown: boolean;
  verdicts: readonly LinkVerdict[] | undefined;
  trouble: unknown;
  selectedId: string | null;
  units: Units;
  choose: (linkId: string) => void;
  sites: readonly SiteDto[];
  sitesShown: boolean;
  openSite: (siteId: string) => void;
}) => {
  const rows = verdicts ?? [];
  return (
    <div className={`min-h-0 flex-1 overflow-auto ${shown ? "" : "hidden"}`}>
      <div className="flex items-baseline justify-between border-b border-ink px-3.5 pb-1 pt-2.5">
        <h2 className="m-0 text-press font-bold">Links</h2>
        <span className="cap">{rows.length === 0 ? "none yet" : `${rows.length}, worst first`}</span>
      </div>
      {verdicts === undefined && <Trouble error={trouble} waiting="Judging the links." />}
      <LinkList verdicts={rows} selectedId={selectedId} units={units} choose={choose} />
      {sitesShown && (
        <details className="border-b border-rule px-3.5 py-2">
          <summary className="cursor-pointer text-press font-bold">Sites, {sites.length}</summary>
          {sites.map((s) => (
            <button key={s.id} type="button" className="block w-full truncate py-[3px] text-left" onClick={() => openSite(s.id)}>
              {s.name}
            </button>
          ))}
        </details>
      )}
      {sites.length === 0 && (
        <p className="px-3.5 text-ink-2">No site yet. Choose Place a site and press where the first building stands.</p>
      )}
    </div>
  );
};
